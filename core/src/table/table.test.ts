import Papa from 'papaparse';
import { expect, it } from 'vitest';
import { csvText } from './index.ts';

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
