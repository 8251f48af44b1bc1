// Everything known about one sample, and everything concluded from it.

import type { BendMethod } from '../bends/index.ts';
import type { CableFacts, CableRun } from '../cable/index.ts';
import type { Capture } from '../capture/types.ts';
import type { ClaimResult } from '../claim/index.ts';
import type { DecisionRule, Interval } from '../decision/index.ts';
import type { SetupFacts } from '../efficiency/index.ts';
import type { ClaimState } from '../evidence/index.ts';
import type { LimitSet, NameplateClass } from '../limits/index.ts';
import type { Limits } from '../plan/limits.ts';
import type { Claim } from '../promise/index.ts';
import type { ReadOut } from '../read-out/index.ts';
import type { Instrument, Mains, Point, Rig, Stated } from '../reading/index.ts';
import type { RippleLimit } from '../ripple/index.ts';
import type { Device, Run } from '../run/index.ts';
import type { SafetyCheck, SafetyChoice } from '../safety/index.ts';
import type { SignalMode } from '../signal/index.ts';
import type { StationLook, StationProgress } from '../station/index.ts';
import type { Results } from './stations.ts';

/** What it is: a charger of some kind, or something that sits in a line. */
export type SampleKind = 'wall' | 'desktop' | 'car' | 'cable';

export interface PortFacts {
  readonly label: string;
  readonly connector: 'C' | 'A' | 'captive C';
  /** Label of the port the maker made alike, if any. */
  readonly twin: string | null;
}

export interface PriceFacts {
  readonly kind: 'paid' | 'list' | 'street' | 'discounted';
  readonly amount: number;
  readonly currency: string;
  /** ISO date. */
  readonly date: string;
}

/** What the calculations need of the intake. SI. */
export interface SampleFacts {
  readonly kind: SampleKind;
  readonly ports: readonly PortFacts[];
  /** kg, null while not weighed */
  readonly mass: number | null;
  /** m, along its three sides; null or left out while not measured. */
  readonly length?: number | null | undefined;
  readonly width?: number | null | undefined;
  readonly height?: number | null | undefined;
  /** Whether its plug was measured and weighed with it. */
  readonly withPlug?: boolean | undefined;
  readonly prices: readonly PriceFacts[];
  /** Whether its plug has an earth, and what form it has; left out where that is not known. */
  readonly plugEarthed?: boolean | undefined;
  readonly plugForm?: string | undefined;
  /** Marks seen on it. */
  readonly marks?: readonly string[] | undefined;
  /** Of what sits in a line; left out or null for a charger. */
  readonly cable?: CableFacts | null | undefined;
  /** Nameplate class somebody chose for the whole sample, and why; null or left out takes the derived one. */
  readonly classChoice?: { readonly nameplateClass: NameplateClass; readonly reason: string } | null;
}

/** More than promised: said and no more, welcome headroom, or a hazard to what hangs on it. */
export const MORE_AS = ['stated', 'headroom', 'hazard'] as const;

/** The user's choices of method. */
export interface Profile {
  readonly rule: DecisionRule;
  /** Fraction a set power may miss its promise by and still count. */
  readonly allowance: number;
  readonly mains: readonly Mains[];
  /** Price of a kWh. */
  readonly tariff: number;
  readonly currency: string;
  readonly limitSetIds: readonly string[];
  /** Tighter voltage tolerance of the user's own, as a fraction of the level; null takes the standard's. */
  readonly tolerance: number | null;
  /** How long a power must hold to count as continuous, s. */
  readonly continuous: number;
  /** The search over the rating: whether it is done at all, its step as a fraction, and seconds a step. */
  readonly overRating: { readonly on: boolean; readonly step: number; readonly seconds: number };
  /** What a charger passes on where nobody measured it; left out takes the usual. */
  readonly assumedEfficiency?: Interval | undefined;
  /** Names of signalling modes this bench added. */
  readonly signalModes: readonly SignalMode[];
  /** How more than promised is read, and from which part above the promise on. */
  readonly more: { readonly as: (typeof MORE_AS)[number]; readonly margin: number };
  /** What ripple may be; left out for no limit. */
  readonly ripple?: RippleLimit | null | undefined;
  /** Own limit for a surface that is touched, °C at 25 °C; left out for none. */
  readonly touch?: number | null | undefined;
  /** Whose limits the safety look is held against; left out for the usual. */
  readonly safety?: SafetyChoice | null | undefined;
  /** How cables are bent; left out for the usual way. */
  readonly bends?: BendMethod | null | undefined;
  /** At which every load goes off, unless a sample has limits of its own. */
  readonly limits: Limits;
}

export interface Dossier {
  readonly sample: SampleFacts;
  readonly claims: readonly Claim[];
  readonly setups: readonly SetupFacts[];
  readonly points: readonly Point[];
  /** What people stated about how points were taken. */
  readonly stated: readonly Stated[];
  readonly readOuts: readonly ReadOut[];
  readonly captures: readonly Capture[];
  readonly runs: readonly Run[];
  /** What was done with something that sits in a line. */
  readonly cableRuns: readonly CableRun[];
  /** What was looked at and read for safety. */
  readonly checks: readonly SafetyCheck[];
  readonly devices: readonly Device[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly profile: Profile;
  readonly limitSets: readonly LimitSet[];
}

/** How far a station is, and what it has to say. */
export interface StationState extends StationProgress {
  readonly id: string;
  readonly title: string;
  readonly look: StationLook;
  readonly says: readonly string[];
}

/** A figure for the shelf, always with the condition that gave it. */
export interface KeyFigure {
  readonly value: number;
  /** Null while it is not known. */
  readonly expanded: number | null;
  /** As it is said: value ± U, or a bound. */
  readonly words: string;
  readonly condition: string;
}

/** Counts how key figures are worked out and kept: figures of another form are worked out anew. */
export const FIGURES_FORM = 9;

export interface KeyFigures {
  readonly form: number;
  /** Nameplate output power, W. */
  readonly watts: number | null;
  /** Four-point average at the worse mains, ratio. */
  readonly efficiency: KeyFigure | null;
  /** Idle draw with nothing attached at the worse mains, W. */
  readonly idle: (KeyFigure & { readonly below: boolean }) | null;
  /** kg per W */
  readonly massPerWatt: number | null;
  /** Newest price per watt on the first of paid, street, list there is. */
  readonly pricePerWatt: {
    readonly value: number;
    readonly currency: string;
    readonly basis: PriceFacts['kind'];
  } | null;
  readonly claims: Readonly<Partial<Record<ClaimState, number>>>;
  /** How each station of the sample looks, in the order of the work. */
  readonly stations: readonly { readonly id: string; readonly look: StationLook }[];
}

export interface Verdict {
  /** What every station concluded. */
  readonly results: Results;
  readonly claims: readonly ClaimResult[];
  readonly stations: readonly StationState[];
  readonly figures: KeyFigures;
}
