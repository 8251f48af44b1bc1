import { describe, expect, it } from 'vitest';
import { bare, cut, widthsOf } from './aligned.ts';

describe('a number of a column', () => {
  it.each([
    ['0.1478 ± 0.0021', { whole: '0', part: '.1478', uWhole: '0', uPart: '.0021' }],
    ['12', { whole: '12', part: '', uWhole: '', uPart: '' }],
    ['−2.3', { whole: '−2', part: '.3', uWhole: '', uPart: '' }],
    ['0.51 ± ?', { whole: '0', part: '.51', uWhole: '?', uPart: '' }],
  ])('%s is cut at its point and its uncertainty', (text, parts) => expect(cut(text)).toEqual(parts));
  it.each(['', '–', 'at least 3', '12 W', '1.2.3', '100.1…103.6', '< 0.1'])('%j is shown as it is', (text) =>
    expect(cut(text)).toBeNull(),
  );
});

describe('a column', () => {
  it('has room for the widest part of each', () =>
    expect(widthsOf(['0.1478 ± 0.0021', '10.51 ± 0.04', 'not measured'])).toEqual({
      whole: 2,
      part: 5,
      uWhole: 1,
      uPart: 5,
    }));
  it('without numbers needs none', () => expect(widthsOf(['–'])).toEqual({ whole: 0, part: 0, uWhole: 0, uPart: 0 }));
});

it('a unit of the head is not said again', () => {
  expect(bare('12.3 ± 0.4 W', 'W')).toBe('12.3 ± 0.4');
  expect(bare('12.3 mW', 'W')).toBe('12.3 mW');
  expect(bare('0.9', '')).toBe('0.9');
});
