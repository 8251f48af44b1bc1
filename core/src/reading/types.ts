// What a reading is: a value with its unit, uncertainty, place, conditions, evidence kind, rig, time and source.

import type { Sees } from '../pd/index.ts';
import type { QuantityId } from '../quantity/index.ts';
import type { AccuracySpec } from '../uncertainty/index.ts';
import type { LineElement } from './line.ts';
import type { PointPlace } from './thermometer.ts';

/** Where in the chain a quantity was read. Quantities from different places are never mixed without conversion. */
export type Place = 'mains' | 'port' | 'load-end' | 'display';

/**
 * What a reading can prove.
 * - `load`: an electronic load asked for it; two-sided
 * - `device`: a device took what it wanted; a lower bound
 * - `wall`: a meter at the socket; an upper bound once losses are taken off
 * - `display`: the charger's own screen; coarse
 * - `word`, `observation`: kept as said, never a number
 * - `read-out`: the charger says so; advertised, not proven
 */
export type EvidenceKind = 'load' | 'device' | 'wall' | 'display' | 'word' | 'observation' | 'read-out';

/** The supply a reading was taken at. */
export type Mains =
  | { readonly kind: 'ac'; readonly volts: number; readonly hertz: number }
  | { readonly kind: 'dc'; readonly volts: number };

/** What hangs on the output while idle. */
export const ATTACHED = ['nothing', 'cable', 'cable and meter', 'screen on', 'wireless pad on'] as const;
export type Attached = (typeof ATTACHED)[number];

export interface Reading {
  readonly id: string;
  readonly quantity: QuantityId;
  readonly place: Place;
  /** Label of the port, or null at the mains. */
  readonly port: string | null;
  /** SI. Null when the reading strikes out the one it supersedes. */
  readonly value: number | null;
  /** Standard uncertainty from the instrument, SI; null where its accuracy is not stated. */
  readonly u: number | null;
  /** How many samples the value is the mean of. */
  readonly count: number;
  /** Standard deviation of one sample, SI; 0 for a single reading. */
  readonly spread: number;
  /** As typed or written by the meter, with its unit. */
  readonly typed: string;
  readonly instrumentId: string | null;
  readonly takenAt: string;
  /** "keypad", or the file and its lines. */
  readonly source: string;
  /** Id of the reading this one corrects. */
  readonly supersedes: string | null;
  /** Whether its instrument's calibration was overdue when it was taken. */
  readonly overdue?: boolean;
  /** Why it corrects the one before; left out or null where nobody said. */
  readonly because?: string | null;
  /** Id of who wrote it; left out where people are not told apart. */
  readonly author?: string;
}

/** How a point was taken, as far as anyone recorded it. */
export interface Taken {
  /** Time at full load right before the series at this supply, s; null where nobody recorded it. */
  readonly warmUp: number | null;
  /** How the input came to rest before it was read; null where nobody recorded it. */
  readonly rest: {
    /** Drift of the input over the last `over` s, as a fraction; null when it was not watched. */
    readonly drift: number | null;
    /** Time watched or averaged, s. */
    readonly over: number;
    /** Averaged because it did not settle, or read once settled. */
    readonly averaged: boolean;
  } | null;
  /** The supply as it was read, SI; each null where nobody recorded it. */
  readonly source: {
    readonly volts: number | null;
    readonly hertz: number | null;
    /** Distortion of the voltage, as a fraction. */
    readonly distortion: number | null;
    /** Crest factor of the voltage. */
    readonly crest: number | null;
  };
}

/** What someone stated about points that carry no record of their own. Only ever added: the newest counts. */
export interface Stated {
  readonly id: string;
  /** The loading it is about; null for idle. */
  readonly setupId: string | null;
  readonly mains: Mains;
  readonly taken: Taken;
  readonly statedAt: string;
}

/** Readings taken at one moment under one set of conditions. */
export interface Point {
  readonly id: string;
  /** The loading it belongs to; null for idle. */
  readonly setupId: string | null;
  readonly mains: Mains;
  /** Fraction of nameplate current asked for, 0…1. */
  readonly load: number;
  readonly attached: Attached;
  readonly evidence: EvidenceKind;
  readonly rigId: string;
  readonly takenAt: string;
  /** Why it was taken beyond the rating of the line, where it was. */
  readonly override: string | null;
  /** How it was taken, where a run recorded it. */
  readonly taken?: Taken | null;
  readonly readings: readonly Reading[];
}

