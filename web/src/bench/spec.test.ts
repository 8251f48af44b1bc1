import { NO_SPEC } from '@lastmark/core/uncertainty';
import { describe, expect, it } from 'vitest';
import { describeSpec, EMPTY_SPEC, fromSpecText, toSpecText } from './spec.ts';

const analyser = { ...NO_SPEC, readingPercent: 0.1, rangePercent: 0.05, range: 300, offset: 0.03, floor: 0.05 };

describe('an accuracy spec', () => {
  it('is typed in the units people know', () => {
    const typed = { ...EMPTY_SPEC, readingPercent: '0,1', offset: '30 mW', resolution: '0.1', floor: '50 mW' };
    expect(fromSpecText(typed, 'power')).toEqual({
      ...NO_SPEC,
      readingPercent: 0.1,
      offset: 0.03,
      resolution: 0.1,
      floor: 0.05,
    });
  });

  it('comes back unchanged through its text', () => {
    for (const spec of [
      analyser,
      { ...analyser, coverage: 'k = 2 or 95 %' as const },
      { ...NO_SPEC, resolution: 0.01 },
      { ...analyser, finer: [{ ...NO_SPEC, offset: 0.002, range: 5 }] },
    ]) {
      expect(fromSpecText(toSpecText(spec, 'power'), 'power')).toEqual(spec);
    }
  });

  it('left empty is no spec, and an unreadable part is not taken for zero', () => {
    expect(fromSpecText(EMPTY_SPEC, 'voltage')).toBeUndefined();
    expect(toSpecText(undefined, 'voltage')).toEqual(EMPTY_SPEC);
    expect(fromSpecText({ ...EMPTY_SPEC, offset: '3 A' }, 'voltage')?.offset).toBeNaN();
    expect(fromSpecText({ ...EMPTY_SPEC, readingPercent: 'much' }, 'voltage')?.readingPercent).toBeNaN();
  });

  it('reads as one line', () => {
    expect(describeSpec(analyser, 'power')).toBe('±(0.1 % of reading + 0.05 % of 300 W + 0.03 W), from 0.05 W');
    expect(describeSpec({ ...NO_SPEC, offset: 0.002, resolution: 0.01, coverage: 'k = 2 or 95 %' }, 'voltage')).toBe(
      '±(0.002 V + ½ of 0.01 V), k = 2',
    );
    expect(describeSpec({ ...NO_SPEC, offset: 0.1, finer: [{ ...NO_SPEC, offset: 0.002, range: 5 }] }, 'power')).toBe(
      '±(0.1 W); to 5 W ±(0.002 W)',
    );
  });
});
