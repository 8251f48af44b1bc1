import { describe, expect, it } from 'vitest';
import { aCable } from '../testing/cable.ts';
import { aPoint, aRig } from '../testing/reading.ts';
import { dossierFor, EU, US } from '../testing/verdict.ts';
import type { PriceFacts } from '../verdict/index.ts';
import { judgeSample } from '../verdict/index.ts';
import type { Dossier } from '../verdict/types.ts';
import { changeOf, lifeOf, MEASURES, measureAbout, measuresOf, measureWords } from './index.ts';

const valuesOf = (part: Partial<Dossier>) => {
  const dossier = dossierFor(part);
  return measuresOf(dossier, judgeSample(dossier));
};
const find = (part: Partial<Dossier>, measure: string, condition?: string) =>
  valuesOf(part).find((one) => one.measure === measure && (condition === undefined || one.condition === condition));
const wall = (part: Partial<Dossier['sample']>): Pick<Dossier, 'sample'> => ({
  sample: { kind: 'wall', ports: [{ label: 'C1', connector: 'C', twin: null }], mass: null, prices: [], ...part },
});
const price = (part: Partial<PriceFacts>): PriceFacts => ({
  kind: 'paid',
  amount: 24.5,
  currency: 'EUR',
  date: '2026-01-05',
  ...part,
});
const claims = [
  { id: 'c', promise: { kind: 'total', watts: 45 }, duration: { kind: 'unstated' }, printed: 'label' },
] as const;
/** Volts and amps of C1 at a load, and what the wall gives for it. */
const loaded = (load: number, watts: number, mains = EU) =>
  aPoint({ load, mains, watts, out: { C1: [20, 2.25 * load] }, u: 0.01, rigId: 'rig' });

