import type { StoredInstrument, StoredRig } from '@lastmark/contract';
import { NO_SPEC } from '@lastmark/core/uncertainty';
import { describe, expect, it } from 'vitest';
import { energyProblem, mainsOff } from './energy.ts';

describe('energy at the mains', () => {
  it.each([
    [60, 600],
    [0, 600],
    // A draw of nothing, and a meter that is not quite at nought.
    [-0.06, 600],
    [-29, 600],
  ])('%d J in %d s is a reading', (joules, seconds) => expect(energyProblem(joules, seconds, 0.05)).toBeNull());
  it.each([
    [Number.POSITIVE_INFINITY, 600, 'over its range'],
    [Number.NaN, 600, 'told no energy'],
    [60, 0, 'for how long'],
    [60, Number.NaN, 'for how long'],
    [-60, 600, 'reads −0.100 W'],
  ])('%d J in %d s is none', (joules, seconds, why) => expect(energyProblem(joules, seconds, 0.05)).toContain(why));
});

describe('how far the meter may be off at nothing', () => {
  const off = (meter: Partial<StoredInstrument>) =>
    mainsOff({
      rig: { meters: { mains: 'm', outputVolts: null, outputAmps: null, loadEnd: null } } as StoredRig,
      own: [{ id: 'm', class: 'power analyser', specs: {}, ...meter } as StoredInstrument],
    });
  it('is as stated, else as is usual of its class', () => {
    // 0.1 % of 100 W, 20 mW, and a digit of 1 mW.
    const power = { ...NO_SPEC, readingPercent: 0.1, rangePercent: 0.1, range: 100, offset: 0.02, resolution: 0.001 };
    expect(off({ specs: { power } })).toBeCloseTo(0.121, 9);
    expect(off({})).toBeCloseTo(0.051, 9);
    expect(off({ class: 'plug-in wall meter' })).toBeCloseTo(1.1, 9);
    expect(off({ class: 'DC load' })).toBe(0.001);
  });
});
