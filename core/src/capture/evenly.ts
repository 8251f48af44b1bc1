// Readings as they came, a little early or late, as evenly spaced samples.

export interface Timed {
  /** s */
  readonly seconds: number;
  readonly value: number;
}

/**
 * Evenly spaced values between first and last reading, linear in between. The spacing is the median of the readings'.
 * @param at times of another series to be sampled at, s; left out for the series' own spacing
 * @returns the spacing, s, and the values; null for fewer than two readings
 */
export function evenly(
  readings: readonly Timed[],
  at?: { readonly from: number; readonly interval: number; readonly count: number },
): { readonly from: number; readonly interval: number; readonly values: Float64Array } | null {
  const [first] = readings;
  const last = readings.at(-1);
  if (!first || !last || last.seconds <= first.seconds) return null;
  const gaps = readings
    .slice(1)
    .map(({ seconds }, index) => seconds - (readings[index]?.seconds ?? 0))
    .sort((a, b) => a - b);
  const interval = at?.interval ?? (gaps[Math.floor(gaps.length / 2)] || (last.seconds - first.seconds) / gaps.length);
  const from = at?.from ?? first.seconds;
  const count = at?.count ?? Math.floor((last.seconds - from) / interval + 1e-9) + 1;
  const values = new Float64Array(count);
  let next = 1;
  for (let index = 0; index < count; index += 1) {
    const time = from + index * interval;
    while (next < readings.length - 1 && (readings[next]?.seconds ?? 0) < time) next += 1;
    const right = readings[next] as Timed;
    const left = readings[next - 1] as Timed;
    const span = right.seconds - left.seconds;
    const share = span > 0 ? Math.min(1, Math.max(0, (time - left.seconds) / span)) : 0;
    values[index] = left.value + share * (right.value - left.value);
  }
  return { from, interval, values };
}
