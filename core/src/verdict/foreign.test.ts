// Samples as other benches know them: a wall meter and devices only, ports that share, readings typed anywhere.

import { describe, expect, it } from 'vitest';
import type { SplitRun } from '../run/index.ts';
import { aDeviceRun } from '../testing/proof.ts';
import { aReadOut } from '../testing/read-out.ts';
import { aPoint } from '../testing/reading.ts';
import { dossierFor, EU } from '../testing/verdict.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { type Dossier, judgeSample } from './index.ts';

const spec = { ...NO_SPEC, readingPercent: 0.5 };
const instruments: Dossier['instruments'] = ['wattmeter', 'voltmeter', 'ammeter'].map((id) => ({
  id,
  name: id,
  sees: null,
  specs: { power: spec, voltage: spec, current: spec },
}));
const claim = (id: string, promise: Dossier['claims'][number]['promise']): Dossier['claims'][number] => ({
  id,
  promise,
  duration: { kind: 'unstated' },
  printed: 'label',
});
let serial = 0;
const split = (shares: Record<string, [number, number] | null>, part: Partial<SplitRun> = {}): SplitRun => {
  serial += 1;
  const order = Object.keys(shares);
  return {
    id: `split${serial}`,
    kind: 'split',
    port: order[0] ?? '',
    order,
    rigId: 'rig',
    takenAt: `2026-03-02T10:00:${String(serial % 60).padStart(2, '0')}.000Z`,
    u: 0,
    note: '',
    supersedes: null,
    withdrawn: false,
    mains: EU,
    shares: order.map((port) => ({
      port,
      volts: shares[port]?.[0] ?? null,
      amps: shares[port]?.[1] ?? null,
      light: false,
    })),
    mainsWatts: null,
    evidence: 'load',
    drops: [],
    ...part,
  };
};
const ports = (...labels: string[]) => labels.map((label) => ({ label, connector: 'C', twin: null }) as const);
const judge = (labels: string[], claims: Dossier['claims'], runs: Dossier['runs'], part: Partial<Dossier> = {}) => {
  const base = dossierFor({});
  return judgeSample({
    ...base,
    sample: { ...base.sample, ports: ports(...labels) },
    claims,
    runs,
    setups: [],
    instruments,
    ...part,
  });
};
const both = claim('both', {
  kind: 'combination',
  shares: [
    { port: 'C1', watts: 45 },
    { port: 'C2', watts: 20 },
  ],
});

describe('with a wall meter only', () => {
  it('a share is both its ends, never a number in between', () => {
    const {
      claims,
      results: { splits },
    } = judge(['C1', 'C2'], [both], [split({ C1: null, C2: null }, { mainsWatts: 72 })]);
    const [row] = splits.rows;
    // 80 to 97 % of 72 W with its own uncertainty, and that of both together.
    expect(row?.lines.map(({ value }) => value)).toEqual([null, null]);
    expect(row?.total?.low).toBeCloseTo(0.8 * 72 * (1 - 0.01 / Math.sqrt(3)), 2);
    expect(row?.total?.high).toBeCloseTo(0.97 * 72 * (1 + 0.01 / Math.sqrt(3)), 2);
    expect(row?.lines.map(({ measured }) => measured)).toEqual([null, null]);
    expect(claims[0]?.state).toBe('not tested');
  });

  it('what it would take in any case refutes; an assumed efficiency does not', () => {
    const alone = [claim('c', { kind: 'combination', shares: [{ port: 'C1', watts: 65 }] })];
    const state = (mainsWatts: number) => judge(['C1'], alone, [split({ C1: null }, { mainsWatts })]).claims[0];
    expect(state(60)?.state).toBe('short');
    expect(state(66)?.state).toBe('borderline');
    expect(state(90)?.state).toBe('borderline');
    expect(state(90)?.sentence).toContain('efficiency assumed 80…97 %');
    expect(state(90)?.tests[0]).toMatchObject({ value: null, probability: null });
  });

  it('with a curve of its own the interval narrows, for a combination too', () => {
    const setups = dossierFor({}).setups.map((one) => ({ ...one, outputs: [{ port: 'C1', volts: 20, amps: 3.25 }] }));
    const points = [0.25, 0.5, 0.75, 1].map((load) =>
      aPoint({ mains: EU, load, u: 0.001, watts: (65 * load) / 0.9, out: { C1: [20, 3.25 * load] } }),
    );
    const {
      results: { splits },
    } = judge(['C1', 'C2'], [both], [split({ C1: null, C2: null }, { mainsWatts: 60 })], {
      setups,
      points,
    });
    const total = splits.rows.find(({ occupied }) => occupied.length === 2)?.total;
    expect(total).toMatchObject({ assumed: null });
    expect(total?.low).toBeGreaterThan(53);
    expect(total?.high).toBeLessThan(55);
  });

  it('the assumption is the person’s to narrow', () => {
    const base = dossierFor({});
    const profile = { ...base.profile, assumedEfficiency: { low: 0.88, high: 0.92 } };
    const {
      results: { splits },
    } = judge(['C1'], [], [split({ C1: null }, { mainsWatts: 100 })], { profile });
    expect(splits.rows[0]?.total).toMatchObject({ assumed: { low: 0.88, high: 0.92 } });
  });
});

