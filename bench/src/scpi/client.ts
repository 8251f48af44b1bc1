// One instrument over whatever way leads to it: a queue, time limits, its error queue, and coming back after a lost connection.
import { AsyncLocalStorage } from 'node:async_hooks';
import { numbersFrom } from '@lastmark/core/instrument';
import type { Line } from '../ways/way.ts';
import { type Gate, type LinkState, type Manner, ScpiError, type ScpiOptions, type Traffic } from './manner.ts';
import { type Reply, ReplyReader } from './reply.ts';

/** A question on the wire. Times are those of this process, ms. */
interface Asked {
  readonly job: Job;
  timer: NodeJS.Timeout;
  readonly asked: number;
  timeout: number;
  due: number;
  /** It was given its time once more. */
  spared: boolean;
}

interface Job extends Manner {
  readonly command: string;
  readonly wantsReply: boolean;
  /** Says, as whoever asked for it, that it is on the wire. */
  readonly tell: () => void;
  readonly resolve: (reply: Reply | null) => void;
  readonly reject: (error: ScpiError) => void;
}

/** A time that was up so long before anybody looked says nothing about the instrument, ms. */
const STOOD_STILL_MILLISECONDS = 100;
const MOST_TRAFFIC = 500;
/** Lines of the steady asking that are kept: enough to see it, too few to push out what people said. */
const MOST_STEADY = 60;
/** A long record is made ready in so many times the time a line may take. */
const MAKING_READY = 5;
/** Most entries taken off an instrument's error queue at once: a broken one may never say it is empty. */
const MOST_ERRORS = 20;
/** Most commands that may wait; one more is refused. */
const MOST_WAITING = 1000;
/** An entry of an error queue: a number, and mostly its words. SCPI-1999, volume 2, 21.8 */
const ERROR_ENTRY = /^[+-]?\d+\s*(,|$)/;

/**
 * A connection that belongs to one instrument. Commands run one at a time in the order they were asked for, save urgent
 * ones, which go to the front: "load off" never waits behind a queue of readings.
 */
export class ScpiClient {
  readonly #options: Required<ScpiOptions>;
  #line: Line | null = null;
  #state: LinkState = 'down';
  #reader = new ReplyReader();
  #queue: Job[] = [];
  #current: Asked | null = null;
  #resting = false;
  #pause: number;
  #again: NodeJS.Timeout | null = null;
  #traffic: Traffic[] = [];
  #steady: Traffic[] = [];
  #listeners = new Set<(state: LinkState) => void>();

