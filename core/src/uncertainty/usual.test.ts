import { describe, expect, it } from 'vitest';
import { isResolutionOnly, NO_SPEC, parseAccuracy, specUncertainty, USUAL_OF_CLASS } from './index.ts';

describe('an accuracy as a manual prints it', () => {
  it.each([
    ['±(0.5 % + 0.02 V)', 'voltage', { readingPercent: 0.5, offset: 0.02 }],
    ['0,5% rdg + 20 mV', 'voltage', { readingPercent: 0.5, offset: 0.02 }],
    ['+/- 1 % of reading', 'current', { readingPercent: 1, offset: 0 }],
    ['0.1 % + 0.05 % of range 20 V', 'voltage', { readingPercent: 0.1, rangePercent: 0.05, range: 20 }],
    ['0.2 W', 'power', { readingPercent: 0, offset: 0.2 }],
    ['±(0.1 % + 1 mA), k = 2', 'current', { readingPercent: 0.1, offset: 0.001, coverage: 'k = 2 or 95 %' }],
  ] as const)('%s of %s', (text, quantity, parts) => {
    const read = parseAccuracy(text, quantity);
    expect(read).toMatchObject({ ok: true, spec: parts });
  });

  it('in digits needs the resolution of the display', () => {
    expect(parseAccuracy('0.5 % + 2 digits', 'voltage', 0.01)).toMatchObject({
      ok: true,
      spec: { readingPercent: 0.5, offset: 0.02, resolution: 0.01 },
    });
    expect(parseAccuracy('0.5 % + 2 digits', 'voltage')).toMatchObject({
      ok: false,
      reason: expect.stringContaining('resolution'),
    });
  });

  it.each([
    ['', 'Nothing typed'],
    ['good', 'Type it like'],
    ['0 %', 'exactly zero'],
    ['0.5 % + 2 W', 'Type it like'],
    ['1 % + -3 mV', 'Type it like'],
  ])('%j is refused with why', (text, why) =>
    expect(parseAccuracy(text, 'voltage')).toMatchObject({ ok: false, reason: expect.stringContaining(why) }),
  );
});

describe('what is usual of a class', () => {
  it('of a wall meter is wide at idle: ±(3 % + 0.5 W), rectangular, and the rounding of 0.1 W', () => {
    const { power = NO_SPEC } = USUAL_OF_CLASS['plug-in wall meter'] ?? {};
    // By hand: limit at 10 W is 0.8 W, /√3 = 0.46188; rounding 0.1/√12 = 0.02887; together 0.46278.
    expect(specUncertainty(power, 10)).toBeCloseTo(0.46278, 4);
    expect(power.floor).toBe(0.5);
  });
  it('is never a resolution alone', () => {
    const all = Object.values(USUAL_OF_CLASS).flatMap((specs) => Object.values(specs));
    expect(all.length).toBeGreaterThan(5);
    expect(all.filter(isResolutionOnly)).toEqual([]);
    expect(isResolutionOnly({ ...NO_SPEC, resolution: 0.1 })).toBe(true);
    expect(isResolutionOnly(NO_SPEC)).toBe(false);
  });
});
