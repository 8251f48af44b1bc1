import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Limit } from '../decision/index.ts';
import { efficiencySeries } from '../efficiency/index.ts';
import { CLAIM_STATES, evidenceInterval, levelTolerance, settle, stateOf, wallInterval } from '../evidence/index.ts';
import { idleResults } from '../idle/index.ts';
import { type Claim, describePromise, type Promised } from '../promise/index.ts';
import { deliveredByEfficiency } from '../proof/index.ts';
import type { EvidenceKind, Point, Setup } from '../reading/index.ts';
import { aPoint, aRig } from '../testing/reading.ts';
import { measured } from '../uncertainty/index.ts';
import { judgeClaims } from './index.ts';
import { type Known, NOTHING_KNOWN } from './known.ts';

const rig = aRig();
const c1: Setup = {
  id: 's1',
  name: 'C1 20 V',
  outputs: [{ port: 'C1', volts: 20, amps: 3.25 }],
  evidence: 'load',
  purpose: 'efficiency',
  rigId: 'rig',
};
const claim = (promise: Promised, duration: Claim['duration'] = { kind: 'unstated' }): Claim => ({
  id: promise.kind,
  promise,
  duration,
  printed: 'label',
});

const judge = (
  promise: Promised,
  points: readonly Point[],
  setups: readonly Setup[] = [c1],
  duration?: Claim['duration'],
) => {
  const series = setups.map((setup) => efficiencySeries(setup, points, [rig]));
  const known: Known = {
    ...NOTHING_KNOWN,
    series,
    delivered: deliveredByEfficiency(series),
    idle: idleResults(points, () => 0.01),
  };
  const [result] = judgeClaims([claim(promise, duration)], known);
  if (!result) throw new Error('no result');
  return result;
};

const atFull = (volts: number, amps: number, u = 0.01) =>
  aPoint({ watts: (volts * amps) / 0.9, u, out: { C1: [volts, amps] } });

describe('kinds of evidence', () => {
  const laptop = measured(53, 0.2);
  const promised: Limit = { kind: 'at-least', low: 80 };

  it('a device gives a lower bound and never refutes', () => {
    const interval = evidenceInterval('device', laptop);
    expect(interval).toEqual({ low: 52.6, high: Number.POSITIVE_INFINITY });
    expect(stateOf({ kind: 'device', interval }, promised)).toBe('at least');
    expect(stateOf({ kind: 'device', interval }, { kind: 'at-least', low: 50 })).toBe('proven');
  });

  it('a load confirms or refutes', () => {
    expect(stateOf({ kind: 'load', interval: evidenceInterval('load', laptop) }, promised)).toBe('short');
  });

  it('a wall reading is an interval by the sample’s own efficiency, bounds outwards', () => {
    const known = wallInterval(measured(113.2, 0), { low: 0.885, high: 0.915 });
    expect(known.low).toBeCloseTo(100.182, 3);
    expect(known.high).toBeCloseTo(103.578, 3);
    expect(wallInterval(measured(113.2, 0.5), null)).toEqual({ low: Number.NEGATIVE_INFINITY, high: 114.2 });
    expect(() => wallInterval(measured(100, 0), { low: 0.9, high: 1.2 })).toThrow(RangeError);
  });

  it.each<EvidenceKind>(['display', 'word', 'observation', 'read-out'])('%s is never turned into a number', (kind) => {
    expect(evidenceInterval(kind, laptop)).toBeNull();
  });

  it('a read-out alone is advertised only', () => {
    expect(stateOf({ kind: 'read-out', interval: null }, promised)).toBe('advertised only');
  });

  it('runs that contradict each other settle nothing', () => {
    expect(settle(['proven', 'short'])).toEqual({ state: 'borderline', disagree: true });
    expect(settle(['borderline', 'proven'])).toEqual({ state: 'proven', disagree: false });
    expect(settle([])).toEqual({ state: 'not tested', disagree: false });
  });

  it('proven and short exclude each other for every reading and promise', () => {
    const number = fc.double({ noNaN: true, min: 0, max: 300 });
    fc.assert(
      fc.property(number, number, fc.double({ noNaN: true, min: 0, max: 20 }), (value, low, u) => {
        const limit: Limit = { kind: 'at-least', low };
        const load = stateOf({ kind: 'load', interval: evidenceInterval('load', measured(value, u)) }, limit);
        const device = stateOf({ kind: 'device', interval: evidenceInterval('device', measured(value, u)) }, limit);
        expect(device).not.toBe('short');
        if (load === 'short') expect(device).toBe('at least');
        if (device === 'proven') expect(load).toBe('proven');
      }),
    );
  });
});

