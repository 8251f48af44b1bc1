// Captures: something recorded against time, kept raw, with the figures that follow from it.
import type { ChargeSession } from '../charge/session.ts';
import type { SoakFigures, Surface } from '../heat/index.ts';
import type { Attached, Mains, Output } from '../reading/index.ts';
import type { RippleFigures } from '../ripple/index.ts';
import type { DeviceRun } from '../run/index.ts';

/**
 * What was recorded.
 * - `waveform`: mains voltage and current over some cycles, at a load
 * - `inrush`: mains current as it is switched on
 * - `idle`: input power over minutes with nothing drawn
 * - `fading`: output voltage of a port after the mains went off
 * - `dip`: output voltage of a port while the supply dips
 * - `sweep`: supply and output voltage while the supply is lowered and raised again
 * - `ripple`: voltage of an output, for what rides on it
 * - `soak`: temperatures and output over an hour or more
 * - `charge`: what a device takes, from its start to full
 */
export const CAPTURE_KINDS = [
  'waveform',
  'inrush',
  'idle',
  'fading',
  'dip',
  'sweep',
  'ripple',
  'soak',
  'charge',
] as const;
export type CaptureKind = (typeof CAPTURE_KINDS)[number];

/** Kinds as people say them. */
export const KIND_WORDS: Readonly<Record<CaptureKind, string>> = {
  waveform: 'mains voltage and current',
  inrush: 'current as it is switched on',
  idle: 'idle power over time',
  fading: 'output after the mains go off',
  dip: 'output while the supply dips',
  sweep: 'supply lowered and raised',
  ripple: 'ripple of an output',
  soak: 'soak',
  charge: 'whole charge',
};

/** Columns a capture of a kind must have. */
export const CAPTURE_COLUMNS = {
  waveform: ['volts', 'amps'],
  inrush: ['amps'],
  idle: ['watts'],
  fading: ['volts'],
  dip: ['volts'],
  sweep: ['supply', 'volts'],
  ripple: ['volts'],
  // Any columns of temperature, and of output where there are.
  soak: [],
  // Power, or volts and amps, or typed levels.
  charge: [],
} as const satisfies Record<CaptureKind, readonly string[]>;

export type ColumnName = 'volts' | 'amps' | 'watts' | 'supply';

/** Evenly sampled columns, SI. */
export interface Trace {
  /** s between samples */
  readonly interval: number;
  readonly columns: Readonly<Partial<Record<ColumnName, Float64Array>>>;
  /** Stretches nobody sampled, s from the start; there the columns hold NaN. Left out where there are none. */
  readonly gaps?: readonly { readonly from: number; readonly to: number }[];
}

/** What a capture was taken of, and how. */
export interface CaptureHead {
  readonly id: string;
  readonly kind: CaptureKind;
  readonly mains: Mains;
  /** The loading behind a waveform; null for none. */
  readonly setupId: string | null;
  /** Fraction of its currents, 0 for no load. */
  readonly load: number;
  /** The port of `fading`, `dip` and `sweep`; null for the mains side. */
  readonly port: string | null;
  readonly attached: Attached;
  readonly rigId: string;
  readonly takenAt: string;
  /** File or instrument it came from. */
  readonly source: string;
  readonly note: string;
  /** Id of the capture this one takes back or replaces. */
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
  /** Ripple and soaks: what was loaded, and with how much; without load at 0 A. */
  readonly outputs?: readonly Output[] | null | undefined;
  /** Ripple read off by eye, V peak to peak: then there are no samples, and nothing more is claimed. */
  readonly typed?: number | null | undefined;
  readonly soak?: SoakSetting | null | undefined;
  readonly charge?: ChargeSetting | null | undefined;
}

/** What was charged, and how. */
export interface ChargeSetting {
  readonly deviceId: string;
  /** Cable between port and device; empty where not noted. */
  readonly lead: string;
  /** What the device did meanwhile; left out where nobody noted it. */
  readonly workload?: DeviceRun['workload'] | null | undefined;
  /** Level at the start where no column logs it, 0…1; null where nobody knows. */
  readonly startLevel: number | null;
  /** The user's mark of the end, s from the first sample; null for none. */
  readonly end: number | null;
}

export const SOAK_PLACES = ['chamber', 'open room'] as const;
export const SENSOR_PLACES = ['front', 'back', 'side', 'plug', 'device', 'elsewhere'] as const;
export const SENSOR_KINDS = ['contact', 'thermal image', 'by touch'] as const;

/** Where and how a soak was taken. */
export interface SoakSetting {
  readonly place: (typeof SOAK_PLACES)[number];
  /** °C a chamber is set to, or of the room where no column logs it; null where nobody knows. */
  readonly ambient: number | null;
  /** What it lay on. */
  readonly surface: string;
  /** Between plug and socket; empty for nothing. */
  readonly adapter: string;
  /** What the body is made of where it is gripped. */
  readonly touched: Surface;
  /** Columns of the log by name. */
  readonly sensors: readonly {
    readonly name: string;
    readonly place: (typeof SENSOR_PLACES)[number];
    readonly how: (typeof SENSOR_KINDS)[number];
  }[];
}

