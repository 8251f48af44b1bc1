// The live stream as server-sent events. HTML Living Standard, 9.2.
import type { Response } from 'express';
import { ProblemError } from '../http/problem.ts';
import type { LiveStream } from './stream.ts';

const BEAT_MILLISECONDS = 15_000;
/** A browser that does not read is let go once so much waits for it, bytes; it comes back and gets the newest. */
const MOST_WAITING = 1_000_000;
/** Browsers that may listen to one server at once. */
const MOST_LISTENERS = 256;

/**
 * Write events until whoever listens leaves or the server stops.
 * @param lastId `Last-Event-ID` of a browser that comes back
 * @param onlyOwn only what is of this bench: what another copy of the server wants to know
 */
export function streamEvents(
  stream: LiveStream,
  response: Response,
  lastId: string | undefined,
  onlyOwn = false,
): void {
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
  const since = lastId !== undefined && /^\d{1,15}$/.test(lastId) ? Number(lastId) : null;
  const stop = stream.listen(
    ({ id }, text, own) => {
      if (response.destroyed || (onlyOwn && !own)) return;
      response.write(`id: ${id}\ndata: ${text}\n\n`);
      if (response.writableLength > MOST_WAITING) response.destroy();
    },
    since,
    () => response.end(),
  );
  const beat = setInterval(() => response.write(': here\n\n'), BEAT_MILLISECONDS);
  response.on('close', () => {
    clearInterval(beat);
    stop();
  });
}
