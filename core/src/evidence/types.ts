// What evidence can say of a promise: states, and one test it was put to.
import type { Interval, Limit } from '../decision/index.ts';
import type { QuantityId } from '../quantity/index.ts';
import type { EvidenceKind } from '../reading/index.ts';
import type { Unstated } from '../uncertainty/index.ts';

/** Every state a claim can be in, worst first. */
export const CLAIM_STATES = [
  'short',
  'unreachable',
  'borderline',
  'cannot be decided',
  'at least',
  'advertised only',
  'not visible',
  'not tested',
  'undefined',
  'assumed',
  'proven',
] as const;

export type ClaimState = (typeof CLAIM_STATES)[number];

/** One piece of evidence brought to a claim. */
export interface Evidence {
  readonly kind: EvidenceKind;
  /** What it says about the truth, SI; null when it says nothing in numbers. */
  readonly interval: Interval | null;
  /** Under which conditions, ready to show. */
  readonly conditions: string;
  /** Points whose readings stand behind it. */
  readonly pointIds: readonly string[];
}

/** One test a claim was put to. */
export interface ClaimTest {
  readonly quantity: QuantityId;
  readonly limit: Limit;
  /** SI; null where only an interval is known: then nothing in between is said or drawn. */
  readonly value: number | null;
  /** What is known in words, where it is not value ± U: an interval, a bound. */
  readonly words?: string | undefined;
  /** Expanded uncertainty, SI; Infinity while it is not known. */
  readonly expanded: number;
  /** Standard uncertainty by scatter alone, SI: the part more repeats would lessen; left out where none is known. */
  readonly scatter?: number | undefined;
  /** Accuracies behind it that nobody stated: while there are any it cannot be decided. */
  readonly unstated: readonly Unstated[];
  readonly state: ClaimState;
  /** Probability of conformity, for two-sided evidence. */
  readonly probability: number | null;
  readonly evidence: Evidence;
}

/** How one share of a promised combination stands. */
export interface SharePart {
  /** First of its ports. */
  readonly port: string;
  readonly state: ClaimState;
}
