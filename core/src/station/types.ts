// A station as the judgement sees it: what it reads, concludes, brings as evidence, how far it is, and what it says.
import type { ClaimState, SharePart } from '../evidence/index.ts';
import type { StationAbout } from './about.ts';

/** A judged claim, as far as a station may know it. */
export interface SettledClaim {
  readonly claimId: string;
  readonly state: ClaimState;
  readonly parts?: readonly SharePart[] | undefined;
}

/** How far a station is. */
export interface StationProgress {
  readonly done: number;
  readonly total: number;
  /** Worst finding of the station in a word, null when there is nothing to say. */
  readonly worst: ClaimState | null;
}

/**
 * One station. It names what it needs of a sample by its own types, so that no station knows another's.
 * Functions are methods, so that stations of any kind stand in one list.
 */
export interface Station<Id extends string, Slice, Needs, Result> extends StationAbout {
  readonly id: Id;
  /** Parts of the dossier it is given, and all that its conclusion depends on. */
  readonly reads: readonly (keyof Slice & string)[];
  /** Stations whose conclusions it works with. */
  readonly needs: readonly (keyof Needs & string)[];
  /** Pure: the same parts give the same conclusion. */
  conclude(slice: Slice, needs: Needs): Result;
  /** What it brings to the claims; lists of several stations are put one after the other. */
  evidence?(result: Result, slice: Slice): Readonly<Record<string, readonly unknown[]>>;
  /** The conclusion with what the judged claims add to it: one place decides, and stations show what it decided. */
  settled?(result: Result, slice: Slice, claims: readonly SettledClaim[]): Result;
  /**
   * @param settles states of the claims it settles, those not tested left out
   * @param all states of all claims of the sample
   */
  progress(result: Result, slice: Slice, settles: readonly ClaimState[], all: readonly ClaimState[]): StationProgress;
  /** What it has to say, a sentence each, the most telling first: the one source for sheet, report and export. */
  says?(result: Result, slice: Slice): readonly string[];
}

/** A station of any kind, as a list holds it: only the list knows that what it gives fits. */
// biome-ignore lint/suspicious/noExplicitAny: what a station takes and gives is its own.
export type AnyStation = Station<string, any, any, any>;
