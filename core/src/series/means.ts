// Moving means.

/**
 * Means over windows of some samples, one beside each sample: it lies in the middle of its own, but for the ends.
 * @param values NaN where nobody read: it counts in no mean, and stays NaN
 * @param width samples of a window; the values themselves for one or less
 * @example meansOver(Float64Array.of(1, 3, 5), 2) // [2, 2, 4]
 */
export function meansOver(values: Float64Array, width: number): Float64Array {
  if (width <= 1) return values;
  const half = Math.floor(width / 2);
  const sums = new Float64Array(values.length + 1);
  const counts = new Float64Array(values.length + 1);
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index] as number;
    const read = !Number.isNaN(value);
    sums[index + 1] = (sums[index] ?? 0) + (read ? value : 0);
    counts[index + 1] = (counts[index] ?? 0) + (read ? 1 : 0);
  }
  return values.map((value, index) => {
    if (Number.isNaN(value)) return value;
    const from = Math.max(0, index - half);
    const to = Math.min(values.length, from + width);
    return ((sums[to] ?? 0) - (sums[from] ?? 0)) / ((counts[to] ?? 0) - (counts[from] ?? 0));
  });
}
