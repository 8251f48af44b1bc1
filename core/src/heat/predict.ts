// What a soak says about other loads and other ambients: a prediction with its interval, never a measurement.

export interface Prediction {
  /** °C */
  readonly celsius: number;
  readonly interval: readonly [low: number, high: number];
}

/** Rise grows about with loss to this power in free air; in between where soaks at two losses have not told. */
export const EXPONENTS = { low: 0.8, middle: 0.9, high: 1 } as const;

/** K per watt of loss. @returns null without a loss */
export const perWatt = (rise: number, loss: number): number | null => (loss > 0 ? rise / loss : null);

/**
 * Exponent of rise against loss from two soaks; null where their losses are too near each other to tell.
 * @example exponentOf({ rise: 41.3, loss: 4.52 }, { rise: 30, loss: 3 }) // 0.78
 */
export function exponentOf(
  a: { readonly rise: number; readonly loss: number },
  b: { readonly rise: number; readonly loss: number },
): number | null {
  const ratio = Math.log(a.loss / b.loss);
  return Math.abs(ratio) > Math.log(1.2) && a.rise > 0 && b.rise > 0 ? Math.log(a.rise / b.rise) / ratio : null;
}

/**
 * Steady temperature at another loss and ambient.
 * @param rise steady rise over ambient, K, with its interval
 * @param loss W, at which it was reached
 * @param wanted loss, W
 * @param ambient °C
 * @param exponent told by two soaks; null spans what free air does
 * @example predicted({ steady: 41.3, interval: [41.3, 41.3] }, 4.52, 3, 35, 1)?.celsius // 62.4
 */
export function predicted(
  rise: { readonly steady: number; readonly interval: readonly [number | null, number | null] },
  loss: number,
  wanted: number,
  ambient: number,
  exponent: number | null,
): Prediction | null {
  const [low, high] = rise.interval;
  if (!(loss > 0) || !(wanted > 0) || low === null || high === null) return null;
  const scaled = (value: number, power: number) => ambient + value * (wanted / loss) ** power;
  const powers = exponent === null ? [EXPONENTS.low, EXPONENTS.high] : [exponent];
  const ends = powers.flatMap((power) => [scaled(low, power), scaled(high, power)]);
  return {
    celsius: scaled(rise.steady, exponent ?? EXPONENTS.middle),
    interval: [Math.min(...ends), Math.max(...ends)],
  };
}
