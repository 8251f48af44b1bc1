// A value with its uncertainty in two parts: what the instruments share, and what repeats average out.
import quantile from '@stdlib/stats-base-dists-t-quantile';
import { requireFinite } from './spec.ts';

/**
 * A result in SI.
 * `uInstrument` is common to every reading of one rig, so averaging does not reduce it; `uRepeat` is independent
 * from reading to reading and comes with its degrees of freedom.
 */
export interface Measured {
  readonly value: number;
  readonly uInstrument: number;
  readonly uRepeat: number;
  /** Degrees of freedom of uRepeat; Infinity when there is no repeat part. */
  readonly degrees: number;
}

/** A value known from one reading of one instrument. */
export function measured(
  value: number,
  uInstrument: number,
  uRepeat = 0,
  degrees = Number.POSITIVE_INFINITY,
): Measured {
  requireFinite('value', value);
  requireFinite('uInstrument', uInstrument);
  requireFinite('uRepeat', uRepeat);
  if (uInstrument < 0 || uRepeat < 0) throw new RangeError('An uncertainty is not negative.');
  if (!(degrees >= 1)) throw new RangeError('Degrees of freedom are 1 or more.');
  return { value, uInstrument, uRepeat, degrees: uRepeat === 0 ? Number.POSITIVE_INFINITY : degrees };
}

/** Combined standard uncertainty. JCGM 100:2008, 5.1.2. */
export const standardUncertainty = (result: Measured): number => Math.hypot(result.uInstrument, result.uRepeat);

/** Effective degrees of freedom, the instrument part taken as exactly known. JCGM 100:2008, G.4.1. */
export function effectiveDegrees(result: Measured): number {
  if (result.uRepeat === 0 || !Number.isFinite(result.degrees)) return Number.POSITIVE_INFINITY;
  return (standardUncertainty(result) ** 4 / result.uRepeat ** 4) * result.degrees;
}

/** Probability that k = 2 covers for a normal distribution. */
const COVERAGE = 0.9545;

/**
 * Coverage factor for 95.45 %: 2 when the instruments dominate, larger when few repeats do.
 * Degrees of freedom are truncated to the next lower integer. JCGM 100:2008, G.4 and table G.2.
 */
export function coverageFactor(degrees: number): number {
  if (!(degrees >= 1)) throw new RangeError('Degrees of freedom are 1 or more.');
  if (degrees > 1e5) return 2;
  return Math.max(2, quantile(0.5 + COVERAGE / 2, Math.floor(degrees)));
}

/** Expanded uncertainty U = k·u at 95.45 %, SI. */
export const expandedUncertainty = (result: Measured): number =>
  coverageFactor(effectiveDegrees(result)) * standardUncertainty(result);

const spreadDegrees = (parts: readonly { u: number; degrees: number }[]): number => {
  const total = Math.hypot(...parts.map((part) => part.u));
  const denominator = parts.reduce((sum, part) => sum + part.u ** 4 / part.degrees, 0);
  return denominator === 0 ? Number.POSITIVE_INFINITY : Math.max(1, total ** 4 / denominator);
};

/** Weighted sum of independent contributions: u² = Σ(weight·u)². `value` is given because f need not be linear. */
export function propagate(
  value: number,
  terms: readonly { readonly weight: number; readonly of: Measured }[],
): Measured {
  const repeats = terms.map(({ weight, of }) => ({ u: Math.abs(weight) * of.uRepeat, degrees: of.degrees }));
  return measured(
    value,
    Math.hypot(...terms.map(({ weight, of }) => weight * of.uInstrument)),
    Math.hypot(...repeats.map((part) => part.u)),
    spreadDegrees(repeats.filter((part) => part.u > 0)),
  );
}

/** Product of two independent results, P = V·I: u_P² = (I·u_V)² + (V·u_I)². JCGM 100:2008, 5.1.3. */
export const product = (a: Measured, b: Measured): Measured =>
  propagate(a.value * b.value, [
    { weight: b.value, of: a },
    { weight: a.value, of: b },
  ]);

/** Ratio of two independent results; relative squares add. @throws RangeError when the divisor is zero */
export function ratio(a: Measured, b: Measured): Measured {
  if (b.value === 0) throw new RangeError('Division by a measured zero.');
  return propagate(a.value / b.value, [
    { weight: 1 / b.value, of: a },
    { weight: a.value / b.value ** 2, of: b },
  ]);
}

/** Sum of results from different meters. */
export const sum = (parts: readonly Measured[]): Measured =>
  propagate(
    parts.reduce((total, part) => total + part.value, 0),
    parts.map((of) => ({ weight: 1, of })),
  );

/**
 * Plain mean of results taken with the same instruments: the instrument parts are common, so they average without
 * the 1/√n; the repeat parts are independent. Used for the four-point average. JCGM 100:2008, 5.2.2, r = 1.
 * @throws RangeError for an empty list
 */
export function meanOfCommon(parts: readonly Measured[]): Measured {
  if (parts.length === 0) throw new RangeError('No results to average.');
  const n = parts.length;
  const repeats = parts.map((part) => ({ u: part.uRepeat / n, degrees: part.degrees }));
  return measured(
    parts.reduce((total, part) => total + part.value, 0) / n,
    parts.reduce((total, part) => total + part.uInstrument, 0) / n,
    Math.hypot(...repeats.map((part) => part.u)),
    spreadDegrees(repeats.filter((part) => part.u > 0)),
  );
}

/**
 * Combine repeated determinations of one thing: mean, with s/√n between them as the repeat part (JCGM 100:2008, 4.2).
 * A single one is returned as it is.
 */
export function combineRepeats(runs: readonly Measured[]): Measured {
  const mean = meanOfCommon(runs);
  const n = runs.length;
  if (n === 1) return mean;
  const variance = runs.reduce((total, run) => total + (run.value - mean.value) ** 2, 0) / (n - 1);
  return measured(mean.value, mean.uInstrument, Math.sqrt(variance / n), n - 1);
}
