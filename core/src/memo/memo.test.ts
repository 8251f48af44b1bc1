import { describe, expect, it, vi } from 'vitest';
import { groupsBy, memoOf, memoOfLists } from './index.ts';

describe('what is worked out of objects', () => {
  it('is worked out once for the same ones', () => {
    const work = vi.fn((a: { n: number }, b: { n: number }) => a.n + b.n);
    const kept = memoOf(work);
    const [a, b] = [{ n: 1 }, { n: 2 }];
    expect([kept(a, b), kept(a, b), kept(b, a), kept(a, { n: 2 })]).toEqual([3, 3, 3, 3]);
    expect(work).toHaveBeenCalledTimes(3);
  });

  it('may be nothing at all, and is still remembered', () => {
    const work = vi.fn((_: object) => undefined);
    const kept = memoOf(work);
    const one = {};
    kept(one);
    kept(one);
    expect(work).toHaveBeenCalledTimes(1);
  });

  it('is not kept when it could not be worked out', () => {
    let broken = true;
    const kept = memoOf((_: object) => {
      if (broken) throw new RangeError('no');
      return 1;
    });
    const one = {};
    expect(() => kept(one)).toThrow('no');
    broken = false;
    expect(kept(one)).toBe(1);
  });
});

describe('what is worked out of lists', () => {
  it('is the same while their items are, whatever list they are in', () => {
    const work = vi.fn((_: object, items: readonly number[], [rule]: readonly [string]) => `${items.join()} ${rule}`);
    const kept = memoOfLists(work);
    const [a, b] = [{}, {}];
    expect(kept(a, [1, 2], ['x'])).toBe('1,2 x');
    expect(kept(a, [1, 2], ['x'])).toBe('1,2 x');
    expect(kept(b, [1], ['x'])).toBe('1 x');
    expect(work).toHaveBeenCalledTimes(2);
    expect(kept(a, [1, 2, 3], ['x'])).toBe('1,2,3 x');
    expect(kept(a, [1, 2, 3], ['y'])).toBe('1,2,3 y');
    expect(kept(a, [2, 1], ['y'])).toBe('2,1 y');
    expect(kept(a, [], ['y'])).toBe(' y');
    expect(work).toHaveBeenCalledTimes(6);
  });
});

it('groups keep the order of their items and of their first ones', () =>
  expect([...groupsBy([3, 1, 4, 1, 5, 9], (n) => n % 2)]).toEqual([
    [1, [3, 1, 1, 5, 9]],
    [0, [4]],
  ]));