describe('one row, one state', () => {
  it('is the same at Splits and in the ledger, and from devices never refutes', () => {
    const runs = [split({ C1: [20, 1.5], C2: null }, { mainsWatts: 60, evidence: 'device' })];
    const {
      claims,
      results: { splits },
    } = judge(['C1', 'C2'], [both], runs);
    const row = splits.rows.find(({ occupied }) => occupied.length === 2);
    expect(claims[0]?.state).toBe('at least');
    expect(row?.lines.map(({ state }) => state)).toEqual(claims[0]?.parts?.map(({ state }) => state));
    expect(row?.lines.map(({ state }) => state)).toEqual(['at least', 'at least']);
  });

  it('of a port alone is its own printed line', () => {
    const line = claim('line', { kind: 'port-line', port: 'C1', volts: 20, amps: 3 });
    const {
      claims,
      results: { splits },
    } = judge(['C1'], [line], [split({ C1: [20, 3] })]);
    expect(splits.rows[0]).toMatchObject({ promised: 60, lines: [{ promised: 60, state: 'proven' }] });
    expect(claims[0]?.state).toBe('proven');
  });
});

describe('what Splits says on the sheet and in the data', () => {
  const said = (runs: Parameters<typeof judge>[2]) =>
    judge(['C1', 'C2'], [both], runs).stations.find(({ id }) => id === 'splits')?.says;

  it('is the rule found, in the words of its page; of nothing read it says nothing', () => {
    expect(said([])).toEqual([]);
    const runs = [split({ C1: [20, 3] }), split({ C2: [20, 3] }), split({ C1: [20, 1.5], C2: [20, 1.5] })];
    const rule = judge(['C1', 'C2'], [both], runs).results.splits.rule;
    expect(rule.sentences.length).toBeGreaterThan(0);
    expect(said(runs)).toEqual(rule.sentences);
    expect(said(runs)?.join(' ')).toMatch(/60 W/);
  });
});

describe('ports that share what is promised', () => {
  const shared = claim('s', { kind: 'combination', shares: [{ port: 'C2', with: ['C3'], watts: 20 }] });
  const inside = claim('i', {
    kind: 'combination',
    shares: [
      { port: 'C1', watts: 45 },
      { port: 'C2', with: ['C3'], watts: 20 },
    ],
  });
  const labels = ['C1', 'C2', 'C3'];

  it('are judged by their sum, however it is divided', () => {
    for (const [a, b] of [
      [2, 0],
      [1, 1],
      [0.4, 1.6],
    ] as const)
      expect(judge(labels, [shared], [split({ C2: [10, a], C3: [10, b] })]).claims[0]?.state).toBe('proven');
    expect(judge(labels, [shared], [split({ C2: [10, 0.8], C3: [10, 0.8] })]).claims[0]).toMatchObject({
      state: 'short',
      sentence: expect.stringContaining('promised 20 W'),
    });
  });

  it('inside a larger row too, beside a port of its own', () => {
    const {
      claims,
      results: { splits },
    } = judge(labels, [inside], [split({ C1: [20, 2.25], C2: [9, 1.2], C3: [9, 1.2] })]);
    expect(claims[0]).toMatchObject({ state: 'proven', parts: [{ port: 'C1' }, { port: 'C2' }] });
    expect(splits.rows[0]).toMatchObject({
      promised: 65,
      lines: [{ ports: ['C1'] }, { ports: ['C2', 'C3'], promised: 20 }],
    });
    const weak = judge(labels, [inside], [split({ C1: [20, 2.25], C2: [9, 0.5], C3: [9, 0.5] })]).claims[0];
    expect(weak?.state).toBe('short');
    expect(weak?.sentence).toMatch(/^C2 \+ C3: /);
  });

  it('with a meter on one of them follow from the socket', () => {
    const { claims } = judge(labels, [shared], [split({ C2: [10, 1], C3: null }, { mainsWatts: 24 })]);
    expect(claims[0]).toMatchObject({ state: 'borderline' });
    expect(claims[0]?.sentence).toContain('by the socket');
  });
});

describe('what a device took', () => {
  const total = claim('t', { kind: 'total', watts: 65 });
  const line = claim('l', { kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 });

  it('reaches the ledger wherever it was typed', () => {
    const asRun = judge(['C1'], [total, line], [aDeviceRun({ watts: 53, volts: 20 })]);
    const asSplit = judge(['C1'], [total, line], [split({ C1: [20, 2.65] }, { evidence: 'device' })]);
    const setup = { ...(dossierFor({}).setups[0] as Dossier['setups'][number]), evidence: 'device' as const };
    const asLoading = judge(['C1'], [total, line], [], {
      setups: [setup],
      points: [aPoint({ mains: EU, load: 0.75, u: 0.01, watts: 60, evidence: 'device', out: { C1: [20, 2.65] } })],
    });
    for (const { claims } of [asRun, asSplit, asLoading])
      expect(claims.map(({ state }) => state)).toEqual(['at least', 'at least']);
  });

  it('at another level is said beside the promise, not hidden by "nothing read"', () => {
    const { claims } = judge(['C1'], [line], [aDeviceRun({ watts: 18, volts: 9 })]);
    expect(claims[0]).toMatchObject({ state: 'not tested', tests: [] });
    expect(claims[0]?.besides?.[0]).toContain('at 9 V');
  });

  it('at a level its port does not offer is questioned', () => {
    const readOut = aReadOut(['5 V 3 A', '9 V 3 A', '12 V 2.5 A']);
    const { proof } = judge(['C1'], [], [aDeviceRun({ watts: 48, volts: 20 })], { readOuts: [readOut] }).results;
    expect(proof.devices[0]?.notes.join(' ')).toContain('20 V is a level C1 did not offer; 12 V is its highest');
    const fine = judge(['C1'], [], [aDeviceRun({ watts: 18, volts: 9 })], { readOuts: [readOut] });
    expect(fine.results.proof.devices[0]?.notes.join(' ')).not.toContain('did not offer');
  });
});
