// A cut between two stages, set to where it fits best among all values.
import { meanOf, type Range } from './parts.ts';
import type { ChargeSeries } from './series.ts';

/** How far a cut is moved to where it fits best, how much of each side that looks at, and how little, s. */
const REFINE_REACH = 100;
const REFINE_WINDOW = 300;
const REFINE_LEAST = 20;
/** Values this near a bend tell nothing of it, s, and those of a fall below this part of what it began at. */
const BEND_ASIDE = 60;
const BEND_LOW = 0.25;

/** What a straight line leaves of some values. */
function residualOf(values: Float64Array, from: number, to: number): number {
  const count = to - from;
  if (count < 3) return 0;
  const middle = (count - 1) / 2;
  let [sum, cross, squares] = [0, 0, 0];
  for (let at = 0; at < count; at += 1) {
    const value = values[from + at] as number;
    sum += value;
    cross += (at - middle) * value;
    squares += value * value;
  }
  return squares - sum ** 2 / count - cross ** 2 / ((count * (count * count - 1)) / 12);
}

/** Set a cut between two pieces where two lines, one before and one after, leave least. */
export function refined({ watts, step }: ChargeSeries, left: Range, right: Range, by: number): number {
  const reach = Math.max(2 * by, Math.round(REFINE_REACH / step));
  const window = Math.round(REFINE_WINDOW / step);
  const from = Math.max(left.from, left.to - window);
  const to = Math.min(right.to, left.to + window);
  const least = Math.max(3, Math.round(REFINE_LEAST / step));
  let best = left.to;
  let lowest = Number.POSITIVE_INFINITY;
  for (let at = Math.max(from + least, left.to - reach); at <= Math.min(to - least, left.to + reach); at += 1) {
    const rest = residualOf(watts, from, at) + residualOf(watts, at, to);
    if (rest < lowest) [lowest, best] = [rest, at];
  }
  return best;
}

/** A weighted straight line: where it lies at the mean of its places, and its slope. */
class Line {
  #sums = [0, 0, 0, 0, 0, 0];

  add(x: number, y: number, weight: number): void {
    for (const [at, value] of [1, x, y, x * x, x * y, y * y].entries())
      this.#sums[at] = (this.#sums[at] as number) + weight * value;
  }

  /** Null for a line without places, or one that does not fall. */
  falling(): { readonly slope: number; readonly at: (y: number) => number; readonly residual: number } | null {
    const [w, x, y, xx, xy, yy] = this.#sums as [number, number, number, number, number, number];
    const spread = xx - (x * x) / w;
    const slope = (xy - (x * y) / w) / spread;
    if (!(w > 0) || !(slope < 0)) return null;
    return {
      slope,
      at: (value) => x / w + (value - y / w) / slope,
      residual: Math.max(0, yy - (y * y) / w - slope * slope * spread),
    };
  }
}

/** Where a fall, told by a straight line or a decay, whichever fits it better, was at a level; null where it does not fall. */
function fallMeets(watts: Float64Array, { from, to }: Range, level: number): number | null {
  const straight = new Line();
  const decay = new Line();
  for (let at = from; at < to; at += 1) {
    const value = watts[at] as number;
    // Too low to tell a rate: noise would be counted as course.
    if (value < BEND_LOW * level) continue;
    straight.add(at - from, value, 1);
    // ln P weighted by P²: the residual is then that of P itself.
    decay.add(at - from, Math.log(value), value * value);
  }
  const [line, log] = [straight.falling(), decay.falling()];
  if (!line || !log) return null;
  return from + (log.residual <= line.residual ? log.at(Math.log(level)) : line.at(level));
}

/**
 * Where a constant bends into a fall without a step: where the two curves meet, each told by all its values but those near
 * the bend. Null where the fall tells no rate.
 */
export function bend({ watts, step }: ChargeSeries, left: Range, right: Range): number | null {
  const aside = Math.round(BEND_ASIDE / step);
  let cut = right.from;
  for (let turn = 0; turn < 3; turn += 1) {
    const before = { from: left.from, to: Math.max(left.from + 2, cut - aside) };
    const after = { from: Math.min(right.to - 3, cut + aside), to: right.to };
    const level = meanOf(watts, before);
    const meets = fallMeets(watts, after, level);
    if (meets === null) return null;
    cut = Math.round(Math.min(right.to - 4, Math.max(left.from + 4, meets)));
  }
  return cut;
}
