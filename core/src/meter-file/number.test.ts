import fc from 'fast-check';
import { expect, it } from 'vitest';
import { meterNumber } from './number.ts';

it.each([
  ['12', false, 12],
  [' -3.5 ', false, -3.5],
  ['+0,25', true, 0.25],
  ['.5', false, 0.5],
  ['5.', false, 5],
  ['1e-3', false, 0.001],
  ['1,5E2', true, 150],
  ['1234567890123456', false, 1234567890123456],
])('%j is a number', (cell, comma, value) => expect(meterNumber(cell, comma)).toBe(value));

it.each([
  ['', false],
  ['  ', false],
  ['-', false],
  ['.', false],
  ['1.5', true],
  ['1,5', false],
  ['1.2.3', false],
  ['0x10', false],
  ['1e999', false],
  ['Infinity', false],
  ['NaN', false],
  ['12 V', false],
  ['1 2', false],
])('%j is none', (cell, comma) => expect(meterNumber(cell, comma)).toBeNaN());

it('is the very double the language reads', () => {
  const written = fc
    .tuple(fc.double({ noNaN: true, min: -1e9, max: 1e9 }), fc.nat(9))
    .map(([value, decimals]) => value.toFixed(decimals));
  fc.assert(
    fc.property(written, (text) => {
      expect(meterNumber(text, false)).toBe(Number(text));
      expect(meterNumber(text.replace('.', ','), true)).toBe(Number(text));
    }),
    { numRuns: 2000 },
  );
});
