// One instrument over raw TCP: a queue, time limits, its error queue, and coming back after a lost connection.
import { createConnection, type Socket } from 'node:net';
import { scpiNumber } from '@lastmark/core/instrument';
import { type Reply, ReplyReader } from './reply.ts';

export interface ScpiOptions {
  readonly host: string;
  readonly port: number;
  /** How long a reply may take, ms. */
  readonly timeout?: number;
  /** First pause before connecting again, ms; it doubles up to `longestPause`. */
  readonly firstPause?: number;
  readonly longestPause?: number;
}

export type LinkState = 'connecting' | 'up' | 'down' | 'closed';

/** Why a command failed: the connection, the time, or the instrument's own word. */
export class ScpiError extends Error {
  constructor(
    readonly kind: 'down' | 'timeout' | 'garbled' | 'instrument' | 'closed',
    message: string,
  ) {
    super(message);
  }
}

/** One line of traffic, for the console. */
export interface Traffic {
  readonly at: number;
  readonly direction: 'out' | 'in' | 'note';
  readonly text: string;
  /** Part of the steady asking for live numbers. */
  readonly steady: boolean;
}

interface Job {
  readonly steady: boolean;
  readonly command: string;
  readonly wantsReply: boolean;
  readonly resolve: (reply: Reply | null) => void;
  readonly reject: (error: ScpiError) => void;
}

const MOST_TRAFFIC = 500;
/** Lines of the steady asking that are kept: enough to see it, too few to push out what people said. */
const MOST_STEADY = 60;
/** Most entries taken off an instrument's error queue at once: a broken one may never say it is empty. */
const MOST_ERRORS = 20;

/**
 * A connection that belongs to one instrument. Commands run one at a time in the order they were asked for, save urgent
 * ones, which go to the front: "load off" never waits behind a queue of readings.
 */
export class ScpiClient {
  readonly #options: Required<ScpiOptions>;
  #socket: Socket | null = null;
  #state: LinkState = 'down';
  #reader = new ReplyReader();
  #queue: Job[] = [];
  #current: { job: Job; timer: NodeJS.Timeout } | null = null;
  #pause: number;
  #again: NodeJS.Timeout | null = null;
  #traffic: Traffic[] = [];
  #steady: Traffic[] = [];
  #listeners = new Set<(state: LinkState) => void>();

  constructor(options: ScpiOptions) {
    this.#options = { timeout: 2000, firstPause: 200, longestPause: 10_000, ...options };
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

  /** Connect, and keep connecting again until {@link close}. */
  open(): void {
    if (this.#state === 'up' || this.#state === 'connecting') return;
    this.#become('connecting');
    this.#reader = new ReplyReader();
    const { host, port } = this.#options;
    const socket = createConnection({ host, port });
    socket.setNoDelay(true);
    this.#socket = socket;
    socket.on('connect', () => {
      this.#pause = this.#options.firstPause;
      this.#become('up');
      this.#next();
    });
    socket.on('data', (piece) => this.#take(piece));
    socket.on('error', (error) => this.#note(error.message));
    socket.on('close', () => {
      if (this.#socket === socket) this.#lost();
    });
  }

  /** Send a command that has no reply. */
  async write(command: string, urgent = false): Promise<void> {
    await this.#ask(command, false, urgent);
  }

  /**
   * Send a query and wait for its line.
   * @param steady one of many that keep numbers live; few of them are kept as traffic
   * @throws ScpiError
   */
  async query(command: string, steady = false): Promise<string> {
    const reply = await this.#ask(command, true, false, steady);
    if (reply?.kind !== 'line') throw new ScpiError('garbled', `${command} was answered with a block.`);
    return reply.text;
  }

  /** Send a query and wait for its binary block. @throws ScpiError */
  async queryBlock(command: string): Promise<Uint8Array> {
    const reply = await this.#ask(command, true, false);
    if (reply?.kind !== 'block') throw new ScpiError('garbled', `${command} was answered with a line, not a block.`);
    return reply.bytes;
  }

  /** Numbers of a comma-separated reply; what is no number is NaN, as SCPI's own "not a number" 9.91E37 is. */
  async queryNumbers(command: string): Promise<number[]> {
    return (await this.query(command)).split(',').map(scpiNumber);
  }

  /** Empty the instrument's error queue. @returns its entries, oldest first. SCPI-1999, volume 2, 21.8 */
  async drainErrors(): Promise<string[]> {
    const errors: string[] = [];
    while (errors.length < MOST_ERRORS) {
      const entry = await this.query('SYST:ERR?');
      if (/^[+]?0\b/.test(entry)) break;
      errors.push(entry);
    }
    return errors;
  }

  /** Send a command and read back whether the instrument took it. @throws ScpiError with the instrument's own words */
  async confirm(command: string): Promise<void> {
    await this.write(command);
    const errors = await this.drainErrors();
    if (errors.length > 0) throw new ScpiError('instrument', `${command}: ${errors.join('; ')}`);
  }

  /** Close for good. What waits is refused. */
  close(): void {
    this.#become('closed');
    if (this.#again) clearTimeout(this.#again);
    this.#socket?.destroy();
    this.#socket = null;
    this.#refuseAll(new ScpiError('closed', 'The connection was closed.'));
  }

  #ask(command: string, wantsReply: boolean, urgent: boolean, steady = false): Promise<Reply | null> {
    if (this.#state === 'closed') return Promise.reject(new ScpiError('closed', 'The connection was closed.'));
    if (this.#state === 'down') return Promise.reject(new ScpiError('down', 'The instrument is not connected.'));
    return new Promise((resolve, reject) => {
      const job: Job = { command, wantsReply, steady, resolve, reject };
      if (urgent && !wantsReply && this.#state === 'up') {
        // Straight to the wire: an instrument reads what comes while it prepares a reply.
        this.#say(job);
        resolve(null);
        return;
      }
      if (urgent) this.#queue.unshift(job);
      else this.#queue.push(job);
      this.#next();
    });
  }

  #next(): void {
    while (this.#state === 'up' && !this.#current) {
      const job = this.#queue.shift();
      if (!job) return;
      this.#say(job);
      if (!job.wantsReply) {
        job.resolve(null);
        continue;
      }
      const timer = setTimeout(() => this.#late(), this.#options.timeout);
      this.#current = { job, timer };
    }
  }

  #say({ command, steady }: Job): void {
    this.#record('out', command, steady);
    this.#socket?.write(`${command}\n`);
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
      this.#record('in', text, current?.job.steady);
      if (!current) {
        this.#note('a reply nobody asked for');
        continue;
      }
      clearTimeout(current.timer);
      this.#current = null;
      current.job.resolve(reply);
    }
    // A block on its way is not late: its time starts anew with every piece.
    if (this.#current && this.#reader.waiting > 0) this.#current.timer.refresh();
    this.#next();
  }

  /** No reply in time: what would come later would answer the wrong question, so the connection starts afresh. */
  #late(): void {
    const current = this.#current;
    if (!current) return;
    this.#current = null;
    current.job.reject(
      new ScpiError('timeout', `${current.job.command} was not answered within ${this.#options.timeout} ms.`),
    );
    this.#note('no answer in time; connecting again');
    this.#drop();
  }

  /** Give up this connection at once, whatever is still on its way. */
  #drop(): void {
    const socket = this.#socket;
    this.#socket = null;
    socket?.destroy();
    this.#lost();
  }

  #lost(): void {
    this.#socket = null;
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
