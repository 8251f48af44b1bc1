// Columns found by what they hold, where their names say nothing: watts are volts times amps, input is more than output.
import { findUnit, type QuantityId } from '../quantity/index.ts';
import { isDataLine, isRead } from '../table/index.ts';
import { meterNumber } from './number.ts';
import { ownUnit } from './own-unit.ts';
import type { Column } from './sniff.ts';

interface Candidate {
  readonly index: number;
  readonly quantity: QuantityId | null;
  /** SI where the unit is known, as written where it is not; NaN where the cell is no number. */
  readonly values: readonly number[];
}

const QUANTITIES = ['voltage', 'current', 'power'] as const satisfies readonly QuantityId[];
/** Part of the lines that must bear a finding out. */
const MOST_LINES = 0.8;
/** Output below this says nothing about its ratio to the input, W. */
const LEAST_WATTS = 0.5;

const median = (values: readonly number[]): number => {
  const sorted = values.filter(Number.isFinite).sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? Number.NaN;
};

/** Lines counted one by one, or a time that only grows by the same step: no reading. */
function isCount(values: readonly number[]): boolean {
  const steps = values.slice(1).map((value, at) => value - (values[at] ?? Number.NaN));
  return (
    steps.length > 1 && steps.every((step) => step > 0 && Math.abs(step - (steps[0] ?? 0)) < 1e-9 * Math.abs(step))
  );
}

const share = (lines: readonly boolean[]): number =>
  lines.length === 0 ? 0 : lines.filter(Boolean).length / lines.length;

function candidatesOf(
  columns: readonly Column[],
  units: readonly string[],
  rows: readonly (readonly string[])[],
  comma: boolean,
): Candidate[] {
  return columns.flatMap(({ role, name }, index): Candidate[] => {
    if (
      role !== 'ignore' ||
      !isRead(name) ||
      isDataLine(name) ||
      /time|date|zeit|datum|stamp|elapsed|^#|^no\b|index|sample/i.test(name)
    )
      return [];
    const written = units[index] ?? '';
    const quantity = written === '' ? null : (QUANTITIES.find((one) => findUnit(one, written)) ?? null);
    if (written !== '' && quantity === null) return [];
    const factor = quantity === null ? 1 : (findUnit(quantity, written)?.factor ?? 1);
    const values = rows.map((row) => {
      const cell = row[index] ?? '';
      const plain = meterNumber(cell, comma) * factor;
      if (!Number.isNaN(plain)) return plain;
      return QUANTITIES.map((one) => ownUnit(cell, comma, one)).find((one) => !Number.isNaN(one)) ?? Number.NaN;
    });
    if (share(values.map(Number.isFinite)) < MOST_LINES || isCount(values)) return [];
    return [{ index, quantity, values }];
  });
}

const may = ({ quantity }: Candidate, wanted: QuantityId): boolean => quantity === null || quantity === wanted;

interface Pair {
  readonly volts: Candidate;
  readonly amps: Candidate;
  /** A column that holds their product. */
  readonly product: Candidate | null;
}

const within = (value: number, low: number, high: number): boolean => value >= low && value <= high;

/** Volts and amps of an output: proven by a column of their product, or else by where they lie. */
function outputPair(free: readonly Candidate[]): Pair | null {
  const volts = free.filter((one) => may(one, 'voltage') && within(median(one.values), 2.5, 60));
  const amps = free.filter(
    (one) => may(one, 'current') && within(Math.max(...one.values.filter(Number.isFinite)), 0.02, 20),
  );
  for (const v of volts)
    for (const a of amps) {
      if (a === v) continue;
      const product = free.find(
        (one) =>
          one !== v &&
          one !== a &&
          may(one, 'power') &&
          share(
            v.values.map((value, at) => {
              const watts = value * (a.values[at] ?? Number.NaN);
              return Math.abs(watts - (one.values[at] ?? Number.NaN)) <= 0.03 * Math.max(watts, 0.1);
            }),
          ) >= MOST_LINES,
      );
      if (product) return { volts: v, amps: a, product };
    }
  // Without a product only units tell volts from amps for sure.
  const sure = volts.filter(({ quantity }) => quantity === 'voltage');
  const told = amps.filter(({ quantity }) => quantity === 'current');
  const [v, more] = sure;
  const [a, others] = told;
  return v && a && !more && !others ? { volts: v, amps: a, product: null } : null;
}

/**
 * Give the columns that are missing to those that hold them. What a name said stays; what is not certain stays open.
 * @param units units as the headers write them, by column
 * @param rows lines below the header
 * @param ports outputs of the file; only a file of one output is looked into
 */
export function byContents(
  columns: readonly Column[],
  units: readonly string[],
  rows: readonly (readonly string[])[],
  comma: boolean,
  ports: readonly string[],
): readonly Column[] {
  const has = (role: Column['role']) => columns.some((column) => column.role === role);
  const free = candidatesOf(columns, units, rows, comma);
  const port = ports[0] ?? null;
  const given = new Map<number, Pick<Column, 'role' | 'port'>>();
  const valuesOf = (role: Column['role']): readonly number[] | null => {
    const index = columns.findIndex((column) => column.role === role);
    const column = columns[index];
    if (!column) return null;
    const quantity = role === 'output-amps' ? 'current' : role === 'output-volts' ? 'voltage' : 'power';
    const factor = findUnit(quantity, column.unit)?.factor ?? 1;
    return rows.map((row) => meterNumber(row[index] ?? '', comma) * factor);
  };
  let volts = valuesOf('output-volts');
  let amps = valuesOf('output-amps');
  let product: Candidate | null = null;
  if (ports.length === 1 && !volts && !amps) {
    const pair = outputPair(free.filter((one) => !within(median(one.values), 80, 280) || one.quantity !== 'voltage'));
    if (pair) {
      given.set(pair.volts.index, { role: 'output-volts', port });
      given.set(pair.amps.index, { role: 'output-amps', port });
      volts = pair.volts.values;
      amps = pair.amps.values;
      product = pair.product;
    }
  }
  const left = free.filter((one) => !given.has(one.index) && one !== product);
  if (!has('mains-volts')) {
    const mains = left.find(
      (one) =>
        may(one, 'voltage') &&
        within(median(one.values), 80, 280) &&
        share(one.values.map((value) => Math.abs(value / median(one.values) - 1) < 0.2)) >= 0.4,
    );
    if (mains) given.set(mains.index, { role: 'mains-volts', port: null });
  }
  if (!has('input-watts') && volts && amps) {
    const output = volts.map((value, at) => value * (amps[at] ?? Number.NaN));
    const inputs = left.filter((candidate) => {
      if (given.has(candidate.index) || !may(candidate, 'power')) return false;
      const lines = output.flatMap((watts, at) =>
        watts > LEAST_WATTS ? [watts / (candidate.values[at] ?? Number.NaN)] : [],
      );
      return lines.length > 0 && share(lines.map((ratio) => within(ratio, 0.4, 0.995))) >= MOST_LINES;
    });
    const [only, second] = inputs;
    if (only && !second) given.set(only.index, { role: 'input-watts', port: null });
  }
  return columns.map((column, index) => {
    const found = given.get(index);
    if (!found) return column;
    const quantity = found.role === 'output-amps' ? 'current' : found.role === 'input-watts' ? 'power' : 'voltage';
    const unit = findUnit(quantity, units[index] ?? '')?.symbol ?? { voltage: 'V', current: 'A', power: 'W' }[quantity];
    return { ...column, ...found, unit };
  });
}
