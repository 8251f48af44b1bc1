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
    // Two figures side by side are two parts, and never a share of a tiny range.
    ['±0.5% ±0.02V', 'voltage', { readingPercent: 0.5, rangePercent: 0, offset: 0.02 }],
    ['0.5% of reading ± 20 mV', 'voltage', { readingPercent: 0.5, rangePercent: 0, offset: 0.02 }],
    ['±(0.1 % reading, 2 mV)', 'voltage', { readingPercent: 0.1, offset: 0.002 }],
    ['35 ppm + 5 ppm of 20 V', 'voltage', { readingPercent: 0.0035, rangePercent: 0.0005, range: 20 }],
    ['0.1% + 0.05% (30 V range)', 'voltage', { readingPercent: 0.1, rangePercent: 0.05, range: 30 }],
    ['0.1%rdg.+0.1%rng 150W', 'power', { readingPercent: 0.1, rangePercent: 0.1, range: 150 }],
    ['0.1 % rdg + 0.05 % F.S. 200 Ω', 'resistance', { readingPercent: 0.1, rangePercent: 0.05, range: 200 }],
  ] as const)('%s of %s', (text, quantity, parts) => {
    const read = parseAccuracy(text, quantity);
    expect(read).toMatchObject({ ok: true, spec: parts });
  });

  it('in digits needs the resolution of the display', () => {
    expect(parseAccuracy('0.5 % + 2 digits', 'voltage', 0.01)).toMatchObject({
      ok: true,
      spec: { readingPercent: 0.5, offset: 0.02, resolution: 0.01 },
    });
    // As tables of manuals print them.
    for (const text of ['±(1.5% + 3)', '1.5%+3d', '±1.5%±3dgt', '1.5 % rdg ± 3 counts'])
      expect(parseAccuracy(text, 'voltage', 0.01), text).toMatchObject({
        ok: true,
        spec: { readingPercent: 1.5, offset: 0.03 },
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
    ['± 0.02', 'has no unit'],
    ['0.02 + 0.004', 'has no unit'],
    ['0.1 % + 0.1 %', 'Which per cent is of the range?'],
    ['0.1 % + 0.05 % of range', 'of which range?'],
    ['0.1 % + 0.1 % of 20 V + 0.1 % of 2 V', 'Two ranges'],
    ['0.5 % or 20 mV', 'Type it like'],
    ['0.5 % 20 V', 'Type it like'],
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
