// A value with its uncertainty in two parts: what the instruments share, and what repeats average out.
import quantile from '@stdlib/stats-base-dists-t-quantile';
import { type AccuracySpec, requireFinite, specUncertainty } from './spec.ts';

/** An accuracy nobody stated: of which meter, for what. */
export interface Unstated {
  /** Id of the instrument; null where not even that is known. */
  readonly meter: string | null;
  /** What it read: "power", "voltage". */
  readonly quantity: string;
}

/**
 * A result in SI.
 * `uInstrument` is common to every reading of one rig, so averaging does not reduce it; `uRepeat` is independent
 * from reading to reading and comes with its degrees of freedom. Both cover what is stated only: while `unstated` names
 * anything, the uncertainty is unknown, and nothing can be decided from the value.
 */
export interface Measured {
  readonly value: number;
  readonly uInstrument: number;
  readonly uRepeat: number;
  /** Degrees of freedom of uRepeat; Infinity when there is no repeat part. */
  readonly degrees: number;
  /** Accuracies behind it that nobody stated; empty when the uncertainty is known. */
  readonly unstated: readonly Unstated[];
}

const NOTHING_UNSTATED: readonly Unstated[] = [];

/** Whether the uncertainty of a result is known. */
export const isStated = ({ unstated }: Measured): boolean => unstated.length === 0;

/** Everything several results leave unstated, each once. */
export function unstatedOf(parts: readonly Pick<Measured, 'unstated'>[]): readonly Unstated[] {
  const all = parts.flatMap(({ unstated }) => unstated);
  if (all.length === 0) return NOTHING_UNSTATED;
  return [...new Map(all.map((one) => [`${one.meter} ${one.quantity}`, one])).values()];
}

/**
 * A value known from one reading of one instrument.
 * @param unstated what its accuracy lacks; `uInstrument` is then what the rest amounts to
 * @throws RangeError for what is not finite, an uncertainty below zero, or less than one degree of freedom
 */
export function measured(
  value: number,
  uInstrument: number,
  uRepeat = 0,
  degrees = Number.POSITIVE_INFINITY,
  unstated: readonly Unstated[] = NOTHING_UNSTATED,
): Measured {
  requireFinite('value', value);
  requireFinite('uInstrument', uInstrument);
  requireFinite('uRepeat', uRepeat);
  if (uInstrument < 0 || uRepeat < 0) throw new RangeError('An uncertainty is not negative.');
  if (!(degrees >= 1)) throw new RangeError('Degrees of freedom are 1 or more.');
  return { value, uInstrument, uRepeat, degrees: uRepeat === 0 ? Number.POSITIVE_INFINITY : degrees, unstated };
}

/** What an instrument reads, by its spec. @param spec undefined where nobody stated one: the accuracy is then unknown, not nought */
export const readBy = (spec: AccuracySpec | undefined, value: number, who: Unstated): Measured =>
  spec ? measured(value, specUncertainty(spec, value)) : measured(value, 0, 0, Number.POSITIVE_INFINITY, [who]);

/** Combined standard uncertainty; Infinity while an accuracy behind it is not stated. JCGM 100:2008, 5.1.2. */
export const standardUncertainty = (result: Measured): number =>
  isStated(result) ? Math.hypot(result.uInstrument, result.uRepeat) : Number.POSITIVE_INFINITY;

/** Effective degrees of freedom, the instrument part taken as exactly known. JCGM 100:2008, G.4.1. */
export function effectiveDegrees(result: Measured): number {
  if (result.uRepeat === 0 || !Number.isFinite(result.degrees)) return Number.POSITIVE_INFINITY;
  return (Math.hypot(result.uInstrument, result.uRepeat) ** 4 / result.uRepeat ** 4) * result.degrees;
}

/** Probability that k = 2 covers for a normal distribution. */
const COVERAGE = 0.9545;

/** Factors worked out so far, by whole degrees of freedom. */
const FACTORS = new Map<number, number>();

/**
 * Coverage factor for 95.45 %: 2 when the instruments dominate, larger when few repeats do.
 * Degrees of freedom are truncated to the next lower integer. JCGM 100:2008, G.4 and table G.2.
 */
export function coverageFactor(degrees: number): number {
  if (!(degrees >= 1)) throw new RangeError('Degrees of freedom are 1 or more.');
  if (degrees > 1e5) return 2;
  const whole = Math.floor(degrees);
  const known = FACTORS.get(whole) ?? Math.max(2, quantile(0.5 + COVERAGE / 2, whole));
  FACTORS.set(whole, known);
  return known;
}

/** Expanded uncertainty U = k·u at 95.45 %, SI; Infinity while an accuracy behind it is not stated. */
export const expandedUncertainty = (result: Measured): number =>
  coverageFactor(effectiveDegrees(result)) * standardUncertainty(result);

