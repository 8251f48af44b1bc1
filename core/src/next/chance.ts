// How likely a measurement decides a promise: what is believed of the value, and how well the meters would know it.
import cdf from '@stdlib/stats-base-dists-normal-cdf';
import type { DecisionRule, Limit } from '../decision/index.ts';

/** What is believed of a value before it is measured: a mixture of normal distributions, SI. */
export type Belief = readonly { readonly weight: number; readonly mean: number; readonly sd: number }[];

/** The value is about as promised, and now and then it falls clearly behind. */
export const aboutAsPromised = (mean: number, spread: number, behind: number, far: number): Belief => [
  { weight: 0.85, mean, sd: Math.abs(mean) * spread },
  { weight: 0.15, mean: mean * behind, sd: Math.abs(mean) * far },
];

/** @returns probability that a normal value lies below an end */
const below = (end: number, mean: number, sd: number): number => {
  if (end === Number.POSITIVE_INFINITY) return 1;
  if (end === Number.NEGATIVE_INFINITY) return 0;
  if (sd > 0) return cdf(end, mean, sd);
  return end > mean ? 1 : 0;
};

/**
 * Probability that a reading proves or refutes: what is read scatters by the belief and by the meter, and counts only beyond U of the
 * limit. JCGM 106:2012, 8.3 (guarded acceptance and rejection).
 * @param limit what the value must satisfy @param belief weights adding up to 1
 * @param expanded U of the reading, k = 2; Infinity while nobody knows it, which decides nothing
 * @param meterSpread how much a new reading scatters by the meter, standard deviation; left out takes all of U/2
 * @param rule a simple rule decides always
 * @returns 0…1; 0 for a U that is no number or below nought
 * @example decidedChance({ kind: 'at-least', low: 100 }, [{ weight: 1, mean: 104, sd: 0 }], 2) // 0.98: two of its U away
 */
export function decidedChance(
  limit: Limit,
  belief: Belief,
  expanded: number,
  {
    rule = 'guarded',
    meterSpread = expanded / 2,
  }: { readonly rule?: DecisionRule; readonly meterSpread?: number } = {},
): number {
  if (!(expanded >= 0) || !Number.isFinite(expanded)) return 0;
  if (rule === 'simple') return 1;
  const low = limit.kind === 'at-most' ? Number.NEGATIVE_INFINITY : limit.low;
  const high = limit.kind === 'at-least' ? Number.POSITIVE_INFINITY : limit.high;
  const chance = belief.reduce((sum, { weight, mean, sd }) => {
    const spread = Math.hypot(sd, meterSpread);
    const at = (end: number) => below(end, mean, spread);
    const proven = Math.max(0, at(high - expanded) - at(low + expanded));
    const refuted = at(low - expanded) + (1 - at(high + expanded));
    return sum + weight * (proven + refuted);
  }, 0);
  return Math.min(1, Math.max(0, chance));
}
