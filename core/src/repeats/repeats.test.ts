import { describe, expect, it } from 'vitest';
import { differenceOf, powerOf, repeated, repeatsNeeded } from './repeats.ts';

describe('repeats', () => {
  it('have a mean with the interval of Student’s t', () => {
    const { mean, interval } = repeated([1.2, 0.8, 1.5, 0.9, 1.1]) ?? {};
    expect(mean).toBeCloseTo(1.1, 12);
    expect(interval?.[0]).toBeCloseTo(1.1 - 0.34, 3);
    expect(interval?.[1]).toBeCloseTo(1.1 + 0.34, 3);
  });

  it('of one alone tell no spread, and of none nothing', () => {
    expect(repeated([4])).toEqual({ count: 1, mean: 4, spread: null, interval: null });
    expect(repeated([])).toBeNull();
    expect(repeated([1, Number.NaN])).toBeNull();
  });

  it('of two chargers are held against each other by Welch', () => {
    // Worked out with numpy from the definition; 4.988 degrees of freedom.
    const { value, interval, called } = differenceOf([62.1, 63.0, 61.4], [70.2, 68.9, 71.5, 69.8]) ?? {};
    expect(value).toBeCloseTo(7.93333, 4);
    expect(interval?.[0]).toBeCloseTo(6.10329, 3);
    expect(interval?.[1]).toBeCloseTo(9.76337, 3);
    expect(called).toBe(true);
  });

  it('within their chance are called no difference, and no likeness either', () => {
    const { called, interval } = differenceOf([60, 70, 65], [64, 69, 71]) ?? {};
    expect(called).toBe(false);
    expect((interval?.[0] ?? 0) < 0 && (interval?.[1] ?? 0) > 0).toBe(true);
    expect(differenceOf([60], [64, 65])).toMatchObject({ called: false, interval: null });
    expect(differenceOf([], [64])).toBeNull();
    // Alike to the digit they tell of no scatter: 2 of 6 ways part them so, of two times four 2 of 70.
    expect(differenceOf([60, 60], [61, 61])).toEqual({ called: false, value: 1, interval: null });
    expect(differenceOf([60, 60, 60, 60], [61, 61, 61, 61])).toEqual({ called: true, value: 1, interval: null });
    expect(differenceOf([60, 60, 60, 60], [60, 60, 60, 60])).toMatchObject({ called: false, value: 0 });
  });

  it('needed for a difference of one standard deviation: ten pairs, nine are too few', () => {
    // By the non-central t: 0.803 and 0.748.
    expect(powerOf(Math.sqrt(10), 9)).toBeCloseTo(0.803, 3);
    expect(powerOf(3, 8)).toBeCloseTo(0.748, 3);
    expect(repeatsNeeded(1, 1, 'pairs')).toBe(10);
  });

  it('needed a side: seventeen for one deviation, six for two', () => {
    // 400 000 drawn trials: 16 give 0.782, 17 give 0.807; 5 give 0.791, 6 give 0.876.
    expect(repeatsNeeded(1, 1, 'groups')).toBe(17);
    expect(repeatsNeeded(-2, 1, 'groups')).toBe(6);
  });

  it('are never promised where none would do', () => {
    expect(repeatsNeeded(0, 1, 'groups')).toBeNull();
    expect(repeatsNeeded(0.01, 1, 'groups')).toBeNull();
    expect(repeatsNeeded(Number.NaN, 1, 'pairs')).toBeNull();
  });
});
