// The shapes of answers, as seen in every test of the API; `npm run answers` learns them anew.

import seen from './answers.json' with { type: 'json' };
import type { Operation } from './routes.ts';
import type { Shape } from './shape.ts';

/** What was seen of an operation. */
export interface Seen {
  readonly shape: Shape;
  /** The fullest answer that is short enough to show. */
  readonly example?: unknown;
  /** A body that was taken. */
  readonly sent?: unknown;
}

const SEEN: Readonly<Partial<Record<Operation, Seen>>> = seen as never;

/** A simulated run is answered as any other is; the tests of the API have no simulated bench. */
export const ANSWERS: typeof SEEN = {
  ...SEEN,
  ...(SEEN.startRun ? { runSimulated: { shape: SEEN.startRun.shape } } : {}),
  ...(SEEN.getSimulatedBench ? { plugSimulated: { shape: SEEN.getSimulatedBench.shape } } : {}),
};
