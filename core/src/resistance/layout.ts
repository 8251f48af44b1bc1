// Where a table of drops stands in a text: its heads, the line of their units, and what people write above and behind it.
import { type TextRow, textRows } from '../table/index.ts';
import { type Column, columnsOf, type Role, tells } from './heads.ts';

/** Columns without heads, by how many there are. */
const BARE: Readonly<Record<number, readonly Role[]>> = {
  2: ['amps', 'drop'],
  3: ['amps', 'near', 'far'],
  4: ['amps', 'near', 'far', 'celsius'],
};

/** Lines in which the heads are looked for. */
const MOST_ABOVE = 40;
/** Most lines that sum a table up. */
const MOST_BEHIND = 12;

export interface Layout {
  readonly headed: boolean;
  readonly columns: readonly Column[];
  /** Below the heads and their units. */
  readonly rows: readonly TextRow[];
  /** What parts the columns. */
  readonly delimiter: string;
  /** Line the table begins in, from 1. */
  readonly line: number;
  /** Lines above it that are none of it, save empty ones and remarks. */
  readonly above: readonly string[];
}

/** A cell of a line of units. */
const UNIT_ONLY = /^[[(]?[a-zµΩ°]+[\])]?$/i;

const isNumber = (cell: string): boolean => /^[+\-−]?\d*[.,]?\d+(?:e[+-]?\d+)?(\s*[a-zµΩ°]+)?$/i.test(cell.trim());

const ofNumbers = (cells: readonly string[]): boolean => cells.every((cell) => cell === '' || isNumber(cell));

/** Whether columns of these heads tell a current and a drop. */
function isTable(columns: readonly Column[]): boolean {
  const { amps, drop } = tells(columns);
  return amps && drop;
}

/** A remark, or nothing. */
const isNothing = (line: string): boolean => /^\s*(?:#|$)/.test(line);

/** The table lines begin with. @param above how many lines stand above them */
function tableFrom(lines: readonly string[], above: number): Omit<Layout, 'above'> | null {
  const { rows, delimiter } = textRows(lines.join('\n'));
  const [heads, second] = rows;
  if (!heads) return null;
  const headed = !ofNumbers(heads.cells);
  const isUnits = headed && second?.cells.every((cell) => cell === '' || UNIT_ONLY.test(cell)) === true;
  const columns = headed
    ? columnsOf(heads.cells, isUnits ? (second?.cells ?? null) : null)
    : (BARE[heads.cells.length] ?? []).map((role) => ({ head: role, role, last: false, unit: null, strange: null }));
  return {
    headed,
    columns,
    rows: rows.slice(headed ? (isUnits ? 2 : 1) : 0).map(({ cells, line }) => ({ cells, line: line + above })),
    delimiter,
    line: heads.line + above,
  };
}

/** Whether a line above numbers has as many cells as they do: then it is heads that name no current. */
const isRow = (line: string, { delimiter, columns }: Pick<Layout, 'delimiter' | 'columns'>): boolean =>
  !isNothing(line) && line.trim().split(delimiter).length === columns.length;

/** Heads behind the sign of a remark, and heads whose first column is called so. */
const unmarked = (line: string): string => line.replace(/^(\s*)#(\s*)(?=[;,|\t])/, '$1No$2').replace(/^\s*#+\s*/, '');

/**
 * Where the table stands: at the first line that names a current and a drop, with numbers below it; where none does, at the
 * line above the first numbers, or the first that is no remark.
 * @returns null for a text of nothing
 * @example layoutOf('Cable: 2 m\ncurrent_A,drop_V\n3,0.7')?.line // 2
 */
export function layoutOf(text: string): Layout | null {
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|\r|\n/);
  /** Heads that name no current, right above numbers: where to look for what is wrong. */
  let unknown = 0;
  for (let at = 0, seen = 0; at < lines.length && seen < MOST_ABOVE; at += 1) {
    const line = lines[at] as string;
    if (line.trim() === '') continue;
    seen += 1;
    const own = unmarked(line);
    if (own.trim() === '') continue;
    // Heads may stand in a remark; the lines below are looked at as they are, a few of them.
    const begun = tableFrom([own, ...lines.slice(at + 1, at + 8)], at);
    if (!begun || begun.line !== at + 1) continue;
    const amps = begun.columns.findIndex(({ role }) => role === 'amps');
    const [below] = begun.rows;
    const heads = begun.headed ? -1 : lines.slice(0, at).findLastIndex((one) => isRow(one, begun));
    if (heads >= 0 && unknown === 0) unknown = heads;
    const counts = begun.headed ? below !== undefined && isNumber(below.cells[amps] ?? '') : line === own && heads < 0;
    if (!isTable(begun.columns) || !counts) continue;
    const table = tableFrom([own, ...lines.slice(at + 1)], at);
    return table && { ...table, above: lines.slice(0, at).filter((one) => !isNothing(one)) };
  }
  const table = tableFrom(lines.slice(unknown), unknown);
  return table && { ...table, above: [] };
}

/** Whether a row says a word instead of a current: a mean, a remark, the end. */
const isWord = ({ cells }: TextRow, amps: number): boolean =>
  !/\d/.test(cells[amps] ?? '') && cells.some((cell) => /\p{L}{3}/u.test(cell));

/**
 * The lines behind the last reading that sum the table up, as they stand; more than a few are a table of their own, and none
 * of them.
 * @param amps column of the current
 */
export function summedUp(rows: readonly TextRow[], amps: number): readonly string[] {
  const behind: string[] = [];
  for (const row of [...rows].reverse()) {
    if (!row.cells.every((cell) => cell === '') && !isWord(row, amps)) break;
    behind.unshift(row.cells.join(' ').trim());
  }
  while (behind.length > 0 && behind[0] === '') behind.shift();
  return behind.length > MOST_BEHIND || behind.length === rows.length ? [] : behind;
}
