// Means and medians of parts of a series.

export interface Range {
  readonly from: number;
  readonly to: number;
}

export const meanOf = (values: Float64Array, { from, to }: Range): number => {
  let sum = 0;
  for (let at = from; at < to; at += 1) sum += values[at] as number;
  return sum / Math.max(1, to - from);
};

export const medianOf = (values: Float64Array, from: number, to: number): number => {
  const part = values.slice(Math.max(0, from), Math.max(0, to)).sort();
  return part[Math.floor(part.length / 2)] ?? Number.NaN;
};

/** Medians of as many values either way: steps stay, what is short goes. */
export function smoothed(values: Float64Array, half: number): Float64Array {
  return half < 1 ? values : values.map((_, at) => medianOf(values, at - half, Math.min(values.length, at + half + 1)));
}
