// A growing file as an instrument: whoever asks is told what its newest line says. Nothing is ever written to it.
import { open, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { type FollowPlan, followPlan, type NewestLine, newestLine } from '@lastmark/core/meter-file';
import { decodeText } from '@lastmark/core/table';
import type { Line, Way } from './way.ts';

const HEAD_BYTES = 32_768;
const TAIL_BYTES = 16_384;
/** A file that has not grown for longer tells nothing of now, ms. */
const STALE_MILLISECONDS = 15_000;
/** "Not a number" of SCPI-1999, volume 1, 7.2.1.5 */
const NO_NUMBER = '9.91E37';

const said = (value: number): string => (Number.isFinite(value) ? String(Number(value.toPrecision(9))) : NO_NUMBER);

interface Newest {
  readonly text: string;
  readonly line: NewestLine;
  /** When the file was last written, s. */
  readonly at: number;
}

const ANSWERS: Readonly<Record<string, (newest: Newest) => string>> = {
  'LAST?': ({ text }) => text,
  'LAST:OUT?': ({ at, line }) => [at, line.output.volts, line.output.amps].map(said).join(','),
  'LAST:OUT:VOLT?': ({ line }) => said(line.output.volts),
  'LAST:OUT:CURR?': ({ line }) => said(line.output.amps),
  'LAST:IN?': ({ at, line: { input } }) =>
    [at, input.watts, input.volts, input.amps, input.powerFactor].map(said).join(','),
  'LAST:IN:POW?': ({ line }) => said(line.input.watts),
  'LAST:IN:VOLT?': ({ line }) => said(line.input.volts),
  'LAST:IN:PFAC?': ({ line }) => said(line.input.powerFactor),
  'LAST:TEMP?': ({ line }) => line.celsius.map(said).join(','),
};

/** The same line with nothing in it that can be believed now. */
const gone = ({ text, line, at }: Newest): Newest => ({
  text,
  at,
  line: {
    output: { volts: Number.NaN, amps: Number.NaN },
    input: { watts: Number.NaN, volts: Number.NaN, amps: Number.NaN, powerFactor: Number.NaN },
    celsius: line.celsius.map(() => Number.NaN),
    named: new Map([...line.named.keys()].map((name) => [name, Number.NaN])),
  },
});

async function slice(path: string, from: number, length: number): Promise<Uint8Array> {
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(length), 0, length, from);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** Lines that are complete: a last one that is still being written is left for later. */
const wholeLines = (text: string): string[] =>
  text
    .slice(0, text.lastIndexOf('\n') + 1)
    .split('\n')
    .map((line) => line.replace(/\r$/, ''))
    .filter((line) => line.trim() !== '');

class Follower implements Line {
  readonly #path: string;
  readonly #allowed: (path: string) => Promise<boolean>;
  readonly #now: () => number;
  #plan: { readonly read: FollowPlan; readonly file: number; readonly size: number } | null = null;
  #errors: string[] = [];
  #told: (piece: Uint8Array) => void = () => undefined;
  #failed: (error: Error) => void = () => undefined;
  #closed: () => void = () => undefined;
  #work: Promise<void>;
  #over = false;

  constructor(path: string, allowed: (path: string) => Promise<boolean>, now: () => number) {
    this.#path = path;
    this.#allowed = allowed;
    this.#now = now;
    this.#work = Promise.resolve();
  }

  onOpen(told: () => void): void {
    this.#do(async () => {
      await this.#newest();
      if (!this.#over) told();
    });
  }
  onData(told: (piece: Uint8Array) => void): void {
    this.#told = told;
  }
  onError(told: (error: Error) => void): void {
    this.#failed = told;
  }
  onClose(told: () => void): void {
    this.#closed = told;
  }
  write(text: string): void {
    const command = text.trim();
    this.#do(async () => {
      const reply = await this.#answer(command);
      if (reply !== null && !this.#over) this.#told(new TextEncoder().encode(`${reply}\n`));
    });
  }
  destroy(): void {
    if (this.#over) return;
    this.#over = true;
    this.#closed();
  }

  /** One after the other; what goes wrong ends the connection, and the client comes back. */
  #do(work: () => Promise<void>): void {
    this.#work = this.#work.then(work).catch((error: unknown) => {
      if (this.#over) return;
      this.#failed(error instanceof Error ? error : new Error('It cannot be read.'));
      this.destroy();
    });
  }

  async #answer(command: string): Promise<string | null> {
    if (command === '*IDN?') return `Growing file,${basename(this.#path)}`;
    if (command === 'SYST:ERR?') return this.#errors.shift() ?? '0,"No error"';
    const [, column] = /^LAST:COL\? (.+)$/.exec(command) ?? [];
    const answer = ANSWERS[command];
    if (column === undefined && !answer) {
      this.#errors.push(`-113,"A file is only asked: ${command.slice(0, 40)}"`);
      return command.includes('?') ? NO_NUMBER : null;
    }
    const newest = await this.#newest();
    const current = this.#now() - newest.at * 1000 > STALE_MILLISECONDS ? gone(newest) : newest;
    return answer ? answer(current) : said(current.line.named.get(column ?? '') ?? Number.NaN);
  }

  async #newest(): Promise<Newest> {
    if (!(await this.#allowed(this.#path))) throw new Error(`${this.#path} is outside the folders of LASTMARK_LOGS.`);
    const { size, ino, mtimeMs } = await stat(this.#path);
    if (this.#plan?.file !== ino || size < this.#plan.size) this.#plan = null;
    const begin = Math.max(0, size - TAIL_BYTES);
    const lines = wholeLines(decodeText(await slice(this.#path, begin, TAIL_BYTES)));
    const text = lines.at(-1) ?? '';
    if (!this.#plan) {
      const read = followPlan(wholeLines(decodeText(await slice(this.#path, 0, HEAD_BYTES))).join('\n'));
      if ('reason' in read) throw new Error(`${basename(this.#path)}: ${read.reason}`);
      this.#plan = { read, file: ino, size };
    }
    this.#plan = { ...this.#plan, size };
    return { text, line: newestLine(this.#plan.read, text), at: mtimeMs / 1000 };
  }
}

/**
 * @param allowed whether a path may be read, asked before every look: a link may be turned elsewhere meanwhile
 * @param now replaced in tests, ms
 */
export const followFile =
  (path: string, allowed: (path: string) => Promise<boolean>, now: () => number = Date.now): Way =>
  () =>
    new Follower(path, allowed, now);
