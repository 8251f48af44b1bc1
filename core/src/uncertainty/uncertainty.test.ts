import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  combineRepeats,
  coverageFactor,
  effectiveDegrees,
  expandedUncertainty,
  meanOfCommon,
  measured,
  NO_SPEC,
  product,
  ratio,
  specAt,
  specUncertainty,
  standardUncertainty,
  sum,
} from './index.ts';

const volts = { ...NO_SPEC, readingPercent: 0.05, offset: 0.004 };
const amps = { ...NO_SPEC, readingPercent: 0.1, offset: 0.003 };
const watts = { ...NO_SPEC, readingPercent: 0.15, offset: 0.1 };

describe('the worked example of a 65 W point', () => {
  const uV = specUncertainty(volts, 20.043);
  const uI = specUncertainty(amps, 3.248);
  const uP = specUncertainty(watts, 71.62);
  const output = product(measured(20.043, uV), measured(3.248, uI));
  const efficiency = ratio(output, measured(71.62, uP));

  it('gives each reading its standard uncertainty', () => {
    expect(uV * 1e3).toBeCloseTo(8.095, 3);
    expect(uI * 1e3).toBeCloseTo(3.607, 3);
    expect(uP).toBeCloseTo(0.11976, 5);
  });

  it('combines them into output power and efficiency', () => {
    expect(output.value).toBeCloseTo(65.0997, 4);
    expect(standardUncertainty(output)).toBeCloseTo(0.07693, 5);
    expect(efficiency.value).toBeCloseTo(0.90896, 5);
    expect(standardUncertainty(efficiency)).toBeCloseTo(0.001861, 6);
    expect(expandedUncertainty(efficiency)).toBeCloseTo(0.0037, 4);
  });
});

describe('an accuracy spec', () => {
  it('halves a limit stated at k = 2', () => {
    expect(specUncertainty({ ...volts, coverage: 'k = 2 or 95 %' }, 20)).toBeCloseTo(0.007, 9);
  });

  it('adds the range part and the rounding of the display', () => {
    const spec = { ...NO_SPEC, rangePercent: 0.1, range: 60, resolution: 0.1 };
    expect(specUncertainty(spec, 5)).toBeCloseTo(Math.hypot(0.06 / Math.sqrt(3), 0.1 / Math.sqrt(12)), 9);
  });

  it('refuses nonsense', () => {
    expect(() => specUncertainty(volts, Number.NaN)).toThrow(RangeError);
    expect(() => specUncertainty({ ...volts, offset: -1 }, 5)).toThrow(RangeError);
    expect(() => specUncertainty({ ...volts, resolution: Number.POSITIVE_INFINITY }, 5)).toThrow(RangeError);
  });
});

describe('coverage', () => {
  it('tends to 2 and follows the t distribution for few repeats', () => {
    expect(coverageFactor(Number.POSITIVE_INFINITY)).toBe(2);
    // JCGM 100:2008 table G.2, 95.45 %: 13.97 at 1, 2.87 at 4 and 2.28 at 10 degrees of freedom
    expect(coverageFactor(1)).toBeCloseTo(13.97, 2);
    expect(coverageFactor(4)).toBeCloseTo(2.87, 2);
    expect(coverageFactor(10)).toBeCloseTo(2.28, 2);
    expect(() => coverageFactor(0)).toThrow(RangeError);
  });

  it('is 2 where the instruments dominate and grows where three repeats do', () => {
    expect(expandedUncertainty(measured(1, 0.01))).toBeCloseTo(0.02, 12);
    const repeated = combineRepeats([measured(1, 1e-6), measured(1.02, 1e-6), measured(0.98, 1e-6)]);
    expect(effectiveDegrees(repeated)).toBeCloseTo(2, 6);
    expect(expandedUncertainty(repeated)).toBeGreaterThan(4 * standardUncertainty(repeated));
  });
});

describe('means', () => {
  it('of points from one rig keep the instrument part whole', () => {
    const point = measured(0.9, 0.002, 0.001, 9);
    const mean = meanOfCommon([point, point, point, point]);
    expect(mean.uInstrument).toBeCloseTo(0.002, 12);
    expect(mean.uRepeat).toBeCloseTo(0.0005, 12);
  });

  it('of repeats carry s/√n', () => {
    const mean = combineRepeats([measured(10, 0.1), measured(12, 0.1)]);
    expect(mean).toMatchObject({ value: 11, uRepeat: 1, degrees: 1 });
  });

  it('of nothing are refused', () => {
    expect(() => meanOfCommon([])).toThrow(RangeError);
    expect(() => ratio(measured(1, 0), measured(0, 0))).toThrow(RangeError);
    expect(() => measured(1, -1)).toThrow(RangeError);
    expect(() => measured(Number.NaN, 1)).toThrow(RangeError);
  });
});

describe('laws', () => {
  const value = fc.double({ noNaN: true, min: 0.1, max: 500 });
  const u = fc.double({ noNaN: true, min: 0, max: 5 });
  const more = fc.double({ noNaN: true, min: 0, max: 5 });
  const repeat = fc.double({ noNaN: true, min: 0, max: 1 });

  it('U grows with any input’s instrument uncertainty', () => {
    fc.assert(
      fc.property(value, u, value, u, more, repeat, (a, ua, b, ub, extra, r) => {
        const other = measured(b, ub, r, 5);
        for (const combine of [product, ratio, (x: typeof other, y: typeof other) => sum([x, y])]) {
          const before = standardUncertainty(combine(measured(a, ua), other));
          const after = standardUncertainty(combine(measured(a, ua + extra), other));
          expect(after).toBeGreaterThanOrEqual(before * (1 - 1e-12) - 1e-300);
        }
      }),
    );
  });

  it('a mean of one rig is never better known than its best instrument part', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(value, u, repeat), { minLength: 1, maxLength: 8 }), (parts) => {
        const mean = meanOfCommon(parts.map(([v, ui, ur]) => measured(v, ui, ur, 3)));
        const best = Math.min(...parts.map(([, ui]) => ui));
        // Below the smallest ordinary number a float keeps only whole steps; nothing is measured there.
        expect(standardUncertainty(mean)).toBeGreaterThanOrEqual(best * (1 - 1e-12) - 1e-300);
      }),
    );
  });

  it('the coverage factor never falls below 2 and falls with degrees of freedom', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (degrees) => {
        expect(coverageFactor(degrees)).toBeGreaterThanOrEqual(coverageFactor(degrees + 1) - 1e-9);
        expect(coverageFactor(degrees)).toBeGreaterThanOrEqual(2);
      }),
    );
  });
});

describe('a meter with several ranges', () => {
  const spec = {
    ...NO_SPEC,
    offset: 0.1,
    range: 300,
    finer: [
      { ...NO_SPEC, offset: 0.01, range: 30 },
      { ...NO_SPEC, offset: 0.001, range: 3 },
    ],
  };
  it('is as good as the smallest range a value fits into', () => {
    expect([1, 3, 3.01, 30, 31, -2].map((value) => specAt(spec, value).offset)).toEqual([
      0.001, 0.001, 0.01, 0.01, 0.1, 0.001,
    ]);
    expect(specUncertainty(spec, 2)).toBeCloseTo(0.001 / Math.sqrt(3), 12);
    expect(specUncertainty(spec, 200)).toBeCloseTo(0.1 / Math.sqrt(3), 12);
  });
  it('with one range is what it was', () => {
    const plain = { ...NO_SPEC, offset: 0.1 };
    expect(specAt(plain, 5)).toBe(plain);
    expect(() => specUncertainty(plain, Number.NaN)).toThrow(RangeError);
  });
});
