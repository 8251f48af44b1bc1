// A meter nobody stated the accuracy of decides nothing, wherever its reading ends up.
import { describe, expect, it } from 'vitest';
import { LIMIT_SETS } from '../limits/index.ts';
import { aDeviceRun } from '../testing/proof.ts';
import { aPoint, aReading } from '../testing/reading.ts';
import { dossierFor, EU } from '../testing/verdict.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { type Dossier, judgeSample } from './index.ts';

const line = (id: string, promise: Dossier['claims'][number]['promise']) => ({
  id,
  promise,
  duration: { kind: 'unstated' } as const,
  printed: 'label',
});
const unknown = <T extends { readonly u: number | null }>(reading: T): T => ({ ...reading, u: null });
const full = aPoint({ mains: EU, watts: 50, u: 0.001, out: { C1: [20, 2.25] } });
const CLAIMS = [
  line('line', { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 }),
  line('total', { kind: 'total', watts: 45 }),
];
const byId = (dossier: Dossier) => {
  const { claims } = judgeSample(dossier);
  return Object.fromEntries(claims.map((claim) => [claim.claimId, claim]));
};

describe('a voltmeter of unknown accuracy', () => {
  const points = [
    {
      ...full,
      readings: full.readings.map((one) =>
        one.quantity === 'voltage' ? unknown({ ...one, instrumentId: 'voltmeter' }) : one,
      ),
    },
  ];
  const instruments = [{ id: 'voltmeter', name: 'Inline meter', sees: null, specs: {} }];
  const claims = byId(dossierFor({ claims: CLAIMS, points, instruments }));

  it('decides neither its line nor the total, and says which accuracy is missing', () => {
    for (const id of ['line', 'total'])
      expect(claims[id]).toMatchObject({
        state: 'cannot be decided',
        unstated: [{ meter: 'voltmeter', quantity: 'voltage' }],
        sentence: expect.stringContaining('The accuracy of “Inline meter” for voltage is not stated.'),
      });
    expect(claims.total?.tests[0]).toMatchObject({ probability: null, expanded: Number.POSITIVE_INFINITY });
  });

  it('decides nothing under the simple rule either', () => {
    const dossier = dossierFor({ claims: CLAIMS, points, instruments });
    expect(byId({ ...dossier, profile: { ...dossier.profile, rule: 'simple' } }).total?.state).toBe(
      'cannot be decided',
    );
  });

  it('decides as soon as it is stated', () => {
    expect(byId(dossierFor({ claims: CLAIMS, points: [full] })).total?.state).toBe('proven');
  });
});

describe('a wall meter of unknown accuracy', () => {
  const idle = aPoint({
    setupId: null,
    load: 0,
    mains: EU,
    readings: [
      unknown(aReading({ quantity: 'energy', value: 24, instrumentId: 'wattmeter' })),
      aReading({ quantity: 'duration', value: 600 }),
    ],
  });
  const points = [0.25, 0.5, 0.75, 1].map((load) => {
    const point = aPoint({ mains: EU, load, u: 0.001, watts: 50 * load, out: { C1: [20, 2.25 * load] } });
    return { ...point, readings: point.readings.map((one) => (one.place === 'mains' ? unknown(one) : one)) };
  });
  const verdict = judgeSample(
    dossierFor({
      points: [...points, idle],
      claims: [
        line('idle', { kind: 'idle', watts: 0.1, mains: null }),
        line('eta', { kind: 'average-efficiency', ratio: 0.88, mains: null }),
      ],
      limitSets: LIMIT_SETS,
    }),
  );

  it('leaves idle, efficiency and every limit open, on the shelf too', () => {
    expect(verdict.claims.map(({ state }) => state)).toEqual(['cannot be decided', 'cannot be decided']);
    const lines = [...verdict.results.idle.limits, ...verdict.results.efficiency.limits.flatMap((one) => one.lines)];
    expect(lines.length).toBeGreaterThan(4);
    for (const { decision, reasons } of lines) {
      expect(decision).toMatchObject({ outcome: 'cannot be decided', probability: null });
      expect(reasons.join(' ')).toContain('is not stated');
    }
    expect(verdict.figures.idle).toMatchObject({ expanded: null, words: '0.04 ± ? W' });
    expect(verdict.figures.efficiency).toMatchObject({ expanded: null, words: '90 ± ? %' });
  });
});

describe('a device run over meters of unknown accuracy', () => {
  it('bounds nothing, also one kept from before, when unknown was written as nought', () => {
    for (const u of [null, 0]) {
      const runs = [aDeviceRun({ watts: 53, u })];
      const [, total] = judgeSample(dossierFor({ claims: CLAIMS, runs })).claims;
      expect(total).toMatchObject({ state: 'cannot be decided' });
      expect(total?.unstated).toHaveLength(2);
    }
  });
});

describe('meters that are known', () => {
  it('of which one reads what is not in the result do not disturb it', () => {
    const point = {
      ...full,
      readings: full.readings.map((one) => (one.place === 'mains' ? unknown(one) : one)),
    };
    expect(byId(dossierFor({ claims: CLAIMS, points: [point] })).line?.state).toBe('proven');
  });
});

describe('an accuracy that is stated later', () => {
  const spec = { ...NO_SPEC, readingPercent: 0.05, offset: 0.004 };
  const stated = ['voltmeter', 'ammeter'].map((id) => ({
    id,
    name: id,
    sees: null,
    specs: { voltage: spec, current: spec },
  }));
  it('decides what was taken before, and leaves what had one as it was', () => {
    const points = [{ ...full, readings: full.readings.map((one) => (one.place === 'port' ? unknown(one) : one)) }];
    expect(byId(dossierFor({ claims: CLAIMS, points })).total?.state).toBe('cannot be decided');
    const total = byId(dossierFor({ claims: CLAIMS, points, instruments: stated })).total;
    expect(total?.state).toBe('proven');
    // u of 20 V and 2.25 A by that spec, U of their product.
    const u = (value: number) => (0.0005 * value + 0.004) / Math.sqrt(3);
    expect(total?.tests[0]?.expanded).toBeCloseTo(2 * Math.hypot(2.25 * u(20), 20 * u(2.25)), 6);
    const kept = byId(dossierFor({ claims: CLAIMS, points: [full], instruments: stated })).total;
    expect(kept?.tests[0]?.expanded).toBeCloseTo(2 * Math.hypot(2.25 * 0.001, 20 * 0.001), 6);
  });
  it('decides a device run too', () => {
    const runs = [aDeviceRun({ watts: 53, u: null })];
    expect(byId(dossierFor({ claims: CLAIMS, runs, instruments: stated })).total?.state).toBe('proven');
  });
});
