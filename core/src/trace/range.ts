// The range of values.

/**
 * Lowest and highest of values however many; NaN is none of them.
 * @returns Infinity and −Infinity for none
 * @example rangeOf([3, Number.NaN, 1]) // { low: 1, high: 3 }
 */
export function rangeOf(values: ArrayLike<number>): { readonly low: number; readonly high: number } {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let at = 0; at < values.length; at += 1) {
    const value = values[at] as number;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return { low, high };
}