describe('a port line', () => {
  const promise: Promised = { kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 };

  it('is proven by a full load within the level’s tolerance', () => {
    const result = judge(promise, [atFull(20.04, 3.248)]);
    expect(result.state).toBe('proven');
    expect(result.sentence).toBe('20.040 ± 0.020 V at 3.248 A; must stay within 19.00…21.00 V.');
    expect(result.tests[0]?.evidence.pointIds).toHaveLength(1);
  });

  it('is short when the voltage sags out of tolerance', () => {
    expect(judge(promise, [atFull(18.6, 3.25)]).state).toBe('short');
  });

  it('is short when the charger folds back before the current', () => {
    const result = judge(promise, [atFull(20, 2.8)]);
    expect(result.state).toBe('short');
    expect(result.sentence).toContain('promised 3.25 A');
  });

  it('is at least what a device took', () => {
    const result = judge(promise, [atFull(20, 2.1)], [{ ...c1, evidence: 'device' }]);
    expect(result.state).toBe('at least');
  });

  it('is not tested by another port, level, partial load or a combination', () => {
    const other = { ...c1, outputs: [{ port: 'C2', volts: 20, amps: 3.25 }] };
    const low = { ...c1, outputs: [{ port: 'C1', volts: 9, amps: 3 }] };
    const less = { ...c1, outputs: [{ port: 'C1', volts: 20, amps: 2 }] };
    for (const setup of [other, low, less])
      expect(judge(promise, [atFull(20, 3.25)], [setup]).state).toBe('not tested');
    expect(judge(promise, [{ ...atFull(20, 1.6), load: 0.5 }]).state).toBe('not tested');
  });

  it('is assumed where a twin port is proven', () => {
    const series = [efficiencySeries(c1, [atFull(20, 3.25)], [rig])];
    const known: Known = { ...NOTHING_KNOWN, series, delivered: deliveredByEfficiency(series) };
    const twin = { ...claim({ ...promise, port: 'C2' }), id: 'twin' };
    const results = judgeClaims([claim(promise), twin], known, [{ port: 'C2', twin: 'C1' }]);
    expect(results.map((result) => result.state)).toEqual(['proven', 'assumed']);
    expect(judgeClaims([claim(promise), twin], known)[1]?.state).toBe('not tested');
  });
});

describe('a total', () => {
  const promise: Promised = { kind: 'total', watts: 65 };

  it('counts a power within the load’s setting tolerance as reached', () => {
    expect(judge(promise, [atFull(19.9, 3.24)]).state).toBe('proven');
  });

  it('says by how much it is short', () => {
    const result = judge(promise, [atFull(19, 3.25, 0.005)]);
    expect(result.state).toBe('short');
    expect(result.sentence).toBe('61.75 ± 0.20 W at the port; promised 65 W: short by 3.25 W.');
  });

  it('names the hold time as untested when one is promised', () => {
    expect(judge(promise, [atFull(20, 3.25)], [c1], { kind: 'continuous' }).notes.join()).toContain(
      'promised continuously',
    );
  });

  it('is not tested by a loading that asks for less', () => {
    expect(judge({ kind: 'total', watts: 100 }, [atFull(20, 3.25)]).sentence).toContain('asks for 100 W');
  });

  it('is borderline when runs disagree', () => {
    const us = { ...atFull(18.5, 3.25), mains: { kind: 'ac', volts: 115, hertz: 60 } as const };
    const result = judge(promise, [us, atFull(20, 3.25)]);
    expect(result.state).toBe('borderline');
    expect(result.notes[0]).toContain('Runs disagree');
  });
});

