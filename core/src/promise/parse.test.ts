import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseClaimLine } from './parse.ts';

const labels = ['C1', 'C2', 'A1', 'C10'];
const read = (text: string) => {
  const found = parseClaimLine(text, labels);
  return 'promises' in found ? found.promises : found.reason;
};

describe('a label line', () => {
  it('of one port gives a claim a level', () => {
    expect(read('C1: 5V 3A / 9 V ⎓ 3 A / 20V⎓3,25A')).toEqual([
      { kind: 'port-line', port: 'C1', volts: 5, amps: 3 },
      { kind: 'port-line', port: 'C1', volts: 9, amps: 3 },
      { kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 },
    ]);
    expect(read('a1 5V 2400mA')).toEqual([{ kind: 'port-line', port: 'A1', volts: 5, amps: 2.4 }]);
    expect(read('C10 9V 2A')).toEqual([{ kind: 'port-line', port: 'C10', volts: 9, amps: 2 }]);
  });

  it('of several ports is a combination', () => {
    expect(read('C1+A1: 45W+18W')).toEqual([
      {
        kind: 'combination',
        shares: [
          { port: 'C1', watts: 45 },
          { port: 'A1', watts: 18 },
        ],
      },
    ]);
    expect(read('C1 + C2 90 W')).toEqual([{ kind: 'combination', shares: [{ port: 'C1', with: ['C2'], watts: 90 }] }]);
    expect(read('C1 + C2 + A1: 45 W + 18 W')).toContain('give each its watts');
  });

  it.each([
    ['Total 65 W', { kind: 'total', watts: 65 }],
    ['max. 65W', { kind: 'total', watts: 65 }],
    ['idle < 75 mW', { kind: 'idle', watts: 0.075, mains: null }],
    ['no-load 0,1 W', { kind: 'idle', watts: 0.1, mains: null }],
    ['average efficiency 91,2 %', { kind: 'average-efficiency', ratio: expect.closeTo(0.912, 9), mains: null }],
    ['“turbo inside”', { kind: 'wording', text: 'turbo inside' }],
  ])('%s', (text, promise) => expect(read(text)).toEqual([promise]));

  it.each([
    ['', 'Nothing typed'],
    ['C1 20V', 'in pairs'],
    ['C1 3A 20V', 'in pairs'],
    ['fast', 'put a slogan in quotes'],
    ['X9 20V 3A', 'Start with a port (C1, C2, A1, C10)'],
  ])('%j is not understood, and says what is', (text, reason) => expect(read(text)).toContain(reason));

  it('never throws', () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.array(fc.string({ maxLength: 4 })),
        (text, any) => typeof parseClaimLine(text, any.filter(Boolean)) === 'object',
      ),
    );
  });
});

describe('ranges and modes outside PD', () => {
  const only = (text: string) => {
    const parsed = parseClaimLine(text, ['C1', 'A1']);
    return 'promises' in parsed ? parsed.promises[0] : parsed.reason;
  };
  it.each([
    ['C1: PPS 3.3–21 V 3.25 A', { kind: 'range', supply: 'pps', low: 3.3, high: 21, amps: 3.25 }],
    ['C1 pps 5-11V 3A', { kind: 'range', supply: 'pps', low: 5, high: 11, amps: 3 }],
    ['C1: AVS 9 to 20 V 5 A', { kind: 'range', supply: 'spr-avs', low: 9, high: 20 }],
    ['C1: AVS 15–28 V 5 A', { kind: 'range', supply: 'epr-avs', low: 15, high: 28 }],
    ['A1: stepped high voltage', { kind: 'signal', port: 'A1', mode: 'stepped-high' }],
  ])('%s', (text, promise) => expect(only(text)).toMatchObject(promise));

  it('say what is wrong with a range', () => expect(only('C1: PPS 21–5 V 3 A')).toContain('from the lower voltage'));
});
