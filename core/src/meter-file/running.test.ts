import { describe, expect, it } from 'vitest';
import { Running } from './running.ts';

const over = (values: readonly number[]): Running => {
  const sums = new Running();
  for (const value of values) sums.add(value);
  return sums;
};

describe('the course of many values', () => {
  it('by the best line: a straight rise of 6 % is one', () => {
    const rise = Array.from({ length: 40 }, (_, index) => 53 * (1 + (0.06 * index) / 39));
    // From 53 to 56.18 about a mean of 54.59.
    expect(over(rise).drift).toBeCloseTo(3.18 / 54.59, 10);
    expect(over([...rise].reverse()).drift).toBeCloseTo(-3.18 / 54.59, 10);
  });
  it('is not moved by a level that only trembles, nor by one spike in the middle', () => {
    expect(over(Array.from({ length: 100 }, (_, index) => 10 + (index % 2))).drift).toBeCloseTo(0.00283, 4);
    const spike = Array.from({ length: 101 }, (_, index) => (index === 50 ? 20 : 10));
    expect(over(spike).drift).toBeCloseTo(0, 12);
  });
  it('as numpy fits it', () => {
    // np.polyfit(range(10), v, 1)[0] * 9 / np.mean(v) for these ten values.
    expect(over([3, 1, 4, 1, 5, 9, 2, 6, 5, 3]).drift).toBeCloseTo(0.62937, 4);
  });
  it.each([[[]], [[1, 2, 3]], [Array.from({ length: 12 }, () => 0)]])('of %j is not told', (values) =>
    expect(over(values).drift).toBeNull(),
  );
});
