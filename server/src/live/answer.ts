// The live stream as server-sent events. HTML Living Standard, 9.2.
import type { Response } from 'express';
import { ProblemError } from '../http/problem.ts';
import type { Batch, Told } from './broadcast.ts';
import type { LiveStream } from './stream.ts';

const BEAT_MILLISECONDS = 15_000;
/** A browser that does not read is let go once so much waits for it, bytes; it comes back and gets the newest. */
const MOST_WAITING = 1_000_000;
/** Browsers that may listen to one server at once. */
const MOST_LISTENERS = 256;

/** What somebody listens to. */
export interface Wanted {
  /** `Last-Event-ID` of a browser that comes back. */
  readonly lastId?: string | undefined;
  /** Instruments that are told as often as they are asked, wherever they stand; those of other benches else twice a second. */
  readonly fast?: readonly string[];
  /** Only what is of this bench: what another copy of the server wants to know. */
  readonly onlyOwn?: boolean;
}

function wordsFor({ fast = [], onlyOwn = false }: Wanted): (batch: Batch) => string {
  if (!onlyOwn && fast.length === 0) return ({ usual }) => usual;
  const closely = new Set(fast);
  const wants = ({ own, seldom, event }: Told) =>
    (onlyOwn ? own && seldom : own || seldom) || (closely.has(event.instrumentId) && (own || !onlyOwn));
  return ({ told }) =>
    told
      .filter(wants)
      .map(({ text }) => text)
      .join('');
}

/** Write events until whoever listens leaves or the server stops. */
export function streamEvents(stream: LiveStream, response: Response, wanted: Wanted): void {
  if (stream.listening >= MOST_LISTENERS)
    throw new ProblemError(
      503,
      'Too many listeners',
      `${MOST_LISTENERS} pages listen to this server already. Close some.`,
    );
  response.status(200);
  response.setHeader('Content-Type', 'text/event-stream; charset=utf-8');
  // no-transform: a compressing layer would hold events back.
  response.setHeader('Cache-Control', 'no-store, no-transform');
  response.flushHeaders();
  response.write('retry: 1000\n\n');
  const { lastId } = wanted;
  const since = lastId !== undefined && /^\d{1,15}$/.test(lastId) ? Number(lastId) : null;
  const wordsOf = wordsFor(wanted);
  const stop = stream.follow(
    (batch) => {
      const words = wordsOf(batch);
      if (words === '' || response.destroyed) return;
      response.write(words);
      if (response.writableLength > MOST_WAITING) response.destroy();
    },
    since,
    () => response.end(),
    wanted.fast,
  );
  const beat = setInterval(() => response.write(': here\n\n'), BEAT_MILLISECONDS);
  response.on('close', () => {
    clearInterval(beat);
    stop();
  });
}
