// What the Fernwall bench reads out and proves with: analysers, lines, devices, and the shape of the work done.
import type { DeviceInput, InstrumentInput, RigInput, RunInput } from '@lastmark/contract';
import type { SourceInfo } from '@lastmark/core/pd';
import type { Marker, Revision, Unreachable, VisibleKind } from '@lastmark/core/read-out';
import type { Output } from '@lastmark/core/reading';
import { SIGNAL_MODES, type SignalResult } from '@lastmark/core/signal';
import { NO_SPEC } from '@lastmark/core/uncertainty';

export type AnalyserKey = 'analyserNew' | 'analyserOld';

const ALL_KINDS: readonly VisibleKind[] = ['fixed', 'variable', 'battery', 'pps', 'spr-avs', 'epr-avs'];
const ALL_MODES = SIGNAL_MODES.map(({ id }) => id);

/** Instruments of Read-out and Proof beside the meters of the first stations. */
export const PROOF_INSTRUMENTS: Readonly<Record<AnalyserKey | 'load' | 'inlineGood', InstrumentInput>> = {
  analyserNew: {
    name: 'Workshop PD analyser',
    class: 'PD analyser',
    firmware: '2.7',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: { supplies: ALL_KINDS, signals: ALL_MODES },
    specs: {},
  },
  analyserOld: {
    name: 'Pocket PD analyser',
    class: 'PD analyser',
    firmware: '1.1',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: {
      supplies: ['fixed', 'variable', 'battery', 'pps', 'epr-avs'],
      signals: ['dcp', 'type-c-current', 'divider', 'stepped-high'],
    },
    specs: {},
  },
  load: {
    name: 'Workshop DC load',
    class: 'DC load',
    firmware: '4.0',
    calibrationDue: '2027-02-28',
    address: null,
    profileId: null,
    sees: null,
    specs: {
      voltage: { ...NO_SPEC, readingPercent: 0.05, offset: 0.006, resolution: 0.001 },
      current: { ...NO_SPEC, readingPercent: 0.1, offset: 0.004, resolution: 0.001 },
    },
  },
  inlineGood: {
    name: 'Inline meter at the port',
    class: 'inline USB meter',
    firmware: '1.6',
    calibrationDue: '2027-02-28',
    address: null,
    profileId: null,
    sees: null,
    specs: {
      voltage: { ...NO_SPEC, readingPercent: 0.05, offset: 0.005, resolution: 0.001 },
      current: { ...NO_SPEC, readingPercent: 0.15, offset: 0.004, resolution: 0.001 },
    },
  },
};

/** The line of the proof bench, from the port. */
export const PROOF_LINE: RigInput['elements'] = [
  { kind: 'inline meter', name: 'at the port', amps: 6, volts: 50, basis: 'certified' },
  { kind: 'cable', name: '240 W, 1 m', amps: 5, volts: 48, basis: 'marker' },
];

/** The line of the desk rig: its cable has no marker. */
export const DESK_LINE: RigInput['elements'] = [
  { kind: 'cable', name: 'desk cable, 2 m', amps: null, volts: null, basis: 'not stated' },
];

/** Loop resistance of the proof bench's cable and plugs, Ω. */
export const PROOF_LINE_OHMS = 0.116;

export interface DemoReadOut {
  readonly port: string;
  readonly analyser: AnalyserKey;
  /** Offers in words, in order; "–" is a place holder. */
  readonly offers: readonly string[];
  readonly epr?: boolean;
  readonly occupied?: readonly string[];
  readonly marker?: Marker;
  readonly askedWith?: Revision;
  readonly declared?: Revision;
  /** °C */
  readonly celsius?: number;
  /** s */
  readonly elapsed?: number;
  readonly cable?: readonly string[];
  /** What the source states of its power. */
  readonly info?: SourceInfo;
  /** Its extended capabilities as hexadecimal bytes. */
  readonly extended?: string;
  readonly signals?: Readonly<Record<string, SignalResult>>;
  readonly unreachable?: readonly Unreachable[];
  readonly note?: string;
}

/** Where proof steps were taken and what of them. */
export interface DemoProof {
  readonly rig: 'proof' | 'desk';
  /** V: mains of either kind, or 13.8 V of a vehicle. */
  readonly mains: 115 | 230 | 13.8;
  readonly steps: readonly { readonly outputs: readonly Output[]; readonly loads: readonly (0 | 1)[] }[];
  /** Volts the charger's own display shows too much; null when it has none. */
  readonly display: number | null;
}

type Distribute<T> = T extends RunInput ? Omit<T, 'id' | 'rigId' | 'takenAt' | 'supersedes' | 'withdrawn'> : never;
/** A run as the demo tells it; a device by its name. */
export type DemoRun = { readonly rig: 'proof' | 'desk'; readonly device?: string } & Distribute<RunInput>;

export interface DemoWork {
  readonly readOuts: readonly DemoReadOut[];
  readonly proof: readonly DemoProof[];
  readonly runs: readonly DemoRun[];
  /** Steps read once more after the runs. */
  readonly again?: DemoProof;
}

/** Devices of huts and vans that serve as loads. */
export const DEVICES: readonly DeviceInput[] = [
  {
    name: 'Warden’s laptop',
    kind: 'laptop',
    battery: 64 * 3600,
    ceilings: [
      { connector: 'C', lead: '240 W cable, 1 m', volts: 20, watts: 78 },
      { connector: 'C', lead: 'desk cable, 2 m', volts: 20, watts: 58 },
    ],
    baseline: 76.5,
    note: 'Work lamp off, lid open.',
  },
  {
    name: 'Loan phone',
    kind: 'phone',
    battery: 17.5 * 3600,
    ceilings: [{ connector: 'C', lead: 'desk cable, 2 m', volts: 9, watts: 22 }],
    baseline: 21.4,
    note: '',
  },
  {
    name: 'Hut tablet',
    kind: 'tablet',
    battery: 31 * 3600,
    ceilings: [{ connector: 'C', lead: 'desk cable, 2 m', volts: 15, watts: 30 }],
    baseline: null,
    note: 'Maps and weather.',
  },
  {
    name: 'Valley radio',
    kind: 'radio',
    battery: 14 * 3600,
    ceilings: [
      { connector: 'C', lead: 'its own lead', volts: 5, watts: 9 },
      { connector: 'A', lead: 'A lead, 1 m', volts: 5, watts: 8 },
    ],
    baseline: 8.8,
    note: '',
  },
  {
    name: 'Bunk-room headlamp',
    kind: 'headlamp',
    battery: 4.4 * 3600,
    ceilings: [
      { connector: 'C', lead: 'its own lead', volts: 5, watts: 5 },
      { connector: 'A', lead: 'A lead, 1 m', volts: 5, watts: 5 },
    ],
    baseline: 4.7,
    note: '',
  },
];