  constructor(options: ScpiOptions) {
    this.#options = {
      timeout: 2000,
      firstPause: 200,
      longestPause: 10_000,
      longestBlock: 60_000,
      end: '\n',
      errors: 'SYST:ERR?',
      pauseAfter: 0,
      hello: [],
      onCommand: () => undefined,
      ...options,
    };
    this.#pause = this.#options.firstPause;
  }

  get state(): LinkState {
    return this.#state;
  }

  /** The last lines that went either way, oldest first. */
  get traffic(): readonly Traffic[] {
    return [...this.#traffic, ...this.#steady].sort((a, b) => a.at - b.at);
  }

  /** Be told when the connection comes up or is lost. @returns how to stop */
  onState(listener: (state: LinkState) => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Connect now, and keep connecting again until {@link close}. */
  open(): void {
    if (this.#state !== 'down') return;
    if (this.#again) clearTimeout(this.#again);
    this.#become('connecting');
    this.#reader = new ReplyReader(this.#options.end === '\r' ? 'CR' : 'LF');
    const line = this.#begin();
    if (!line) return;
    this.#line = line;
    line.onData((piece) => {
      if (this.#line === line) this.#take(piece);
    });
    line.onError((error) => this.#note(error.message));
    line.onClose(() => {
      if (this.#line === line) this.#lost();
    });
    line.onOpen(() => {
      if (this.#line !== line) return;
      for (const words of this.#options.hello) {
        this.#write(words, false);
        if (!words.includes('?')) this.#options.onCommand(words);
      }
      this.#become('up');
      this.#next();
    });
  }

  /** A connection on its way; null for an address none can be begun with, which is as good as nobody there. */
  #begin(): Line | null {
    try {
      return this.#options.way();
    } catch (error) {
      this.#note(error instanceof Error ? error.message : 'no address');
      this.#lost();
      return null;
    }
  }

  /** Send a command that has no reply. It resolves once the command is on the wire. @throws ScpiError */
  async write(command: string, manner: Manner = {}): Promise<void> {
    await this.#ask(command, false, manner);
  }

  /** Send a query and wait for its line. @throws ScpiError */
  async query(command: string, manner: Manner = {}): Promise<string> {
    const reply = await this.#ask(command, true, manner);
    if (reply?.kind !== 'line') throw new ScpiError('garbled', `${command} was answered with a block.`);
    return reply.text;
  }

  /**
   * Send a query and wait for its binary block. A long record is made ready before it is sent: until its first piece comes, it
   * may take five times as long as a line. @throws ScpiError
   */
  async queryBlock(command: string): Promise<Uint8Array> {
    const reply = await this.#ask(command, true, { timeout: MAKING_READY * this.#options.timeout });
    if (reply?.kind !== 'block') throw new ScpiError('garbled', `${command} was answered with a line, not a block.`);
    return reply.bytes;
  }

  /** Numbers of a comma-separated reply; what is no number is NaN, as SCPI's own "not a number" 9.91E37 is. */
  async queryNumbers(command: string): Promise<number[]> {
    return numbersFrom(await this.query(command));
  }

  /** Empty the instrument's error queue. @returns its entries, oldest first. SCPI-1999, volume 2, 21.8 */
  async drainErrors(): Promise<string[]> {
    const errors: string[] = [];
    const question = this.#options.errors;
    if (question === null) return errors;
    while (errors.length < MOST_ERRORS) {
      const entry = await this.query(question);
      if (!ERROR_ENTRY.test(entry.trim())) {
        // The answer to something else: every later one would be shifted too.
        this.#drop();
        throw new ScpiError('garbled', `${question} was answered with "${entry.slice(0, 40)}".`);
      }
      if (/^[+-]?0\b/.test(entry)) break;
      errors.push(entry);
    }
    return errors;
  }

  /** Send a command and read back whether the instrument took it. @throws ScpiError with the instrument's own words */
  async confirm(command: string, gate?: Gate): Promise<void> {
    await this.write(command, gate ? { gate } : {});
    const errors = await this.drainErrors();
    if (errors.length > 0) throw new ScpiError('instrument', `${command}: ${errors.join('; ')}`);
  }

  /** Close for good. What waits is refused. */
  close(): void {
    this.#become('closed');
    if (this.#again) clearTimeout(this.#again);
    this.#end();
    this.#refuseAll(new ScpiError('closed', 'The connection was closed.'));
  }

  #ask(command: string, wantsReply: boolean, manner: Manner): Promise<Reply | null> {
    if (this.#state === 'closed') return Promise.reject(new ScpiError('closed', 'The connection was closed.'));
    if (this.#state === 'down') return Promise.reject(new ScpiError('down', 'The instrument is not connected.'));
    if (this.#queue.length >= MOST_WAITING && !manner.urgent)
      return Promise.reject(new ScpiError('barred', `${MOST_WAITING} commands wait already.`));
    return new Promise((resolve, reject) => {
      const tell = wantsReply ? () => undefined : this.#teller(command);
      const job: Job = { ...manner, command, wantsReply, tell, resolve, reject };
      if (job.urgent && !wantsReply && this.#state === 'up') {
        // Straight to the wire: an instrument reads what comes while it prepares a reply.
        this.#say(job);
        resolve(null);
        return;
      }
      if (job.urgent) this.#queue.unshift(job);
      else this.#queue.push(job);
      this.#next();
    });
  }

  #teller(command: string): () => void {
    const asAsker = AsyncLocalStorage.snapshot();
    return () => asAsker(this.#options.onCommand, command);
  }

  #next(): void {
    while (this.#state === 'up' && !this.#current && !this.#resting) {
      const job = this.#queue.shift();
      if (!job) return;
      const barred = job.gate?.() ?? null;
      if (barred !== null) {
        job.reject(new ScpiError('barred', barred));
        continue;
      }
      this.#say(job);
      if (!job.wantsReply) {
        job.resolve(null);
        if (this.#options.pauseAfter > 0) this.#holdOn();
        continue;
      }
      const asked = performance.now();
      const { timeout = this.#options.timeout } = job;
      const timer = setTimeout(() => this.#late(), timeout);
      this.#current = { job, timer, asked, timeout, due: asked + timeout, spared: false };
    }
  }

  /**
   * After an answer the wire is looked at once more before the next question: a line that came with it and that nobody
   * asked for is then seen as one, and never taken for the next answer.
   */
  #rest(): void {
    this.#resting = true;
    setImmediate(() =>
      setImmediate(() => {
        this.#resting = false;
        this.#next();
      }),
    );
  }

  /** An instrument that needs a moment after a command gets it; what is urgent does not wait for it. */
  #holdOn(): void {
    this.#resting = true;
    setTimeout(() => {
      this.#resting = false;
      this.#next();
    }, this.#options.pauseAfter);
  }

  #say({ command, steady = false, tell }: Job): void {
    for (const line of command.split('\n')) this.#write(line, steady);
    tell();
  }

  #write(line: string, steady: boolean): void {
    this.#record('out', line, steady);
    this.#line?.write(`${line}${this.#options.end}`);
  }

  #take(piece: Uint8Array): void {
    let replies: Reply[];
    try {
      replies = this.#reader.push(piece);
    } catch (error) {
      this.#note(error instanceof Error ? error.message : 'garbled');
      this.#drop();
      return;
    }
    for (const reply of replies) {
      const current = this.#current;
      const text = reply.kind === 'line' ? reply.text : `block of ${reply.bytes.length} bytes`;
      this.#record('in', text, current?.job.steady ?? false);
      if (!current) {
        this.#note('told what nobody asked; connecting again');
        this.#drop();
        return;
      }
      clearTimeout(current.timer);
      this.#current = null;
      this.#pause = this.#options.firstPause;
      this.#rest();
      current.job.resolve(reply);
    }
    // A block on its way is not late: its time starts anew with every piece, up to a limit. A line has its time once.
    const current = this.#current;
    if (current && this.#reader.inBlock && performance.now() - current.asked < this.#options.longestBlock) {
      // It has begun: from here on every piece is as quick as a line.
      clearTimeout(current.timer);
      current.timeout = this.#options.timeout;
      current.timer = setTimeout(() => this.#late(), current.timeout);
      current.due = performance.now() + current.timeout;
    }
  }

  /** No reply in time: what would come later would answer the wrong question, so the connection starts afresh. */
  #late(): void {
    const current = this.#current;
    if (!current) return;
    // This process stood still itself: an answer may lie there unread. The question has its time once more.
    if (!current.spared && performance.now() - current.due > STOOD_STILL_MILLISECONDS) {
      current.spared = true;
      current.timer.refresh();
      return;
    }
    this.#current = null;
    current.job.reject(
      new ScpiError('timeout', `${current.job.command} was not answered within ${current.timeout} ms.`),
    );
    this.#note('no answer in time; connecting again');
    this.#drop();
  }

  /** Give up this connection at once, whatever is still on its way. */
  #drop(): void {
    this.#end();
    this.#lost();
  }

  #end(): void {
    const line = this.#line;
    this.#line = null;
    line?.destroy();
  }

  #lost(): void {
    this.#line = null;
    if (this.#current) {
      clearTimeout(this.#current.timer);
      this.#current.job.reject(new ScpiError('down', `The connection was lost during ${this.#current.job.command}.`));
      this.#current = null;
    }
    this.#refuseAll(new ScpiError('down', 'The connection to the instrument was lost.'));
    if (this.#state === 'closed') return;
    this.#become('down');
    this.#again = setTimeout(() => this.open(), this.#pause);
    this.#pause = Math.min(this.#pause * 2, this.#options.longestPause);
  }

  #refuseAll(error: ScpiError): void {
    for (const job of this.#queue.splice(0)) job.reject(error);
  }

  #become(state: LinkState): void {
    if (this.#state === state) return;
    this.#state = state;
    for (const listener of this.#listeners) listener(state);
  }

  #note(text: string): void {
    this.#record('note', text);
  }

  #record(direction: Traffic['direction'], text: string, steady = false): void {
    const lines = steady ? this.#steady : this.#traffic;
    const most = steady ? MOST_STEADY : MOST_TRAFFIC;
    lines.push({ at: Date.now(), direction, text: text.slice(0, 400), steady });
    if (lines.length > most) lines.splice(0, lines.length - most);
  }
}
