// The not-beaten edge: what nothing else is better than in one measure without being worse in the other.
import type { Better } from '../measure/index.ts';

/** Turned so that less is better. */
export const asLess = (value: number, better: Better): number => (better === 'more' ? -value : value);

/**
 * Which of some points are beaten by none: no other is at least as good in both and better in one (Pareto). Equal points stand
 * together. A measure that is neither better nor worse either way counts as less is better. Points that are not finite are beaten.
 * @param points x and y of each @param x @param y which way each is better
 * @returns indices, along the edge from the best x
 * @example edgeOf([[1, 3], [2, 2], [2, 3]], 'less', 'less') // [0, 1]
 */
export function edgeOf(points: readonly (readonly [number, number])[], x: Better, y: Better): readonly number[] {
  const turned = points
    .map(([a, b], index) => ({ index, a: asLess(a, x), b: asLess(b, y) }))
    .filter(({ a, b }) => Number.isFinite(a) && Number.isFinite(b))
    .sort((p, q) => p.a - q.a || p.b - q.b || p.index - q.index);
  const edge: number[] = [];
  let lowest = Number.POSITIVE_INFINITY;
  let last: { readonly a: number; readonly b: number } | null = null;
  for (const { index, a, b } of turned) {
    const same = last !== null && last.a === a && last.b === b;
    if (b < lowest || same) {
      edge.push(index);
      lowest = b;
      last = { a, b };
    }
  }
  return edge;
}

/**
 * Which of some rows no other beats over any number of measures; O(n²·k), for the few that are ranked.
 * @param rows turned so that less is better
 */
export function notBeaten(rows: readonly (readonly number[])[]): readonly number[] {
  const beats = (a: readonly number[], b: readonly number[]): boolean =>
    a.every((value, at) => value <= (b[at] ?? Number.NaN)) && a.some((value, at) => value < (b[at] ?? Number.NaN));
  return rows.flatMap((row, index) => (rows.some((other) => beats(other, row)) ? [] : [index]));
}
