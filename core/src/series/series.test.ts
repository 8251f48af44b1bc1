import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { joined, LongSeries, one, type Statistics, spreadOf } from './index.ts';

const numbers = fc.array(fc.double({ min: -1e3, max: 1e3, noNaN: true }), { minLength: 2, maxLength: 40 });
const all = (values: readonly number[]): Statistics =>
  values.map(one).reduce((sum, value) => joined(sum, value) as Statistics);

describe('statistics number by number', () => {
  it('are those of all numbers together, however they are divided', () => {
    fc.assert(
      fc.property(numbers, fc.nat(40), (values, cut) => {
        const at = 1 + (cut % (values.length - 1));
        const parts = joined(all(values.slice(0, at)), all(values.slice(at))) as Statistics;
        const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
        const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
        expect(parts.count).toBe(values.length);
        expect(parts.mean).toBeCloseTo(mean, 8);
        expect(parts.squares).toBeCloseTo(squares, 4);
        expect([parts.least, parts.most]).toEqual([Math.min(...values), Math.max(...values)]);
      }),
    );
  });

  it('keep a small spread on a large value, where sums of squares would lose it', () => {
    // 1e9 + {4, 7, 13, 16}: sample variance 30.
    expect(spreadOf(all([4, 7, 13, 16].map((part) => 1e9 + part)))).toBeCloseTo(Math.sqrt(30), 6);
    expect(spreadOf(one(5))).toBe(0);
    expect(joined(null, null)).toBeNull();
  });
});

/** Looks ten times a second. */
function recorded(seconds: number, value: (at: number) => number | null): LongSeries {
  const series = new LongSeries();
  for (let index = 0; index <= seconds * 10; index += 1)
    series.push({ number: index + 1, seconds: index / 10, values: [index / 10, value(index / 10)] });
  return series;
}

describe('a long series', () => {
  // 44 W for the first 80 % of two hours, then 40 W: a mean of the last half hour would say 40.8 W.
  const HOURS = 4 * 3600;
  const folding = (at: number) => (at < 0.8 * HOURS ? 44 : 40);

  it('has the mean, extremes, spread and energy of its whole length', () => {
    const summary = recorded(HOURS, folding).summary(1, 0);
    const high = 0.8 * HOURS * 10;
    const low = 0.2 * HOURS * 10 + 1;
    const mean = (44 * high + 40 * low) / (high + low);
    expect(summary?.count).toBe(HOURS * 10 + 1);
    expect(summary?.mean).toBeCloseTo(mean, 9);
    expect([summary?.least, summary?.most]).toEqual([40, 44]);
    const variance = (high * (44 - mean) ** 2 + low * (40 - mean) ** 2) / (high + low - 1);
    expect(spreadOf(summary as Statistics)).toBeCloseTo(Math.sqrt(variance), 9);
    expect(summary?.covered).toBeCloseTo(HOURS, 6);
    // One step down between two looks is half a look's worth of either side.
    expect(summary?.area).toBeCloseTo(0.8 * HOURS * 44 + 0.2 * HOURS * 40 - 0.1 * 2, 3);
  });

  it('takes no more memory for ten times the length', () => {
    const kept = [1, 10].map((times) => recorded(times * 3600, () => 1).kept);
    expect(kept[0]).toBeLessThan(22_200);
    expect(kept[1]).toBeLessThan(22_200);
  });

  it('is exact from a mark on, even when the mark has become part of old stretches', () => {
    const series = new LongSeries();
    for (let index = 0; index <= HOURS * 10; index += 1) {
      const at = index / 10;
      if (index === 12_345) series.mark(at);
      series.push({ number: index + 1, seconds: at, values: [at < 1234.5 ? 1000 : 1] });
    }
    const summary = series.summary(0, 1234.5);
    expect(summary).toMatchObject({ count: HOURS * 10 + 1 - 12_345, mean: 1, least: 1, most: 1 });
    expect(summary?.area).toBeCloseTo(HOURS - 1234.5, 6);
  });

  it('has its looks as they came, and stretches with their extremes for what is older', () => {
    const series = recorded(HOURS, (at) => (at === 100 ? 99 : at));
    const since = series.since(1, 0);
    expect(since.at(-1)).toEqual({ seconds: HOURS, value: HOURS, least: HOURS, most: HOURS });
    expect(Math.max(...since.slice(0, 200).map(({ most }) => most))).toBeGreaterThan(0);
    expect(since.map(({ seconds }) => seconds)).toEqual([...since.map(({ seconds }) => seconds)].sort((a, b) => a - b));
    expect(series.after(HOURS * 10 - 4).map(({ number }) => number)).toHaveLength(5);
    expect(series.fromBefore(HOURS * 10 - 4)).toEqual([...series.after(HOURS * 10 - 5)]);
    expect(series.newest?.number).toBe(HOURS * 10 + 1);
  });

  it('does not bridge a gap, counts nothing that was not told, and begins anew when the clock does', () => {
    const series = new LongSeries();
    for (const seconds of [0, 1, 2, 3, 103, 104]) series.push({ number: seconds, seconds, values: [2] });
    expect(series.summary(0, 0)).toMatchObject({ count: 6, area: 8, covered: 4 });
    series.push({ number: 200, seconds: 105, values: [null] });
    expect(series.summary(0, 0)?.count).toBe(6);
    expect(series.summary(5, 0)).toBeNull();
    series.push({ number: 201, seconds: 1, values: [7] });
    expect(series.summary(0, 0)).toMatchObject({ count: 1, mean: 7, area: 0 });
    expect(new LongSeries().summary(0, 0)).toBeNull();
  });

  it('counts a measurement that is told again once, also where its looks have become part of old stretches', () => {
    const series = new LongSeries();
    for (let index = 0; index < HOURS * 10; index += 1)
      series.push({ number: index, seconds: index / 10, values: [Math.floor(index / 10)], again: index % 10 > 0 });
    expect(series.summary(0, 0)).toMatchObject({ count: HOURS * 10, measurements: HOURS });
    // One that began before the time is one of them: measured at 9990 s, 9991 s … and the rest of what was at 9989 s.
    expect(series.summary(0, HOURS - 10.5)?.measurements).toBe(11);
    const one = new LongSeries();
    for (const seconds of [0, 1, 2]) one.push({ number: seconds, seconds, values: [5], again: seconds > 0 });
    expect(one.summary(0, 1)).toMatchObject({ count: 2, measurements: 1 });
  });
});
