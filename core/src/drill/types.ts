// A drill: simulated samples with hidden faults, a verdict stated, and what it is held against.

import type { SheetStep } from '../plan/index.ts';
import type { Dossier } from '../verdict/index.ts';

/** What a fault is in. */
export const PART_KINDS = ['charger', 'cable', 'rig'] as const;
export type PartKind = (typeof PART_KINDS)[number];

/** What a finding rests on, in the learner's own words. */
export const BASES = ['measured', 'listed only', 'not measured'] as const;
export type Basis = (typeof BASES)[number];

/** A fault that may hide, as it can be named, and what catches it. */
export interface DrillFault {
  readonly id: string;
  readonly of: PartKind;
  /** As it is named when a verdict is stated. */
  readonly title: string;
  /** What is true. */
  readonly says: string;
  /** What shows it, in words. */
  readonly caughtBy: string;
  /** The steps among some that show it together; empty where they do not. */
  readonly caught: (steps: readonly SheetStep[], ports: readonly string[]) => readonly SheetStep[];
  /** Whether readings typed by hand show it; left out where they cannot. */
  readonly byHand?: ((dossier: Pick<Dossier, 'points' | 'setups'>, ports: readonly string[]) => boolean) | undefined;
}

/** One thing that may be at fault, with what was done about it. */
export interface DrillPart {
  readonly id: string;
  readonly name: string;
  readonly of: PartKind;
  /** Ids of the faults that hide in it. */
  readonly faults: readonly string[];
  readonly ports: readonly string[];
  /** Steps runs carried out on it. For the rig: of all samples. */
  readonly tried: readonly SheetStep[];
  /** Readings typed by hand; null for the rig. */
  readonly typed: Pick<Dossier, 'points' | 'setups'> | null;
}

/** What somebody says is wrong with a part; nothing at all is an answer too. */
export interface StatedPart {
  readonly partId: string;
  readonly faults: readonly { readonly id: string; readonly basis: Basis }[];
}

export const SLIP_KINDS = [
  'missed',
  'not there',
  'guessed',
  'called measured',
  'called unmeasured',
  'late',
  'rig unproven',
] as const;
export type SlipKind = (typeof SLIP_KINDS)[number];

/** What went wrong, and the step that would have caught it. */
export interface Slip {
  readonly kind: SlipKind;
  readonly partId: string | null;
  readonly faultId: string | null;
  readonly says: string;
  /** What would have caught it; empty where nothing more is to be said. */
  readonly caughtBy: string;
}

/** Steps and the bench time they take, s. */
export interface Effort {
  readonly steps: number;
  readonly seconds: number;
}

export interface DrillResult {
  /** Faults found and rightly grounded, of all there were. */
  readonly found: number;
  readonly hidden: number;
  readonly slips: readonly Slip[];
  readonly used: Effort;
  readonly good: Effort;
  /** s */
  readonly budget: number;
  /** Every fault found, nothing accused that is not there, nothing guessed, in time. */
  readonly passed: boolean;
}
