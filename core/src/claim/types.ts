// Claims: every promise on label, box or manual, one ledger line each, and the states they can be in.
import type { Interval, Limit } from '../decision/index.ts';
import type { QuantityId } from '../quantity/index.ts';
import type { EvidenceKind, Mains, RangeSupply } from '../reading/index.ts';
import type { Unstated } from '../uncertainty/index.ts';

/** For how long a power is promised. */
export type ClaimDuration =
  | { readonly kind: 'unstated' }
  | { readonly kind: 'continuous' }
  | { readonly kind: 'peak'; readonly seconds: number };

/** Power of a port while the others of a combination are in use; `with` names ports that share it. */
export interface PromisedShare {
  readonly port: string;
  readonly with?: readonly string[] | undefined;
  /** W */
  readonly watts: number;
}

/** The ports a share is for. */
export const sharePorts = ({ port, with: others = [] }: PromisedShare): readonly string[] => [port, ...others];

/** What is promised. SI throughout. */
export type Promised =
  | { readonly kind: 'port-line'; readonly port: string; readonly volts: number; readonly amps: number }
  /** A range the voltage can be set in: PPS or AVS. Volts, and amps all over it. */
  | {
      readonly kind: 'range';
      readonly port: string;
      readonly supply: RangeSupply;
      readonly low: number;
      readonly high: number;
      readonly amps: number;
    }
  /** Signalling outside PD: id of the mode, and its title as it stood. */
  | { readonly kind: 'signal'; readonly port: string; readonly mode: string; readonly title: string }
  | { readonly kind: 'total'; readonly watts: number }
  | { readonly kind: 'combination'; readonly shares: readonly PromisedShare[] }
  | { readonly kind: 'average-efficiency'; readonly ratio: number; readonly mains: Mains | null }
  | { readonly kind: 'idle'; readonly watts: number; readonly mains: Mains | null }
  /** A slogan or version name: kept, but it promises nothing that can be tested. */
  | { readonly kind: 'wording'; readonly text: string };

export type ClaimKind = Promised['kind'];

export interface Claim {
  readonly id: string;
  readonly promise: Promised;
  readonly duration: ClaimDuration;
  /** Where it was printed: label, box, manual page. */
  readonly printed: string;
}

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

export interface ClaimResult {
  readonly claimId: string;
  readonly state: ClaimState;
  /** The finding in one sentence, the number first. */
  readonly sentence: string;
  /** What else to know: why not judged, what was not covered. */
  readonly notes: readonly string[];
  /** Accuracies that must be stated before it can be decided; empty otherwise. */
  readonly unstated: readonly Unstated[];
  /** Every test, the deciding one first. */
  readonly tests: readonly ClaimTest[];
  /** What was read on its ports without putting it to the test, ready to show; left out where it was tested. */
  readonly besides?: readonly string[] | undefined;
  /** Of a combination: how each of its shares stands. */
  readonly parts?: readonly SharePart[] | undefined;
}
