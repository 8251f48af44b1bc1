// Whole cycles of a mains waveform: where they begin, and means over them with their broken ends.

/** Part of the rms a signal has to leave on either side before it has crossed: noise does not get that far. */
const ARMED = 0.5;

/** Position of the zero of a straight line through some samples, in samples. */
function zeroOf(values: Float64Array, mean: number, from: number, to: number): number {
  const n = to - from + 1;
  const middle = (from + to) / 2;
  let sum = 0;
  let slope = 0;
  let squares = 0;
  for (let index = from; index <= to; index += 1) {
    const value = (values[index] ?? 0) - mean;
    sum += value;
    slope += (index - middle) * value;
    squares += (index - middle) ** 2;
  }
  return middle - sum / n / (slope / squares);
}

/**
 * Upward crossings of the mean, between samples. A crossing goes from clearly below to clearly above; where in between
 * is told by a straight line through all samples on the way, so that noise averages out.
 * @returns positions in samples
 */
export function crossings(values: Float64Array): number[] {
  let mean = 0;
  for (const value of values) mean += value / values.length;
  let squares = 0;
  for (const value of values) squares += (value - mean) ** 2;
  const far = ARMED * Math.sqrt(squares / Math.max(1, values.length));
  const found: number[] = [];
  let below = -1;
  for (let index = 0; index < values.length; index += 1) {
    const value = (values[index] ?? 0) - mean;
    if (value < -far) below = index;
    else if (value > far && below >= 0) {
      found.push(zeroOf(values, mean, below, index));
      below = -1;
    }
  }
  return found;
}

/** A stretch of samples, its ends between them. */
export interface Stretch {
  /** In samples; need not be whole. */
  readonly from: number;
  readonly to: number;
}

/**
 * Integral of what lies between samples, straight from one to the next, over a stretch with broken ends; the weight of
 * each sample in it. For whole cycles of anything smooth the error falls with the square of the spacing.
 * @param visit called with each sample's index and weight; weights add up to the length of the stretch, in samples
 */
export function weigh({ from, to }: Stretch, visit: (index: number, weight: number) => void): void {
  const first = Math.floor(from);
  const last = Math.ceil(to);
  let carried = 0;
  for (let cell = first; cell < last; cell += 1) {
    const a = Math.max(cell, from);
    const b = Math.min(cell + 1, to);
    const middle = (a + b) / 2 - cell;
    visit(cell, carried + (b - a) * (1 - middle));
    carried = (b - a) * middle;
  }
  visit(last, carried);
}

/** Mean over a stretch of a value worked out from each sample. */
export function meanOver(stretch: Stretch, of: (index: number) => number): number {
  let sum = 0;
  weigh(stretch, (index, weight) => {
    if (weight !== 0) sum += weight * of(index);
  });
  return sum / (stretch.to - stretch.from);
}
