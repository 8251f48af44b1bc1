// What is known about a sample when its claims are judged, and what a judgement gives.

import type { BendEvidence } from '../bends/index.ts';
import type { ChargeSession } from '../charge/index.ts';
import type { CopyEvidence } from '../copy/index.ts';
import type { DecisionRule } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import type { Delivered } from '../evidence/index.ts';
import type { SoakResult } from '../heat/index.ts';
import type { IdleResult } from '../idle/index.ts';
import type { MarkerEvidence } from '../marker/index.ts';
import type { Sees } from '../pd/index.ts';
import type { Promised } from '../promise/index.ts';
import type { ReadOut } from '../read-out/types.ts';
import type { ResistanceEvidence } from '../resistance/index.ts';
import type { RippleCell } from '../ripple/index.ts';
import type { Device, DeviceRun, HoldRun } from '../run/index.ts';
import type { ClaimResult } from './types.ts';

/** One whole charge, as far as a promise of time needs it. */
export interface Charged {
  readonly captureId: string;
  /** Its name on the bench. */
  readonly device: string;
  readonly workload: DeviceRun['workload'] | null;
  /** What held it back that is not the charger, in words; null for nothing known. Such a charge proves and never refutes. */
  readonly heldBy: string | null;
  readonly session: Pick<ChargeSession, 'curve'>;
  readonly conditions: string;
}

/** What is known about the sample when its claims are judged. */
export interface Known {
  readonly series: readonly SeriesResult[];
  readonly idle: readonly IdleResult[];
  readonly ripple: readonly RippleCell[];
  readonly soaks: readonly SoakResult[];
  /** Whole charges of devices. */
  readonly charged: readonly Charged[];
  readonly devices: readonly Device[];
  /** Of a cable: what its marker says, its resistance, files copied over it, and how often it was bent. */
  readonly markers: readonly MarkerEvidence[];
  readonly resistances: readonly ResistanceEvidence[];
  readonly copies: readonly CopyEvidence[];
  readonly bends: readonly BendEvidence[];
  /** Most any port is promised to give, W; null where nothing is promised. */
  readonly promisedWatts: number | null;
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
  /** What a meter is called, by its id; null when it is not on record. */
  readonly nameOf: (instrumentId: string) => string | null;
}

/** Nothing known yet, to spread over. */
export const NOTHING_KNOWN: Known = {
  series: [],
  idle: [],
  ripple: [],
  soaks: [],
  charged: [],
  markers: [],
  resistances: [],
  copies: [],
  bends: [],
  devices: [],
  promisedWatts: null,
  rule: 'guarded',
  allowance: 0.02,
  tolerance: null,
  delivered: [],
  holds: [],
  continuous: 3600,
  readOuts: [],
  seesOf: () => null,
  nameOf: () => null,
};

/** A result before it is tied to its claim. */
export type Judged = Omit<ClaimResult, 'claimId' | 'unstated'>;
export type PromiseOf<K extends Promised['kind']> = Extract<Promised, { kind: K }>;

export const notTested = (sentence: string): Judged => ({ state: 'not tested', sentence, notes: [], tests: [] });
