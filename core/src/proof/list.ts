// Proof steps from a CSV list: one step a line, readings beside what was set.
import { parseDecimal, parseQuantity, type QuantityId, quantityOf } from '../quantity/index.ts';
import type { Output, Place } from '../reading/index.ts';
import { type HeadedRow, headedRows, type QuantityHeads, quantityHeads } from '../table/index.ts';

/** One reading of a line, as written. */
export interface ListedReading {
  readonly quantity: QuantityId;
  readonly place: Place;
  readonly port: string | null;
  readonly typed: string;
}

/** One line as a step with its readings. */
export interface ListedStep {
  readonly line: number;
  readonly output: Output;
  readonly load: 0 | 1;
  readonly readings: readonly ListedReading[];
}

export interface StepList {
  readonly steps: readonly ListedStep[];
  /** What could not be read, line by line. */
  readonly bad: readonly { readonly line: number; readonly reason: string }[];
  /** Heads about a place that hold nothing a step is made of. */
  readonly unread: readonly string[];
}

/** Columns of the list, in the order the example has them. */
export const LIST_COLUMNS = [
  'port',
  'set_V',
  'load_A',
  'port_V',
  'port_A',
  'end_V',
  'end_A',
  'display_V',
  'display_A',
  'mains_W',
] as const;

const READING_COLUMNS: Readonly<Record<string, { readonly quantity: QuantityId; readonly place: Place }>> = {
  port_v: { quantity: 'voltage', place: 'port' },
  port_a: { quantity: 'current', place: 'port' },
  end_v: { quantity: 'voltage', place: 'load-end' },
  end_a: { quantity: 'current', place: 'load-end' },
  display_v: { quantity: 'voltage', place: 'display' },
  display_a: { quantity: 'current', place: 'display' },
  mains_w: { quantity: 'power', place: 'mains' },
};

/** Names of the columns that hold a quantity. */
const NAMES = ['set', 'load', 'port', 'end', 'display', 'mains'];

function stepOf(
  { cells: row, line }: HeadedRow,
  ports: readonly string[],
  { unitOf }: QuantityHeads,
): ListedStep | string {
  const port = ports.find((label) => label.toLowerCase() === (row.port ?? '').trim().toLowerCase());
  if (!port) return `there is no port "${(row.port ?? '').trim()}"; the ports are ${ports.join(', ')}.`;
  const volts = parseQuantity(row.set_v ?? '', 'voltage', unitOf('set_v'));
  if (!volts.ok) return `set_V: ${volts.reason}`;
  if (!(volts.value > 0)) return 'set_V is above zero.';
  const amps = parseQuantity(row.load_a ?? '', 'current', unitOf('load_a'));
  if (!amps.ok) return `load_A: ${amps.reason}`;
  if (amps.value < 0) return 'load_A is not negative.';
  const readings: ListedReading[] = [];
  for (const [column, { quantity, place }] of Object.entries(READING_COLUMNS)) {
    const written = (row[column] ?? '').trim();
    if (written === '') continue;
    const unit = unitOf(column);
    // A number takes the unit of its column along.
    const bare = unit !== undefined && unit !== quantityOf(quantity).usual && !Number.isNaN(parseDecimal(written));
    const typed = bare ? `${written} ${unit}` : written;
    const parsed = parseQuantity(typed, quantity);
    if (!parsed.ok) return `${column}: ${parsed.reason}`;
    readings.push({ quantity, place, port: place === 'mains' ? null : port, typed });
  }
  if (readings.length === 0) return 'there is no reading on it.';
  return { line, output: { port, volts: volts.value, amps: amps.value }, load: amps.value === 0 ? 0 : 1, readings };
}

/**
 * Read a list of proof steps. Columns in any order, any delimiter, either decimal sign, units allowed in the cells.
 * Never throws; a line that cannot be read is listed with its number and the reason.
 * @param known levels the sample's steps load, so that a line without load finds its level
 */
export function readStepList(text: string, ports: readonly string[], known: readonly Output[] = []): StepList {
  const columns = quantityHeads(NAMES);
  const { heads, rows } = headedRows(text, columns.asHead);
  const missing = ['port', 'set_v', 'load_a'].filter((name) => !heads.includes(name));
  if (missing.length > 0)
    return {
      steps: [],
      unread: [],
      bad: [{ line: 1, reason: `the columns ${missing.join(', ')} are missing from the first line.` }],
    };
  const steps: ListedStep[] = [];
  const bad = columns.wrong.map((reason) => ({ line: 1, reason }));
  for (const row of rows) {
    const step = stepOf(row, ports, columns);
    if (typeof step === 'string') bad.push({ line: row.line, reason: step });
    else steps.push(step);
  }
  // A level read without load belongs to the loaded step of the same level.
  const loaded = [...steps.filter(({ load }) => load === 1).map(({ output }) => output), ...known];
  const placed = steps.flatMap((step): ListedStep[] => {
    if (step.load === 1) return [step];
    const output = loaded.find(
      ({ port, volts }) => port === step.output.port && Math.abs(volts - step.output.volts) < 1e-3,
    );
    if (output) return [{ ...step, output }];
    bad.push({ line: step.line, reason: 'no step loads this level; add the loaded line too.' });
    return [];
  });
  const unread = columns.unread(LIST_COLUMNS.map((one) => one.toLowerCase()));
  return { steps: placed, bad: bad.sort((a, b) => a.line - b.line), unread };
}
