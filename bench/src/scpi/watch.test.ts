import { describe, expect, it } from 'vitest';
import { MeterWatch } from './index.ts';

const watch = (readings: readonly (readonly [number, number])[]) => {
  const meter = new MeterWatch({ range: 100 });
  return readings.map(([value, setting]) => meter.look({ value, setting })?.kind ?? null);
};

describe('a meter that is watched', () => {
  it('is frozen when it stands still while the load is moved', () => {
    expect(
      watch([
        [5, 1],
        [5, 2],
        [5, 3],
        [5, 3],
      ]),
    ).toEqual([null, null, null, 'frozen']);
  });
  it('may stand still while nothing is moved', () => {
    expect(
      watch([
        [5, 1],
        [5, 1],
        [5, 1],
        [5, 1],
        [5, 1],
      ]),
    ).toEqual([null, null, null, null, null]);
  });
  it('is forgiven once it moves again', () => {
    expect(
      watch([
        [5, 1],
        [5, 2],
        [5.01, 3],
        [5.01, 3],
        [5.01, 3],
      ]).at(-1),
    ).toBeNull();
  });
  it('a little below zero is its noise', () => {
    const gentle = new MeterWatch({ range: 100, noise: 0.05 });
    expect(gentle.look({ value: -0.04, setting: 1 })).toBeNull();
    expect(gentle.look({ value: -0.06, setting: 1 })?.kind).toBe('reversed');
  });
  it('with the other sign, out of range, or with no number says so', () => {
    expect(watch([[-2, 1]])).toEqual(['reversed']);
    expect(watch([[-0.001, 0]])).toEqual([null]);
    expect(watch([[500, 1]])).toEqual(['out of range']);
    expect(
      watch([
        [Number.NaN, 1],
        [Number.POSITIVE_INFINITY, 1],
      ]),
    ).toEqual(['not a number', 'out of range']);
  });
});
