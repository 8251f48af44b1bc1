import { describe, expect, it } from 'vitest';
import { cellsOf, placed, withUnit } from './spread.ts';

const GRID = [
  ['a1', 'a2', 'a3'],
  ['b1', null, 'b3'],
];

describe('a block from a spreadsheet', () => {
  it('is cut at tabs and lines, whoever ended the lines', () => {
    expect(cellsOf('1\t2\r\n3\t4\r\n')).toEqual([
      ['1', '2'],
      ['3', '4'],
    ]);
    expect(cellsOf('5,003;0,522\n')).toEqual([['5,003', '0,522']]);
    expect(cellsOf(' 19.8 V ')).toEqual([['19.8 V']]);
  });
  it('goes to the right and downwards from where it is put', () =>
    expect(
      placed(GRID, 'a2', [
        ['1', '2'],
        ['3', '4'],
      ]),
    ).toEqual([
      ['a2', '1'],
      ['a3', '2'],
      ['b3', '4'],
    ]));
  it('leaves out what lies beyond the grid, and what is empty', () => {
    expect(placed(GRID, 'b3', [['1', '2'], ['3']])).toEqual([['b3', '1']]);
    expect(placed(GRID, 'a1', [['', '2']])).toEqual([['a2', '2']]);
    expect(placed(GRID, 'nowhere', [['1']])).toEqual([]);
  });
});

describe('a unit of a column', () => {
  it('goes to bare numbers only', () => {
    expect(withUnit('2250', 'mA')).toBe('2250 mA');
    expect(withUnit('2.25 A', 'mA')).toBe('2.25 A');
    expect(withUnit('2250', '')).toBe('2250');
    expect(withUnit('', 'mA')).toBe('');
  });
});
