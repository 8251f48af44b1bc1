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
