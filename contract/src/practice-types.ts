// Drills: practice on simulated samples, in a world of its own.
import type { Basis, DrillResult, PartKind, StatedPart } from '@lastmark/core/drill';

export const DRILL_STATES = ['under way', 'stated', 'left'] as const;
export type DrillStateName = (typeof DRILL_STATES)[number];

export interface DrillInput {
  person: string;
  levelId: string;
  /** The same seed hides the same; null draws one. */
  seed: number | null;
}

export interface VerdictInput {
  parts: { partId: string; faults: { id: string; basis: Basis }[] }[];
}

export interface DrillRow {
  id: string;
  person: string;
  levelId: string;
  seed: number;
  state: DrillStateName;
  startedAt: string;
  endedAt: string | null;
  /** Null while it is under way, or where it was left. */
  result: DrillResult | null;
}

/** A sample of a drill, or its rig. */
export interface DrillPartRow {
  /** The sample in the world of practice; "rig" for the rig. */
  id: string;
  name: string;
  of: PartKind;
  tag: string;
}

export interface DrillState extends DrillRow {
  parts: DrillPartRow[];
  /** Whether its world is open: what was measured in it can be looked at. */
  open: boolean;
  /** Bench time there is and was used, s, and the steps it went into. */
  budget: number;
  used: { steps: number; seconds: number };
  /** What stands on the bench; null while nothing was put there, or where it is over. */
  onBench: string | null;
  /** What the display of what stands there shows, W; null without one. */
  display: number | null;
  /** What was said, and what is true: null until it was stated. */
  stated: StatedPart[] | null;
  truth: StatedTruth[] | null;
}

export interface StatedTruth {
  partId: string;
  /** Ids of the faults that hid there. */
  faults: string[];
}

export interface DrillNow {
  /** Null where none is under way. */
  drill: DrillState | null;
}
