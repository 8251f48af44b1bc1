// What each kind of evidence can prove: two-sided, a lower bound, an upper bound, or no number at all.

import { compare, type DecisionRule, type Interval, intervalOf, type Limit } from '../decision/index.ts';
import type { EvidenceKind } from '../reading/index.ts';
import { isStated, type Measured } from '../uncertainty/index.ts';
import { CLAIM_STATES, type ClaimState, type Evidence } from './types.ts';

/**
 * What one measured output power (or voltage, efficiency …) says about the truth.
 * - load: value ± U, two-sided; under the simple rule the value itself
 * - device: value − U and above; it never refutes
 * - wall: handled by {@link wallInterval}, since it needs the efficiency
 * - display, word, observation, read-out: no number
 */
export function evidenceInterval(
  kind: EvidenceKind,
  result: Measured,
  rule: DecisionRule = 'guarded',
): Interval | null {
  const known = rule === 'simple' && isStated(result) ? { low: result.value, high: result.value } : intervalOf(result);
  if (kind === 'load') return known;
  if (kind === 'device') return { low: known.low, high: Number.POSITIVE_INFINITY };
  return null;
}

/**
 * Output power behind a reading at the wall: [P·η_low, P·η_high] with the bounds of P and of the sample's own
 * measured efficiency, each taken outwards. Without a measured efficiency only the upper bound P is known.
 * @param efficiency bounds of η, 0…1, or null when none was measured
 */
export function wallInterval(mains: Measured, efficiency: Interval | null): Interval {
  const input = intervalOf(mains);
  if (!efficiency) return { low: Number.NEGATIVE_INFINITY, high: input.high };
  if (!(efficiency.low >= 0 && efficiency.low <= efficiency.high && efficiency.high <= 1)) {
    throw new RangeError('Efficiency bounds run from 0 to 1.');
  }
  return { low: input.low * efficiency.low, high: input.high * efficiency.high };
}

/** The state one piece of evidence gives a limit. */
export function stateOf(evidence: Pick<Evidence, 'kind' | 'interval'>, limit: Limit): ClaimState {
  if (!evidence.interval) return evidence.kind === 'read-out' ? 'advertised only' : 'not tested';
  const outcome = compare(evidence.interval, limit);
  const oneSided = evidence.interval.high === Number.POSITIVE_INFINITY;
  return outcome === 'borderline' && oneSided && limit.kind === 'at-least' ? 'at least' : outcome;
}

/**
 * The state several tests of one and the same promise give it.
 * Evidence that proves and evidence that refutes cannot both be right: the runs disagree, so it is borderline.
 * @returns the state, and whether runs disagree
 */
export function settle(states: readonly ClaimState[]): { readonly state: ClaimState; readonly disagree: boolean } {
  const has = (state: ClaimState) => states.includes(state);
  if (has('proven') && has('short')) return { state: 'borderline', disagree: true };
  for (const state of ['short', 'proven', 'borderline', 'cannot be decided', 'at least', 'advertised only'] as const) {
    if (has(state)) return { state, disagree: false };
  }
  return { state: 'not tested', disagree: false };
}

/** The worst of several states a promise must hold in together (every mains, every port). */
export function worstState(states: readonly ClaimState[], order: readonly ClaimState[]): ClaimState {
  return order.find((state) => states.includes(state)) ?? 'not tested';
}

/** Worst of some states, none for none. */
export const worstOf = (states: readonly ClaimState[]): ClaimState | null =>
  states.length > 0 ? worstState(states, CLAIM_STATES) : null;