describe('a combination', () => {
  const both: Setup = {
    ...c1,
    name: 'C1 + A1',
    outputs: [
      { port: 'C1', volts: 20, amps: 2.25 },
      { port: 'A1', volts: 5, amps: 3 },
    ],
  };
  const promise: Promised = {
    kind: 'combination',
    shares: [
      { port: 'A1', watts: 15 },
      { port: 'C1', watts: 45 },
    ],
  };

  it('needs every port to keep its share', () => {
    const good = aPoint({ watts: 70, u: 0.01, out: { C1: [20, 2.25], A1: [5.05, 3] } });
    expect(judge(promise, [good], [both]).state).toBe('proven');
    const bad = aPoint({ watts: 70, u: 0.01, out: { C1: [20, 1.5], A1: [5.05, 3] } });
    const result = judge(promise, [bad], [both]);
    expect(result.state).toBe('short');
    expect(result.sentence).toContain('C1: 30');
  });

  it('is not tested by its ports one at a time', () => {
    expect(judge(promise, [atFull(20, 3.25)]).state).toBe('not tested');
  });
});

describe('efficiency and idle', () => {
  const four = [0.25, 0.5, 0.75, 1].map((load) =>
    aPoint({ load, u: 0.001, watts: (65 * load) / 0.905, out: { C1: [20, 3.25 * load] } }),
  );

  it.each([
    [0.9, 'proven'],
    [0.905, 'borderline'],
    [0.92, 'short'],
  ])('a promised average of %d is %s', (ratio, state) => {
    expect(judge({ kind: 'average-efficiency', ratio, mains: null }, four).state).toBe(state);
  });

  it('only the mains a promise names counts', () => {
    const elsewhere: Promised = {
      kind: 'average-efficiency',
      ratio: 0.9,
      mains: { kind: 'ac', volts: 115, hertz: 60 },
    };
    expect(judge(elsewhere, four).state).toBe('not tested');
  });

  const idle = (watts: number) => aPoint({ setupId: null, load: 0, watts, u: 0.001 });
  it.each([
    [0.05, 'proven'],
    [0.0745, 'borderline'],
    [0.09, 'short'],
    [0.005, 'proven'],
  ])('an idle of %d W against 75 mW is %s', (watts, state) => {
    expect(judge({ kind: 'idle', watts: 0.075, mains: null }, [idle(watts)]).state).toBe(state);
  });

  it('of two mains the harder one speaks', () => {
    const us = { ...idle(0.03), mains: { kind: 'ac', volts: 115, hertz: 60 } as const };
    expect(judge({ kind: 'idle', watts: 0.075, mains: null }, [us, idle(0.042)]).sentence).toContain(
      '0.0420 ± 0.0020 W (230 V 50 Hz)',
    );
  });

  it('a reading below the meter’s floor cannot prove less than the floor', () => {
    expect(judge({ kind: 'idle', watts: 0.005, mains: null }, [idle(0.001)]).state).toBe('borderline');
  });

  it('words promise nothing testable', () => {
    expect(judge({ kind: 'wording', text: 'next-gen fast' }, []).state).toBe('undefined');
  });
});

it('levels have their tolerance', () => {
  expect(levelTolerance(5)).toMatchObject({ low: 4.75, high: 5.5 });
  expect(levelTolerance(20)).toMatchObject({ low: 19, high: 21 });
  expect(() => levelTolerance(0)).toThrow(RangeError);
});

it('every promise reads as one line', () => {
  expect(
    describePromise({
      kind: 'combination',
      shares: [
        { port: 'C1', watts: 45 },
        { port: 'A1', watts: 18 },
      ],
    }),
  ).toBe('C1 + A1: 45 + 18 W');
  expect(describePromise({ kind: 'idle', watts: 0.075, mains: null })).toBe('Idle below 0.075 W');
  expect(CLAIM_STATES).toHaveLength(11);
});
