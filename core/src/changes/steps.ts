// Where a noisy series steps from one lasting level to another: binary segmentation on the cumulated deviation.
// Source: A. J. Scott, M. Knott, Biometrics 30 (1974); noise from the differences of neighbours, P. J. Rousseeuw, C. Croux,
// J. Am. Stat. Assoc. 88 (1993).

export interface Level {
  /** Index of its first value. */
  readonly from: number;
  /** Index one beyond its last. */
  readonly to: number;
  readonly mean: number;
}

export interface StepRule {
  /** Least difference that counts, as a part of the level before. */
  readonly leastPart: number;
  /** Values a level has at least. */
  readonly leastLength: number;
}

/** How many times its own error a step must be. */
const SURE = 5;
const MAD_TO_SIGMA = 1.4826;

const median = (values: number[]): number => {
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length / 2)] ?? 0;
};

/** Standard deviation of the noise of a series, whatever steps it has: from what neighbours differ by. */
export function noiseOf(values: ArrayLike<number>): number {
  const differences: number[] = [];
  for (let at = 1; at < values.length; at += 1) {
    const difference = Math.abs((values[at] as number) - (values[at - 1] as number));
    if (!Number.isNaN(difference)) differences.push(difference);
  }
  if (differences.length === 0) return 0;
  const typical = (MAD_TO_SIGMA / Math.SQRT2) * median(differences);
  if (typical > 0) return typical;
  // Coarse values mostly repeat: what differs at all is spread over the whole.
  const most = 3 * median(differences.filter((one) => one > 0));
  const squares = differences.reduce((sum, one) => sum + Math.min(one, most) ** 2, 0);
  return Math.sqrt(squares / differences.length / 2);
}

/**
 * Lasting levels of a series.
 * @param values without gaps
 * @returns levels from first to last; one alone where it never steps
 * @example levelsOf([5, 5, 5, 3, 3, 3], { leastPart: 0.03, leastLength: 2 }) // [{ from: 0, to: 3, mean: 5 }, { from: 3, to: 6, mean: 3 }]
 */
export function levelsOf(values: ArrayLike<number>, { leastPart, leastLength }: StepRule): readonly Level[] {
  const count = values.length;
  if (count === 0) return [];
  const sums = new Float64Array(count + 1);
  for (let at = 0; at < count; at += 1) sums[at + 1] = (sums[at] as number) + (values[at] as number);
  const mean = (from: number, to: number): number => ((sums[to] as number) - (sums[from] as number)) / (to - from);
  const noise = noiseOf(values);
  const bounds: number[] = [];
  const work: [number, number][] = [[0, count]];
  for (let next = work.pop(); next; next = work.pop()) {
    const [from, to] = next;
    const length = to - from;
    if (length < 2 * leastLength) continue;
    const total = (sums[to] as number) - (sums[from] as number);
    let best = -1;
    let most = 0;
    for (let at = from + leastLength; at <= to - leastLength; at += 1) {
      const left = at - from;
      const away = (sums[at] as number) - (sums[from] as number) - (total * left) / length;
      const size = Math.abs(away) * Math.sqrt(length / (left * (length - left)));
      if (size > most) {
        most = size;
        best = at;
      }
    }
    if (best < 0 || most <= SURE * noise + 1e-12 * Math.abs(total / length)) continue;
    bounds.push(best);
    work.push([from, best], [best, to]);
  }
  return merged([0, ...bounds.sort((a, b) => a - b), count], mean, leastPart);
}

/** Levels whose difference is less than counts become one. */
function merged(bounds: number[], mean: (from: number, to: number) => number, leastPart: number): readonly Level[] {
  for (;;) {
    let weakest = -1;
    let least = leastPart;
    for (let at = 1; at < bounds.length - 1; at += 1) {
      const before = mean(bounds[at - 1] as number, bounds[at] as number);
      const after = mean(bounds[at] as number, bounds[at + 1] as number);
      const part = Math.abs(after - before) / Math.max(Math.abs(before), Math.abs(after), 1e-12);
      if (part < least) {
        least = part;
        weakest = at;
      }
    }
    if (weakest < 0) break;
    bounds.splice(weakest, 1);
  }
  return bounds.slice(1).map((to, at) => ({ from: bounds[at] as number, to, mean: mean(bounds[at] as number, to) }));
}
