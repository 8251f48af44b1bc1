// What the Fernwall bench read out, proved and held: offers, devices and runs of the invented chargers.
import type { DeviceInput, InstrumentInput, RigInput, RunInput } from '@lastmark/contract';
import type { Marker, Revision, Unreachable, VisibleKind } from '@lastmark/core/read-out';
import type { Output, RangeSupply } from '@lastmark/core/reading';
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
    sees: { supplies: ALL_KINDS, signals: ALL_MODES },
    specs: {},
  },
  analyserOld: {
    name: 'Pocket PD analyser',
    class: 'PD analyser',
    firmware: '1.1',
    calibrationDue: null,
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

const both = [0, 1] as const;
const level = (port: string, volts: number, amps: number, loads: readonly (0 | 1)[] = both) => ({
  outputs: [{ port, volts, amps }],
  loads,
});
const set = (port: string, supply: RangeSupply, volts: number, amps: number) => ({
  outputs: [{ port, volts, amps, supply }],
  loads: [1] as const,
});
const hold = (
  port: string,
  [volts, amps]: readonly [number, number],
  [planned, held]: readonly [number, number],
  part: Partial<Extract<DemoRun, { kind: 'hold' }>> = {},
): DemoRun => ({
  rig: 'proof',
  kind: 'hold',
  port,
  volts,
  amps,
  others: [],
  planned: planned * 60,
  held: held * 60,
  end: 'held to the end',
  hottest: null,
  ambient: 297.75,
  after: null,
  note: '',
  ...part,
});
const celsius = (value: number): number => value + 273.15;

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
    ceilings: [{ connector: 'C', lead: 'its own lead', volts: 5, watts: 9 }],
    baseline: 8.8,
    note: '',
  },
  {
    name: 'Bunk-room headlamp',
    kind: 'headlamp',
    battery: 4.4 * 3600,
    ceilings: [{ connector: 'C', lead: 'its own lead', volts: 5, watts: 5 }],
    baseline: 4.7,
    note: '',
  },
];

const EMBER = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 2.25 A', 'PPS 3.3–16 V 3 A', 'SPR AVS 3 A / 2.25 A'];
const TRIO_FULL = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.75 A', 'PPS 3.3–21 V 3.75 A'];
const QUAD_FULL = ['5 V 3 A', '9 V 3 A', '12 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 5–11 V 5 A', 'PPS 5–16 V 5 A'];
const MONOLITH_SPR = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 3.3–21 V 5 A'];
const MONOLITH_EPR = ['28 V 5 A', '36 V 5 A', 'EPR AVS 15–36 V 180 W'];
const MARKER_240: readonly string[] = ['FF00A041', '18002E5B', '00000000', '12340100', '000A2640'];

