// Where the table of a trace file begins, and how its columns are parted.
import { timeForm } from '../meter-file/index.ts';

/** Delimiters in the order they are believed in; a blank stands for any run of blanks. */
const DELIMITERS = [';', '\t', ',', '|', ' '] as const;
export const LOOKED_AT = 400;
const AGREEING = 3;
/** Lines at the end of what is looked at that tell whether columns are empty. */
const LAST = 20;

export const NUMBER = /^[+-]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][+-]?\d+)?$/;
const WITH_UNIT =
  /^[+-]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][+-]?\d+)?\s*([pnuµμmkMG]?(?:V|A|W|Wh|Hz|s)?|(?:[°º˚]|deg ?)?[CFK]|[℃℉%])$/;
export const EMPTY = /^(?:|nan|n\/a|null|-+|ol|ovld|[+-]?inf(?:inity)?)$/i;

const bare = (cell: string): string =>
  cell
    .trim()
    .replace(/^"(.*)"$/s, '$1')
    .trim();
export const cellsOf = (line: string, delimiter: string): string[] =>
  (delimiter === ' ' ? line.trim().split(/\s+/) : line.split(delimiter)).map(bare);
export const isNumber = (cell: string): boolean => NUMBER.test(cell) || WITH_UNIT.test(cell);
/** The unit or the prefix a cell has of its own; empty for a plain number and for what is none. */
export const unitInCell = (cell: string): string => WITH_UNIT.exec(cell)?.[1] ?? '';
/** A date without its clock. */
export const isDay = (cell: string): boolean =>
  !isNumber(cell) && !cell.includes(':') && timeForm(`${cell} 0:00`) === 'date';
const isValue = (cell: string): boolean => isNumber(cell) || EMPTY.test(cell) || timeForm(cell) !== null || isDay(cell);

/** Whether a line is one of the table. */
export function isRow(cells: readonly string[]): boolean {
  const numbers = cells.filter(isNumber).length;
  const told = cells.filter((cell) => cell !== '').length;
  const values = cells.filter((cell) => cell !== '' && isValue(cell)).length;
  return numbers > 0 && told > 0 && cells.every((cell, at) => isValue(cell) || (at > 0 && values * 2 >= told));
}

/** How much of what a line says is values, 0…1. */
function valued(cells: readonly string[]): number {
  const told = cells.filter((cell) => cell !== '');
  return told.filter(isValue).length / told.length;
}

export interface Found {
  readonly delimiter: string;
  readonly first: number;
  readonly width: number;
  /** Columns before the table's own: statements beside its first lines. */
  readonly lead: number;
}

/** Columns at the beginning of all of the last lines that hold nothing. */
function leadOf(rows: readonly (readonly string[])[]): number {
  const last = rows.filter((row) => row.some((cell) => cell !== '')).slice(-LAST);
  const leads = last.map((row) => row.findIndex((cell) => cell !== ''));
  return leads.length > AGREEING ? Math.min(...leads) : 0;
}

/** Values with decimal commas, one a line, and no two columns of whole numbers: `-0,5` has a sign its halves do not have. */
function areDecimals(rows: readonly (readonly string[])[]): boolean {
  const numbers = rows.filter((row) => isRow(row));
  if (numbers.length < AGREEING || !numbers.every((row) => row.length === 2)) return false;
  const [whole, part] = [numbers.map((row) => row[0] ?? ''), numbers.map((row) => row[1] ?? '')];
  if (!part.every((cell) => /^\d+(?:[eE][+-]?\d+)?$/.test(cell)) || !whole.every((cell) => /^[+-]?\d+$/.test(cell)))
    return false;
  return whole.some((cell) => /^-0+$/.test(cell)) || (!rises(whole, false) && part.some((cell) => /^0\d/.test(cell)));
}

/** The first lines of numbers that agree in their columns. */
export function findTable(lines: readonly string[]): Found | null {
  let best: (Found & { readonly score: number }) | null = null;
  for (const delimiter of DELIMITERS) {
    const whole = lines.map((line) => (line.startsWith('#') ? [''] : cellsOf(line, delimiter)));
    const lead = leadOf(whole);
    if (delimiter === ',' && areDecimals(whole)) continue;
    const rows = whole.map((row) => row.slice(lead));
    const first = rows.findIndex((row, at) => {
      if (!isRow(row)) return false;
      const next = rows
        .slice(at + 1)
        .filter((one) => one.some((cell) => cell !== ''))
        .slice(0, AGREEING);
      // Over a line of names stand statements, and no table yet.
      if (next[0] && !next[0].some(isNumber)) return false;
      const fitting = next.filter((one) => isRow(one) && Math.abs(one.length - row.length) <= 1).length;
      return fitting * 2 >= next.length;
    });
    if (first < 0) continue;
    const width = rows[first]?.length ?? 0;
    const agreeing = rows.slice(first).filter((row) => isRow(row) && row.length === width);
    const split = lines[first]?.includes(delimiter) ?? false;
    // A sign that parts what belongs together, `0,5|24,96` at its commas, leaves cells that say nothing.
    const score = agreeing.reduce((sum, row) => sum + valued(row), 0) * (split ? 1 : 0.5);
    if (!best || score > best.score * 1.01) best = { delimiter, first, width: width + lead, lead, score };
  }
  return best;
}

/** Whether numbers never fall, and rise in the end. */
export const rises = (cells: readonly string[], comma: boolean): boolean => {
  const times = cells.filter((cell) => cell !== '').map((cell) => Number(comma ? cell.replace(',', '.') : cell));
  return (
    times.length > 2 &&
    times.every((time, at) => at === 0 || time >= (times[at - 1] ?? 0)) &&
    (times.at(-1) ?? 0) > (times[0] ?? 0)
  );
};
/** Whether they are 1, 2, 3 … from wherever they begin. */
export const counts = (cells: readonly string[]): boolean =>
  cells.every((cell, at) => /^\d+$/.test(cell) && (at === 0 || Number(cell) === Number(cells[at - 1]) + 1));
