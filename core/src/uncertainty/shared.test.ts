import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  combineRepeats,
  difference,
  expandedUncertainty,
  isStated,
  meanOfCommon,
  measured,
  product,
  propagate,
  ratio,
  readBy,
  standardUncertainty,
  sum,
  unstatedOf,
} from './index.ts';

describe('results that share a meter', () => {
  const a = measured(50, 0.3);
  const b = measured(48, 0.4);

  it('add up in full in a sum, and cancel not at all in a difference', () => {
    expect(sum([a, b], 'm').uInstrument).toBeCloseTo(0.7, 12);
    expect(sum([a, b]).uInstrument).toBeCloseTo(0.5, 12);
    expect(difference(a, b)).toMatchObject({ value: -2 });
    expect(difference(a, b).uInstrument).toBeCloseTo(0.5, 12);
  });

  it('count together only with their like', () => {
    const mixed = propagate(98, [
      { weight: 1, of: a, meter: 'm' },
      { weight: 1, of: b, meter: 'n' },
      { weight: 1, of: b, meter: null },
    ]);
    expect(mixed.uInstrument ** 2).toBeCloseTo(0.09 + 0.16 + 0.16, 12);
  });

  it('keep their repeats independent', () => {
    const spread = measured(50, 0, 0.2, 4);
    expect(sum([spread, spread], 'm').uRepeat).toBeCloseTo(Math.hypot(0.2, 0.2), 12);
  });

  it('never make anything surer than meters of their own would', () => {
    const u = fc.double({ min: 0, max: 10, noNaN: true });
    const weight = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(u, weight), { minLength: 1, maxLength: 6 }), (parts) => {
        const terms = (meter: string | null) => parts.map(([own, w]) => ({ weight: w, of: measured(5, own), meter }));
        const together = standardUncertainty(propagate(1, terms('m')));
        expect(together).toBeGreaterThanOrEqual(standardUncertainty(propagate(1, terms(null))) - 1e-9);
      }),
    );
  });
});

describe('repeats', () => {
  it('that happen to agree still scatter as much as each did within', () => {
    const run = (value: number) => measured(value, 0.01, 0.2, 9);
    const both = combineRepeats([run(10), run(10)]);
    expect(both.uRepeat).toBeCloseTo(0.2 / Math.SQRT2, 12);
    expect(both.degrees).toBeCloseTo(18, 9);
  });
  it('that differ more than that count by their difference', () => {
    expect(combineRepeats([measured(10, 0.01, 0.001, 9), measured(11, 0.01, 0.001, 9)])).toMatchObject({
      uRepeat: 0.5,
      degrees: 1,
    });
  });
});

describe('an accuracy nobody stated', () => {
  const known = measured(20, 0.01);
  const unknown = readBy(undefined, 3, { meter: 'load', quantity: 'current' });

  it('is unknown, not nought, and stays so in everything made of it', () => {
    expect(isStated(unknown)).toBe(false);
    const all = [
      product(known, unknown),
      ratio(known, unknown),
      sum([known, unknown]),
      difference(known, unknown),
      meanOfCommon([known, unknown]),
      combineRepeats([known, unknown]),
    ];
    for (const one of all) {
      expect(one.unstated).toEqual([{ meter: 'load', quantity: 'current' }]);
      expect(expandedUncertainty(one)).toBe(Number.POSITIVE_INFINITY);
    }
  });

  it('does not touch what it has no part in', () => {
    const free = propagate(20, [
      { weight: 1, of: known },
      { weight: 0, of: unknown },
    ]);
    expect(isStated(free)).toBe(true);
  });

  it('is named once', () => {
    expect(unstatedOf([unknown, unknown, known])).toEqual([{ meter: 'load', quantity: 'current' }]);
  });
});
