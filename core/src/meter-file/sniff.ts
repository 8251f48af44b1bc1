// Finds out how a meter wrote its file: delimiter, decimal sign, header line, and what each column is.
import Papa from 'papaparse';
import { findUnit, parseDecimal, type QuantityId, quantityOf } from '../quantity/index.ts';
import { alikeUnit, headerParts, isRead, UNIT_NAME } from '../table/index.ts';
import { TIME_UNITS, timeForm } from './clock.ts';
import { byContents } from './contents.ts';
import { meterNumber } from './number.ts';

export type Delimiter = ',' | ';' | '\t' | '|';
export type DecimalSign = '.' | ',';

/** What a column can hold. Input is the mains side, output the port side. */
export const COLUMN_ROLES = {
  load: { label: 'Load point', quantity: null },
  'mains-volts': { label: 'Mains volts', quantity: 'voltage' },
  'mains-hertz': { label: 'Mains frequency', quantity: 'frequency' },
  'input-watts': { label: 'Input watts', quantity: 'power' },
  'power-factor': { label: 'Power factor', quantity: 'power-factor' },
  'output-volts': { label: 'Output volts', quantity: 'voltage' },
  'output-amps': { label: 'Output amps', quantity: 'current' },
  efficiency: { label: 'Efficiency, to compare', quantity: 'efficiency' },
  date: { label: 'Date', quantity: null },
  time: { label: 'Time', quantity: null },
  unit: { label: 'Unit of each line', quantity: null },
  ignore: { label: 'Not used', quantity: null },
} as const satisfies Record<string, { label: string; quantity: QuantityId | null }>;

export type ColumnRole = keyof typeof COLUMN_ROLES;

export interface Column {
  readonly name: string;
  readonly role: ColumnRole;
  /** Unit the numbers are written in. */
  readonly unit: string;
  /** Port of an output column; null elsewhere. */
  readonly port: string | null;
}

export interface FilePlan {
  readonly delimiter: Delimiter;
  readonly decimal: DecimalSign;
  /** 1-based line of the header. */
  readonly headerLine: number;
  readonly columns: readonly Column[];
}

const SAMPLE_CHARACTERS = 64_000;

const NAMES: readonly (readonly [ColumnRole, RegExp])[] = [
  ['load', /^(load|loadpoint|loadpct|loadpercent|point|step)$/],
  ['mains-hertz', /^(f|freq|fac|flyne|netzfrequenz|frequency|fin|fmains|hz|mainsfrequency|inputfrequency)$/],
  ['power-factor', /^(pf|pf1|powerfactor|lambda|lambda1|cosphi|cos)$/],
  ['efficiency', /^(eff|efficiency|eta|η)$/],
  ['date', /^(date|datum|day)$/],
  [
    'time',
    /^(t|time|times|timestamp|datetime|datetimeutc|timeutc|localtime|zeit|uhrzeit|zeitstempel|elapsed|elapsedtime|seconds|secs|epoch|unixtime|clock)$/,
  ],
  [
    'input-watts',
    /^(pin|pac|pmains|inputpower|powerin|inputwatts|wattsin|acpower|acwatts|acw|mainspower|mainswatts|activepower|wall|wallpower|wallwatts|socketpower|p1)$/,
  ],
  [
    'mains-volts',
    /^(vin|uin|vac|uac|acv|acvolts|acvoltage|vmains|umains|inputvoltage|inputvolts|mainsvoltage|mainsvolts|linevoltage|u1|v1)$/,
  ],
  [
    'output-volts',
    /^(vout|uout|vload|uload|vport|vbus|ubus|vdc|udc|dcv|dcvolts|dcvoltage|voltsout|voltageout|busvoltage|outputvoltage|outputvolts|loadvoltage|u2|v2)$/,
  ],
  [
    'output-amps',
    /^(iout|iload|iport|ibus|idc|dca|dcamps|dccurrent|ampsout|currentout|buscurrent|outputcurrent|outputamps|loadcurrent|i2)$/,
  ],
];

/** How a value was made of many: of what it is says the rest of the name. */
const STATISTIC = /^(?:avg|average|mean|rms|trms)$/i;
/** Units of what is no time. */
const OTHER_UNIT = /^(?:[mkµuμn]?[VAW]|k?Hz|%|(?:°|deg ?)?[CF]|K)$/;

const simplified = (text: string): string => text.toLowerCase().replace(/[^a-z0-9η]/g, '');

