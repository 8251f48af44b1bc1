import { describe, expect, it } from 'vitest';
import { evenly } from './evenly.ts';

const line = (from: number, to: number, every = 1) =>
  Array.from({ length: Math.floor((to - from) / every) + 1 }, (_, index) => {
    const seconds = from + index * every;
    return { seconds, value: 20 + seconds / 10 };
  });
const known = (values: Float64Array) => values.reduce((count, value) => count + (Number.isNaN(value) ? 0 : 1), 0);

describe('readings made even', () => {
  it('go linearly between two, at the median of their spacing', () => {
    const even = evenly([
      { seconds: 0, value: 0 },
      { seconds: 1.1, value: 11 },
      { seconds: 2, value: 20 },
      { seconds: 3, value: 30 },
    ]);
    expect(even?.interval).toBe(1);
    expect([...(even?.values ?? [])]).toEqual([0, 10, 20, 30]);
  });

  it('have a gap where nobody read', () => {
    const even = evenly([...line(0, 10), ...line(40, 50)]);
    expect(even?.gaps).toEqual([{ from: 10, to: 40 }]);
    expect([even?.values[10], even?.values[25], even?.values[40]]).toEqual([21, Number.NaN, 24]);
  });

  it('of a meter that fell silent end there, and do not stand at what it said last', () => {
    const even = evenly(line(0, 300), { from: 0, interval: 5, count: 721 });
    expect(even?.values[60]).toBe(50);
    expect(known(even?.values ?? new Float64Array())).toBe(61);
    expect(even?.gaps).toEqual([{ from: 300, to: 3600 }]);
  });

  it('of a meter that spoke late begin there', () => {
    const even = evenly(line(100, 300), { from: 0, interval: 5, count: 61 });
    expect(even?.values[20]).toBe(30);
    expect(even?.values.slice(0, 20).every(Number.isNaN)).toBe(true);
    expect(even?.gaps).toEqual([{ from: 0, to: 100 }]);
  });

  it('of before the time asked for are none of it', () => {
    const even = evenly(line(0, 10), { from: 100, interval: 1, count: 50 });
    expect(known(even?.values ?? new Float64Array())).toBe(0);
  });

  it('reach a little over their ends, as far as a pause may be', () => {
    const even = evenly(line(2, 95), { from: 0, interval: 1, count: 101 });
    expect(known(even?.values ?? new Float64Array())).toBe(101);
    expect([even?.values[0], even?.values[100], even?.gaps]).toEqual([20.2, 29.5, []]);
  });

  it.each([
    ['none', []],
    ['one', line(0, 0)],
    ['two of the same moment', [...line(0, 0), ...line(0, 0)]],
    ['times that go back', [...line(5, 9), ...line(1, 3)]],
    ['a time that is no number', [{ seconds: Number.NaN, value: 1 }, ...line(1, 3)]],
  ])('are nothing with %s', (_what, readings) => {
    expect(evenly(readings)).toBeNull();
  });
});
