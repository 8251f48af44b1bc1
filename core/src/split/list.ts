// Combinations from a CSV list: one a line, ports in the order they were plugged in.

import { parseQuantity } from '../quantity/index.ts';
import type { SplitShare } from '../run/index.ts';
import { type HeadedRow, headedRows, type QuantityHeads, quantityHeads } from '../table/index.ts';
import { portsIn, twiceIn } from './promises.ts';

export interface ListedSplit {
  readonly line: number;
  readonly order: readonly string[];
  readonly shares: readonly SplitShare[];
  readonly mainsWatts: number | null;
}

export interface SplitList {
  readonly splits: readonly ListedSplit[];
  readonly bad: readonly { readonly line: number; readonly reason: string }[];
  /** Heads about a port or the mains that hold nothing a combination is made of. */
  readonly unread: readonly string[];
}

/** Heads of the list for a sample, as the example has them: `order,mains_W,C1_V,C1_A,…`. */
export const splitColumns = (ports: readonly string[]): readonly string[] => [
  'order',
  'mains_W',
  ...ports.flatMap((port) => [`${port}_V`, `${port}_A`]),
];

const keyOf = (name: string) => name.toLowerCase().replace(/\s+/g, '_');

function splitOf(
  { cells: row, line }: HeadedRow,
  ports: readonly string[],
  { unitOf }: QuantityHeads,
): ListedSplit | string {
  const cell = (name: string) => (row[keyOf(name)] ?? '').trim();
  const order = portsIn(cell('order'), ports);
  if (!order) return `order names ports of this sample, such as ${ports.slice(0, 2).join('+')}.`;
  const twice = twiceIn(order);
  if (twice) return `order names ${twice} twice.`;
  const read = (name: string, quantity: 'voltage' | 'current' | 'power'): number | null | string => {
    if (cell(name) === '') return null;
    const parsed = parseQuantity(cell(name), quantity, unitOf(keyOf(name)));
    return parsed.ok ? parsed.value : `${name}: ${parsed.reason}`;
  };
  const mainsWatts = read('mains_W', 'power');
  if (typeof mainsWatts === 'string') return mainsWatts;
  const shares: SplitShare[] = [];
  for (const port of order) {
    const volts = read(`${port}_V`, 'voltage');
    const amps = read(`${port}_A`, 'current');
    if (typeof volts === 'string') return volts;
    if (typeof amps === 'string') return amps;
    shares.push({ port, volts, amps, light: false });
  }
  if (mainsWatts === null && shares.every(({ volts }) => volts === null)) return 'there is no reading on it.';
  return { line, order, shares, mainsWatts };
}

/** Read a list of combinations. Never throws; what cannot be read is listed with its line and the reason. */
export function readSplitList(text: string, ports: readonly string[]): SplitList {
  const columns = quantityHeads(['mains', ...ports]);
  const { heads, rows } = headedRows(text, columns.asHead);
  if (!heads.includes('order'))
    return {
      splits: [],
      bad: [{ line: 1, reason: `the column order is missing; the heads are ${splitColumns(ports).join(', ')}.` }],
      unread: [],
    };
  const splits: ListedSplit[] = [];
  const bad = columns.wrong.map((reason) => ({ line: 1, reason }));
  for (const row of rows) {
    const one = splitOf(row, ports, columns);
    if (typeof one === 'string') bad.push({ line: row.line, reason: one });
    else splits.push(one);
  }
  return { splits, bad, unread: columns.unread(splitColumns(ports).map(keyOf)) };
}