/** Work done on each sample, by serial. */
export const WORK: Readonly<Record<string, DemoWork>> = {
  'TE-45-0117': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: EMBER,
        askedWith: '3.2',
        declared: '3.2',
        celsius: 24.2,
        elapsed: 20,
        signals: { dcp: 'seen', divider: 'seen', 'stepped-high': 'not seen', 'type-c-current': 'seen' },
      },
      {
        port: 'C1',
        analyser: 'analyserOld',
        offers: EMBER.slice(0, 5),
        askedWith: '3.0',
        celsius: 24.6,
        elapsed: 30,
        signals: { dcp: 'seen', 'serial-high': 'cannot see', 'continuous-high': 'cannot see' },
        note: 'The same unit with the pocket analyser.',
      },
    ],
    proof: [
      {
        rig: 'proof',
        mains: 230,
        display: null,
        steps: [
          level('C1', 5, 3),
          level('C1', 9, 3),
          level('C1', 15, 3),
          level('C1', 20, 2.25),
          set('C1', 'pps', 3.3, 3),
          set('C1', 'pps', 9.65, 3),
          set('C1', 'pps', 16, 3),
          set('C1', 'spr-avs', 9, 3),
          set('C1', 'spr-avs', 15, 3),
          set('C1', 'spr-avs', 20, 2.25),
        ],
      },
    ],
    runs: [
      hold('C1', [20, 2.25], [60, 60], { hottest: celsius(58.4) }),
      {
        rig: 'desk',
        kind: 'device',
        device: 'Warden’s laptop',
        deviceId: '',
        port: 'C1',
        connector: 'C',
        lead: 'desk cable, 2 m',
        workload: 'heavy computing',
        charge: 0.31,
        settled: 240,
        place: 'mains',
        volts: 20,
        watts: 46.9,
        outcome: 'held',
        message: 'Slow charger',
        note: '',
      },
    ],
  },
  'PT-75-3310': {
    readOuts: [
      { port: 'C1', analyser: 'analyserOld', offers: TRIO_FULL, askedWith: '3.0', celsius: 24.1, elapsed: 25 },
      {
        port: 'C2',
        analyser: 'analyserOld',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 2 A', '20 V 1.5 A'],
        askedWith: '3.0',
        celsius: 24.1,
        elapsed: 40,
      },
      {
        port: 'C1',
        analyser: 'analyserOld',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 2.25 A'],
        occupied: ['C2'],
        askedWith: '3.0',
        celsius: 24.3,
        elapsed: 60,
        note: 'C2 carried the loan phone.',
      },
      {
        port: 'A1',
        analyser: 'analyserOld',
        offers: [],
        marker: 'none',
        signals: { dcp: 'seen', divider: 'seen', 'stepped-high': 'seen', 'serial-high': 'cannot see' },
      },
    ],
    proof: [
      {
        rig: 'proof',
        mains: 230,
        display: null,
        steps: [level('C1', 5, 3), level('C1', 9, 3), level('C1', 15, 3), level('C1', 20, 3.75), level('C2', 9, 3)],
      },
    ],
    runs: [
      hold('C1', [20, 2.25], [60, 21], {
        others: [{ port: 'C2', volts: 9, amps: 3 }],
        end: 'folded back',
        hottest: celsius(81.2),
        after: 58.5,
      }),
      hold('C1', [20, 2], [60, 38], {
        others: [{ port: 'C2', volts: 9, amps: 2.8 }],
        end: 'folded back',
        hottest: celsius(81.9),
        after: 57.8,
      }),
      hold('C1', [20, 1.6], [60, 60], { others: [{ port: 'C2', volts: 9, amps: 2.6 }], hottest: celsius(79.5) }),
    ],
  },
  'QP-5520': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 2.22 A', '12 V 1.67 A'],
        marker: 'none',
        askedWith: '3.2',
        declared: '3.0',
        celsius: 23.9,
        elapsed: 15,
        signals: { dcp: 'seen', 'stepped-high': 'seen' },
      },
      {
        port: 'A1',
        analyser: 'analyserNew',
        offers: [],
        marker: 'none',
        signals: { dcp: 'seen', divider: 'seen', 'stepped-high': 'not seen', 'low-volt-high-amp': 'not seen' },
      },
    ],
    proof: [
      { rig: 'desk', mains: 230, display: null, steps: [level('C1', 5, 3), level('C1', 9, 2.22), level('A1', 5, 2.4)] },
    ],
    runs: [
      hold('C1', [9, 2.22], [60, 10.1], { rig: 'desk', end: 'dropped a level', hottest: celsius(63.5) }),
      hold('C1', [9, 1.95], [60, 10], { rig: 'desk', end: 'dropped a level', hottest: celsius(57.8) }),
      hold('C1', [5, 3], [60, 60], { rig: 'desk', hottest: celsius(55.1) }),
    ],
    again: { rig: 'desk', mains: 230, display: null, steps: [level('C1', 9, 2.22, [1]), level('A1', 5, 2.4, [1])] },
  },
  'GQ-20931': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: QUAD_FULL,
        askedWith: '3.2',
        declared: '3.1',
        celsius: 24.4,
        elapsed: 20,
        cable: MARKER_240,
        unreachable: [{ position: 3, reason: 'Every request for 12 V is refused, alone and shared.' }],
        signals: { dcp: 'seen', 'continuous-high': 'not seen', 'stepped-high': 'seen' },
      },
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3 A'],
        occupied: ['C2'],
        askedWith: '3.2',
        declared: '3.1',
        celsius: 24.6,
        elapsed: 30,
        cable: MARKER_240,
      },
      {
        port: 'C2',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A'],
        askedWith: '3.2',
        declared: '3.1',
        celsius: 24.6,
        elapsed: 30,
      },
    ],
    proof: [
      {
        rig: 'proof',
        mains: 230,
        display: 0.42,
        steps: [
          level('C1', 5, 3),
          level('C1', 9, 3),
          level('C1', 15, 3),
          level('C1', 20, 5),
          level('C2', 20, 3.25),
          {
            outputs: [
              { port: 'C1', volts: 20, amps: 3.25 },
              { port: 'C2', volts: 20, amps: 3.25 },
            ],
            loads: [1],
          },
        ],
      },
    ],
    runs: [
      {
        rig: 'proof',
        kind: 'move',
        port: 'C1',
        fromVolts: 5,
        toVolts: 11,
        amps: 3,
        breaks: 2,
        longest: 0.24,
        lowest: 0.3,
        note: 'The output fell away at each change of range.',
      },
      {
        rig: 'proof',
        kind: 'device',
        device: 'Warden’s laptop',
        deviceId: '',
        port: 'C1',
        connector: 'C',
        lead: '240 W cable, 1 m',
        workload: 'screen on',
        charge: 0.42,
        settled: 300,
        place: 'port',
        volts: 20,
        watts: 74.8,
        outcome: 'charging',
        message: '',
        note: '',
      },
    ],
  },
  'OB-18-0092': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: [...MONOLITH_SPR, 'SPR AVS 5 A / 5 A', '–', ...MONOLITH_EPR],
        epr: true,
        marker: '5 A EPR',
        askedWith: '3.2',
        declared: '3.2',
        celsius: 24,
        elapsed: 30,
        cable: MARKER_240,
      },
      {
        port: 'C1',
        analyser: 'analyserOld',
        offers: [...MONOLITH_SPR, '–', '–', ...MONOLITH_EPR],
        epr: true,
        marker: '5 A EPR',
        askedWith: '3.1',
        celsius: 24.2,
        elapsed: 40,
        cable: MARKER_240,
        note: 'Firmware 1.1 is older than SPR AVS.',
      },
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3 A', 'PPS 3.3–21 V 3 A', 'SPR AVS 3 A / 3 A'],
        marker: '3 A',
        askedWith: '3.2',
        declared: '3.2',
        celsius: 24.3,
        elapsed: 30,
      },
    ],
    proof: [
      {
        rig: 'proof',
        mains: 230,
        display: null,
        steps: [
          level('C1', 5, 3),
          level('C1', 9, 3),
          level('C1', 15, 3),
          level('C1', 20, 5),
          level('C1', 28, 5),
          level('C1', 36, 5),
          set('C1', 'epr-avs', 15, 5),
          set('C1', 'epr-avs', 25.5, 5),
          set('C1', 'epr-avs', 36, 5),
          set('C1', 'spr-avs', 9, 5),
        ],
      },
    ],
    runs: [
      hold('C1', [36, 5], [60, 60], { hottest: celsius(71.6) }),
      {
        rig: 'proof',
        kind: 'over',
        port: 'C1',
        volts: 20,
        rated: 5,
        attached: 'electronic load',
        steps: [5, 5.15, 5.3, 5.45, 5.6].map((asked, index) => ({
          asked,
          amps: index < 4 ? asked - 0.004 : 0,
          volts: index < 4 ? 20.11 - 0.01 * index : 0.2,
          seconds: 3,
        })),
        latched: false,
        recovery: 2.4,
        note: '',
      },
      {
        rig: 'proof',
        kind: 'move',
        port: 'C1',
        fromVolts: 15,
        toVolts: 36,
        amps: 3,
        breaks: 0,
        longest: null,
        lowest: null,
        note: '',
      },
    ],
  },
  'M6-1177': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 3.3–21 V 5 A'],
        askedWith: '3.2',
        declared: '3.1',
        celsius: 23.8,
        elapsed: 20,
      },
      {
        port: 'C2',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A'],
        marker: '3 A',
        askedWith: '3.2',
        declared: '3.1',
        celsius: 23.8,
        elapsed: 25,
      },
      {
        port: 'C3',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '15 V 1.66 A', '9 V 2.77 A'],
        askedWith: '3.2',
        declared: '3.0',
        celsius: 23.9,
        elapsed: 25,
      },
    ],
    proof: [],
    runs: [],
  },
  'SH-0441': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '12 V 3 A', '15 V 3 A', '20 V 3 A', 'PPS 3.3–16 V 3 A'],
        marker: '3 A',
        askedWith: '3.2',
        declared: '3.0',
        celsius: 22.7,
        elapsed: 30,
        unreachable: [{ position: 6, reason: 'Every request is refused, at 12 V and at 24 V input.' }],
        signals: { dcp: 'seen', 'stepped-high': 'seen' },
      },
      {
        port: 'A1',
        analyser: 'analyserNew',
        offers: [],
        marker: 'none',
        signals: { dcp: 'seen', 'stepped-high': 'seen' },
      },
    ],
    proof: [
      {
        rig: 'desk',
        mains: 13.8,
        display: null,
        steps: [level('C1', 5, 3), level('C1', 9, 3), level('C1', 15, 3), level('C1', 20, 3), level('A1', 9, 2)],
      },
    ],
    runs: [
      {
        rig: 'desk',
        kind: 'device',
        device: 'Loan phone',
        deviceId: '',
        port: 'C1',
        connector: 'C',
        lead: 'desk cable, 2 m',
        workload: 'screen on',
        charge: 0.24,
        settled: 200,
        place: 'port',
        volts: 9,
        watts: 20.6,
        outcome: 'charging',
        message: 'Fast charging',
        note: 'Valley van 3, engine running.',
      },
    ],
  },
};
