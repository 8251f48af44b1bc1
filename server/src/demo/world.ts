// The Fernwall Hut Association's shelf: invented makers, invented chargers, a valley workshop bench.
import type { ClaimInput, ModelInput, UnitInput } from '@lastmark/contract';
import type { ChargerPhysics } from './simulate.ts';

export interface DemoLoading {
  readonly name: string;
  readonly outputs: readonly { port: string; volts: number; amps: number }[];
  /** Load points measured per mains, fractions. */
  readonly measured: readonly { readonly mains: 115 | 230; readonly loads: readonly number[] }[];
}

export interface DemoUnit {
  readonly unit: UnitInput;
  readonly loadings: readonly DemoLoading[];
  /** Which mains idle was measured at, and with which rig. */
  readonly idle: { readonly mains: readonly (115 | 230)[]; readonly rig: 'idle' | 'desk' } | null;
  /** Whether anyone wrote down how it was taken; left out for by the book. */
  readonly recorded?: 'by the book' | 'hurried' | 'nothing';
}

export interface DemoSample {
  readonly model: ModelInput;
  readonly claims: readonly ClaimInput[];
  readonly units: readonly DemoUnit[];
  readonly physics: ChargerPhysics;
}

const ALL = [1, 0.75, 0.5, 0.25, 0.1];
export const BOTH: DemoLoading['measured'] = [
  { mains: 115, loads: ALL },
  { mains: 230, loads: ALL },
];

export const model = (part: Partial<ModelInput> & Pick<ModelInput, 'maker' | 'model' | 'kind'>): ModelInput => ({
  ports: [],
  length: null,
  width: null,
  height: null,
  mass: null,
  withPlug: true,
  plugForm: 'fixed',
  plugEarthed: false,
  plugBlocksNeighbour: false,
  inputRating: '100–240 V 50/60 Hz',
  marks: ['double insulation', 'indoor use'],
  prices: [],
  ...part,
});

export const ports = (...labels: string[]): ModelInput['ports'] =>
  labels.map((label) => ({ label, connector: label.startsWith('A') ? 'A' : 'C', twin: null }));

export const unit = (serial: string, part: Partial<UnitInput> = {}): UnitInput => ({
  revision: '',
  serial,
  dateCode: '',
  obtained: 'bought',
  disclosure: '',
  notes: '',
  ...part,
});

const unstated = { kind: 'unstated' } as ClaimInput['duration'];
export const claim = (promise: ClaimInput['promise'], printed = 'label', duration = unstated): ClaimInput => ({
  promise,
  duration,
  printed,
});
export const line = (port: string, volts: number, amps: number): ClaimInput =>
  claim({ kind: 'port-line', port, volts, amps });
const range = (
  port: string,
  supply: 'pps' | 'spr-avs' | 'epr-avs',
  [low, high]: readonly [number, number],
  amps: number,
): ClaimInput => claim({ kind: 'range', port, supply, low, high, amps }, 'box, back');
const shares = (list: Record<string, number>): ClaimInput =>
  claim({ kind: 'combination', shares: Object.entries(list).map(([port, watts]) => ({ port, watts })) }, 'box, back');
const price = (amount: number, kind: ModelInput['prices'][number]['kind'] = 'paid', date = '2026-03-01') => ({
  kind,
  amount,
  currency: 'EUR',
  date,
});

export const SOUND: ChargerPhysics = {
  fixedLoss: 0.22,
  proportionalLoss: 0.055,
  resistiveLoss: 0.03,
  lowMainsPenalty: 0.35,
  sourceOhms: 0.02,
  warmFoldBack: 1,
  foldBackFrom: Number.POSITIVE_INFINITY,
  idle: 0.042,
  correctionFrom: Number.POSITIVE_INFINITY,
};

