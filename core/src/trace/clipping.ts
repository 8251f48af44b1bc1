// Samples on the rail: whether a signal was cut off at the end of a range.
import { rangeOf } from './range.ts';

/** Least share of samples, and samples in a row, on the extreme value before anything is said. */
const LEAST_SHARE = 0.002;
const LEAST_SAMPLES = 4;
const LEAST_IN_A_ROW = 3;
/** How many more samples lie within a few steps of an extreme than on it, where it was rounded by nature. */
const NATURAL = 1.5;
/** Steps of the digitiser that are looked at beside the extreme. */
const STEPS = 4;
/** An extreme within this part of the span of nought is no end of a range. */
const AT_NOUGHT = 0.05;
/** Steps finer than this part of the span tell of no digitiser. */
const FINEST = 1e-6;

/** Smallest difference between two samples that follow each other: the step of the digitiser, as far as it shows. */
function stepOf(values: ArrayLike<number>, span: number): number {
  let least = span;
  for (let index = 1; index < values.length; index += 1) {
    const step = Math.abs((values[index] ?? 0) - (values[index - 1] ?? 0));
    if (step > FINEST * span && step < least) least = step;
  }
  return least;
}

function railed(values: ArrayLike<number>, extreme: number, span: number, step: number): boolean {
  const on = FINEST * span;
  const near = Math.min(STEPS * step, 0.02 * span);
  let count = 0;
  let beside = 0;
  let row = 0;
  let longest = 0;
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index] as number;
    const away = Math.abs(value - extreme);
    if (away <= near + on) beside += 1;
    row = away <= on ? row + 1 : 0;
    if (away <= on) count += 1;
    if (row > longest) longest = row;
  }
  return (
    longest >= LEAST_IN_A_ROW &&
    count >= Math.max(LEAST_SAMPLES, LEAST_SHARE * values.length) &&
    beside < NATURAL * count
  );
}

/**
 * Whether samples stand on the highest or lowest value of a record as no natural peak does: a rounded peak has more
 * samples a few steps below its top than on it, a cut one has them on it.
 */
export function clipped(values: ArrayLike<number>): boolean {
  const { low, high } = rangeOf(values);
  const span = high - low;
  if (!(span > 0)) return false;
  const step = stepOf(values, span);
  // Standing at nought is no rail: nothing flows there.
  return [high, low].some((end) => Math.abs(end) > AT_NOUGHT * span && railed(values, end, span, step));
}

/** What to say of it. */
export const clippedSays = (what: string): string =>
  `The ${what} stands on the end of its range: clipped. Choose a larger range and record again.`;