/** Guess what a column holds from its header. A port label in the name ties an output column to that port. */
export function guessColumn(cell: string, ports: readonly string[]): Column {
  const { name, unit } = headerParts(cell);
  const words = name.split(/[\s_.:-]+/);
  const port = ports.find((label) => words.some((word) => word.toLowerCase() === label.toLowerCase())) ?? null;
  const said = words.filter((word) => word.toLowerCase() !== port?.toLowerCase() && !STATISTIC.test(word));
  const bare = simplified(said.join(' '));
  const role = (isRead(name) && NAMES.find(([, pattern]) => pattern.test(bare))?.[0]) || 'ignore';
  const { quantity } = COLUMN_ROLES[role];
  // `T [°C]` is no time.
  if (role === 'time' && OTHER_UNIT.test(unit)) return { name, role: 'ignore', unit: '', port: null };
  if (role === 'time') return { name, role, unit: TIME_UNITS[unit] === undefined ? 's' : unit, port: null };
  // A load in amps or watts is what was set, and of which output it does not say: the current tells.
  if (role === 'load' && unit !== '' && unit !== '%') return { name, role: 'ignore', unit: '', port: null };
  if (!quantity) return { name, role, unit: role === 'load' ? '%' : '', port: null };
  const known = unit === '' ? undefined : findUnit(quantity, unit);
  if (unit !== '' && !known) return { name, role: 'ignore', unit: '', port: null };
  const output = role === 'output-volts' || role === 'output-amps';
  const usual = role === 'efficiency' && unit === '' ? '%' : quantityOf(quantity).usual;
  return { name, role, unit: known?.symbol ?? usual, port: output ? (port ?? ports[0] ?? null) : null };
}

/** A number, with or without a unit or prefix of its own. */
const isNumber = (cell: string): boolean =>
  !Number.isNaN(parseDecimal(cell)) || /^\s*[+-]?\d+(?:[.,]\d+)?\s*(?:[a-zA-Zµμ%°]{1,3})\s*$/.test(cell);

/** A cell that holds a unit or nothing. */
export const UNIT_CELL = /^[[(]?\s*(?:[mkµuμn]?[VAW]|k?Hz|%|°?[CF]|K|s|ms|min|h|Wh|[-–]|)\s*[\])]?$/;

/** A line below the names that holds nothing but units. */
const isUnitRow = (row: readonly string[]): boolean =>
  row.every((cell) => UNIT_CELL.test(cell.trim())) && row.some((cell) => /[VAWCFK]/.test(cell));

function countColumns(text: string, delimiter: Delimiter): { columns: number; agreeing: number; rows: string[][] } {
  const rows = Papa.parse<string[]>(text, { delimiter, preview: 200 }).data;
  const counts = new Map<number, number>();
  for (const row of rows) if (row.length > 1) counts.set(row.length, (counts.get(row.length) ?? 0) + 1);
  const [columns, agreeing] = [...counts.entries()].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0] ?? [1, 0];
  return { columns, agreeing, rows };
}

/** The header is the last line of words right above the first line of numbers; a line of units may stand between. */
function findHeader(rows: readonly string[][], columns: number): { readonly names: number; readonly last: number } {
  const numeric = (row: readonly string[]) => row.filter(isNumber).length;
  const first = rows.findIndex((row) => row.length === columns && numeric(row) * 2 >= columns);
  let units = -1;
  for (let index = (first < 0 ? rows.length : first) - 1; index >= 0; index -= 1) {
    const row = rows[index];
    if (!row || row.length !== columns || !row.some((cell) => cell.trim() !== '')) continue;
    if (units < 0 && isUnitRow(row)) units = index;
    else if (numeric(row) === 0) return { names: index, last: Math.max(index, units) };
  }
  return { names: -1, last: -1 };
}

/** Names with the units of the line below them, as one header. */
const withUnits = (names: readonly string[], units: readonly string[] | undefined): string[] =>
  names.map((name, index) => {
    const unit = (units?.[index] ?? '').replace(/[[\]()\s]/g, '');
    return unit === '' || /^[-–]$/.test(unit) ? name : `${name} [${unit}]`;
  });

const MEASURED = ['voltage', 'current', 'power', 'frequency'] as const;

/** The unit a column of units beside says of each column, the first of them where a meter chose its range; empty for none. */
function unitsBeside(names: readonly string[], rows: readonly (readonly string[])[]): string[] {
  return names.map((_, index) => {
    const name = names[index + 1];
    if (name === undefined || !UNIT_NAME.test(headerParts(name).name)) return '';
    const units = rows.map((row) => (row[index + 1] ?? '').trim()).filter((unit) => unit !== '');
    return alikeUnit(units, MEASURED);
  });
}

