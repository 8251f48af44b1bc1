// Decisions against limits with uncertainty: simple, guarded, probability. After ILAC-G8:09/2019 and JCGM 106:2012.
import cdf from '@stdlib/stats-base-dists-normal-cdf';
import studentCdf from '@stdlib/stats-base-dists-t-cdf';
import {
  effectiveDegrees,
  expandedUncertainty,
  isStated,
  type Measured,
  requireFinite,
  standardUncertainty,
} from '../uncertainty/index.ts';

/** What a value must satisfy, SI. */
export type Limit =
  | { readonly kind: 'at-least'; readonly low: number }
  | { readonly kind: 'at-most'; readonly high: number }
  | { readonly kind: 'within'; readonly low: number; readonly high: number };

/** Where the truth lies as far as the evidence goes, SI. One-sided evidence has one infinite end. */
export interface Interval {
  readonly low: number;
  readonly high: number;
}

export type DecisionRule = 'simple' | 'guarded';

/** The outcome of comparing one value with one limit. Without a known uncertainty it cannot be decided. */
export type Outcome = 'proven' | 'short' | 'borderline' | 'cannot be decided';

export interface Decision {
  readonly outcome: Outcome;
  /** Probability of conformity, 0…1; null where none can be given. */
  readonly probability: number | null;
  /** Distance inside the limit, SI; negative when the value misses it. */
  readonly margin: number;
}

const lowOf = (limit: Limit): number => (limit.kind === 'at-most' ? Number.NEGATIVE_INFINITY : limit.low);
const highOf = (limit: Limit): number => (limit.kind === 'at-least' ? Number.POSITIVE_INFINITY : limit.high);

/** The interval value ± U of two-sided evidence; without ends where the uncertainty is unknown. */
export function intervalOf(result: Measured): Interval {
  const expanded = expandedUncertainty(result);
  return { low: result.value - expanded, high: result.value + expanded };
}

/**
 * Compare what is known (an interval) with a limit: proven when all of it is inside, short when all of it is outside,
 * borderline otherwise. Proven and short exclude each other. @throws RangeError for NaN or a reversed interval
 */
export function compare(known: Interval, limit: Limit): Exclude<Outcome, 'cannot be decided'> {
  if (!(known.low <= known.high)) throw new RangeError('An interval runs from low to high.');
  const low = lowOf(limit);
  const high = highOf(limit);
  if (!(low <= high)) throw new RangeError('A limit runs from low to high.');
  if (known.low >= low && known.high <= high) return 'proven';
  if (known.high < low || known.low > high) return 'short';
  return 'borderline';
}

/**
 * Probability that the true value meets the limit: (truth − value)/u follows Student's t with the effective degrees of
 * freedom, which is the normal distribution where the instruments dominate. JCGM 106:2012, 7.3–7.4; JCGM 100:2008, G.3–G.4.
 * @returns 0…1; null while an accuracy is not stated
 */
export function conformity(result: Measured, limit: Limit): number | null {
  if (!isStated(result)) return null;
  const u = standardUncertainty(result);
  const inside = result.value >= lowOf(limit) && result.value <= highOf(limit);
  if (u === 0) return inside ? 1 : 0;
  const degrees = effectiveDegrees(result);
  const below = (end: number): number => {
    if (!Number.isFinite(end)) return end > 0 ? 1 : 0;
    const away = (end - result.value) / u;
    return degrees > MANY ? cdf(away, 0, 1) : studentCdf(away, Math.floor(degrees));
  };
  return Math.max(0, below(highOf(limit)) - below(lowOf(limit)));
}

/** Degrees of freedom from which Student's t is the normal distribution. */
const MANY = 1e5;

/**
 * Decide about one two-sided result.
 * - `simple`: the value against the limit (ILAC-G8, 4.2.1);
 * - `guarded`: a guard band of one U on each side of the limit (ILAC-G8, 4.2.2): proven only if the whole of
 *   value ± U clears the limit, short only if the whole of it misses, else borderline.
 * Either rule presumes a known uncertainty: while one is not stated it cannot be decided.
 * @throws RangeError for a NaN or infinite value or limit
 */
export function decide(result: Measured, limit: Limit, rule: DecisionRule = 'guarded'): Decision {
  requireFinite('value', result.value);
  if (limit.kind !== 'at-most') requireFinite('limit', limit.low);
  if (limit.kind !== 'at-least') requireFinite('limit', limit.high);
  const known = rule === 'simple' ? { low: result.value, high: result.value } : intervalOf(result);
  return {
    outcome: isStated(result) ? compare(known, limit) : 'cannot be decided',
    probability: conformity(result, limit),
    margin: Math.min(result.value - lowOf(limit), highOf(limit) - result.value),
  };
}

/** Decide about a truth that is only known to lie in an interval: no rule, no probability. */
export const decideWithin = (known: Interval, limit: Limit): Decision => ({
  outcome: compare(known, limit),
  probability: null,
  margin: Math.min(known.low - lowOf(limit), highOf(limit) - known.high),
});