/** A capture as everybody knows it: its raw samples stay with the server until someone looks at them. */
export interface Capture extends CaptureHead {
  readonly interval: number;
  readonly samples: number;
  readonly figures: CaptureFigures;
}

export interface WaveformFigures {
  readonly kind: 'waveform';
  /** Fundamental, Hz */
  readonly hertz: number;
  /** Whole cycles behind the figures. */
  readonly cycles: number;
  readonly volts: number;
  readonly amps: number;
  /** W */
  readonly watts: number;
  /** VA */
  readonly voltAmps: number;
  readonly powerFactor: number;
  readonly currentCrest: number;
  readonly voltageCrest: number;
  /** Distortion of the current and of the voltage, fractions of the fundamental, to the 40th and 13th harmonic. */
  readonly currentDistortion: number;
  readonly voltageDistortion: number;
  /** Current of harmonics 1 to 40, A rms. */
  readonly harmonics: readonly number[];
  /** Expanded uncertainties from probe and scope; null or left out where their accuracy is not stated. */
  readonly expanded?: {
    readonly volts: number;
    readonly amps: number;
    readonly watts: number;
    readonly powerFactor: number;
    readonly currentCrest: number;
    readonly currentDistortion: number;
  } | null;
  readonly findings: readonly string[];
}

export interface InrushFigures {
  readonly kind: 'inrush';
  /** Highest current either way, A */
  readonly peak: number;
  /** s from switching on to the peak */
  readonly at: number;
  /** ∫i²dt of the first surge, A²s */
  readonly squareSeconds: number;
  /** s the current stayed above a tenth of the peak */
  readonly length: number;
  /** What the clamp showed before, taken off, A; left out where too little was recorded before. */
  readonly offset?: number;
  /** Expanded uncertainties from probe and scope; null or left out where their accuracy is not stated. */
  readonly expanded?: { readonly peak: number; readonly squareSeconds: number } | null;
  readonly findings: readonly string[];
}

export interface IdleFigures {
  readonly kind: 'idle';
  /** Mean by energy over time, W */
  readonly watts: number;
  /** s */
  readonly seconds: number;
  /** Between bursts, W */
  readonly floor: number;
  /** Mean during bursts, W; null without bursts. */
  readonly burst: number | null;
  readonly bursts: number;
  /** s from one burst to the next; null with fewer than two. */
  readonly period: number | null;
  /** s one lasts; null without bursts. */
  readonly length: number | null;
  /** Part of the energy taken in bursts, 0…1. */
  readonly burstShare: number;
  readonly findings: readonly string[];
}

export interface FadingFigures {
  readonly kind: 'fading';
  /** V before the mains went off */
  readonly from: number;
  /** s from the moment it begins to fall to half; null when it never got there, or nobody read it. */
  readonly half: number | null;
  /** s until 0.8 V, below which a cold socket counts as empty; null when it never got there, or nobody read it. */
  readonly empty: number | null;
  /** V at the end of the capture. */
  readonly last: number;
  readonly findings: readonly string[];
}

export interface DipFigures {
  readonly kind: 'dip';
  /** V before */
  readonly from: number;
  /** Lowest, V */
  readonly lowest: number;
  /** s outside ± 5 % of the voltage before; 0 when it never left. */
  readonly outside: number;
  /** Whether it was back within that band at the end. */
  readonly recovered: boolean;
  /** V at the end, where it came back at another level; left out otherwise. */
  readonly after?: number;
  /** Whether output was gone (below 0.8 V). */
  readonly lost: boolean;
  readonly findings: readonly string[];
}

/** Between which two it was, V. */
export interface Within {
  readonly from: number;
  readonly to: number;
}

export interface SweepFigures {
  readonly kind: 'sweep';
  /** Supply at which output went away on the way down, V; null when it never did, or nobody read it. */
  readonly cutOut: number | null;
  /** Between which it went, where nobody read just then. */
  readonly cutOutWithin?: Within;
  /** Supply at which it came back on the way up, V; null when it never did, or nobody read it. */
  readonly restart: number | null;
  /** Between which it came back, where nobody read just then. */
  readonly restartWithin?: Within;
  /** Lowest supply reached, V */
  readonly lowest: number;
  readonly findings: readonly string[];
}

export type RippleCaptureFigures = { readonly kind: 'ripple' } & RippleFigures;
export type SoakCaptureFigures = { readonly kind: 'soak' } & SoakFigures;
export type ChargeCaptureFigures = { readonly kind: 'charge' } & ChargeSession;

/** s of the record nothing was read in; left out where all of it was. */
interface Unread {
  readonly unread?: number;
}

export type CaptureFigures = Unread &
  (
    | WaveformFigures
    | InrushFigures
    | IdleFigures
    | FadingFigures
    | DipFigures
    | SweepFigures
    | RippleCaptureFigures
    | SoakCaptureFigures
    | ChargeCaptureFigures
  );
