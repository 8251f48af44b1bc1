import { describe, expect, it } from 'vitest';
import { LIMIT_SETS } from '../limits/index.ts';
import { type Mains, REGULATORY_PAIR, type Stated } from '../reading/index.ts';
import { stationsOf } from '../station/index.ts';
import { aPoint, aReading, aRig, byTheBook } from '../testing/reading.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { type Dossier, FIGURES_FORM, judgeSample } from './index.ts';
import { STATIONS } from './stations.ts';

const [us, eu] = REGULATORY_PAIR as [Mains, Mains];
const full = (mains: Mains, eta: number) =>
  [0.1, 0.25, 0.5, 0.75, 1].map((load) =>
    aPoint({ mains, load, u: 0.001, watts: (45 * load) / eta, out: { C1: [20, 2.25 * load] } }),
  );
const idle = (mains: Mains, watts: number) =>
  aPoint({
    setupId: null,
    load: 0,
    mains,
    readings: [
      aReading({ quantity: 'energy', value: watts * 600, u: 0.6 }),
      aReading({ quantity: 'duration', value: 600 }),
    ],
  });

/** Everything by the book, at both supplies. */
const STATED: readonly Stated[] = [null, 's1'].flatMap((setupId) =>
  REGULATORY_PAIR.map((mains) => byTheBook(setupId, mains)),
);

const dossier: Dossier = {
  sample: {
    kind: 'wall',
    ports: [{ label: 'C1', connector: 'C', twin: null }],
    mass: 0.09,
    prices: [
      { kind: 'list', amount: 39, currency: 'EUR', date: '2026-03-01' },
      { kind: 'paid', amount: 36, currency: 'EUR', date: '2026-01-01' },
    ],
  },
  claims: [
    {
      id: 'line',
      promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 },
      duration: { kind: 'unstated' },
      printed: 'label',
    },
    { id: 'total', promise: { kind: 'total', watts: 45 }, duration: { kind: 'unstated' }, printed: 'label' },
    { id: 'words', promise: { kind: 'wording', text: 'smart' }, duration: { kind: 'unstated' }, printed: 'box' },
  ],
  setups: [
    {
      id: 's1',
      name: 'C1 20 V',
      outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
      evidence: 'load',
      purpose: 'efficiency',
      rigId: 'rig',
      nameplateClass: null,
    },
  ],
  points: [...full(us, 0.885), ...full(eu, 0.9), idle(us, 0.04), idle(eu, 0.06)],
  stated: STATED,
  readOuts: [],
  captures: [],
  runs: [],
  cableRuns: [],
  checks: [],
  devices: [],
  rigs: [aRig()],
  instruments: [
    { id: 'wattmeter', name: 'Power meter', sees: null, specs: { power: { ...NO_SPEC, offset: 0.001, floor: 0.01 } } },
  ],
  profile: {
    rule: 'guarded',
    allowance: 0.02,
    mains: REGULATORY_PAIR,
    tariff: 0.3,
    currency: 'EUR',
    limitSetIds: LIMIT_SETS.map((set) => set.id),
    tolerance: null,
    continuous: 3600,
    overRating: { on: false, step: 0.03, seconds: 3 },
    more: { as: 'stated', margin: 0.05 },
    limits: { hottest: null, volts: null, amps: null, watts: null },
    signalModes: [],
  },
  limitSets: LIMIT_SETS,
};

describe('a measured sample', () => {
  const verdict = judgeSample(dossier);

  it('has every claim judged', () => {
    expect(verdict.claims.map((claim) => claim.state)).toEqual(['proven', 'proven', 'undefined']);
    expect(verdict.figures.claims).toEqual({ proven: 2, undefined: 1 });
  });

  it('has key figures at the worse mains, with that mains', () => {
    expect(verdict.figures).toMatchObject({
      watts: 45,
      efficiency: { value: expect.closeTo(0.885, 9), condition: 'C1 20 V, 115 V 60 Hz' },
      idle: { value: expect.closeTo(0.06, 9), condition: '230 V 50 Hz', below: false },
      massPerWatt: expect.closeTo(0.002, 9),
      pricePerWatt: { value: expect.closeTo(0.8, 9), basis: 'paid' },
    });
  });

  it('is held against the limit sets, with a verdict only at their own mains', () => {
    const lines = verdict.results.efficiency.limits[0]?.lines ?? [];
    const found = lines.filter((line) => line.quantity === 'average-efficiency' && line.standing === 'verdict');
    expect(found.map((line) => [line.setId, line.decision.outcome])).toEqual([
      ['us-level-6', 'proven'],
      ['eu-2019-1782', 'proven'],
      ['eu-coc-5-tier-2', 'proven'],
    ]);
    expect(lines.filter((line) => line.quantity === 'light-load-efficiency').map((line) => line.setId)).toEqual([
      'eu-coc-5-tier-2',
      'eu-coc-5-tier-2',
    ]);
    expect(
      verdict.results.idle.limits.filter((line) => line.standing === 'verdict').map((line) => line.decision.outcome),
    ).toEqual(['proven', 'proven', 'proven']);
  });

  it('shows its stations as done', () => {
    expect(verdict.stations.map(({ id, done, total }) => `${id} ${done}/${total}`)).toEqual([
      'intake 3/3',
      'claims 3/3',
      'read-out 0/1',
      'proof 1/2',
      'splits 0/0',
      'devices 0/1',
      'idle 2/2',
      'efficiency 10/10',
      'ripple 0/0',
      'heat 0/2',
      'safety 0/3',
      'verdict 3/3',
    ]);
    expect(verdict.stations.find((station) => station.id === 'efficiency')?.worst).toBe('proven');
  });
});

const WALL = stationsOf(STATIONS, 'wall');

describe('an empty sample', () => {
  const verdict = judgeSample({
    ...dossier,
    claims: [],
    setups: [],
    points: [],
    sample: { ...dossier.sample, ports: [], mass: null, prices: [] },
  });

  it('concludes nothing and fails at nothing', () => {
    expect(verdict.figures).toEqual({
      form: FIGURES_FORM,
      watts: null,
      efficiency: null,
      idle: null,
      massPerWatt: null,
      pricePerWatt: null,
      claims: {},
      stations: WALL.map(({ id }) => ({ id, look: 'untouched' })),
    });
    expect(verdict.stations.map((station) => station.done)).toEqual(WALL.map(() => 0));
    expect(verdict.results.idle.limits).toEqual([]);
  });
});

describe('an idle below the meter’s floor', () => {
  it('reads "below", and is held against limits as the bound it is', () => {
    const verdict = judgeSample({ ...dossier, points: [idle(eu, 0.004)] });
    expect(verdict.figures.idle).toMatchObject({ value: 0.01, below: true });
    const eu45 = verdict.results.idle.limits.find(({ setId }) => setId === 'eu-2019-1782');
    expect(eu45).toMatchObject({
      words: 'below 0.01 W',
      bounded: true,
      decision: { outcome: 'proven', probability: null },
    });
  });
});

it('a class of one’s own overrides the derived one', () => {
  const setups = dossier.setups.map((setup) => ({ ...setup, nameplateClass: 'multiple-voltage' as const }));
  const [limits] = judgeSample({ ...dossier, setups }).results.efficiency.limits;
  expect(limits).toMatchObject({
    nameplateClass: 'multiple-voltage',
    overridden: true,
    derived: { nameplateClass: 'basic' },
  });
});
