// Round numbers for an axis.

/**
 * Round values over a range: steps of 1, 2 or 5 times a power of ten.
 * @param most how many at most, two or more
 * @returns ascending, inside the range; one value for a range without width, none for what is no range
 * @example ticksOf(0, 65, 6) // [0, 20, 40, 60]
 */
export function ticksOf(low: number, high: number, most: number): readonly number[] {
  if (!Number.isFinite(low) || !Number.isFinite(high) || high < low) return [];
  if (high === low) return [low];
  const rough = (high - low) / Math.max(1, most - 1);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((one) => one * power).find((one) => one >= rough * (1 - 1e-9)) ?? 10 * power;
  const first = Math.ceil(low / step - 1e-9);
  const last = Math.floor(high / step + 1e-9);
  return Array.from({ length: last - first + 1 }, (_, at) => Number(((first + at) * step).toPrecision(12)));
}

/** Numbers of an axis with as many decimals as their steps need. */
export function tickWords(ticks: readonly number[]): readonly string[] {
  const step = ticks.length > 1 ? Math.abs((ticks[1] ?? 0) - (ticks[0] ?? 0)) : Math.abs(ticks[0] ?? 1) || 1;
  const decimals = Math.min(9, Math.max(0, -Math.floor(Math.log10(step) + 1e-9)));
  return ticks.map((tick) => tick.toFixed(decimals).replace(/^-/, '\u2212'));
}
