// One test of a claim: a measured value against a limit, weighed by its kind of evidence.
import { conformity, type DecisionRule, type Limit } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import type { IdleResult } from '../idle/index.ts';
import type { Delivered, HoldRun } from '../proof/types.ts';
import { formatMeasured, type QuantityId } from '../quantity/index.ts';
import type { ReadOut, Sees } from '../read-out/types.ts';
import type { EvidenceKind } from '../reading/index.ts';
import { expandedUncertainty, type Measured } from '../uncertainty/index.ts';
import { evidenceInterval, stateOf } from './evidence.ts';
import type { ClaimResult, ClaimState, ClaimTest, Promised } from './types.ts';

/** What is known about the sample when its claims are judged. */
export interface Known {
  readonly series: readonly SeriesResult[];
  readonly idle: readonly IdleResult[];
  readonly rule: DecisionRule;
  /** Fraction by which a power or current may miss the promise and still count as set: the load setting tolerance. */
  readonly allowance: number;
  /** Own voltage tolerance, fraction of the level; null takes the standard's. */
  readonly tolerance: number | null;
  /** Everything delivered under load: proof steps, full loads, devices. */
  readonly delivered: readonly Delivered[];
  readonly holds: readonly HoldRun[];
  /** How long a power must hold to count as continuous, s. */
  readonly continuous: number;
  readonly readOuts: readonly ReadOut[];
  /** What an analyser can see, by its id; null when it is not on record. */
  readonly seesOf: (instrumentId: string) => Sees | null;
}

/** Nothing known yet, to spread over. */
export const NOTHING_KNOWN: Known = {
  series: [],
  idle: [],
  rule: 'guarded',
  allowance: 0.02,
  tolerance: null,
  delivered: [],
  holds: [],
  continuous: 3600,
  readOuts: [],
  seesOf: () => null,
};

/** A result before it is tied to its claim. */
export type Judged = Omit<ClaimResult, 'claimId'>;
export type PromiseOf<K extends Promised['kind']> = Extract<Promised, { kind: K }>;

export const notTested = (sentence: string): Judged => ({ state: 'not tested', sentence, notes: [], tests: [] });

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
  const evidence = { kind, interval: evidenceInterval(kind, result, rule), conditions, pointIds };
  return {
    quantity,
    limit,
    value: result.value,
    expanded: expandedUncertainty(result),
    state: stateOf(evidence, limit),
    probability: kind === 'load' ? conformity(result, limit) : null,
    evidence,
  };
}

/** The measured value with its uncertainty. */
export const shown = (test: ClaimTest): string => formatMeasured(test.value, test.expanded, test.quantity);

/** Tests sorted so that the one that decided stands first. */
export const decidingFirst = (tests: readonly ClaimTest[], state: ClaimState): ClaimTest[] =>
  [...tests].sort((a, b) => Number(b.state === state) - Number(a.state === state));
