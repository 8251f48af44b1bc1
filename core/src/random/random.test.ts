import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from './index.ts';

const take = (from: () => number, count: number) => Array.from({ length: count }, from);

describe('seeded chance', () => {
  it('is the same for the same seed and another for another', () => {
    expect(take(seededRandom(7), 5)).toEqual(take(seededRandom(7), 5));
    expect(take(seededRandom(7), 5)).not.toEqual(take(seededRandom(8), 5));
  });

  it('is even in 0…1', () => {
    const numbers = take(seededRandom(1), 20_000);
    expect(numbers.every((one) => one >= 0 && one < 1)).toBe(true);
    expect(numbers.reduce((a, b) => a + b, 0) / numbers.length).toBeCloseTo(0.5, 2);
  });

  it('as a normal distribution has mean 0 and spread 1, with about 4.6 % beyond two', () => {
    const numbers = take(seededNormal(seededRandom(3)), 40_000);
    const mean = numbers.reduce((a, b) => a + b, 0) / numbers.length;
    const spread = Math.sqrt(numbers.reduce((a, b) => a + (b - mean) ** 2, 0) / numbers.length);
    expect(mean).toBeCloseTo(0, 1);
    expect(spread).toBeCloseTo(1, 1);
    const beyond = numbers.filter((one) => Math.abs(one) > 2).length / numbers.length;
    expect(beyond).toBeGreaterThan(0.04);
    expect(beyond).toBeLessThan(0.052);
  });
});
