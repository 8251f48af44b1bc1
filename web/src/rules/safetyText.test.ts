import { describe, expect, it } from 'vitest';
import { fromSafetyText, SAFETY_CHOICES, toSafetyText } from './safetyText.ts';

describe('limits of the safety look', () => {
  it('come back as they were, the usual where nothing was chosen', () => {
    expect(toSafetyText(undefined)).toEqual({ safetySets: 'iec-62368-1', safetyTouch: '' });
    for (const setIds of [[], ['iec-62368-1', 'iec-60335-1']]) {
      const again = fromSafetyText(toSafetyText({ setIds, touch: 0.0001 }));
      expect(again.setIds).toEqual(setIds);
      expect(again.touch).toBeCloseTo(0.0001, 12);
      expect(fromSafetyText(toSafetyText({ setIds, touch: null })).touch).toBeNull();
    }
  });
  it('are microamperes where no unit is typed', () => {
    expect(fromSafetyText({ safetySets: '', safetyTouch: '100' }).touch).toBeCloseTo(1e-4, 12);
    expect(fromSafetyText({ safetySets: '', safetyTouch: '0,25 mA' }).touch).toBeCloseTo(2.5e-4, 12);
    expect(fromSafetyText({ safetySets: '', safetyTouch: 'little' }).touch).toBeNaN();
  });
  it('can be chosen alone, together, or not at all', () =>
    expect(SAFETY_CHOICES.map(({ value }) => value)).toEqual([
      'iec-62368-1',
      'iec-60335-1',
      'iec-62368-1+iec-60335-1',
      '',
    ]));
});
