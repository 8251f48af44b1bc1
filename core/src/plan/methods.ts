// The schools of measuring a sheet can follow. Data, so that a result can say which was used.

import { ONE_PERCENT_RULE } from '../procedure/index.ts';
import { CAR_STOPS, MAINS_CHOICES, type Mains, REGULATORY_PAIR } from '../reading/index.ts';
import { USUAL_CONDITIONS } from './conditions.ts';
import type { Method } from './types.ts';

const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const FOUR_AND_TEN = [1, 0.75, 0.5, 0.25, 0.1];

const BY_INSTRUMENTS = {
  kinds: ['wall', 'desktop'],
  by: 'instruments',
  loads: FOUR_AND_TEN,
  levels: 'lowest and highest',
  warmUp: 1800,
  settle: ONE_PERCENT_RULE,
  idle: 600,
  idleAttached: ['nothing'],
  idleWhen: 'from cold',
  readOut: true,
  proof: true,
  splits: true,
  hold: 0,
  soak: 3600,
  sweep: [],
  captures: ['inrush', 'fading', 'waveform', 'ripple'],
  devices: false,
  charges: false,
  conditions: [USUAL_CONDITIONS.unsettled, USUAL_CONDITIONS.folded, USUAL_CONDITIONS.dropped, USUAL_CONDITIONS.gone],
  line: null,
} as const satisfies Partial<Method>;

const CHARGER_METHODS: readonly Method[] = [
  {
    ...BY_INSTRUMENTS,
    id: 'regulatory-pair',
    title: 'Regulatory pair',
    says: '115 V 60 Hz and 230 V 50 Hz; warm-up 30 min, four points and 10 % of every loading a complete result needs, then no load, in the order of 10 CFR 430 subpart B, appendix Z, loading conditions 1 to 5.',
    idleWhen: 'after the points',
    mains: REGULATORY_PAIR,
  },
  {
    ...BY_INSTRUMENTS,
    id: 'local-mains',
    title: 'Local single mains',
    says: 'The same at 230 V 50 Hz alone; limit sets for other mains then read "indicative".',
    idleWhen: 'after the points',
    mains: [EU],
  },
  {
    ...BY_INSTRUMENTS,
    id: 'publication',
    title: 'Publication bench',
    says: '120 V 60 Hz and 230 V 50 Hz; ten points at every fixed level, idle from cold and also with a cable, the highest power held for an hour.',
    mains: MAINS_CHOICES.find(({ id }) => id === 'pair-120-230')?.mains ?? [EU],
    loads: [1, 0.9, 0.8, 0.75, 0.6, 0.5, 0.4, 0.25, 0.1, 0.05],
    levels: 'every fixed level',
    idleAttached: ['nothing', 'cable'],
    hold: 3600,
  },
  {
    ...BY_INSTRUMENTS,
    id: 'desk',
    conditions: [],
    title: 'Desk rig without instruments',
    says: 'Wall meter, inline meter and real devices, typed at the keypad; local mains.',
    kinds: ['wall', 'desktop', 'car'],
    by: 'keypad',
    mains: [EU],
    loads: [],
    warmUp: 0,
    settle: null,
    splits: false,
    captures: [],
    devices: true,
  },
  {
    ...BY_INSTRUMENTS,
    id: 'charges',
    conditions: [],
    title: 'Whole charges',
    says: 'Each device from empty to full at the first port, logged by an inline meter to its end and a while after it; local mains.',
    kinds: ['wall', 'desktop', 'car'],
    by: 'keypad',
    mains: [EU],
    loads: [],
    warmUp: 0,
    settle: null,
    idle: 0,
    readOut: false,
    proof: false,
    splits: false,
    captures: [],
    charges: true,
  },
  {
    ...BY_INSTRUMENTS,
    id: 'car',
    title: 'Car',
    says: '13.8 V and 27.6 V DC; parasitic draw first, then proof, warm-up and the load points, the supply lowered until output goes, and a dip.',
    kinds: ['car'],
    sweep: Object.values(CAR_STOPS)
      .flat()
      .map((volts) => ({ kind: 'dc' as const, volts })),
    captures: ['fading', 'sweep', 'dip', 'ripple'],
    mains: [
      { kind: 'dc', volts: 13.8 },
      { kind: 'dc', volts: 27.6 },
    ],
  },
];

/** What sits in the line has nothing of a charger to be measured. */
const IN_LINE = {
  ...BY_INSTRUMENTS,
  kinds: ['cable'],
  mains: [EU],
  loads: [],
  warmUp: 0,
  settle: null,
  idle: 0,
  proof: false,
  splits: false,
  soak: 0,
  captures: [],
} as const satisfies Partial<Method>;

const LINE_METHODS: readonly Method[] = [
  {
    ...IN_LINE,
    id: 'line',
    conditions: [],
    title: 'Resistance, three pluggings',
    says: 'Its marker is read, then the drop between two meters at whole amperes up to what it may carry, plugged anew three times: what its contacts add is told from its wire.',
    line: { pluggings: 3, bends: false },
  },
  {
    ...IN_LINE,
    id: 'bends',
    conditions: [],
    title: 'Bends with looks between',
    says: 'The same at the start, then bent as Rules say, and its resistance read again at every look, once plugged.',
    line: { pluggings: 3, bends: true },
  },
];

export const METHODS: readonly Method[] = [...CHARGER_METHODS, ...LINE_METHODS];

/** The methods that fit a kind of sample. */
export const methodsFor = (kind: Method['kinds'][number]): readonly Method[] =>
  METHODS.filter(({ kinds }) => kinds.includes(kind));

/** A method by its id; undefined for one nobody knows. */
export const methodOf = (id: string): Method | undefined => METHODS.find((one) => one.id === id);
