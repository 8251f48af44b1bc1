// A combination laid over the columns of the ports, and its numbers in words.
import { fixed } from '@lastmark/core/quantity';
import type { ShareLine, SplitRow } from '@lastmark/core/split';

/** What is known of a share: a value where it was metered, else both ends. */
export function shareWords({ value, measured }: Pick<ShareLine, 'value' | 'measured'>, decimals: number): string {
  if (value !== null) return fixed(value, decimals);
  if (!measured) return '–';
  const step = 10 ** decimals;
  const low = fixed(Math.floor(measured.low * step) / step, decimals);
  if (!Number.isFinite(measured.high)) return `at least ${low}`;
  return `${low}…${fixed(Math.ceil(measured.high * step) / step, decimals)}`;
}

/** What all ports gave together: metered with one number, from the socket with both ends. */
export function totalWords({ total, lines }: SplitRow): string {
  if (total === null) return 'not read';
  if (total.unstated.length > 0) return 'accuracy not stated';
  const sum = lines.reduce((all, { value }) => all + (value ?? Number.NaN), 0);
  return Number.isNaN(sum) ? `${shareWords({ value: null, measured: total }, 1)} W` : `${fixed(sum, 1)} W`;
}

/** What stands in one column or more of a row. */
export interface MatrixCell {
  readonly port: string;
  readonly span: number;
  /** Null where nothing of the set is. */
  readonly line: ShareLine | null;
}

/**
 * A row's shares over the columns: a shared one over all its ports where they stand side by side, else at its first.
 * @param ports columns, in physical order
 */
export function columnsOf({ lines }: SplitRow, ports: readonly string[]): MatrixCell[] {
  const cells: MatrixCell[] = [];
  for (let at = 0; at < ports.length; ) {
    const port = ports[at] ?? '';
    const line = lines.find(({ ports: own }) => own.includes(port)) ?? null;
    const places = line?.ports.map((one) => ports.indexOf(one)).sort((a, b) => a - b) ?? [];
    const together = places.every((place, index) => place === (places[0] ?? 0) + index);
    const first = places[0] === at;
    const span = line && first && together ? places.length : 1;
    cells.push({ port, span, line: first ? line : null });
    at += span;
  }
  return cells;
}
