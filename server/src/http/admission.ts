// The door: so many requests at once and no more. Who is refused costs next to nothing; Loads off is always let in.

import type { RequestHandler } from 'express';
import { inItsWorld } from './paths.ts';

/** Requests in work at once: more than a room full of browsers asks. */
const MOST_REQUESTS = 100;
/** Requests taken in one turn of the event loop whatever they take; beyond that, only while the turn is short, ms. */
const PER_TURN = 20;
const LONGEST_TURN_MILLISECONDS = 20;
const AGAIN_SECONDS = 2;
const ALWAYS = '/api/loads-off';
/** A stream stays open for hours and costs nothing by being open; it has a limit of its own. */
const STREAM = '/api/live';

const REFUSAL = JSON.stringify({
  type: 'about:blank',
  title: 'Busy',
  status: 503,
  detail: `Too much is being asked at once. Try again in ${AGAIN_SECONDS} seconds.`,
  again: AGAIN_SECONDS,
});

/** Stands before everything else, logging included. */
export function admission(): RequestHandler {
  let inside = 0;
  // A thousand that arrive together are one turn of the loop: whoever comes next waits for all of it.
  let turn: { readonly began: number; taken: number } | null = null;
  const isLong = () => {
    if (!turn) {
      turn = { began: performance.now(), taken: 0 };
      setImmediate(() => {
        turn = null;
      });
    }
    turn.taken += 1;
    return turn.taken > PER_TURN && performance.now() - turn.began > LONGEST_TURN_MILLISECONDS;
  };
  return (request, response, next) => {
    const path = inItsWorld(request.url.split('?', 1)[0] ?? '');
    if (path === ALWAYS || path === STREAM) {
      next();
      return;
    }
    if (inside >= MOST_REQUESTS || isLong()) {
      response.writeHead(503, {
        'Content-Type': 'application/problem+json',
        'Retry-After': String(AGAIN_SECONDS),
        'X-Content-Type-Options': 'nosniff',
      });
      response.end(REFUSAL);
      return;
    }
    inside += 1;
    response.once('close', () => {
      inside -= 1;
    });
    next();
  };
}
