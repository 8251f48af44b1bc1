// Repeats of one thing, and two things held against each other: means, spreads, intervals, and how many repeats would tell.
import gammaln from '@stdlib/math-base-special-gammaln';
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';

const CONFIDENCE = 0.95;
const POWER = 0.8;
const MOST_REPEATS = 200;

export interface Repeated {
  readonly count: number;
  readonly mean: number;
  /** Standard deviation of one; null of one alone. */
  readonly spread: number | null;
  /** 95 % interval of the mean; null of one alone. */
  readonly interval: readonly [number, number] | null;
}

/**
 * Mean and spread of repeats, with the 95 % interval of the mean by Student's t.
 * @returns null without any
 * @example repeated([1.2, 0.8, 1.5, 0.9, 1.1]) // mean 1.1, interval 0.76 to 1.44
 */
export function repeated(values: readonly number[]): Repeated | null {
  const count = values.length;
  if (count === 0 || !values.every(Number.isFinite)) return null;
  const mean = values.reduce((a, b) => a + b, 0) / count;
  if (count === 1) return { count, mean, spread: null, interval: null };
  const spread = Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (count - 1));
  const half = (tQuantile(0.5 + CONFIDENCE / 2, count - 1) * spread) / Math.sqrt(count);
  return { count, mean, spread, interval: [mean - half, mean + half] };
}

/** Part of the larger of two numbers by which they must differ to be two: what arithmetic adds is none. */
export const ALIKE = 1e-9;

/** Repeats that are the same to the digit: they were read too coarsely to tell how they scatter. */
export const alike = ({ spread }: Repeated, size: number): boolean => spread !== null && spread <= ALIKE * size;

/**
 * Probability that chance alone puts pairs that are alike to the digit all on one side: by their signs, which is all they tell.
 * @example signsAlone(5) // 0.0625
 */
export const signsAlone = (count: number): number => 2 ** (1 - count);

/** Probability that chance alone sorts two groups, each alike to the digit, one below the other: of all ways to part them, two. */
const partedAlone = (first: number, second: number): number =>
  2 * Math.exp(gammaln(first + 1) + gammaln(second + 1) - gammaln(first + second + 1));

export interface Difference {
  /** Mean of the second less mean of the first. */
  readonly value: number;
  /** 95 % interval; null where a side has one value only, or both are alike to the digit, which tells of no scatter. */
  readonly interval: readonly [number, number] | null;
  /** The interval leaves nought out; without one, chance would hardly have parted them so. */
  readonly called: boolean;
}

/**
 * Difference of two groups of unlike spread. B. L. Welch, Biometrika 34 (1947) 28.
 * @returns null where a side has no value
 */
export function differenceOf(first: readonly number[], second: readonly number[]): Difference | null {
  const [a, b] = [repeated(first), repeated(second)];
  if (!a || !b) return null;
  const value = b.mean - a.mean;
  if (a.spread === null || b.spread === null) return { value, interval: null, called: false };
  const [u, w] = [a.spread ** 2 / a.count, b.spread ** 2 / b.count];
  const size = Math.max(Math.abs(a.mean), Math.abs(b.mean));
  if (alike(a, size) && alike(b, size)) {
    const parted = Math.abs(value) > ALIKE * size && partedAlone(a.count, b.count) < 1 - CONFIDENCE;
    return { value, interval: null, called: parted };
  }
  const degrees = (u + w) ** 2 / (u ** 2 / (a.count - 1) + w ** 2 / (b.count - 1));
  const half = tQuantile(0.5 + CONFIDENCE / 2, degrees) * Math.sqrt(u + w);
  return { value, interval: [value - half, value + half], called: Math.abs(value) > half };
}

/**
 * Probability that a two-sided t test calls a difference that is there: 1 − β by the non-central t, integrated over the spread
 * that is found. N. L. Johnson, B. L. Welch, Biometrika 31 (1940) 362.
 * @param shift the difference in standard errors
 */
export function powerOf(shift: number, degrees: number): number {
  const critical = tQuantile(0.5 + CONFIDENCE / 2, degrees);
  const STEPS = 2000;
  const most = 1 + 9 / Math.sqrt(degrees);
  // Density of s/σ, where ν·s²/σ² has the χ² distribution with ν degrees of freedom.
  const constant = Math.log(2) + (degrees / 2) * Math.log(degrees / 2) - gammaln(degrees / 2);
  let sum = 0;
  for (let at = 0; at < STEPS; at += 1) {
    const ratio = ((at + 0.5) * most) / STEPS;
    const density = Math.exp(constant + (degrees - 1) * Math.log(ratio) - (degrees * ratio * ratio) / 2);
    const called = 1 - normalCdf(critical * ratio - shift, 0, 1) + normalCdf(-critical * ratio - shift, 0, 1);
    sum += (density * called * most) / STEPS;
  }
  return sum;
}

/**
 * Repeats needed for 80 % power, two-sided 5 %.
 * @param difference what shall be told @param spread of one charge; of the differences of pairs for `pairs`
 * @param design `pairs`: both of a pair alike but for one thing; `groups`: as many on each side
 * @returns pairs, or repeats a side; null where it would take more than 200
 * @example repeatsNeeded(1, 1, 'pairs') // 10
 */
export function repeatsNeeded(difference: number, spread: number, design: 'pairs' | 'groups'): number | null {
  const part = Math.abs(difference) / spread;
  if (!(spread > 0) || !Number.isFinite(part) || part === 0) return spread === 0 && difference !== 0 ? 2 : null;
  for (let count = 2; count <= MOST_REPEATS; count += 1) {
    const pairs = design === 'pairs';
    const shift = part * Math.sqrt(pairs ? count : count / 2);
    // Far below the wanted power nothing needs to be integrated.
    if (shift < 2) continue;
    if (powerOf(shift, pairs ? count - 1 : 2 * count - 2) >= POWER) return count;
  }
  return null;
}
