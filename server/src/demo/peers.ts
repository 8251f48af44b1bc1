// What the workshop measured in the two years before: peers to compare with. A charger that was best until another came, a lot of six
// units of which one is bad, light ones that lose more and heavy ones that lose less, desks that cannot be told apart.
import type { ChargerPhysics } from './simulate.ts';
import { BOTH, claim, type DemoSample, line, model, ports, SOUND, unit } from './world.ts';

export interface Peer extends DemoSample {
  /** When it was bought, and measured a week later. */
  readonly bought: string;
  /** What each unit loses more than its physics say, by its place. */
  readonly worse: readonly number[];
}

interface Sketch {
  readonly name: readonly [maker: string, model: string];
  readonly kind: 'wall' | 'desktop';
  readonly labels: readonly string[];
  /** V and A of its largest port. */
  readonly full: readonly [volts: number, amps: number];
  readonly grams: number;
  readonly sides: readonly [number, number, number];
  readonly euros: number;
  readonly bought: string;
  readonly physics: Partial<ChargerPhysics>;
  readonly serials: readonly string[];
  readonly codes?: readonly string[];
  readonly worse?: readonly number[];
  readonly average: number;
}

const peer = (sketch: Sketch): Peer => {
  const {
    name,
    kind,
    labels,
    full,
    grams,
    sides,
    euros,
    bought,
    physics,
    serials,
    codes = [],
    worse = [],
    average,
  } = sketch;
  const [volts, amps] = full;
  const [length, width, height] = sides;
  const [first = 'C1'] = labels;
  return {
    model: model({
      maker: name[0],
      model: name[1],
      kind,
      ports: ports(...labels),
      mass: grams / 1000,
      length: length / 1000,
      width: width / 1000,
      height: height / 1000,
      plugForm: kind === 'desktop' ? 'detachable lead' : 'fixed',
      withPlug: kind === 'wall',
      prices: [{ kind: 'paid', amount: euros, currency: 'EUR', date: bought }],
    }),
    claims: [
      line(first, volts, amps),
      claim({ kind: 'average-efficiency', ratio: average, mains: null }, 'box, back'),
      claim({ kind: 'idle', watts: 0.1, mains: null }, 'box, back'),
    ],
    units: serials.map((serial, at) => ({
      unit: unit(serial, { dateCode: codes[at] ?? '' }),
      loadings: [{ name: `${first} ${volts} V`, outputs: [{ port: first, volts, amps }], measured: BOTH }],
      idle: { mains: [115, 230], rig: 'idle' },
    })),
    physics: { ...SOUND, ...physics },
    bought,
    worse,
  };
};

const WALL = 'wall';
const DESK = 'desktop';

