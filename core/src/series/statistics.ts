// Statistics of a stream of numbers, number by number and piece by piece: nothing is kept but sums.

/** What is known of a stretch of numbers. */
export interface Statistics {
  readonly count: number;
  readonly mean: number;
  /** Sum of squared deviations from the mean. */
  readonly squares: number;
  readonly least: number;
  readonly most: number;
}

/** One number. */
export const one = (value: number): Statistics => ({ count: 1, mean: value, squares: 0, least: value, most: value });

/**
 * Two stretches as one, exactly as if their numbers had been taken together.
 * Source: Chan, Golub, LeVeque, "Updating formulae and a pairwise algorithm for computing sample variances" (1979), (2.1).
 * @example joined(one(1), one(3)) // { count: 2, mean: 2, squares: 2, least: 1, most: 3 }
 */
export function joined(a: Statistics | null, b: Statistics | null): Statistics | null {
  if (!a || !b) return a ?? b;
  const count = a.count + b.count;
  const apart = b.mean - a.mean;
  return {
    count,
    mean: a.mean + (apart * b.count) / count,
    squares: a.squares + b.squares + (apart * apart * a.count * b.count) / count,
    least: Math.min(a.least, b.least),
    most: Math.max(a.most, b.most),
  };
}

/** Standard deviation of one number of a stretch; 0 for a single one. JCGM 100:2008, 4.2.2 */
export const spreadOf = ({ count, squares }: Pick<Statistics, 'count' | 'squares'>): number =>
  count > 1 ? Math.sqrt(squares / (count - 1)) : 0;
