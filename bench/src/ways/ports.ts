// An instrument whose channels have a port each, spoken to as one.
import type { Line, Way } from './way.ts';

/** `@2` turns to the second channel; `@*` speaks to every channel; `@+` asks every channel and adds the answers up. */
const TO = /^@(?:(\d{1,2})|([*+])\s+(.+))\s*$/;
/** Most that is held of a line whose end has not come. */
const LONGEST = 1_000_000;
const LINE_FEED = 10;

interface Asked {
  readonly answers: (string | null)[];
  readonly added: boolean;
}

/** Joined, or added up; what is no number makes the sum none. */
const together = ({ answers, added }: Asked): string =>
  added ? String(answers.reduce((sum, one) => sum + (one?.trim() ? Number(one) : Number.NaN), 0)) : answers.join(',');

/** Several connections as one line: open when all are, gone when one is. */
class Ports implements Line {
  readonly #lines: readonly Line[];
  readonly #held: string[];
  /** Whose line ended with a return: a line feed may follow. */
  readonly #returned = new Set<number>();
  #now = 0;
  #asked: Asked | null = null;
  #data: (piece: Uint8Array) => void = () => undefined;
  #closed: () => void = () => undefined;
  #error: (error: Error) => void = () => undefined;
  #over = false;

  constructor(ways: readonly Way[]) {
    this.#lines = ways.map((way) => way());
    this.#held = ways.map(() => '');
    for (const [index, line] of this.#lines.entries()) {
      line.onData((piece) => this.#take(index, piece));
      line.onError((error) => this.#error(error));
      line.onClose(() => this.#end());
    }
  }

  onOpen(told: () => void): void {
    let left = this.#lines.length;
    for (const line of this.#lines)
      line.onOpen(() => {
        left -= 1;
        if (left === 0 && !this.#over) told();
      });
  }

  onData(told: (piece: Uint8Array) => void): void {
    this.#data = told;
  }

  onError(told: (error: Error) => void): void {
    this.#error = told;
  }

  onClose(told: () => void): void {
    this.#closed = told;
  }

  write(text: string): void {
    const end = /[\r\n]*$/.exec(text)?.[0] ?? '';
    const [, channel, every, words] = TO.exec(text.slice(0, text.length - end.length)) ?? [];
    if (channel !== undefined) {
      this.#turn(Number(channel));
      return;
    }
    if (words === undefined) {
      this.#lines[this.#now]?.write(text);
      return;
    }
    if (words.includes('?')) this.#asked = { answers: this.#lines.map(() => null), added: every === '+' };
    for (const line of this.#lines) line.write(words + end);
  }

  destroy(): void {
    this.#over = true;
    for (const line of this.#lines) line.destroy();
  }

  #turn(channel: number): void {
    if (channel >= 1 && channel <= this.#lines.length) {
      this.#now = channel - 1;
      return;
    }
    // To go on would be to speak to the wrong channel.
    this.#error(new Error(`There is no channel ${channel}: its address has ${this.#lines.length} ports.`));
    this.#end();
  }

  #end(): void {
    if (this.#over) return;
    this.destroy();
    this.#closed();
  }

  #take(index: number, whole: Uint8Array): void {
    const piece = this.#returned.delete(index) && whole[0] === LINE_FEED ? whole.subarray(1) : whole;
    if (piece.length === 0) return;
    const asked = this.#asked;
    if (!asked) {
      // What another channel says now, nobody asked: the client sees it as such.
      this.#data(piece);
      return;
    }
    const text = this.#held[index] + Buffer.from(piece).toString('latin1');
    const at = text.search(/[\r\n]/);
    if (at < 0) {
      this.#held[index] = text.slice(-LONGEST);
      return;
    }
    this.#held[index] = '';
    if (text[at] === '\r' && at === text.length - 1) this.#returned.add(index);
    asked.answers[index] = text.slice(0, at);
    if (asked.answers.includes(null)) return;
    this.#asked = null;
    this.#data(Buffer.from(`${together(asked)}\n`, 'latin1'));
  }
}

/**
 * One instrument with a port for each channel. A line goes to the channel turned to last, the first at the beginning:
 * `@2` turns to the second, `@* INP OFF` goes to every one, `@* MEAS?` is answered with the answers of all in order, joined
 * by commas, `@+ INP?` with their sum.
 * @param ways to the channels, in order
 */
export const overPorts =
  (ways: readonly Way[]): Way =>
  () =>
    new Ports(ways);