/** Kinds of supply whose voltage can be set. */
export const RANGE_SUPPLIES = ['pps', 'spr-avs', 'epr-avs'] as const;
export type RangeSupply = (typeof RANGE_SUPPLIES)[number];

/** Ranges by their standard names. */
export const SUPPLY_WORDS: Readonly<Record<RangeSupply, string>> = {
  pps: 'PPS',
  'spr-avs': 'SPR AVS',
  'epr-avs': 'EPR AVS',
};

/** One output as loaded: the level and the nameplate current at it. */
export interface Output {
  readonly port: string;
  /** V */
  readonly volts: number;
  /** A at 100 % */
  readonly amps: number;
  /** The range the level was set in; left out for a fixed level. */
  readonly supply?: RangeSupply | undefined;
}

/** One way of loading the sample: which outputs, at which level, up to which current. */
export interface Setup {
  readonly id: string;
  readonly name: string;
  readonly outputs: readonly Output[];
  readonly evidence: EvidenceKind;
  readonly rigId: string;
  /** Which station it was made for. */
  readonly purpose: 'efficiency' | 'proof';
}

/** A meter and what its maker says about its accuracy, per quantity. */
export interface Instrument {
  readonly id: string;
  readonly name: string;
  readonly specs: Readonly<Partial<Record<QuantityId, AccuracySpec>>>;
  /** Last day its calibration is good for, `2027-05-31`; null when not stated. */
  readonly calibrationDue?: string | null;
  /** Day it was calibrated; null when not stated. */
  readonly calibratedOn?: string | null;
  /** What a PD analyser with its firmware can see; null for other instruments. */
  readonly sees: Sees | null;
}

/** Which instrument reads what on a rig; ids. */
export interface RigMeters {
  readonly mains: string;
  /** Null on a rig that reads at the socket only. */
  readonly outputVolts: string | null;
  readonly outputAmps: string | null;
  /** A second meter at the load end, besides the one at the port; null when there is none. */
  readonly loadEnd: string | null;
}

/** Instruments a rig sets by itself; ids, null for what a person sets by hand. */
export interface RigDrives {
  /** AC or DC source behind the sample. */
  readonly source: string | null;
  /** Electronic load; its channel n is behind the nth port. */
  readonly load: string | null;
  /** Thermometer on the sample. */
  readonly thermometer: string | null;
  /** PD analyser in the line. */
  readonly analyser: string | null;
  /** PD sink (trigger) between port and load; left out where the load has its own, or a person sets it. */
  readonly sink?: string | null;
  /** Oscilloscope, on the mains side or a port; left out for none. */
  readonly scope?: string | null;
}

/** The meters in use and the lead between the port and the load. */
export interface Rig {
  readonly id: string;
  readonly name: string;
  readonly meters: RigMeters;
  /** Where the output voltage is sensed. */
  readonly outputPlace: 'port' | 'load-end';
  /** Loop resistance of lead and cable between port and load end, Ω, and its standard uncertainty. */
  readonly leadOhms: number;
  readonly leadUOhms: number;
  /** Everything in line between port and load, from the port. */
  readonly elements: readonly LineElement[];
  /** What runs by itself; left out for a rig that is set by hand. */
  readonly drives?: RigDrives | null;
  /** How ripple is probed; left out where nobody said. */
  readonly probe?: Probe | null | undefined;
  /** Where the points of its thermometer stand, in the order it tells them; left out for the usual ones. */
  readonly spots?: readonly PointPlace[] | null | undefined;
}

/** How ripple is probed: asked once, and stands beside every figure. */
export interface Probe {
  /** "tip and barrel, 2 cm" */
  readonly tip: string;
  /** What lies across the probe: "0.1 µF ceramic ‖ 10 µF". */
  readonly capacitors: string;
  /** Of probe and scope as set, Hz; null where nobody said. */
  readonly bandwidth: number | null;
  readonly coupling: 'AC' | 'DC';
  /** 1 or 10 */
  readonly attenuation: number;
  /** With the probe shorted at the port, V peak to peak and V rms; null where not taken. */
  readonly floor: number | null;
  readonly floorRms: number | null;
}