const spreadDegrees = (parts: readonly { u: number; degrees: number }[]): number => {
  const total = Math.hypot(...parts.map((part) => part.u));
  const denominator = parts.reduce((sum, part) => sum + part.u ** 4 / part.degrees, 0);
  return denominator === 0 ? Number.POSITIVE_INFINITY : Math.max(1, total ** 4 / denominator);
};

/** One contribution to a result. */
export interface Term {
  readonly weight: number;
  readonly of: Measured;
  /** What read it: contributions of one meter share part of their error. Left out or null for a meter of its own. */
  readonly meter?: string | null | undefined;
}

/**
 * How much of one meter's error two of its readings have in common, as a correlation. No spec states it, so the error
 * counts as it hurts: what adds is taken as all common, what would cancel as not common at all. A verdict is never made
 * easier by what nobody stated. JCGM 100:2008, 5.2.2 with F.1.2.3; the two ends of what is possible.
 */
export const SAME_METER = { adding: 1, cancelling: 0 } as const;

/** Variance that contributions of one meter bring together beyond what each brings alone: Σ over pairs of 2·r·aᵢ·aⱼ. */
function shared(terms: readonly Term[]): number {
  let cross = 0;
  const sums = new Map<string, { plus: number; minus: number }>();
  for (const { weight, of, meter } of terms) {
    if (meter == null) continue;
    const own = weight * of.uInstrument;
    const before = sums.get(meter) ?? { plus: 0, minus: 0 };
    sums.set(meter, before);
    const [same, other] = own < 0 ? [before.minus, before.plus] : [before.plus, before.minus];
    cross += 2 * own * (same * SAME_METER.adding + other * SAME_METER.cancelling);
    if (own < 0) before.minus += own;
    else before.plus += own;
  }
  return cross;
}

/**
 * Weighted sum of contributions: u² = Σ(weight·u)², and what contributions of one meter share ({@link SAME_METER}).
 * Repeats stay independent; what a contribution of weight zero leaves unstated does not count. JCGM 100:2008, 5.1.2, 5.2.2.
 * @param value given because the result need not be linear in its terms
 */
export function propagate(value: number, terms: readonly Term[]): Measured {
  const repeats = terms.map(({ weight, of }) => ({ u: Math.abs(weight) * of.uRepeat, degrees: of.degrees }));
  const alone = Math.hypot(...terms.map(({ weight, of }) => weight * of.uInstrument));
  const cross = shared(terms);
  return measured(
    value,
    cross === 0 ? alone : Math.sqrt(alone ** 2 + cross),
    Math.hypot(...repeats.map((part) => part.u)),
    spreadDegrees(repeats.filter((part) => part.u > 0)),
    unstatedOf(terms.flatMap(({ weight, of }) => (weight === 0 ? [] : [of]))),
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

/** Sum of results. @param meter what read all of them; null for meters of their own */
export const sum = (parts: readonly Measured[], meter: string | null = null): Measured =>
  propagate(
    parts.reduce((total, part) => total + part.value, 0),
    parts.map((of) => ({ weight: 1, of, meter })),
  );

/** Difference b − a. Whatever read them, nothing is taken to cancel ({@link SAME_METER}). */
export const difference = (a: Measured, b: Measured): Measured =>
  propagate(b.value - a.value, [
    { weight: -1, of: a },
    { weight: 1, of: b },
  ]);

/**
 * Plain mean of results taken with the same instruments: their instrument parts add up as common, so they average
 * without the 1/√n ({@link SAME_METER}); the repeat parts are independent. Used for the four-point average.
 * @throws RangeError for an empty list
 */
export function meanOfCommon(parts: readonly Measured[]): Measured {
  if (parts.length === 0) throw new RangeError('No results to average.');
  const n = parts.length;
  return propagate(
    parts.reduce((total, part) => total + part.value, 0) / n,
    parts.map((of) => ({ weight: 1 / n, of, meter: 'common' })),
  );
}

/**
 * Combine repeated determinations of one thing: mean, with s/√n between them as the repeat part (JCGM 100:2008, 4.2).
 * Where each was a mean of samples itself and scatters more within than the runs do between them, that counts, with its
 * own degrees of freedom. A single one is returned as it is.
 */
export function combineRepeats(runs: readonly Measured[]): Measured {
  const mean = meanOfCommon(runs);
  const n = runs.length;
  if (n === 1) return mean;
  const variance = runs.reduce((total, run) => total + (run.value - mean.value) ** 2, 0) / (n - 1);
  const between = Math.sqrt(variance / n);
  return between >= mean.uRepeat ? measured(mean.value, mean.uInstrument, between, n - 1, mean.unstated) : mean;
}
