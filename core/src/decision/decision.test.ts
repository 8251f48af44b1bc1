import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measured } from '../uncertainty/index.ts';
import { compare, conformity, decide, intervalOf, type Limit } from './index.ts';

const atLeast = (low: number): Limit => ({ kind: 'at-least', low });
const atMost = (high: number): Limit => ({ kind: 'at-most', high });

describe('the guarded rule', () => {
  it.each([
    [0.89, 'proven'],
    [0.8838, 'proven'],
    [0.882, 'borderline'],
    [0.88, 'borderline'],
    [0.878, 'borderline'],
    [0.8759, 'short'],
  ])('an efficiency of %d ± 0.0037 against 0.88 is %s', (value, outcome) => {
    expect(decide(measured(value, 0.00185), atLeast(0.88)).outcome).toBe(outcome);
  });

  it('mirrors for upper limits and guards both ends of a tolerance', () => {
    expect(decide(measured(0.074, 0.0002), atMost(0.075)).outcome).toBe('proven');
    expect(decide(measured(0.0749, 0.0002), atMost(0.075)).outcome).toBe('borderline');
    expect(decide(measured(0.0755, 0.0002), atMost(0.075)).outcome).toBe('short');
    const tolerance: Limit = { kind: 'within', low: 4.75, high: 5.5 };
    expect(decide(measured(5.1, 0.01), tolerance).outcome).toBe('proven');
    expect(decide(measured(4.76, 0.01), tolerance).outcome).toBe('borderline');
    expect(decide(measured(5.6, 0.01), tolerance).outcome).toBe('short');
  });
});

it('the simple rule looks at the value alone', () => {
  expect(decide(measured(0.8801, 0.01), atLeast(0.88), 'simple').outcome).toBe('proven');
  expect(decide(measured(0.8799, 0.01), atLeast(0.88), 'simple').outcome).toBe('short');
});

describe('probability of conformity', () => {
  it('is a half on the limit and 97.7 % two standard uncertainties inside', () => {
    expect(conformity(measured(0.88, 0.002), atLeast(0.88))).toBeCloseTo(0.5, 9);
    expect(conformity(measured(0.884, 0.002), atLeast(0.88))).toBeCloseTo(0.97725, 5);
  });

  it('is certain without uncertainty', () => {
    expect(conformity(measured(1, 0), atLeast(0.5))).toBe(1);
    expect(conformity(measured(1, 0), atMost(0.5))).toBe(0);
  });
});

describe('laws', () => {
  const number = fc.double({ noNaN: true, min: -1e3, max: 1e3 });
  const spread = fc.double({ noNaN: true, min: 0, max: 50 });
  const limits = fc.oneof(
    number.map(atLeast),
    number.map(atMost),
    fc.tuple(number, spread).map(([low, width]): Limit => ({ kind: 'within', low, high: low + width })),
  );

  it('proven by guard is proven simply, and short likewise', () => {
    fc.assert(
      fc.property(number, spread, limits, (value, u, limit) => {
        const guarded = decide(measured(value, u), limit).outcome;
        if (guarded !== 'borderline') expect(decide(measured(value, u), limit, 'simple').outcome).toBe(guarded);
      }),
    );
  });

  it('more uncertainty never turns proven into short or short into proven', () => {
    fc.assert(
      fc.property(number, spread, spread, limits, (value, u, extra, limit) => {
        const before = decide(measured(value, u), limit).outcome;
        const after = decide(measured(value, u + extra), limit).outcome;
        expect([before, 'borderline']).toContain(after);
      }),
    );
  });

  it('the outcome of any interval is exactly one of the three', () => {
    fc.assert(
      fc.property(number, spread, limits, (low, width, limit) => {
        expect(['proven', 'short', 'borderline']).toContain(compare({ low, high: low + width }, limit));
      }),
    );
  });
});

it('nonsense is refused', () => {
  expect(() => decide(measured(1, 0), atLeast(Number.NaN))).toThrow(RangeError);
  expect(() => compare({ low: 2, high: 1 }, atLeast(0))).toThrow(RangeError);
  expect(() => compare({ low: Number.NaN, high: 1 }, atLeast(0))).toThrow(RangeError);
  expect(intervalOf(measured(10, 0.5))).toEqual({ low: 9, high: 11 });
});
