import { describe, expect, it } from 'vitest';
import { parseAmps } from './index.ts';

describe('a current', () => {
  it.each([
    ['3.1', 20, 3.1],
    ['3100 mA', null, 3.1],
    ['60 W', 20, 3],
    ['4,5W', 9, 0.5],
  ] as const)('%j beside %j V is %j A', (text, volts, value) => {
    const read = parseAmps(text, volts);
    expect(read.ok && read.value).toBeCloseTo(value, 9);
  });
  it('in watts needs the volts', () => {
    expect(parseAmps('60 W', null)).toMatchObject({ ok: false, reason: expect.stringContaining('volts') });
    expect(parseAmps('60 W', 0)).toMatchObject({ ok: false });
  });
  it.each(['', 'x', '3 V', '3 kWh'])('%j is refused', (text) => expect(parseAmps(text, 20).ok).toBe(false));
});
