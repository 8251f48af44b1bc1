// Readings as they came, a little early or late, as evenly spaced samples.

export interface Timed {
  /** s */
  readonly seconds: number;
  readonly value: number;
}

/** A pause of this many times the usual spacing is a gap: what happened in it is not known. */
const GAP = 8;

/**
 * Evenly spaced values between first and last reading, linear in between. The spacing is the median of the readings'.
 * Where nothing was read for long there is a gap: NaN, and it is said from when to when.
 * @param at times of another series to be sampled at, s; left out for the series' own spacing. Long before the first
 * reading and long after the last there is a gap too: a meter that fell silent did not stand still.
 * @returns the spacing, s, and the values; null for fewer than two readings, or times that are no numbers or go back
 */
export function evenly(
  readings: readonly Timed[],
  at?: { readonly from: number; readonly interval: number; readonly count: number },
): {
  readonly from: number;
  readonly interval: number;
  readonly values: Float64Array;
  /** Stretches nobody read, s from the first value on. */
  readonly gaps: readonly { readonly from: number; readonly to: number }[];
} | null {
  const [first] = readings;
  const last = readings.at(-1);
  if (!first || !last || last.seconds <= first.seconds) return null;
  if (readings.some(({ seconds }, index) => !(seconds >= (readings[index - 1]?.seconds ?? seconds)))) return null;
  const pauses = readings
    .slice(1)
    .map(({ seconds }, index) => seconds - (readings[index]?.seconds ?? 0))
    .sort((a, b) => a - b);
  const usual = pauses[Math.floor(pauses.length / 2)] || (last.seconds - first.seconds) / pauses.length;
  const interval = at?.interval ?? usual;
  const from = at?.from ?? first.seconds;
  const count = at?.count ?? Math.floor((last.seconds - from) / interval + 1e-9) + 1;
  const end = from + (count - 1) * interval;
  const late = end - last.seconds > GAP * usual;
  const early = first.seconds - from > GAP * usual;
  const values = new Float64Array(count);
  let next = 1;
  for (let index = 0; index < count; index += 1) {
    const time = from + index * interval;
    while (next < readings.length - 1 && (readings[next]?.seconds ?? 0) < time) next += 1;
    const right = readings[next] as Timed;
    const left = readings[next - 1] as Timed;
    const span = right.seconds - left.seconds;
    if ((late && time > last.seconds + interval / 2) || (early && time < first.seconds - interval / 2)) {
      values[index] = Number.NaN;
      continue;
    }
    if (span > GAP * usual && time > left.seconds + interval / 2 && time < right.seconds - interval / 2) {
      values[index] = Number.NaN;
      continue;
    }
    const share = span > 0 ? Math.min(1, Math.max(0, (time - left.seconds) / span)) : 0;
    values[index] = left.value + share * (right.value - left.value);
  }
  const between = readings.flatMap(({ seconds }, index) => {
    const before = readings[index - 1]?.seconds ?? seconds;
    return seconds - before > GAP * usual && seconds > from && before < end
      ? [{ from: before - from, to: seconds - from }]
      : [];
  });
  const gaps = [
    ...(early ? [{ from: 0, to: first.seconds - from }] : []),
    ...between,
    ...(late ? [{ from: last.seconds - from, to: end - from }] : []),
  ];
  return { from, interval, values, gaps };
}
