// A claim judged.
import type { ClaimState, ClaimTest, SharePart } from '../evidence/index.ts';
import type { Unstated } from '../uncertainty/index.ts';

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
