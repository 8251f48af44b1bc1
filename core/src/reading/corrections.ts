// What was corrected or struck out, as people look for it: what it was, what it is now, and when.
import type { Point, Reading } from './types.ts';

export interface Correction {
  readonly point: Point;
  readonly was: Reading;
  /** What took its place; its value is null where the reading was struck out. */
  readonly now: Reading;
  /** Whether nothing has taken the place of that since: then it can be put back. */
  readonly standing: boolean;
}

/**
 * Corrections of some points since a moment, the newest first.
 * @param since UTC ISO 8601; later ones count
 */
export function correctionsOf(points: readonly Point[], since: string): readonly Correction[] {
  return points
    .flatMap((point) => {
      const replaced = new Set(point.readings.map(({ supersedes }) => supersedes));
      return point.readings.flatMap((now): Correction[] => {
        const was = now.supersedes === null ? undefined : point.readings.find(({ id }) => id === now.supersedes);
        return was && now.takenAt > since ? [{ point, was, now, standing: !replaced.has(now.id) }] : [];
      });
    })
    .sort((a, b) => b.now.takenAt.localeCompare(a.now.takenAt));
}
