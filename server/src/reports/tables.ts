// Tables of a report on paper.
import { REPORT_WORDS } from '@lastmark/core/report';
import type { Verdict } from '@lastmark/core/verdict';
import type { Content, TableCell } from 'pdfmake/interfaces.js';
import type { Beside } from './beside.ts';
import type { ReportContent } from './content.ts';
import { claimRows, instrumentRows, limitRows } from './rows.ts';

const BAD = '#a1261d';
const INK = '#16211d';
const SOFT = '#4a5952';

/** A table whose head comes again on every page it runs over. */
const table = (widths: readonly (string | number)[], heads: readonly string[], body: TableCell[][]): Content => ({
  table: {
    headerRows: 1,
    widths: [...widths],
    body: [heads.map((text) => ({ text, style: 'head' })), ...body],
    dontBreakRows: true,
  },
  layout: 'lightHorizontalLines',
  margin: [0, 2, 0, 10],
});

/** Two columns of a name and what there is to say. */
export const pairs = (rows: readonly (readonly [string, string])[]): Content => ({
  table: { widths: ['auto', '*'], body: rows.map(([name, value]) => [{ text: name, color: SOFT }, value]) },
  layout: 'noBorders',
  margin: [0, 2, 0, 8],
});

/** Columns of samples a page holds. */
const A_PAGE = 4;

/** Several samples beside each other: four to a table, the names of the rows before each. */
export const besideTables = ({ heads, rows }: Beside, figure: string): Content[] =>
  Array.from({ length: Math.ceil(heads.length / A_PAGE) }, (_, at) => {
    const part = <T>(all: readonly T[]) => all.slice(at * A_PAGE, (at + 1) * A_PAGE);
    const own = part(heads);
    return table(
      [110, ...own.map(() => '*')],
      [figure, ...own],
      rows.map(({ name, cells }): TableCell[] => [{ text: name, bold: true }, ...part(cells)]),
    );
  });

/** Every claim, the worst first, with what was found, what counts as kept, and under which condition. */
export function claimTable(content: ReportContent, verdict: Verdict): Content[] {
  const words = REPORT_WORDS[content.language];
  const rows = claimRows(content, verdict);
  if (rows.length === 0) return [{ text: words.nothing, style: 'note' }];
  const body = rows.map(({ promise, printed, stateWords, loud, found, limit, condition }): TableCell[] => [
    { text: promise, bold: true },
    printed,
    { text: `${loud ? '▼ ' : ''}${stateWords}`, bold: loud, color: loud ? BAD : INK },
    found,
    limit,
    condition,
  ]);
  const heads = [words.promised, words.printed, words.state, words.found, words.limit, words.condition];
  return [table(['*', 'auto', 'auto', '*', 'auto', '*'], heads, body)];
}

/** Limit sets it was held against with a verdict. */
export function limitTable(content: ReportContent, verdict: Verdict): Content[] {
  const words = REPORT_WORDS[content.language];
  const rows = limitRows(content, verdict);
  if (rows.length === 0) return [];
  const heads = [words.set, words.quantity, words.limit, words.measured, words.outcome];
  const body = rows.map(({ title, quantity, limit, found, outcome, meets }): TableCell[] => [
    title,
    quantity,
    limit,
    found,
    { text: outcome, bold: !meets },
  ]);
  return [
    { text: words.limits, style: 'part' },
    table(['auto', '*', 'auto', 'auto', 'auto'], heads, body),
    { text: words.confirm, style: 'note' },
  ];
}

/** Instruments that were used, with their calibration. */
export function instrumentTable(content: ReportContent): Content[] {
  const words = REPORT_WORDS[content.language];
  const rows = instrumentRows(content);
  const heads = [words.instrument, words.class, words.firmware, words.calibrated, words.due];
  const body = rows.map((one): TableCell[] => [
    one.name,
    one.class,
    one.firmware,
    one.calibrated,
    { text: one.due, bold: one.passed },
  ]);
  return [
    { text: words.instruments, style: 'part' },
    rows.length === 0
      ? { text: words.notRecorded, style: 'note' }
      : table(['*', 'auto', 'auto', 'auto', 'auto'], heads, body),
  ];
}
