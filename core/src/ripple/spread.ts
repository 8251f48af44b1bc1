// Extremes, mean and the middle 99.99 % of many samples, in two passes and little memory.

export interface Spread {
  /** Samples that are numbers. */
  readonly count: number;
  readonly mean: number;
  /** About the mean. */
  readonly rms: number;
  readonly low: number;
  readonly high: number;
  /** Peak to peak of the middle 99.99 % of the samples. */
  readonly middle: number;
  /** Different values among them, counted to 1000. */
  readonly codes: number;
  /** Smallest difference between them, where they are no more than that; 0 elsewhere. */
  readonly step: number;
}

const BINS = 65_536;
const MOST_CODES = 1000;
/** Part of the samples beyond either end of the middle 99.99 %. */
const TAIL = 0.000_05;

/** Value below which a part of the samples lies: found in a histogram, then exactly among the samples of its bin. */
function quantile(
  values: ArrayLike<number>,
  part: number,
  counts: Uint32Array,
  low: number,
  width: number,
  total: number,
): number {
  // Position among the ordered samples, between two of them. R. J. Hyndman, Y. Fan, Am. Stat. 50 (1996), definition 7.
  const position = part * (total - 1);
  let before = 0;
  let bin = 0;
  while (bin < BINS - 1 && before + (counts[bin] as number) <= position) {
    before += counts[bin] as number;
    bin += 1;
  }
  const own: number[] = [];
  let next = Number.POSITIVE_INFINITY;
  for (let at = 0; at < values.length; at += 1) {
    const value = values[at] as number;
    const place = Math.min(BINS - 1, Math.floor((value - low) / width));
    if (place === bin) own.push(value);
    else if (place > bin && value < next) next = value;
  }
  // One spike far away leaves nearly all of them in one bin: numbers are sorted as numbers.
  const ordered = Float64Array.from(own).sort();
  const index = Math.floor(position) - before;
  const one = ordered[index] ?? low;
  const after = ordered[index + 1] ?? (Number.isFinite(next) ? next : one);
  return one + (position - Math.floor(position)) * (after - one);
}

function stepOf(codes: ReadonlySet<number>): number {
  if (codes.size < 2 || codes.size >= MOST_CODES) return 0;
  const sorted = [...codes].sort((a, b) => a - b);
  return Math.min(...sorted.slice(1).map((code, at) => code - (sorted[at] as number)));
}

/** Null where no sample is a number. */
export function spreadOf(values: ArrayLike<number>): Spread | null {
  let count = 0;
  let mean = 0;
  let squares = 0;
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let at = 0; at < values.length; at += 1) {
    const value = values[at] as number;
    if (!(value - value === 0)) continue;
    count += 1;
    const away = value - mean;
    mean += away / count;
    squares += away * (value - mean);
    if (value < low) low = value;
    if (value > high) high = value;
  }
  if (count === 0) return null;
  const rms = Math.sqrt(squares / count);
  if (!(high > low)) return { count, mean, rms: 0, low, high, middle: 0, codes: 1, step: 0 };
  const width = (high - low) / BINS;
  const counts = new Uint32Array(BINS);
  const codes = new Set<number>();
  for (let at = 0; at < values.length; at += 1) {
    const value = values[at] as number;
    if (!(value - value === 0)) continue;
    const bin = Math.min(BINS - 1, Math.floor((value - low) / width));
    counts[bin] = (counts[bin] as number) + 1;
    if (codes.size < MOST_CODES) codes.add(value);
  }
  const middle =
    quantile(values, 1 - TAIL, counts, low, width, count) - quantile(values, TAIL, counts, low, width, count);
  return { count, mean, rms, low, high, middle, codes: codes.size, step: stepOf(codes) };
}