/** In the order they were bought. */
const SKETCHES: readonly Sketch[] = [
  {
    name: ['Ossory Bay', 'Reef 65'],
    kind: WALL,
    labels: ['C1'],
    full: [20, 3.25],
    grams: 128,
    sides: [61, 58, 29],
    euros: 44,
    bought: '2024-02-12',
    physics: { proportionalLoss: 0.066, resistiveLoss: 0.032, idle: 0.071 },
    serials: ['OB-65-0007'],
    average: 0.89,
  },
  {
    name: ['Gravelin', 'Slate 45'],
    kind: WALL,
    labels: ['C1', 'A1'],
    full: [15, 3],
    grams: 112,
    sides: [58, 55, 28],
    euros: 29.9,
    bought: '2024-04-03',
    physics: { proportionalLoss: 0.082, resistiveLoss: 0.045, fixedLoss: 0.3, idle: 0.118 },
    serials: ['GS-0450'],
    average: 0.88,
  },
  {
    name: ['Quernstone', 'Wick 30'],
    kind: WALL,
    labels: ['C1'],
    full: [15, 2],
    grams: 58,
    sides: [42, 38, 26],
    euros: 17.5,
    bought: '2024-06-20',
    physics: { proportionalLoss: 0.085, resistiveLoss: 0.05, idle: 0.051 },
    serials: ['QW-3011'],
    average: 0.87,
  },
  {
    name: ['Mirefold', 'Ledge 140'],
    kind: DESK,
    labels: ['C1', 'C2', 'A1'],
    full: [20, 5],
    grams: 405,
    sides: [96, 68, 31],
    euros: 79,
    bought: '2024-08-15',
    physics: { proportionalLoss: 0.058, resistiveLoss: 0.034, fixedLoss: 0.42, idle: 0.152, correctionFrom: 75 },
    serials: ['ML-1402'],
    average: 0.89,
  },
  {
    name: ['Tarnhook', 'Ember 65'],
    kind: WALL,
    labels: ['C1', 'A1'],
    full: [20, 3.25],
    grams: 121,
    sides: [60, 54, 28],
    euros: 39.5,
    bought: '2024-10-07',
    physics: { proportionalLoss: 0.05, resistiveLoss: 0.026, fixedLoss: 0.2, idle: 0.048 },
    serials: ['TE-65-0231'],
    average: 0.9,
  },
  {
    name: ['Pellwick', 'Solo 65'],
    kind: WALL,
    labels: ['C1'],
    full: [20, 3.25],
    grams: 96,
    sides: [52, 45, 29],
    euros: 36,
    bought: '2025-01-22',
    physics: { proportionalLoss: 0.061, resistiveLoss: 0.04, idle: 0.064 },
    serials: ['PS-65-118'],
    average: 0.89,
  },
  {
    name: ['Gravelin', 'Shard 65'],
    kind: WALL,
    labels: ['C1', 'C2'],
    full: [20, 3.25],
    grams: 84,
    sides: [48, 42, 28],
    euros: 41,
    bought: '2025-03-11',
    physics: { proportionalLoss: 0.075, resistiveLoss: 0.055, idle: 0.083 },
    serials: ['GS-6502'],
    average: 0.88,
  },
  {
    name: ['Ossory Bay', 'Harbour 200'],
    kind: DESK,
    labels: ['C1', 'C2', 'C3', 'A1'],
    full: [20, 5],
    grams: 560,
    sides: [104, 88, 33],
    euros: 112,
    bought: '2025-04-29',
    physics: { proportionalLoss: 0.047, resistiveLoss: 0.024, fixedLoss: 0.36, idle: 0.149, correctionFrom: 75 },
    serials: ['OH-2001'],
    average: 0.9,
  },
  {
    name: ['Pellwick', 'Duo 45'],
    kind: WALL,
    labels: ['C1', 'C2'],
    full: [20, 2.25],
    grams: 92,
    sides: [50, 44, 28],
    euros: 27.9,
    bought: '2025-06-02',
    physics: { proportionalLoss: 0.06, resistiveLoss: 0.034, idle: 0.058 },
    serials: ['PD-2501', 'PD-2502', 'PD-2503', 'PD-2504', 'PD-2505', 'PD-2506'],
    codes: ['F1 2518', 'F1 2518', 'F1 2518', 'F2 2520', 'F2 2520', 'F2 2520'],
    worse: [0, 0.006, -0.004, 0.03, 0.34, 0.036],
    average: 0.9,
  },
  {
    name: ['Quernstone', 'Lark 65'],
    kind: WALL,
    labels: ['C1'],
    full: [20, 3.25],
    grams: 104,
    sides: [54, 47, 29],
    euros: 42.5,
    bought: '2025-08-18',
    physics: { proportionalLoss: 0.0495, resistiveLoss: 0.026, fixedLoss: 0.2, idle: 0.046 },
    serials: ['QL-65-77'],
    average: 0.91,
  },
  {
    name: ['Mirefold', 'Ledge 160'],
    kind: DESK,
    labels: ['C1', 'C2', 'C3', 'A1'],
    full: [20, 5],
    grams: 448,
    sides: [98, 74, 32],
    euros: 94,
    bought: '2025-10-30',
    physics: { proportionalLoss: 0.05, resistiveLoss: 0.027, fixedLoss: 0.38, idle: 0.15, correctionFrom: 75 },
    serials: ['ML-1601'],
    average: 0.9,
  },
  {
    name: ['Tarnhook', 'Kiln 100'],
    kind: WALL,
    labels: ['C1', 'C2', 'A1'],
    full: [20, 5],
    grams: 176,
    sides: [66, 60, 31],
    euros: 58,
    bought: '2025-11-19',
    physics: { proportionalLoss: 0.052, resistiveLoss: 0.03, fixedLoss: 0.26, idle: 0.069, correctionFrom: 75 },
    serials: ['TK-100-9'],
    average: 0.9,
  },
  {
    name: ['Gravelin', 'Quarry 220'],
    kind: DESK,
    labels: ['C1', 'C2', 'C3', 'C4', 'A1', 'A2'],
    full: [20, 5],
    grams: 690,
    sides: [118, 96, 35],
    euros: 99,
    bought: '2026-01-14',
    physics: { proportionalLoss: 0.063, resistiveLoss: 0.036, fixedLoss: 0.55, idle: 0.151, correctionFrom: 75 },
    serials: ['GQ-2200'],
    average: 0.89,
  },
  {
    name: ['Quernstone', 'Lark 45'],
    kind: WALL,
    labels: ['C1'],
    full: [20, 2.25],
    grams: 69,
    sides: [44, 40, 28],
    euros: 31,
    bought: '2026-02-09',
    physics: { proportionalLoss: 0.053, resistiveLoss: 0.03, fixedLoss: 0.19, idle: 0.039 },
    serials: ['QL-45-12'],
    average: 0.91,
  },
  {
    name: ['Pellwick', 'Solo 30'],
    kind: WALL,
    labels: ['C1'],
    full: [15, 2],
    grams: 49,
    sides: [38, 36, 26],
    euros: 19.9,
    bought: '2026-02-17',
    physics: { proportionalLoss: 0.068, resistiveLoss: 0.045, idle: 0.044 },
    serials: ['PS-30-4'],
    average: 0.88,
  },
];

export const PEERS: readonly Peer[] = SKETCHES.map(peer);