/** The shelf, in the order it was taken in. */
export const SHELF: readonly DemoSample[] = [
  {
    model: model({
      maker: 'Mirefold',
      model: 'Shuttle 75',
      kind: 'car',
      ports: ports('C1', 'A1'),
      inputRating: '12/24 V DC',
      mass: 0.062,
      prices: [price(27.5)],
      marks: [],
    }),
    claims: [
      line('C1', 20, 3),
      line('C1', 9, 3),
      line('A1', 9, 2),
      range('C1', 'pps', [3.3, 16], 3),
      claim({ kind: 'total', watts: 75 }, 'box, front'),
    ],
    units: [
      {
        unit: unit('SH-0441', { notes: 'For valley van 3. Warm to the hand with nothing attached.' }),
        loadings: [],
        idle: null,
      },
    ],
    physics: SOUND,
  },
  {
    model: model({
      maker: 'Mirefold',
      model: 'Six 210',
      kind: 'desktop',
      ports: ports('C1', 'C2', 'C3', 'C4', 'A1', 'A2'),
      plugForm: 'detachable lead',
      plugEarthed: true,
      mass: 0.62,
      length: 0.112,
      width: 0.098,
      height: 0.034,
      prices: [price(119), price(139, 'list', '2026-02-01')],
      marks: ['safety listing', 'indoor use', 'efficiency level'],
    }),
    claims: [
      line('C1', 20, 5),
      line('C2', 20, 5),
      shares({ C1: 100, C2: 65 }),
      shares({ C1: 100, C2: 65, C3: 15, C4: 15 }),
      shares({ C3: 15, C4: 15 }),
      shares({ A1: 7.5, A2: 7.5 }),
      claim({ kind: 'total', watts: 210 }, 'box, front'),
    ],
    units: [{ unit: unit('M6-1177'), loadings: [], idle: null }],
    physics: SOUND,
  },
  {
    model: model({
      maker: 'Gravelin',
      model: 'Quad 130',
      kind: 'desktop',
      ports: ports('C1', 'C2', 'C3', 'A1'),
      plugForm: 'detachable lead',
      mass: 0.41,
      length: 0.095,
      width: 0.08,
      height: 0.032,
      prices: [price(79.9, 'street'), price(99, 'list')],
      marks: ['double insulation', 'efficiency level'],
    }),
    claims: [
      line('C1', 20, 5),
      line('C1', 12, 3),
      shares({ C1: 65, C2: 65 }),
      shares({ C1: 65, C3: 20 }),
      shares({ C1: 65, C2: 45, C3: 20 }),
      shares({ C1: 60, C2: 45, C3: 15, A1: 12 }),
      claim({ kind: 'total', watts: 130 }, 'box, front', { kind: 'continuous' }),
      claim({ kind: 'wording', text: 'Hyper-smart sharing' }, 'box, front'),
    ],
    units: [
      {
        unit: unit('GQ-20931', { obtained: 'lent', disclosure: 'Lent by the maker; goes back after the test.' }),
        loadings: [
          {
            name: 'C1 + C2 20 V',
            outputs: [
              { port: 'C1', volts: 20, amps: 3.25 },
              { port: 'C2', volts: 20, amps: 3.25 },
            ],
            measured: [{ mains: 230, loads: [1, 0.75, 0.5] }],
          },
        ],
        idle: { mains: [230], rig: 'idle' },
      },
    ],
    physics: { ...SOUND, warmFoldBack: 0.86, foldBackFrom: 115, idle: 0.19, fixedLoss: 0.5, correctionFrom: 70 },
  },
  {
    model: model({
      maker: 'Ossory Bay',
      model: 'Monolith 180',
      kind: 'desktop',
      ports: ports('C1'),
      plugForm: 'detachable lead',
      plugEarthed: true,
      mass: 0.47,
      length: 0.12,
      width: 0.07,
      height: 0.03,
      prices: [price(94)],
      marks: ['safety listing', 'efficiency level'],
    }),
    claims: [
      line('C1', 36, 5),
      line('C1', 28, 5),
      line('C1', 20, 5),
      range('C1', 'pps', [3.3, 21], 5),
      range('C1', 'spr-avs', [9, 20], 5),
      range('C1', 'epr-avs', [15, 36], 5),
      claim({ kind: 'total', watts: 180 }, 'label', { kind: 'continuous' }),
      claim({ kind: 'idle', watts: 0.15, mains: null }, 'manual, page 4'),
    ],
    units: [
      {
        unit: unit('OB-18-0092'),
        loadings: [
          { name: 'C1 36 V', outputs: [{ port: 'C1', volts: 36, amps: 5 }], measured: [{ mains: 230, loads: ALL }] },
        ],
        idle: { mains: [115, 230], rig: 'idle' },
      },
    ],
    physics: { ...SOUND, fixedLoss: 0.9, proportionalLoss: 0.03, resistiveLoss: 0.02, idle: 0.148, correctionFrom: 95 },
  },
  {
    model: model({
      maker: 'Quernstone',
      model: 'Pip 20',
      kind: 'wall',
      ports: ports('C1', 'A1'),
      length: 0.041,
      width: 0.029,
      height: 0.029,
      mass: 0.044,
      prices: [price(12.9)],
      inputRating: '100–240 V 50/60 Hz 0.6 A',
    }),
    claims: [
      line('C1', 9, 2.22),
      line('C1', 5, 3),
      line('A1', 5, 2.4),
      claim({ kind: 'total', watts: 20 }, 'box, front', { kind: 'peak', seconds: 600 }),
      claim({ kind: 'average-efficiency', ratio: 0.87, mains: null }, 'label'),
      claim({ kind: 'wording', text: 'Turbo ready' }, 'box, side'),
    ],
    units: [
      {
        unit: unit('QP-5520'),
        loadings: [
          { name: 'C1 9 V', outputs: [{ port: 'C1', volts: 9, amps: 2.22 }], measured: BOTH },
          {
            name: 'C1 5 V',
            outputs: [{ port: 'C1', volts: 5, amps: 3 }],
            measured: [{ mains: 230, loads: [1, 0.75] }],
          },
        ],
        idle: { mains: [115, 230], rig: 'desk' },
        recorded: 'hurried',
      },
    ],
    physics: { ...SOUND, fixedLoss: 0.16, proportionalLoss: 0.085, resistiveLoss: 0.045, sourceOhms: 0.06, idle: 0.07 },
  },
  {
    model: model({
      maker: 'Pellwick',
      model: 'Trio 75',
      kind: 'wall',
      ports: [
        { label: 'C1', connector: 'C', twin: null },
        { label: 'C2', connector: 'C', twin: 'C1' },
        { label: 'A1', connector: 'A', twin: null },
      ],
      plugForm: 'folding',
      plugBlocksNeighbour: true,
      length: 0.071,
      width: 0.055,
      height: 0.031,
      mass: 0.148,
      prices: [price(39.9), price(49.9, 'list', '2026-02-14')],
      marks: ['safety listing', 'double insulation', 'efficiency level'],
      inputRating: '100–240 V 50/60 Hz 1.8 A',
    }),
    claims: [
      line('C1', 20, 3.75),
      line('C1', 9, 3),
      line('C2', 20, 3.75),
      line('C2', 9, 3),
      range('C1', 'spr-avs', [9, 20], 3.75),
      claim({ kind: 'signal', port: 'A1', mode: 'stepped-high', title: 'Stepped high voltage' }, 'box, back'),
      shares({ C1: 45, C2: 27 }),
      shares({ C1: 60, A1: 12 }),
      shares({ C1: 45, C2: 15, A1: 12 }),
      claim({ kind: 'total', watts: 75 }, 'box, front', { kind: 'continuous' }),
      claim({ kind: 'average-efficiency', ratio: 0.9, mains: null }, 'manual, page 2'),
      claim({ kind: 'idle', watts: 0.1, mains: null }, 'manual, page 2'),
      claim({ kind: 'charge-time', device: 'Warden’s laptop', from: 0.15, to: 0.5, seconds: 24 * 60 }, 'box, back'),
    ],
    units: [
      {
        unit: unit('PT-75-3310', { revision: 'B' }),
        loadings: [
          { name: 'C1 20 V', outputs: [{ port: 'C1', volts: 20, amps: 3.75 }], measured: BOTH },
          { name: 'C1 9 V', outputs: [{ port: 'C1', volts: 9, amps: 3 }], measured: [{ mains: 230, loads: ALL }] },
        ],
        idle: { mains: [115, 230], rig: 'idle' },
      },
    ],
    physics: {
      ...SOUND,
      warmFoldBack: 0.945,
      foldBackFrom: 72,
      idle: 0.098,
      fixedLoss: 0.35,
      proportionalLoss: 0.06,
      resistiveLoss: 0.04,
    },
  },
  {
    model: model({
      maker: 'Tarnhook',
      model: 'Ember 45',
      kind: 'wall',
      ports: ports('C1'),
      plugForm: 'folding',
      length: 0.052,
      width: 0.039,
      height: 0.028,
      mass: 0.083,
      prices: [price(24.5), price(29.9, 'list', '2026-01-20')],
      marks: ['safety listing', 'double insulation', 'efficiency level'],
      inputRating: '100–240 V 50/60 Hz 1.2 A',
    }),
    claims: [
      line('C1', 20, 2.25),
      line('C1', 15, 3),
      range('C1', 'pps', [3.3, 16], 3),
      line('C1', 5, 3),
      claim({ kind: 'total', watts: 45 }),
      claim({ kind: 'average-efficiency', ratio: 0.9, mains: null }, 'manual, page 3'),
      claim({ kind: 'idle', watts: 0.075, mains: null }, 'manual, page 3'),
      claim({ kind: 'wording', text: 'Calm power' }, 'box, front'),
    ],
    units: [
      {
        unit: unit('TE-45-0117', { dateCode: '2025-W41', disclosure: 'Bought at street price by the Association.' }),
        loadings: [
          { name: 'C1 20 V', outputs: [{ port: 'C1', volts: 20, amps: 2.25 }], measured: BOTH },
          { name: 'C1 5 V', outputs: [{ port: 'C1', volts: 5, amps: 3 }], measured: BOTH },
          { name: 'C1 5 V 2 A', outputs: [{ port: 'C1', volts: 5, amps: 2 }], measured: BOTH },
        ],
        idle: { mains: [115, 230], rig: 'idle' },
      },
      {
        unit: unit('TE-45-0868', { dateCode: '2026-W03' }),
        recorded: 'nothing',
        loadings: [
          {
            name: 'C1 20 V',
            outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
            measured: [{ mains: 230, loads: [1, 0.75, 0.5, 0.25] }],
          },
        ],
        idle: null,
      },
    ],
    physics: SOUND,
  },
];