describe('measures', () => {
  it('each has a name of its own, a unit and a direction', () => {
    expect(new Set(MEASURES.map(({ id }) => id)).size).toBe(MEASURES.length);
    expect(new Set(MEASURES.map(({ title }) => title)).size).toBe(MEASURES.length);
    expect(() => measureAbout('stars')).toThrow('There is no measure stars.');
  });
  it('of charging tell the spread of repeats; one charge alone tells nothing of it', () => {
    const dossier = dossierFor(wall({}));
    const verdict = judgeSample(dossier);
    const timesOf = (...minutes: readonly number[]) => {
      const sessions = minutes.map((own) => ({
        device: 'Ridge 14',
        place: 'C1, 1 m cable, 230 V 50 Hz',
        workload: null,
        session: { startLevel: 0.2, times: { '50': null, '80': own * 60, '100': null } },
      }));
      const judged = {
        ...verdict,
        results: { ...verdict.results, devices: { sessions } },
      } as unknown as typeof verdict;
      return measuresOf(dossier, judged).filter(({ measure }) => measure === 'charge-time');
    };
    expect(timesOf(25)).toMatchObject([
      { condition: 'Ridge 14 from 20 % to 80 %, 1 m cable, 230 V 50 Hz', value: 1500, u: null },
    ]);
    // Mean 1560 s; s = 60 s, over √3, times 4.303 / 1.96.
    expect(timesOf(25, 27, 26)).toMatchObject([{ value: 1560, u: expect.closeTo(76.045, 2) }]);
    expect(timesOf(25, 25)).toMatchObject([{ value: 1500, u: null }]);
  });
  it('of heat are under one condition only where they stood alike', () => {
    const sensor = {
      name: 'front',
      timeConstants: [900],
      settled: true,
      remaining: 0.2,
      from: 0,
      lasted: 3600,
      fit: null,
    };
    const soak = (id: string, place: string, steady: number) => ({
      id,
      kind: 'soak',
      mains: EU,
      outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
      takenAt: '2026-05-01T10:00:00Z',
      soak: { place, touched: 'plastic', ambient: null, surface: 'wood' },
      figures: {
        kind: 'soak',
        ambient: 23,
        events: [],
        watts: 45,
        findings: [],
        sensors: [
          { ...sensor, steady, steadyInterval: [steady - 1, steady + 1], atEnd: steady - 0.2, highest: steady },
        ],
      },
      supersedes: null,
      withdrawn: false,
    });
    const captures = [soak('a', 'chamber', 65), soak('b', 'open room', 60)] as unknown as Dossier['captures'];
    const rises = valuesOf({ ...wall({}), claims, captures }).filter(({ measure }) => measure === 'touch-rise');
    expect(rises.map(({ condition, value }) => [condition, value])).toEqual([
      ['full load, 230 V 50 Hz, chamber', 42],
      ['full load, 230 V 50 Hz, open room', 37],
    ]);
  });
  it('of ripple are under one condition only with the same across the probe', () => {
    const probe = {
      tip: 'tip and barrel',
      capacitors: '0.1 µF ‖ 10 µF',
      bandwidth: 20e6,
      coupling: 'AC',
      attenuation: 1,
      floor: null,
      floorRms: null,
    } as const;
    const rigs = [
      aRig({ id: 'a', probe }),
      aRig({ id: 'b', probe: { ...probe, capacitors: '', bandwidth: null } }),
      aRig(),
    ];
    const captures = rigs.map(({ id: rigId }, at) => ({
      id: rigId,
      kind: 'ripple',
      mains: EU,
      port: 'C1',
      outputs: [{ port: 'C1', volts: at === 0 ? 20 : 9 + at, amps: 2.25 }],
      takenAt: '2026-05-01T10:00:00Z',
      rigId,
      samples: 0,
      figures: { kind: 'ripple', peakToPeak: 0.03, samples: 0, mean: 0, rms: null, lines: [], findings: [] },
      supersedes: null,
      withdrawn: false,
    })) as unknown as Dossier['captures'];
    const found = valuesOf({ ...wall({}), rigs, captures }).filter(({ measure }) => measure === 'ripple');
    expect(found.map(({ condition }) => condition)).toEqual([
      '10 V, rated load, 230 V 50 Hz, no capacitors, bandwidth not stated',
      '11 V, rated load, 230 V 50 Hz, probe not stated',
      '20 V, rated load, 230 V 50 Hz, 0.1 µF ‖ 10 µF, 20 MHz',
    ]);
  });
  it('of the intake: per watt, per port, on one basis and currency', () => {
    const sample = wall({
      mass: 0.09,
      length: 0.05,
      width: 0.04,
      height: 0.03,
      withPlug: true,
      ports: [
        { label: 'C1', connector: 'C', twin: null },
        { label: 'A1', connector: 'A', twin: null },
      ],
      prices: [
        price({}),
        price({ date: '2026-02-01', amount: 27 }),
        price({ kind: 'list', amount: 40 }),
        price({ amount: 0, currency: 'CHF' }),
      ],
    });
    const part = { ...sample, claims };
    expect(find(part, 'mass-per-watt')).toMatchObject({ condition: 'with plug', value: 0.002, u: 0 });
    expect(find(part, 'size-per-watt')?.value).toBeCloseTo(6e-5 / 45, 12);
    // The newest of each basis.
    expect(find(part, 'price-per-watt', 'EUR, paid')).toMatchObject({ value: 0.6, at: '2026-02-01T00:00:00.000Z' });
    expect(find(part, 'price-per-port', 'EUR, list')?.value).toBe(20);
    expect(valuesOf(part).some(({ condition }) => condition.startsWith('CHF'))).toBe(false);
    expect(find({ ...wall({ mass: 0.09, withPlug: false }), claims }, 'mass')?.condition).toBe('without plug');
  });
  it('of idle and efficiency: under their mains, with whose meters, and when', () => {
    const points = [
      aPoint({ setupId: null, load: 0, mains: EU, watts: 0.042, u: 0.001 }),
      ...[1, 0.75, 0.5, 0.25, 0.1].map((load) => loaded(load, 50 * load)),
    ];
    const part = { ...wall({}), points, claims, rigs: [aRig()] };
    expect(find(part, 'idle')).toMatchObject({
      condition: '230 V 50 Hz',
      value: 0.042,
      u: 0.001,
      meters: 'wattmeter',
      below: false,
    });
    // 45 W out of 50 W at every load.
    expect(find(part, 'average-efficiency')).toMatchObject({
      condition: 'four points, 230 V 50 Hz',
      meters: 'ammeter+voltmeter+wattmeter',
      at: '2026-03-02T09:00:00.000Z',
    });
    expect(find(part, 'average-efficiency')?.value).toBeCloseTo(0.9, 9);
    expect(find(part, 'light-load-efficiency', '230 V 50 Hz')?.value).toBeCloseTo(0.9, 9);
    expect(find(part, 'full-load-loss')?.value).toBeCloseTo(5, 9);
    expect(find(part, 'average-efficiency', 'four points, 115 V 60 Hz')).toBeUndefined();
  });
  it('of two loadings: full load is the one of most power', () => {
    const small = {
      id: 's2',
      name: 'C1 5 V',
      outputs: [{ port: 'C1', volts: 5, amps: 3 }],
      evidence: 'load',
      purpose: 'efficiency',
      rigId: 'rig',
      nameplateClass: null,
    } as const;
    const { setups } = dossierFor({});
    const points = [
      aPoint({ setupId: 's2', mains: US, watts: 18, out: { C1: [5, 3] } }),
      aPoint({ setupId: 's1', mains: US, watts: 50, out: { C1: [20, 2.25] } }),
    ];
    expect(find({ ...wall({}), setups: [small, ...setups], points }, 'full-load-loss')?.value).toBeCloseTo(5, 9);
    // Where only a lower level of a port was measured, it does not stand beside the highest of others.
    const levels = [
      { id: 'l5', promise: { kind: 'port-line', port: 'C1', volts: 5, amps: 3 } },
      { id: 'l20', promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 } },
    ].map((one) => ({ ...one, duration: { kind: 'unstated' }, printed: 'label' })) as unknown as Dossier['claims'];
    const of = (own: typeof points) =>
      valuesOf({ ...wall({}), claims: levels, setups: [small, ...setups], points: own })
        .filter(({ measure }) => measure === 'full-load-loss')
        .map(({ condition }) => condition);
    expect(of(points.slice(0, 1))).toEqual(['at 5 V, 115 V 60 Hz']);
    expect(of(points.slice(1))).toEqual(['115 V 60 Hz']);
    expect(of(points)).toEqual(['115 V 60 Hz', 'at 5 V, 115 V 60 Hz']);
  });
  it('of promises: the share proven of those decided; of none nothing', () => {
    expect(find({ ...wall({}), claims }, 'proven-share')).toBeUndefined();
    const points = [loaded(1, 50)];
    expect(find({ ...wall({}), claims, points }, 'proven-share')).toMatchObject({
      value: 1,
      condition: 'of those decided',
    });
  });
  it('of a cable: length and price a metre, and nothing of chargers', () => {
    const sample = {
      kind: 'cable',
      ports: [],
      mass: 0.04,
      prices: [price({ amount: 18 })],
      cable: aCable({ length: 1.5, pack: 2 }),
    } as const;
    const told = valuesOf({ sample });
    expect(told.find(({ measure }) => measure === 'price-per-metre')).toMatchObject({
      value: 6,
      condition: 'EUR, paid',
    });
    expect(told.find(({ measure }) => measure === 'length')?.value).toBe(1.5);
    expect(told.some(({ measure }) => measure === 'mass-per-watt' || measure === 'ports')).toBe(false);
  });
  it('of a sample nothing is known of there is only what it is', () => {
    expect(valuesOf(wall({ ports: [] })).map(({ measure }) => measure)).toEqual(['watts']);
  });
  it('of a year of use: idle, light and full load by their hours, what a meter errs the same way adding up', () => {
    const points = [
      aPoint({ setupId: null, load: 0, mains: EU, watts: 0.05, u: 0.001 }),
      ...[1, 0.75, 0.5, 0.25, 0.1].map((load) => loaded(load, 50 * load)),
    ];
    const part = { ...wall({}), points, claims, rigs: [aRig()] };
    const told = find(part, 'use-loss');
    expect(told?.condition).toBe('20 h idle, 2 h at 10 %, 2 h at full load a day, 230 V 50 Hz');
    // By hand: 365 · (20·0.05 + 2·(5 − 4.5) + 2·(50 − 45)) Wh = 4.38 kWh.
    expect((told?.value ?? 0) / 3.6e6).toBeCloseTo(4.38, 6);
    expect(measureWords(measureAbout('use-loss'), { value: 4.38 * 3.6e6, u: 0, below: false })).toBe('4.38 kWh');
    // Never surer than the part the meters share, never less sure than all of it added up.
    expect(told?.u ?? 0).toBeGreaterThan(told?.common ?? Number.NaN);
    expect(find({ ...part, points: points.slice(1) }, 'use-loss')).toBeUndefined();
    expect(find({ ...part, points: points.slice(0, -1) }, 'use-loss')).toBeUndefined();
  });
  it('of prices also by the year they are of', () => {
    const prices = [
      price({ date: '2024-03-01', amount: 30 }),
      price({ date: '2024-11-01', amount: 28 }),
      price({ date: '2026-01-05', amount: 24.5 }),
    ];
    const of = (condition: string) => find(wall({ prices }), 'price', condition);
    expect(of('EUR, paid')?.value).toBe(24.5);
    expect(of('EUR, paid, 2024')).toMatchObject({ value: 28, at: '2024-11-01T00:00:00.000Z' });
    expect(of('EUR, paid, 2025')).toBeUndefined();
  });
  it('come once a condition, and are finite', () => {
    const told = valuesOf({
      ...wall({ mass: Number.NaN, length: Number.POSITIVE_INFINITY, width: 1, height: 1 }),
      claims,
    });
    expect(told.every(({ value }) => Number.isFinite(value))).toBe(true);
    expect(new Set(told.map(({ measure, condition }) => `${measure} ${condition}`)).size).toBe(told.length);
  });
});

