// Trials, and what is done with cables, as they travel.
import type { CableRun, NewCableRun } from '@lastmark/core/cable';
import type { HeldBack } from '@lastmark/core/marker';
import type { Fate } from '@lastmark/core/survival';
import type { Trial, TrialRun } from '@lastmark/core/trial';

export type CableRunInput = NewCableRun;
export type StoredCableRun = CableRun;

/** How far one unit of a model came by bends. */
export interface UnitFate extends Fate {
  sampleId: string;
  tag: string;
  serial: string;
  /** What failed; empty for nothing. */
  fault: string;
}

/** A charger of the shelf that a cable would hold back. */
export interface HeldBackCharger {
  sampleId: string;
  tag: string;
  name: string;
  ports: readonly HeldBack[];
}

export interface TrialInput {
  trial: Trial;
}

export interface StoredTrial {
  id: string;
  trial: Trial;
  runs: TrialRun[];
  /** Which of the arms stands behind each letter; null as long as nobody may know. */
  letters: number[] | null;
  /** When the letters were opened to all; null while they are not, or where there are none. */
  revealedAt: string | null;
  /** When whoever labels them looked at the key; null for never. */
  keyOpenedAt: string | null;
  version: number;
  createdAt: string;
}

/** A trial in a list. */
export interface TrialRow {
  id: string;
  question: string;
  kind: Trial['kind'];
  /** "cable: plain or braided" */
  words: string;
  done: number;
  planned: number;
  createdAt: string;
}
