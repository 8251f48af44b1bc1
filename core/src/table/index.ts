// Tables as text.
import Papa from 'papaparse';

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

/**
 * The rows of a table as text, trimmed: parted by what stands in its first line, the semicolon before the tab before the
 * comma before the blank; empty lines and those that begin with # are left out.
 * @example textRows('# hut\na;b\n1,5;2')[1] // { cells: ['1,5', '2'], line: 3 }
 */
export function textRows(text: string): { readonly rows: readonly TextRow[]; readonly delimiter: string } {
  const lines = text
    .replace(/^\ufeff/, '')
    .split(/\r\n|\r|\n/)
    .map((line, index) => ({ line, number: index + 1 }))
    .filter(({ line }) => line.trim() !== '' && !/^\s*#/.test(line));
  const head = lines[0]?.line ?? '';
  const delimiter = NUMBERS_APART.test(head) ? ' ' : ([';', '\t', ','].find((one) => head.includes(one)) ?? ' ');
  const { data } = Papa.parse<string[]>(
    // Columns lined up with blanks are parted by all of them.
    lines.map(({ line }) => (delimiter === ' ' ? line.trim().replace(/\s+/g, ' ') : line)).join('\n'),
    { delimiter },
  );
  const rows = data.map((cells, index) => ({
    cells: cells.map((cell) => cell.trim()),
    line: lines[index]?.number ?? index + 1,
  }));
  return { rows: lines.length === 0 ? [] : rows, delimiter };
}
