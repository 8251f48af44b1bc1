// Asking other copies: for what their bench does, for its live numbers, and for its loads to go off.
import type { LiveEvent, LoadsOffAnswer, Problem } from '@lastmark/contract';
import { ProblemError } from '../http/problem.ts';
import type { Copy } from './copies.ts';
import type { Signature } from './signature.ts';

/** Addresses copies ask each other at. */
export const PEER = { ask: '/copies/ask', loadsOff: '/copies/loads-off', live: '/copies/live' } as const;
export const SIGNED_BY = 'X-Copy-Signature';

/** A bench may have to speak to slow instruments, ms. */
const ASK_MILLISECONDS = 60_000;
/** Most that another copy tells at once, bytes. */
const MOST_BYTES = 16 * 2 ** 20;

/** An answer of another copy, as its handler gave it. */
export interface Told {
  readonly body: unknown;
  readonly etag: string | null;
}

const away = (bench: string): ProblemError =>
  new ProblemError(
    503,
    'Bench away',
    `The server beside bench "${bench}" does not answer. Nothing was sent. Look whether it runs, then try again.`,
  );

async function textOf(answer: Response): Promise<string> {
  const parts: Uint8Array[] = [];
  let size = 0;
  if (answer.body)
    for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) {
      size += part.length;
      if (size > MOST_BYTES) throw new Error('Another copy told more than anyone asked.');
      parts.push(part);
    }
  return Buffer.concat(parts).toString('utf8');
}

export class Peers {
  readonly #signature: Signature;

  constructor(signature: Signature) {
    this.#signature = signature;
  }

  async #post(copy: Copy, path: string, body: string, signal: AbortSignal): Promise<Response> {
    return fetch(new URL(path, copy.url), {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', [SIGNED_BY]: await this.#signature.sign(path, body) },
      body,
      signal,
      redirect: 'error',
    });
  }

  /** Have an operation done by the copy beside a bench. @throws ProblemError with what it says, or that it does not answer */
  async ask(copy: Copy, question: object, left: AbortSignal): Promise<Told> {
    let status: number;
    let told: unknown;
    try {
      const signal = AbortSignal.any([left, AbortSignal.timeout(ASK_MILLISECONDS)]);
      const answer = await this.#post(copy, PEER.ask, JSON.stringify(question), signal);
      status = answer.status;
      told = JSON.parse(await textOf(answer));
    } catch {
      throw away(copy.bench);
    }
    if (status === 200) return told as Told;
    if (status >= 400 && status < 600 && typeof (told as Problem).detail === 'string')
      throw ProblemError.of({ ...(told as Problem), status });
    throw away(copy.bench);
  }

  /** Have every load of its bench switched off. @returns what each said; null where the copy does not answer in time */
  async loadsOff(copy: Copy, patience: number): Promise<LoadsOffAnswer | null> {
    try {
      const answer = await this.#post(copy, PEER.loadsOff, '{}', AbortSignal.timeout(patience));
      if (answer.status !== 200) return null;
      return JSON.parse(await textOf(answer)) as LoadsOffAnswer;
    } catch {
      return null;
    }
  }

  /** Listen to the live numbers of its bench until `signal`, or until the stream ends. @param fast told as often as they are asked; ids */
  async live(
    copy: Copy,
    fast: readonly string[],
    tell: (event: LiveEvent) => void,
    signal: AbortSignal,
  ): Promise<void> {
    const answer = await this.#post(copy, PEER.live, JSON.stringify({ fast }), signal);
    if (answer.status !== 200 || !answer.body) return;
    const decoder = new TextDecoder();
    let rest = '';
    for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) {
      const lines = (rest + decoder.decode(part, { stream: true })).split('\n');
      rest = (lines.pop() ?? '').slice(0, MOST_BYTES);
      for (const line of lines) if (line.startsWith('data: ')) tell(JSON.parse(line.slice(6)) as LiveEvent);
    }
  }
}
