// Claims settled by what the stations find: rules, allowances, mains, partial evidence.

import { describe, expect, it } from 'vitest';
import { efficiencySeries } from '../efficiency/index.ts';
import type { ClaimState } from '../evidence/index.ts';
import { idleResults } from '../idle/index.ts';
import type { Promised } from '../promise/index.ts';
import { deliveredByEfficiency } from '../proof/index.ts';
import type { Point, Setup } from '../reading/index.ts';
import { aPoint, aRig } from '../testing/reading.ts';
import { judgeClaims } from './index.ts';
import { type Known, NOTHING_KNOWN } from './known.ts';

const us = { kind: 'ac', volts: 115, hertz: 60 } as const;
const eu = { kind: 'ac', volts: 230, hertz: 50 } as const;
const c1: Setup = {
  id: 's1',
  name: 'C1',
  outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
  evidence: 'load',
  purpose: 'efficiency',
  rigId: 'rig',
};
const pair: Setup = {
  ...c1,
  name: 'C1 + A1',
  outputs: [
    { port: 'C1', volts: 20, amps: 1.5 },
    { port: 'A1', volts: 5, amps: 3 },
  ],
};

const known = (points: readonly Point[], setup: Setup = c1, part: Partial<Known> = {}): Known => {
  const series = [efficiencySeries(setup, points, [aRig()])];
  const delivered = deliveredByEfficiency(series);
  return { ...NOTHING_KNOWN, series, delivered, idle: idleResults(points, () => 0), ...part };
};
const stateOf = (promise: Promised, from: Known): ClaimState | undefined =>
  judgeClaims([{ id: 'c', promise, duration: { kind: 'unstated' }, printed: 'label' }], from)[0]?.state;
const full = (watts: number, u = 0.001) => aPoint({ watts: watts * 1.1, u, out: { C1: [20, watts / 20] } });
const total: Promised = { kind: 'total', watts: 45 };

describe('the allowance', () => {
  it.each<[number, number, ClaimState]>([
    [45, 0.02, 'proven'],
    [44.3, 0.02, 'proven'],
    [44.3, 0, 'short'],
    [45, 0, 'borderline'],
    [43.5, 0.02, 'short'],
    [43.5, 0.05, 'proven'],
  ])('%d W of 45 W with an allowance of %d is %s', (watts, allowance, state) => {
    expect(stateOf(total, known([full(watts)], c1, { allowance }))).toBe(state);
  });
});

describe('the rule', () => {
  it('simple decides where guarded is too close to call', () => {
    const points = [full(44.1, 0.02)];
    expect(stateOf(total, known(points))).toBe('borderline');
    expect(stateOf(total, known(points, c1, { rule: 'simple' }))).toBe('proven');
  });
});

describe('mains', () => {
  const idle = (watts: number, mains: typeof us | typeof eu) =>
    aPoint({ setupId: null, load: 0, watts, u: 0.001, mains });
  const both = [idle(0.05, us), idle(0.09, eu)];

  it('an idle promise without mains must hold at all of them', () => {
    expect(stateOf({ kind: 'idle', watts: 0.075, mains: null }, known(both))).toBe('short');
  });

  it('an idle promise for one mains is held against that one', () => {
    expect(stateOf({ kind: 'idle', watts: 0.075, mains: us }, known(both))).toBe('proven');
    expect(stateOf({ kind: 'idle', watts: 0.075, mains: eu }, known(both))).toBe('short');
    expect(stateOf({ kind: 'idle', watts: 0.075, mains: { kind: 'dc', volts: 13.8 } }, known(both))).toBe('not tested');
  });

  it('idle with a cable on says nothing about idle with nothing', () => {
    const cable = aPoint({ setupId: null, load: 0, watts: 0.02, u: 0.001, attached: 'cable' });
    expect(stateOf({ kind: 'idle', watts: 0.075, mains: null }, known([cable]))).toBe('not tested');
  });
});

describe('ports together', () => {
  const promise: Promised = {
    kind: 'combination',
    shares: [
      { port: 'C1', watts: 30 },
      { port: 'A1', watts: 15 },
    ],
  };
  const loaded = (c: number, a: number) => aPoint({ watts: 60, u: 0.001, out: { C1: [20, c], A1: [5, a] } });

  it.each<[number, number, ClaimState]>([
    [1.5, 3, 'proven'],
    [1.5, 2, 'short'],
    [1, 3, 'short'],
    [1.47, 3, 'borderline'],
  ])('%d A and %d A are %s', (c, a, state) => expect(stateOf(promise, known([loaded(c, a)], pair))).toBe(state));

  it('a device on them gives a lower bound for each', () => {
    expect(stateOf(promise, known([loaded(1, 3)], { ...pair, evidence: 'device' }))).toBe('at least');
  });

  it('a loading that asks a port for less than its share leaves it untested', () => {
    const less = {
      ...pair,
      outputs: [
        { port: 'C1', volts: 20, amps: 1 },
        { port: 'A1', volts: 5, amps: 3 },
      ],
    };
    expect(stateOf(promise, known([loaded(1, 3)], less))).toBe('not tested');
  });
});

describe('an average that is not complete', () => {
  it('settles nothing', () => {
    expect(stateOf({ kind: 'average-efficiency', ratio: 0.5, mains: null }, known([full(45)]))).toBe('not tested');
  });
});

it('a display or a wall meter as evidence is never taken for the port', () => {
  for (const evidence of ['display', 'wall', 'word', 'observation'] as const) {
    expect(stateOf(total, known([full(60)], { ...c1, evidence }))).toBe('not tested');
  }
  expect(stateOf(total, known([full(60)], { ...c1, evidence: 'read-out' }))).toBe('advertised only');
});
