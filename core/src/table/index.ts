// Tables as text.
import Papa from 'papaparse';

export * from './encoding.ts';
export * from './heads.ts';
export * from './month.ts';

export type Field = string | number | boolean | null;

/** Lines of fields, heads first. */
export type Table = readonly (readonly Field[])[];

/**
 * A table as CSV, RFC 4180: fields with a comma, quote or line break are quoted, lines end with CR LF. A text that a
 * spreadsheet would take for a formula gets an apostrophe before it; null is an empty field.
 * @example csvText([['name', 'watts'], ['Hut, upper', -0.5]]) // 'name,watts\r\n"Hut, upper",-0.5\r\n'
 */
export const csvText = (table: Table): string =>
  `${Papa.unparse(table as Field[][], { newline: '\r\n', escapeFormulae: true })}\r\n`;

/** A row of a table that came as text. */
export interface TextRow {
  readonly cells: readonly string[];
  /** Where it stood, from 1. */
  readonly line: number;
}

/** Numbers with blanks between them: a comma in one is its decimal sign. */
const NUMBERS_APART = /^\s*[-+−]?\d+(?:[.,]\d+)?(?: +[-+−]?\d+(?:[.,]\d+)?)+\s*$/;

/** A line that only parts heads from what is below. */
const isRule = (line: string): boolean => /^[\s:|+=-]+$/.test(line) && /--|:-/.test(line);

/** Without what only lines columns up: blanks in a row, and strokes at both ends. */
const bare = (line: string, delimiter: string): string =>
  delimiter === ' ' ? line.trim().replace(/\s+/g, ' ') : delimiter === '|' ? line.trim().replace(/^\||\|$/g, '') : line;

/**
 * The rows of a table as text, trimmed: parted by what stands in its first line, the semicolon before the tab before the
 * upright stroke before the comma before the blank; empty lines, rules and those that begin with # are left out.
 * @example textRows('# hut\na;b\n1,5;2')[1] // { cells: ['1,5', '2'], line: 3 }
 */
export function textRows(text: string): { readonly rows: readonly TextRow[]; readonly delimiter: string } {
  const lines = text
    .replace(/^\ufeff/, '')
    .split(/\r\n|\r|\n/)
    .map((line, index) => ({ line, number: index + 1 }))
    .filter(({ line }) => !/^\s*(?:#|$)/.test(line) && !isRule(line));
  const head = lines[0]?.line ?? '';
  const delimiter = NUMBERS_APART.test(head) ? ' ' : ([';', '\t', '|', ','].find((one) => head.includes(one)) ?? ' ');
  const { data } = Papa.parse<string[]>(lines.map(({ line }) => bare(line, delimiter)).join('\n'), { delimiter });
  const rows = data.map((cells, index) => ({
    cells: cells.map((cell) => cell.trim()),
    line: lines[index]?.number ?? index + 1,
  }));
  return { rows: lines.length === 0 ? [] : rows, delimiter };
}

/** A row under heads, by their names. */
export interface HeadedRow {
  readonly cells: Readonly<Record<string, string | undefined>>;
  /** Line of the text it begins in, from 1. */
  readonly line: number;
}

/**
 * The rows of a table whose first line that holds anything names its columns; empty lines are left out and counted.
 * @param asHead how heads are compared
 * @example headedRows('\n\nA;B\n1;2').rows // [{ cells: { a: '1', b: '2' }, line: 4 }]
 */
export function headedRows(
  text: string,
  asHead: (head: string) => string = (head) => head.trim().toLowerCase(),
): { readonly heads: readonly string[]; readonly rows: readonly HeadedRow[] } {
  const plain = text.replace(/^\ufeff/, '').replace(/\r\n?/g, '\n');
  const { delimiter } = Papa.parse(plain.trim(), { preview: 10, skipEmptyLines: 'greedy' }).meta;
  let line = 1;
  const lines = Papa.parse<string[]>(plain, { delimiter }).data.flatMap((cells) => {
    const begins = line;
    // A cell in quotes may go on for several lines.
    line += 1 + cells.join('').split('\n').length - 1;
    return cells.every((cell) => cell.trim() === '') ? [] : [{ cells, line: begins }];
  });
  const [first, ...rest] = lines;
  const heads = (first?.cells ?? []).map(asHead);
  const rows = rest.map(({ cells, line: at }) => ({
    cells: Object.fromEntries(heads.map((head, column) => [head, cells[column]])),
    line: at,
  }));
  return { heads, rows };
}
