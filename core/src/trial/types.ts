// A fair trial: one question, one thing changed, everything else held; or a table of several things, each tried with each.
import type { QuantityId } from '../quantity/index.ts';

/** What is measured in every run. */
export interface TrialMeasure {
  /** "time to 50 %" */
  readonly name: string;
  readonly quantity: QuantityId;
  /** What is better; null where neither is. */
  readonly better: 'lower' | 'higher' | null;
}

/** Something kept as it is in every run. */
export interface Held {
  readonly name: string;
  readonly value: string;
}

/** One of what is compared. */
export interface Arm {
  readonly name: string;
  /** The sample it is; null for what is none. */
  readonly sampleId: string | null;
}

interface TrialHead {
  readonly question: string;
  readonly measure: TrialMeasure;
  readonly held: readonly Held[];
  /** How often everything is run once: pairs, or repeats of a table. */
  readonly blocks: number;
  /** Shuffles the order; the same seed gives the same order. */
  readonly seed: number;
}

/** One thing changed: every block runs each arm once, in an order drawn for it. */
export interface BlockTrial extends TrialHead {
  readonly kind: 'blocks';
  /** The one thing that is changed: "cable". */
  readonly factor: string;
  readonly arms: readonly Arm[];
  /** Smallest difference that would matter, SI; null where nobody said. */
  readonly matters: number | null;
  /** Standard deviation of the differences of pairs as expected, SI; null where nobody knows. */
  readonly expected: number | null;
  /** Whoever runs it sees letters only, until the end. */
  readonly blind: boolean;
}

/** Two things or three, each of one tried with each of the others. */
export interface MatrixTrial extends TrialHead {
  readonly kind: 'matrix';
  readonly factors: readonly { readonly name: string; readonly levels: readonly Arm[] }[];
}

export type Trial = BlockTrial | MatrixTrial;

/** A place in the order of runs. */
export interface Slot {
  readonly block: number;
  /** Which of the arms, by number; of a table one number a factor. */
  readonly cell: readonly number[];
}

/** One run of a trial. */
export interface TrialRun extends Slot {
  readonly id: string;
  /** SI */
  readonly value: number;
  /** What was held, as it was. */
  readonly held: readonly Held[];
  readonly note: string;
  readonly takenAt: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

/** Runs that stand, in the order they were taken. */
export function standingRuns<R extends Pick<TrialRun, 'id' | 'supersedes' | 'withdrawn' | 'takenAt'>>(
  runs: readonly R[],
): readonly R[] {
  const replaced = new Set(runs.flatMap(({ supersedes }) => supersedes ?? []));
  return runs
    .filter(({ id, withdrawn }) => !withdrawn && !replaced.has(id))
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt));
}

export const sameCell = (a: Slot, b: Slot): boolean =>
  a.block === b.block && a.cell.length === b.cell.length && a.cell.every((one, at) => one === b.cell[at]);
