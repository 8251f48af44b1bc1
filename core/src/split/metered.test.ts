// Fewer meters than ports: what was metered, and what the socket leaves for the rest.
import { describe, expect, it } from 'vitest';
import type { Instrument } from '../reading/index.ts';
import type { SplitRun } from '../run/index.ts';
import { aRig } from '../testing/reading.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { deliveredBySplits, promisedRows, splitReading, splitRows } from './index.ts';

const PROMISED = [
  {
    id: 'a',
    promise: {
      kind: 'combination',
      shares: [
        { port: 'C1', watts: 45 },
        { port: 'A1', watts: 12 },
      ],
    },
  },
] as const;
const meteredRig = aRig();
const tight = { ...NO_SPEC, offset: 1e-9 };
const METERS: Instrument[] = ['wattmeter', 'voltmeter', 'ammeter'].map((id) => ({
  id,
  name: id,
  specs: {
    power: { ...NO_SPEC, readingPercent: 0.1 },
    voltage: { ...NO_SPEC, readingPercent: 0.05 },
    current: { ...NO_SPEC, readingPercent: 0.1 },
  },
  sees: null,
}));
const EXACT = METERS.map((one) => ({ ...one, specs: { power: tight, voltage: tight, current: tight } }));

describe('fewer meters than ports', () => {
  const run: SplitRun = {
    id: 'r',
    kind: 'split',
    port: 'C1',
    order: ['C1', 'A1'],
    rigId: 'rig',
    takenAt: '2026-03-02T09:00:00.000Z',
    u: 0,
    note: '',
    supersedes: null,
    withdrawn: false,
    mains: { kind: 'ac', volts: 230, hertz: 50 },
    shares: [
      { port: 'C1', volts: 20, amps: 2, light: false },
      { port: 'A1', volts: null, amps: null, light: false },
    ],
    mainsWatts: 60,
    evidence: 'load',
    drops: [],
  };
  it('the rest follows from the socket as an interval; without an efficiency by one that is assumed and said', () => {
    const exact = EXACT.map((one) => ({ ...one, sees: null }));
    const bench = { ports: ['C1', 'A1'], rigs: [aRig()], instruments: exact, series: [] };
    const one = splitReading(run, bench);
    expect(one.watts.C1?.value).toBe(40);
    // Nothing measured: 80 to 97 % of 60 W, less the 40 W that were metered; whatever the efficiency, at most 20 W.
    expect(one.rest?.assumed).toEqual({ low: 0.8, high: 0.97 });
    expect([one.rest?.low, one.rest?.high, one.rest?.most].map((watts) => watts?.toFixed(3))).toEqual([
      '8.000',
      '18.200',
      '20.000',
    ]);
  });
  it('is of the port, where the load senses at the end of a lead', () => {
    const exact = EXACT.map((one) => ({ ...one, sees: null }));
    const rig = aRig({ outputPlace: 'load-end', leadOhms: 0.1, leadUOhms: 0.01 });
    const bench = { ports: ['C1', 'A1'], rigs: [rig], instruments: exact, series: [] };
    const one = splitReading(run, bench);
    // By hand: 2 A over 0.1 Ω is 0.2 V and 0.4 W; u = 2² · 0.01 Ω.
    expect(one.volts?.C1).toBeCloseTo(20.2, 12);
    expect(one.watts.C1?.value).toBeCloseTo(40.4, 12);
    expect(one.watts.C1?.uInstrument).toBeCloseTo(0.04, 12);
    // What the socket leaves for the other is less by as much, and by what the lead is not known to.
    expect(one.rest?.high).toBeCloseTo(58.2 - 40.32, 6);
    expect(deliveredBySplits([run], bench)[0]?.outputs[0]?.volts.value).toBeCloseTo(20.2, 12);
  });
  it('says neither of a share nobody metered as if it were: an interval and no value', () => {
    const one = splitReading(run, { ports: ['C1', 'A1'], rigs: [meteredRig], instruments: METERS, series: [] });
    const rows = splitRows(['C1', 'A1'], promisedRows(['C1', 'A1'], PROMISED), [one], () => [
      { port: 'C1', state: 'short' },
      { port: 'A1', state: 'borderline' },
    ]);
    expect(rows[0]?.lines[0]).toMatchObject({ value: 40, state: 'short' });
    expect(rows[0]?.lines[1]).toMatchObject({ value: null, state: 'borderline' });
    expect(rows[0]?.lines[1]?.measured?.low).toBeLessThan(8.1);
    expect(rows[0]?.lines[1]?.measured?.high).toBeGreaterThan(18.1);
  });
});
