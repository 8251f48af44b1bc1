// The live stream as server-sent events. HTML Living Standard, 9.2.
import type { Response } from 'express';
import type { LiveStream } from './stream.ts';

const BEAT_MILLISECONDS = 15_000;

/** Write events until the browser leaves or the server stops. @param lastId `Last-Event-ID` of a browser that comes back */
export function streamEvents(stream: LiveStream, response: Response, lastId: string | undefined): void {
  response.status(200);
  response.setHeader('Content-Type', 'text/event-stream; charset=utf-8');
  // no-transform: a compressing layer would hold events back.
  response.setHeader('Cache-Control', 'no-store, no-transform');
  response.flushHeaders();
  response.write('retry: 1000\n\n');
  const since = lastId !== undefined && /^\d{1,15}$/.test(lastId) ? Number(lastId) : null;
  const stop = stream.listen(
    (event) => response.write(`id: ${event.id}\ndata: ${JSON.stringify(event)}\n\n`),
    since,
    () => response.end(),
  );
  const beat = setInterval(() => response.write(': here\n\n'), BEAT_MILLISECONDS);
  response.on('close', () => {
    clearInterval(beat);
    stop();
  });
}
