import { describe, expect, it } from 'vitest';
import { describePromise } from './describe.ts';
import { parseClaimLine } from './parse.ts';

const read = (line: string) => {
  const found = parseClaimLine(line, ['C1', 'C2', 'A1']);
  return 'promises' in found ? found.promises[0] : found.reason;
};
const time = (device: string, from: number, to: number, minutes: number) => ({
  kind: 'charge-time',
  device,
  from,
  to,
  seconds: minutes * 60,
});

describe('a charge time as printed', () => {
  it.each([
    ['to 50 % in 28 minutes', time('', 0, 0.5, 28)],
    ['charges a Ridge 14 to 50% in 28 min', time('Ridge 14', 0, 0.5, 28)],
    ['Ridge 14: 0 to 100 % in 2 h', time('Ridge 14', 0, 1, 120)],
    ['20–80 % in 35 min', time('', 0.2, 0.8, 35)],
    ['Ridge 14 from 20 % to 80 % within 1 h 10 min', time('Ridge 14', 0.2, 0.8, 70)],
    ['charges your phone up to 60 % in just 30 minutes', time('phone', 0, 0.6, 30)],
    ['50 % charge in 1.5 hours', time('', 0, 0.5, 90)],
    ['Ridge 14 fully charged in 2 h 5 min', time('Ridge 14', 0, 1, 125)],
    ['full in 90 minutes', time('', 0, 1, 90)],
  ])('%s', (line, promise) => {
    expect(read(line)).toMatchObject(promise);
  });

  it('is described as it is read back', () => {
    const line = describePromise(time('Ridge 14', 0.2, 0.8, 35) as never);
    expect(line).toBe('Ridge 14: 20 to 80 % in 35 min');
    expect(read(line)).toEqual(time('Ridge 14', 0.2, 0.8, 35));
  });

  it('that goes down or past full is refused', () => {
    expect(read('80 to 20 % in 30 min')).toContain('higher one');
    expect(read('to 150 % in 30 min')).toContain('higher one');
  });

  it('is no other line', () => {
    expect(read('C1: 20 V 3.25 A')).toMatchObject({ kind: 'port-line' });
    // Thirty of what?
    expect(read('50 % in 30')).toContain('Start with');
    expect(read('50 % in 1 h 20')).toMatchObject({ seconds: 4800 });
    expect(read('efficiency 91 %')).toMatchObject({ kind: 'average-efficiency' });
    expect(read('total 65 W for 30 min')).toMatchObject({ kind: 'total' });
    expect(read('C1 65 W')).toMatchObject({ kind: 'combination' });
    expect(read('C1+C2 45 W + 20 W')).toMatchObject({ kind: 'combination' });
  });
});
