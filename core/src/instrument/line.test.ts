import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lineProblem, onlyAsks, unitsOf } from './index.ts';

describe('a line to an instrument', () => {
  it.each([
    ['*IDN?', true],
    ['MEAS:VOLT? 1', true],
    ['MEAS:VOLT?;MEAS:CURR?', true],
    [' :fetc? ', true],
    ['INP ON', false],
    ['INP ON;*IDN?', false],
    ['*IDN?;INP ON', false],
    [':INP ON;:MEAS:VOLT?', false],
    ['INP ON ?', false],
    ['CURR 2,"?"', false],
    ['DISP:TEXT "a;b?"', false],
    ["DISP:TEXT ';?'", false],
    ['?', false],
    ['', false],
    [';', false],
    // Asking that takes away or sets off.
    ['SYST:ERR?', false],
    ['SYSTem:ERRor:NEXT?', false],
    ['*TST?', false],
    ['*ESR?', false],
    ['READ?', false],
    ['INIT:IMM?', false],
    ['READ:CAP? 1', false],
  ])('%j only asks: %s', (line, asks) => expect(onlyAsks(line)).toBe(asks));

  it('is taken apart at semicolons that are not part of a text', () => {
    expect(unitsOf('A "x;y" ; B? ;; C').map(({ text }) => text)).toEqual(['A "x;y"', 'B?', 'C']);
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (line) => {
        // A line with anything that sets never passes for one that asks, whatever stands around it.
        expect(onlyAsks(`${line.replaceAll(/["']/g, '')};INP ON`)).toBe(false);
      }),
    );
  });

  it.each(['INP ON\n*IDN?', 'A\rB', 'A\u0000', 'A\u2028B', 'A\u000bB', '\ud800', 'A "b'])('%j is never sent', (line) =>
    expect(lineProblem(line)).not.toBeNull(),
  );
  it('is sent when it is plain', () => expect(lineProblem('SOUR:VOLT 230.0;OUTP ON')).toBeNull());
});
