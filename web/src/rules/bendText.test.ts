import { USUAL_BENDS } from '@lastmark/core/bends';
import { describe, expect, it } from 'vitest';
import { fromBendText, toBendText } from './bendText.ts';

describe('how cables are bent, as typed', () => {
  it('comes back as it was, and is the usual where nobody chose', () => {
    expect(fromBendText(toBendText(null))).toEqual(USUAL_BENDS);
    const own = { ...USUAL_BENDS, to: 'the same for all' as const, count: 5000, tension: null };
    expect(fromBendText(toBendText(own))).toEqual(own);
  });
  it('with what cannot be read is refused as such', () => {
    expect(fromBendText({ ...toBendText(null), bendCount: 'many' }).count).toBeNaN();
    expect(fromBendText({ ...toBendText(null), bendCount: '12 500' }).count).toBe(12_500);
  });
});
