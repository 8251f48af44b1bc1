// Points found again by what they are known by; made once for the same list, however many ask.
import { groupsBy, memoOf } from '../memo/index.ts';
import type { Point } from './types.ts';

/** Points by their id. */
export const pointsById: (points: readonly Point[]) => ReadonlyMap<string, Point> = memoOf(
  (points: readonly Point[]) => {
    const known = new Map<string, Point>();
    for (const point of points) known.set(point.id, point);
    return known;
  },
);

/** Points by the loading they were taken at, in their order; those of none under null. */
export const pointsBySetup: (points: readonly Point[]) => ReadonlyMap<string | null, readonly Point[]> = memoOf(
  (points: readonly Point[]) => groupsBy(points, ({ setupId }) => setupId),
);