describe('a value in words', () => {
  it.each([
    ['idle', 0.042, 0.0009, false, '42.0 ± 1.8 mW'],
    ['average-efficiency', 0.9172, 0.0016, false, '91.7 ± 0.4 %'],
    ['mass-per-watt', 0.001844, 0, false, '1.844 g/W'],
    ['idle', 0.02, 0.004, true, 'below 20 mW'],
    ['idle', 0.042, null, false, '42 ± ? mW'],
    ['ports', 3, 0, false, '3'],
    ['price-per-watt', 0.5444, 0, false, '0.5444/W'],
    ['touch-rise', -2, 0, false, '\u22122 K'],
    ['hold', 3600, 0, false, '60 min'],
    ['idle', Number.NaN, 0, false, '–'],
  ] as const)('%s of %f, u %s', (id, value, u, below, words) =>
    expect(measureWords(measureAbout(id), { value, u, below })).toBe(words),
  );
});

describe('a life', () => {
  it('a change over a life counts beyond its uncertainty only', () => {
    const day = (at: string, value: number, u: number | null = 0.1) => ({ at, value, u });
    expect(changeOf([day('2026-01-01', 91), day('2025-01-01', 92)])).toMatchObject({ value: -1, changed: true });
    expect(changeOf([day('2025-01-01', 92), day('2026-01-01', 91.8)])).toMatchObject({ changed: false });
    expect(changeOf([day('2025-01-01', 92), day('2026-01-01', 80, null)])).toMatchObject({
      expanded: null,
      changed: false,
    });
    expect(changeOf([day('2025-01-01', 92)])).toBeNull();
  });
  it('sets the first day against the last, each measure under one condition', () => {
    const on = (day: string, watts: number) =>
      aPoint({ setupId: null, load: 0, mains: EU, watts, u: 0.001, takenAt: `${day}T09:00:00.000Z` });
    const points = [on('2025-01-10', 0.042), on('2025-06-01', 0.05), on('2026-01-10', 0.061)];
    const told = lifeOf(dossierFor({ ...wall({}), points }));
    expect(told.map(({ measure, condition }) => [measure, condition])).toEqual([['idle', '230 V 50 Hz']]);
    expect(told[0]?.change).toMatchObject({ changed: true, from: '2025-01-10', to: '2026-01-10' });
    expect(told[0]?.change.value).toBeCloseTo(0.019, 9);
    // U of the difference by hand: 2·√2·1 mW.
    expect(told[0]?.change.expanded).toBeCloseTo(0.0028284, 6);
    expect(lifeOf(dossierFor({ ...wall({}), points: points.slice(0, 1) }))).toEqual([]);
    expect(lifeOf(dossierFor({}))).toEqual([]);
  });
});
