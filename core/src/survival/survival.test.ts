import { describe, expect, it } from 'vitest';
import { aliveAt, type Fate, survival, survivalSays } from './index.ts';

const failed = (at: number): Fate => ({ at, failed: true });
const out = (at: number): Fate => ({ at, failed: false });
const FIVE = [failed(4000), failed(7000), out(6000), out(10_000), out(10_000)];

describe('survival', () => {
  it('counts units taken out as long as they were there', () => {
    const steps = survival(FIVE);
    expect(steps.map(({ at, atRisk }) => [at, atRisk])).toEqual([
      [4000, 5],
      [7000, 3],
    ]);
    expect(steps[0]?.alive).toBeCloseTo(0.8, 12);
    expect(steps[1]?.alive).toBeCloseTo(0.5333, 4);
  });

  it('has an interval by log minus log', () => {
    // By hand: Greenwood 1/(5·4) = 0.05; log 0.8 = −0.22314; ±1.95996·√0.05/0.22314 = ±1.96403.
    const [low, high] = survival(FIVE)[0]?.interval ?? [];
    expect(low).toBeCloseTo(0.8 ** Math.exp(1.96403), 4);
    expect(high).toBeCloseTo(0.8 ** Math.exp(-1.96403), 4);
  });

  it('of units that fail together, and of one taken out at that very count', () => {
    expect(survival([failed(100), failed(100), out(100), out(200)])[0]).toMatchObject({ atRisk: 4, alive: 0.5 });
    expect(survival([failed(100), failed(100)])[0]).toMatchObject({ alive: 0, interval: null });
  });

  it('at a count: nothing is known beyond the last unit', () => {
    expect([aliveAt(FIVE, 3999), aliveAt(FIVE, 4000), aliveAt(FIVE, 10_000), aliveAt(FIVE, 10_001)]).toEqual([
      1,
      0.8,
      expect.closeTo(0.5333, 4),
      null,
    ]);
    expect(aliveAt([], 0)).toBeNull();
    // Where the last of them failed none is left, whatever the count.
    expect([99, 100, 5000].map((count) => aliveAt([failed(50), failed(100)], count))).toEqual([0.5, 0, 0]);
  });

  it('in words says how few there are', () => {
    expect(survivalSays(FIVE, 'bends')).toBe(
      '2 of 5 units failed; after 7000 bends 53 % are alive (95 %: 7 % to 86 %).',
    );
    expect(survivalSays([out(8000), out(10_000)], 'bends')).toBe(
      'None of 2 units failed up to 10000 bends. 2 units say little about the next.',
    );
    expect(survivalSays([failed(3)], 'bends')).toContain('One unit says little');
    expect(survivalSays([], 'bends')).toBe('No unit yet.');
    expect(survivalSays([failed(Number.NaN), out(8000), out(9000)], 'bends')).toContain(
      'None of 2 units failed up to 9000',
    );
  });

  it('leaves out what is no count', () =>
    expect(survival([failed(Number.NaN), failed(-1), failed(5)])).toHaveLength(1));
});