/**
 * Work out a plan for a meter file, to be shown and corrected before anything is kept.
 * @param ports labels of the outputs the file can speak of; output columns without a label go to the first
 * @returns the plan, or the reason no table was found
 */
export function sniffFile(text: string, ports: readonly string[]): FilePlan | { readonly reason: string } {
  const sample = text.replace(/^\ufeff/, '').slice(0, SAMPLE_CHARACTERS);
  if (sample.trim() === '') return { reason: 'The file is empty.' };
  const tried = ([';', '\t', ',', '|'] as const).map((delimiter) => ({
    delimiter,
    ...countColumns(sample, delimiter),
  }));
  const best = tried
    .filter((one) => one.columns > 1)
    .sort((a, b) => b.agreeing - a.agreeing || b.columns - a.columns)[0];
  if (!best) return { reason: 'No table found: the lines have no comma, semicolon, tab or stroke between values.' };
  const header = findHeader(best.rows, best.columns);
  const names = best.rows[header.names];
  if (!names) return { reason: 'No header line found above the numbers. Give every column a name, such as Vin [V].' };
  const rows = best.rows.slice(header.last + 1).filter((row) => row.length === best.columns);
  const beside = unitsBeside(names, rows);
  const below = header.last > header.names ? best.rows[header.last] : undefined;
  const cells = withUnits(
    names,
    names.map((_, index) => beside[index] || (below?.[index] ?? '')),
  );
  const body = rows.flat();
  const commas = body.filter((cell) => /^\s*[+-]?\d+,\d+\s*[a-zA-Zµμ%]*\s*$/.test(cell)).length;
  const dots = body.filter((cell) => /^\s*[+-]?\d+\.\d+\s*[a-zA-Zµμ%]*\s*$/.test(cell)).length;
  // Between commas, numbers with a comma stand in quotes: three digits behind each may be thousands.
  const sure = best.delimiter !== ',' || body.some((cell) => /^\s*[+-]?\d+,(?!\d{3}\s*$)\d+\s*$/.test(cell));
  const decimal = commas > dots && sure ? ',' : '.';
  const named = cells.map((cell, index): Column => {
    const column = guessColumn(cell, ports);
    return beside[index - 1] ? { ...column, role: 'unit', unit: '', port: null } : column;
  });
  const units = cells.map((cell) => headerParts(cell).unit);
  const numbers = rows.filter((row) => row.some(isNumber));
  return {
    delimiter: best.delimiter,
    decimal,
    headerLine: header.last + 1,
    columns: byContents(
      asRatios(oneTime(named, numbers), units, numbers, decimal === ','),
      units,
      numbers,
      decimal === ',',
      ports,
    ),
  };
}

/** Most a ratio is where per cent would be a hundred: a load of 1, an efficiency of 0.9. */
const MOST_RATIO = 1.1;

/** Loads and efficiencies without a unit are ratios where none of them is more than a ratio can be. */
function asRatios(
  columns: readonly Column[],
  units: readonly string[],
  rows: readonly (readonly string[])[],
  comma: boolean,
): Column[] {
  return columns.map((column, index) => {
    if ((column.role !== 'load' && column.role !== 'efficiency') || units[index] !== '') return column;
    const values = rows.map((row) => meterNumber(row[index] ?? '', comma)).filter((value) => value > 0);
    return values.length > 0 && values.every((value) => value <= MOST_RATIO) ? { ...column, unit: '' } : column;
  });
}

/** Of several columns of time the one with its date counts, else the first. */
function oneTime(columns: readonly Column[], rows: readonly (readonly string[])[]): Column[] {
  const times = columns.flatMap(({ role }, index) => (role === 'time' ? [index] : []));
  const dates = columns.flatMap(({ role }, index) => (role === 'date' ? [index] : []));
  const kept = times.find((index) => timeForm(rows[0]?.[index] ?? '') === 'date') ?? times[0];
  return columns.map((column, index) =>
    (column.role === 'time' && index !== kept) || (column.role === 'date' && index !== dates[0])
      ? { ...column, role: 'ignore', unit: '' }
      : column,
  );
}

/** Key under which a column mapping is remembered: the header as the meter writes it. */
export const headerKey = (columns: readonly Pick<Column, 'name'>[]): string =>
  columns.map((column) => column.name.trim().toLowerCase()).join('|');
