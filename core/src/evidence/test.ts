// One test of a promise: a measured value against a limit, weighed by its kind of evidence.
import { conformity, type DecisionRule, type Interval, type Limit } from '../decision/index.ts';
import { formatInterval, formatMeasured, type QuantityId } from '../quantity/index.ts';
import type { EvidenceKind } from '../reading/index.ts';
import { expandedUncertainty, isStated, type Measured, type Unstated } from '../uncertainty/index.ts';
import { evidenceInterval, stateOf } from './interval.ts';
import type { ClaimState, ClaimTest } from './types.ts';

/** Put a measured value to a test. */
export function testOf(
  quantity: QuantityId,
  limit: Limit,
  result: Measured,
  kind: EvidenceKind,
  conditions: string,
  pointIds: readonly string[],
  rule: DecisionRule,
): ClaimTest {
  const { unstated } = result;
  const evidence = { kind, interval: evidenceInterval(kind, result, rule), conditions, pointIds };
  return {
    quantity,
    limit,
    value: result.value,
    expanded: expandedUncertainty(result),
    scatter: result.uRepeat,
    unstated,
    state: evidence.interval && !isStated(result) ? 'cannot be decided' : stateOf(evidence, limit),
    probability: kind === 'load' ? conformity(result, limit) : null,
    evidence,
  };
}

/** The measured value with its uncertainty, or what else is known. */
export const shownTest = ({ words, value, expanded, quantity }: ClaimTest): string =>
  words ?? formatMeasured(value ?? Number.NaN, expanded, quantity);

/** An output that is only known to lie between two bounds, W. */
export interface Bound extends Interval {
  /** W it cannot be above whatever the efficiency is. */
  readonly most: number;
  /** Whether an efficiency was assumed for it: such a bound settles nothing. */
  readonly assumed: Interval | null;
  readonly unstated: readonly Unstated[];
}

/** Put a power that is only known as an interval to a test. What a device left in the charger has no upper end. */
export function boundTest(
  limit: Limit,
  bound: Bound,
  kind: EvidenceKind,
  conditions: string,
  pointIds: readonly string[],
): ClaimTest {
  const { low, high, most, assumed, unstated } = bound;
  const oneSided = kind === 'device';
  const interval = { low, high: oneSided ? Number.POSITIVE_INFINITY : high };
  const how = assumed
    ? `${conditions}, efficiency assumed ${Math.round(assumed.low * 100)}…${Math.round(assumed.high * 100)} %`
    : conditions;
  const evidence = { kind, interval, conditions: how, pointIds };
  return {
    quantity: 'power',
    limit,
    value: null,
    words: unstated.length > 0 ? 'not known' : formatInterval(low, high, 'power', 1),
    expanded: Number.POSITIVE_INFINITY,
    unstated,
    state:
      unstated.length > 0 ? 'cannot be decided' : settledBy(stateOf(evidence, limit), limit, most, bound, oneSided),
    probability: null,
    evidence,
  };
}

/** An assumed efficiency proves and refutes nothing; only what cannot be whatever it is does. */
function settledBy(state: ClaimState, limit: Limit, most: number, { assumed }: Bound, oneSided: boolean): ClaimState {
  if (!assumed || (state !== 'proven' && state !== 'short')) return state;
  if (oneSided) return 'at least';
  return limit.kind === 'at-least' && most < limit.low ? 'short' : 'borderline';
}

/** Tests sorted so that the one that decided stands first. */
export const decidingFirst = (tests: readonly ClaimTest[], state: ClaimState): ClaimTest[] =>
  [...tests].sort((a, b) => Number(b.state === state) - Number(a.state === state));
