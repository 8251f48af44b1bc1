import { describe, expect, it } from 'vitest';
import { survival, survivalSays } from '../survival/index.ts';
import { fatesOf, type Told } from './fates.ts';

const told = (id: string, on: string, failed: boolean, since = '2025-01-01'): Told => ({ id, since, on, failed });

describe('what became of units', () => {
  it('counts days from the purchase to the first failure, or to the last day it was well', () => {
    expect(
      fatesOf([
        told('a', '2025-07-01', true),
        told('b', '2025-03-01', false),
        told('b', '2026-01-01', false),
        told('c', '2025-06-01', false),
        told('c', '2025-05-01', true),
        told('c', '2025-09-01', true),
      ]),
    ).toEqual([
      { id: 'a', at: 181, failed: true },
      { id: 'b', at: 365, failed: false },
      { id: 'c', at: 120, failed: true },
    ]);
  });
  it('nonsense of days is left out, and a failure before the purchase is on day 0', () => {
    expect(fatesOf([told('a', 'once', true), told('b', '2024-12-01', true)])).toEqual([
      { id: 'b', at: 0, failed: true },
    ]);
    expect(fatesOf([])).toEqual([]);
  });
  it('makes a survival as one works it out by hand', () => {
    // Five units: failed on 100 and 300, well on 200, 400, 400. S(100) = 4/5, S(300) = 4/5 · 2/3.
    const day = (days: number) => new Date(Date.UTC(2025, 0, 1 + days)).toISOString().slice(0, 10);
    const fates = fatesOf([
      told('a', day(100), true),
      told('b', day(200), false),
      told('c', day(300), true),
      told('d', day(400), false),
      told('e', day(400), false),
    ]);
    expect(survival(fates).map(({ at, alive }) => [at, Number(alive.toFixed(4))])).toEqual([
      [100, 0.8],
      [300, 0.5333],
    ]);
    expect(survivalSays(fates, 'days')).toContain('2 of 5 units failed; after 300 days 53 % are alive');
  });
});
