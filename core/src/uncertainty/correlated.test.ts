import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { difference, measured, propagateShared, SAME_METER, standardUncertainty } from './index.ts';

describe('results that share a meter', () => {
  const a = measured(50, 0.3);
  const b = measured(48, 0.4);

  it('add up further in a sum and cancel in part in a difference', () => {
    const sum = propagateShared(98, [
      { weight: 1, of: a, meter: 'm' },
      { weight: 1, of: b, meter: 'm' },
    ]);
    expect(sum.uInstrument ** 2).toBeCloseTo(0.09 + 0.16 + 2 * SAME_METER * 0.12, 12);
    expect(difference(a, b, true)).toMatchObject({ value: -2 });
    expect(difference(a, b, true).uInstrument ** 2).toBeCloseTo(0.09 + 0.16 - 2 * SAME_METER * 0.12, 12);
  });

  it('with meters of their own are independent', () => {
    expect(difference(a, b, false).uInstrument).toBeCloseTo(0.5, 12);
    const own = propagateShared(98, [
      { weight: 1, of: a, meter: 'm' },
      { weight: 1, of: b, meter: 'n' },
      { weight: 1, of: b, meter: null },
    ]);
    expect(own.uInstrument ** 2).toBeCloseTo(0.09 + 0.16 + 0.16, 12);
  });

  it('keep their repeats independent', () => {
    const spread = measured(50, 0, 0.2, 4);
    expect(difference(spread, spread, true).uRepeat).toBeCloseTo(Math.hypot(0.2, 0.2), 12);
  });

  it('a difference is never less sure than independent readings say, a sum never surer', () => {
    const u = fc.double({ min: 0, max: 10, noNaN: true });
    fc.assert(
      fc.property(u, u, (left, right) => {
        const one = measured(5, left);
        const other = measured(7, right);
        const alone = Math.hypot(left, right) + 1e-12;
        expect(standardUncertainty(difference(one, other, true))).toBeLessThanOrEqual(alone);
        const terms = [one, other].map((of) => ({ weight: 1, of, meter: 'm' }));
        expect(standardUncertainty(propagateShared(12, terms))).toBeGreaterThanOrEqual(alone - 2e-12);
      }),
    );
  });
});
