// The newest line of a file that another program is still writing, as numbers.
import Papa from 'papaparse';
import { findUnit, type QuantityId, toSi, type Unit, ZERO_CELSIUS } from '../quantity/index.ts';
import { isDataLine, isRead } from '../table/index.ts';
import { meterNumber } from './number.ts';
import { isOverload, ownUnit, withBeside } from './own-unit.ts';
import { writtenUnits } from './recall.ts';
import { type ColumnRole, type FilePlan, sniffFile } from './sniff.ts';

type Quantity = Extract<QuantityId, 'voltage' | 'current' | 'power' | 'power-factor' | 'temperature'>;

interface Kept {
  readonly name: string;
  readonly role: ColumnRole;
  readonly quantity: Quantity | null;
  readonly unit: Unit | undefined;
}

/** How the lines of a growing file are to be read. */
export interface FollowPlan {
  readonly delimiter: string;
  readonly comma: boolean;
  readonly columns: readonly Kept[];
}

/** Numbers of one line, SI; temperatures in °C. NaN for what it does not hold or what is no number. */
export interface NewestLine {
  readonly output: { readonly volts: number; readonly amps: number };
  readonly input: {
    readonly watts: number;
    readonly volts: number;
    readonly amps: number;
    readonly powerFactor: number;
  };
  /** Every column of a temperature, in the order of the file. */
  readonly celsius: readonly number[];
  /** Every column by its name. */
  readonly named: ReadonlyMap<string, number>;
}

const BY_NAME: readonly (readonly [Quantity, RegExp])[] = [
  ['power-factor', /^(pf|power ?factor|lambda|cos)/i],
  ['power', /power|watt|^p\d*$|^p[ _]?(in|out)$/i],
  ['voltage', /volt|^[vu]\d*$|^[vu][ _]?(in|out|bus|ac|dc)$/i],
  ['current', /curr|amp|^i\d*$|^i[ _]?(in|out|bus|ac|dc)$/i],
  ['temperature', /temp|celsius/i],
];
const BY_UNIT = ['voltage', 'current', 'power', 'temperature'] as const;
const USUAL: Readonly<Record<Quantity, string>> = {
  voltage: 'V',
  current: 'A',
  power: 'W',
  'power-factor': '',
  temperature: '°C',
};

/** Cells of the header: the line the plan names, with a line of units below the names already in it. */
function keptOf(column: FilePlan['columns'][number], written: string): Kept {
  const { name, role } = column;
  const byUnit = written === '' ? undefined : BY_UNIT.find((one) => findUnit(one, written));
  const byName = BY_NAME.find(([, pattern]) => pattern.test(name))?.[0];
  const quantity = byUnit ?? (written === '' ? (byName ?? null) : null);
  return { name, role, quantity, unit: quantity ? findUnit(quantity, written || USUAL[quantity]) : undefined };
}

/**
 * Work out how a growing file is written, from its beginning.
 * @param head its first lines, with at least one line of numbers
 * @returns the plan, or the reason nothing can be read from it
 */
export function followPlan(head: string): FollowPlan | { readonly reason: string } {
  const plan = sniffFile(head, ['']);
  if ('reason' in plan) return plan;
  const units = writtenUnits(head, plan);
  const columns = plan.columns.map((column, index) => keptOf(column, units[index] ?? ''));
  if (!columns.some(({ quantity }) => quantity))
    return { reason: 'No column is a voltage, current, power or temperature.' };
  return { delimiter: plan.delimiter, comma: plan.decimal === ',', columns };
}

/** The numbers of one line. See {@link NewestLine}. */
export function newestLine({ delimiter, comma, columns }: FollowPlan, line: string): NewestLine {
  const cells = Papa.parse<string[]>(line, { delimiter }).data[0] ?? [];
  const values = columns.map(({ quantity, unit }, index) => {
    const beside = columns[index + 1]?.role === 'unit' ? cells[index + 1] : '';
    const cell = withBeside(cells[index] ?? '', beside ?? '', comma);
    if (isOverload(cell)) return Number.NaN;
    const plain = meterNumber(cell, comma);
    if (!quantity) return plain;
    const si = Number.isNaN(plain) ? ownUnit(cell, comma, quantity) : unit ? toSi(plain, unit) : plain;
    return quantity === 'temperature' ? si - ZERO_CELSIUS : si;
  });
  const at = (role: ColumnRole | null, quantity: Quantity, other?: ColumnRole): number => {
    const own = role === null ? -1 : columns.findIndex((column) => column.role === role);
    const index =
      own >= 0
        ? own
        : columns.findIndex(
            ({ name, ...one }) => one.quantity === quantity && one.role !== other && isRead(name) && !isDataLine(name),
          );
    return values[index] ?? Number.NaN;
  };
  return {
    output: { volts: at('output-volts', 'voltage', 'mains-volts'), amps: at('output-amps', 'current') },
    input: {
      watts: at('input-watts', 'power'),
      volts: at('mains-volts', 'voltage', 'output-volts'),
      amps: at(null, 'current', 'output-amps'),
      powerFactor: at('power-factor', 'power-factor'),
    },
    celsius: values.filter((_, index) => columns[index]?.quantity === 'temperature'),
    named: new Map(columns.map(({ name }, index) => [name, values[index] ?? Number.NaN])),
  };
}
