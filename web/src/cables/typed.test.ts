import { expect, it } from 'vitest';
import { countIn, unread } from './typed.ts';

it.each([
  ['2000', 2000],
  [' 10 000 ', 10_000],
  ['10.000', 10_000],
  ['10’000', 10_000],
  ['1,250,000', 1_250_000],
  ['0', 0],
])('%s is a count', (text, count) => expect(countIn(text)).toBe(count));
it.each(['', 'many', '2.5', '1,5', '-3', '10 00', '1e4'])('%j is none', (text) => expect(countIn(text)).toBeNaN());

it('what cannot be read is said, what is empty or fine is not', () => {
  expect(unread('many', Number.NaN, 'A whole number.')).toEqual({ error: true, helperText: 'A whole number.' });
  for (const [text, value] of [
    ['', Number.NaN],
    ['3', 3],
    ['', null],
  ] as const)
    expect(unread(text, value, 'no')).toEqual({});
});
