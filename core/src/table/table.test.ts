import Papa from 'papaparse';
import { expect, it } from 'vitest';
import { csvText, headedRows, textRows } from './index.ts';

it('is read back as it was by any reader, whatever the names are', () => {
  const table = [
    ['loading', 'watts'],
    ['C1 20 V, warm', '45'],
    ['a "strong" one', ''],
    ['two\r\nlines', '0.5'],
    [' Ω µ ', '-3'],
  ];
  expect(
    Papa.parse(csvText(table).trimEnd()).data.map((row) => (row as string[]).map((one) => one.replace(/^'(?=-)/, ''))),
  ).toEqual(table);
  expect(csvText([['a,b', 1, null, true]])).toBe('"a,b",1,,true\r\n');
});

it('is no program: what would be a formula is a text, and a negative number stays one', () => {
  expect(csvText([['=1+1', '@x', '+5', -2.5]])).toBe(`"'=1+1","'@x","'+5",-2.5\r\n`);
  expect(csvText([])).toBe('\r\n');
});

it.each([
  [
    '# hut\r\na;b\r\n\r\n1,5; 2 ',
    ';',
    [
      ['a', 'b'],
      ['1,5', '2'],
    ],
    [2, 4],
  ],
  [
    'a\tb\n1\t2',
    '\t',
    [
      ['a', 'b'],
      ['1', '2'],
    ],
    [1, 2],
  ],
  [
    '\ufeffa,b\r1,"2, or 3"',
    ',',
    [
      ['a', 'b'],
      ['1', '2, or 3'],
    ],
    [1, 2],
  ],
  ['1 2', ' ', [['1', '2']], [1]],
  ['  1   2 ', ' ', [['1', '2']], [1]],
  [
    '1 0,119\n3  0,358',
    ' ',
    [
      ['1', '0,119'],
      ['3', '0,358'],
    ],
    [1, 2],
  ],
  ['1, 0.119', ',', [['1', '0.119']], [1]],
  [
    '| a | b, of it |\n|---|:-:|\n| 1,5 | 2 |\n| - | 3 |',
    '|',
    [
      ['a', 'b, of it'],
      ['1,5', '2'],
      ['-', '3'],
    ],
    [1, 3, 4],
  ],
  [' \n# nothing', ' ', [], []],
])('%j comes in rows', (text, delimiter, cells, lines) => {
  const read = textRows(text);
  expect(read.delimiter).toBe(delimiter);
  expect(read.rows.map((row) => row.cells)).toEqual(cells);
  expect(read.rows.map(({ line }) => line)).toEqual(lines);
});

it('rows under heads know their lines, whatever is empty and however long a cell is', () => {
  const { heads, rows } = headedRows('\ufeff\r\n\r\nName; Watts \r\n"Hut,\r\nupper";1,5\r\n;\r\n\r\nYard;2\r\n');
  expect(heads).toEqual(['name', 'watts']);
  expect(rows).toEqual([
    { cells: { name: 'Hut,\nupper', watts: '1,5' }, line: 4 },
    { cells: { name: 'Yard', watts: '2' }, line: 8 },
  ]);
  expect(headedRows(' \n')).toEqual({ heads: [], rows: [] });
});
