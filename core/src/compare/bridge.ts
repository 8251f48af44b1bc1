// One against one: what differs, by how much, and whether that is more than the uncertainty.
import type { Better } from '../measure/index.ts';
import type { Compared } from './values.ts';

export interface Step {
  /** The second less the first, SI, and its expanded uncertainty; null while one is not known. */
  readonly value: number;
  readonly expanded: number | null;
  /** As a part of the first; null where that is nought. */
  readonly part: number | null;
  /** Which is better beyond the uncertainty; null for neither, or while that cannot be said. */
  readonly better: 'first' | 'second' | null;
}

/**
 * Difference of two values under one condition; the error common to the same meters cancels in proportion.
 * One that is only known to be below a bound differs from another by no number.
 * @returns null then
 * @example stepBetween({ value: 90, u: 0.1, … }, { value: 92, u: 0.1, … }, 'more')?.better // 'second'
 */
export function stepBetween(first: Compared, second: Compared, better: Better): Step | null {
  if (first.below || second.below || !Number.isFinite(first.value) || !Number.isFinite(second.value)) return null;
  const value = second.value - first.value;
  const part = first.value === 0 ? null : value / Math.abs(first.value);
  if (first.u === null || second.u === null) return { value, expanded: null, part, better: null };
  const same = first.meters !== '' && first.meters === second.meters;
  const shared = same ? Math.min(first.common, first.u) * Math.min(second.common, second.u) : 0;
  const expanded = 2 * Math.sqrt(Math.max(0, first.u ** 2 + second.u ** 2 - 2 * shared));
  const told = better !== null && Math.abs(value) > expanded;
  return { value, expanded, part, better: told ? (value > 0 === (better === 'more') ? 'second' : 'first') : null };
}
