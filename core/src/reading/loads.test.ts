import { describe, expect, it } from 'vitest';
import { loadWords, parseLoads } from './index.ts';

const PORTS = ['C1', 'C2', 'A1', 'USB C left'];

describe('loads as people say them', () => {
  it.each([
    ['C1 20 V 3.25 A', [{ port: 'C1', volts: 20, amps: 3.25 }]],
    ['C1: 20V/3.25A', [{ port: 'C1', volts: 20, amps: 3.25 }]],
    ['C1 20V⎓3,25A', [{ port: 'C1', volts: 20, amps: 3.25 }]],
    [
      'c1: 9V 2A + A1 5 V 500mA',
      [
        { port: 'C1', volts: 9, amps: 2 },
        { port: 'A1', volts: 5, amps: 0.5 },
      ],
    ],
    [
      'C1 20 V no load; C2 5,1 V',
      [
        { port: 'C1', volts: 20, amps: 0 },
        { port: 'C2', volts: 5.1, amps: 0 },
      ],
    ],
    ['USB C left 15 V 3 A', [{ port: 'USB C left', volts: 15, amps: 3 }]],
  ])('%s', (text, outputs) => expect(parseLoads(text, PORTS)).toEqual(outputs));

  it.each([
    ['', 'Say what is loaded'],
    ['C9 5 V', 'no port “C9”'],
    ['twenty volts', 'not understood'],
    ['C1 5 V + C1 9 V', 'twice'],
    ['C1 500 V 1 A', 'beyond what a port gives'],
  ])('%s says what is wrong', (text, says) => {
    expect(parseLoads(text, PORTS)).toMatchObject({ reason: expect.stringContaining(says) });
  });

  it('are said the same way again', () => {
    const outputs = parseLoads('C1 20 V 3.25 A + C2 9 V', PORTS);
    expect('reason' in outputs ? '' : loadWords(outputs)).toBe('C1 20 V 3.25 A + C2 9 V, no load');
  });
});
