// The beginning of a trace file: where its table starts, how it is written, what its columns hold and what stands above.

import { secondsOf, TIME_UNITS, type TimeForm, timeForm } from '../meter-file/index.ts';
import { findUnit, type QuantityId, type Unit, ZERO_CELSIUS } from '../quantity/index.ts';
import { alikeUnit, UNIT_NAME } from '../table/index.ts';
import { INDEX_NAME, nameAndUnit, quantityByName, TIME_NAME, unitWritten, words } from './names.ts';
import { factsOf, INTERVAL, statedInterval, statedUnits } from './preamble.ts';
import {
  cellsOf,
  counts,
  EMPTY,
  type Found,
  findTable,
  isDay,
  isNumber,
  isRow,
  LOOKED_AT,
  NUMBER,
  rises,
  unitInCell,
} from './table.ts';
import type { ChannelQuantity, TraceFacts } from './types.ts';

export interface HeadColumn {
  readonly name: string;
  readonly role: 'time' | 'index' | 'value' | 'ignore';
  readonly form: TimeForm;
  readonly quantity: ChannelQuantity | null;
  readonly unit: string;
  /** The column that says the unit of each cell; null for none. */
  readonly unitAt: number | null;
  /** Of a clock: the column of the day it is of; null for none. */
  readonly dayAt: number | null;
  /** Its cells are numbers alone, without units of their own. */
  readonly bare: boolean;
  /** Written number × factor + offset is what is kept. */
  readonly factor: number;
  readonly offset: number;
}

export interface Head {
  readonly delimiter: number;
  readonly comma: boolean;
  /** 0-based line of the first numbers. */
  readonly firstLine: number;
  /** Lines above the numbers, as written: met again further down they are passed over. */
  readonly above: ReadonlySet<string>;
  readonly columns: readonly HeadColumn[];
  /** s between samples, where it is stated above. */
  readonly interval: number | null;
  readonly facts: TraceFacts;
}

const BY_UNIT: readonly (readonly [ChannelQuantity, QuantityId])[] = [
  ['voltage', 'voltage'],
  ['current', 'current'],
  ['power', 'power'],
  ['temperature', 'temperature'],
  ['energy', 'energy'],
];

const KEPT = BY_UNIT.map(([, id]) => id);
const unitOf = (quantity: QuantityId, written: string): Unit | undefined => findUnit(quantity, written);
/** Units nothing here is kept in: they tell a line of units all the same. */
const FURTHER = /^(?:[mµuk]?(?:Ah|Ω|ohms?|VA|var|F|H)|hPa|mbar|lx|dBA?|ppm|rpm|°|deg|counts?|-)$/i;
const isUnit = (text: string): boolean =>
  text in TIME_UNITS || /^(?:%|[kM]?Hz)$/.test(text) || BY_UNIT.some(([, id]) => unitOf(id, text) !== undefined);

/** What a column of values holds, by its unit and else by its name. */
export function valueColumn(
  name: string,
  unit: string,
  cells: readonly string[] = [],
): Pick<HeadColumn, 'quantity' | 'factor' | 'offset'> & { readonly unit?: string } {
  for (const [quantity, id] of BY_UNIT) {
    const found = unit === '' ? undefined : unitOf(id, unit);
    if (!found) continue;
    if (quantity === 'temperature')
      return { quantity, factor: found.factor, offset: (found.offset ?? 0) - ZERO_CELSIUS };
    // Energy is kept in Wh, as people say it.
    if (quantity === 'energy') return { quantity, factor: found.factor / 3600, offset: 0 };
    return { quantity, factor: found.factor, offset: 0 };
  }
  // Numbers of a converter are no volts.
  if (unit === '' && /\b(?:adc|raw|counts|codes?|lsb)\b/i.test(words(name)))
    return { quantity: null, factor: 1, offset: 0, unit: 'counts' };
  const named = quantityByName(name);
  const level = { quantity: 'level', offset: 0 } as const;
  if (unit === '%' || (named === 'level' && /^0\s*\D{1,3}\s*100$/.test(unit)))
    return { ...level, factor: 0.01, unit: '%' };
  if (named === 'level' && /^(?:0\s*\D{1,3}\s*1|1|fraction|ratio)$/i.test(unit))
    return { ...level, factor: 1, unit: '1' };
  if (named === 'level' && unit === '') {
    // A level that never passes 1 and has decimals is a part of the whole: no device tells hundredths of one per cent.
    const parts =
      !/percent/i.test(name) && cells.length > 0 && cells.every((cell) => Number(cell.replace(',', '.')) <= 1);
    return parts && cells.some((cell) => /[.,]\d/.test(cell))
      ? { ...level, factor: 1, unit: '1' }
      : { ...level, factor: 0.01 };
  }
  return { quantity: unit === '' ? named : null, factor: 1, offset: 0 };
}

/**
 * The unit a column of units says of the one before: the same in every cell, or one of the same quantity, as meters that
 * choose their range write it. Empty for none.
 */
function unitIn(cells: readonly string[]): string {
  const units = cells.filter((cell) => cell !== '').map(unitWritten);
  const [first = ''] = units;
  return alikeUnit(units, KEPT) || (isUnit(first) && units.every((unit) => unit === first) ? first : '');
}

/**
 * Unit of times that state none: as samples are so far apart as stated, where one prefix makes it so; counts since 1970, in
 * seconds or milliseconds. Empty where nothing tells.
 */
function impliedUnit(cells: readonly string[], comma: boolean, interval: number | null): string {
  const times = cells.map((cell) => Number(comma ? cell.replace(',', '.') : cell));
  const [first, last] = [times[0] ?? Number.NaN, times.at(-1) ?? Number.NaN];
  if (first > 1e11 && first < 1e14) return 'ms';
  if (first > 1e9 && first < 1e10) return 's';
  if (interval === null) return '';
  const step = (last - first) / (times.length - 1);
  return ['s', 'ms', 'µs', 'ns'].find((unit) => Math.abs((step * (TIME_UNITS[unit] ?? 1)) / interval - 1) < 0.01) ?? '';
}

/**
 * The unit cells have of their own, where all of them have one of the same quantity: `980 mA` above `1.02 A`. What a column
 * without a name holds is told by nothing else.
 * @returns the first one; empty where they have none, or no more than a prefix; null for what no channel holds, `50.0 Hz`
 */
function unitOfCells(cells: readonly string[]): string | null {
  const units = cells.filter((cell) => !EMPTY.test(cell)).map(unitInCell);
  const [first = ''] = units;
  if (units.includes('')) return '';
  if (units.every((unit) => unit === '%')) return first;
  return alikeUnit(units, KEPT) || (/(?:Hz|s)$/.test(first) ? null : '');
}

/** Of a date beside a clock only the clock goes on. */
const goesOn = (cells: readonly string[]): boolean => cells.length < 2 || cells.some((cell) => cell !== cells[0]);

/** The column of days beside one of clock times; negative for none. */
function dayBeside(heads: readonly { readonly cells: readonly string[] }[]): number {
  const clock = heads.some(({ cells }) => timeForm(cells[0] ?? '') === 'clock');
  return clock ? heads.findIndex(({ cells }) => isDay(cells[0] ?? '')) : -1;
}

/** Names of what stands once, in the line below. */
const NO_COLUMN = new RegExp(`${INTERVAL.source}|^(?:x[\\s_-]*)?(?:start|origin|offset)`, 'i');

/** A line that says something, "Sample rate: 5 MSa/s", and heads no columns. */
const STATEMENT = /[:=]\s*[+-]?\d/;

/** Lines of names and units right above the table. */
function namesOf(lines: readonly string[], { delimiter, first, width }: Found): { names: string[]; units: string[] } {
  const fits = (line: string | undefined) => {
    const cells = line === undefined ? [] : cellsOf(line.replace(/^#\s*/, ''), delimiter);
    if (line !== undefined && STATEMENT.test(line)) return null;
    return cells.some((cell) => cell !== '') && cells.length >= width - 1 && cells.length <= width + 1 && !isRow(cells)
      ? cells
      : null;
  };
  const above: string[][] = [];
  for (let at = first - 1; at >= Math.max(0, first - 4); at -= 1) {
    if (above.length === 0 && lines[at]?.trim() === '') continue;
    const cells = fits(lines[at]);
    // Over an empty line only what heads every column heads them.
    if (!cells || (above.length === 0 && at < first - 1 && cells.length < width)) break;
    above.unshift(cells);
  }
  const clean = (cell: string) => unitWritten(cell.replace(/[[\]()]/g, '').trim());
  // Beside units may stand what counts, and numbers that belong to names of the line above.
  const isUnits = (cells: readonly string[]) =>
    cells.some((cell) => isUnit(clean(cell))) &&
    cells.every(
      (cell) =>
        cell === '' || isUnit(clean(cell)) || FURTHER.test(clean(cell)) || INDEX_NAME.test(cell) || isNumber(cell),
    );
  const units = above.findIndex(isUnits);
  const named = above.filter((_, at) => at !== units);
  return { names: named.at(-1) ?? above[units] ?? [], units: units < 0 ? [] : (above[units] ?? []).map(clean) };
}

/**
 * Read the beginning of a trace file: any delimiter, either decimal sign, lines above, names with or without units.
 * @param text its first lines, whole
 * @returns how to read the rest, or why there is no table
 */
export function readHead(text: string): Head | { readonly reason: string } {
  if (text.trim() === '') return { reason: 'The file is empty.' };
  const lines = text.split(/\r?\n|\r/).slice(0, LOOKED_AT);
  const found = findTable(lines);
  if (!found) return { reason: 'No table of numbers found. Give one line a sample: time, then values.' };
  const { delimiter, first, width, lead } = found;
  const rows = lines
    .slice(first)
    .map((line) => cellsOf(line, delimiter))
    .filter((row) => row.length === width && isRow(row.slice(lead)));
  const column = (at: number) => rows.map((row) => row[at] ?? '');
  const cells = rows.flatMap((row) => row.slice(lead));
  const commas = cells.filter((cell) => /^[+-]?\d*,\d/.test(cell)).length;
  const points = cells.filter((cell) => /^[+-]?\d*\.\d/.test(cell)).length;
  const comma = delimiter !== ',' && commas > points;
  const { names, units } = namesOf(lines, found);
  const above = lines.slice(0, first).filter((line) => line.trim() !== '');
  const beside = lead > 0 ? lines.slice(first).map((line) => cellsOf(line, delimiter).slice(0, lead)) : [];
  const said = [...above.map((line) => cellsOf(line, delimiter)), ...beside];
  const interval = statedInterval(said);
  const statedAbove = statedUnits(said);
  const told = Array.from({ length: width }, (_, at) => nameAndUnit(names[at] ?? ''));
  const heads = told.map((parts, at) => {
    // Several of one name are told apart by their number.
    const before = told.slice(0, at).filter(({ name }) => name === parts.name).length;
    const name = parts.name !== '' && before > 0 ? `${parts.name} ${before + 1}` : parts.name;
    const beside = at + 1 < width && UNIT_NAME.test(words(names[at + 1] ?? '')) ? unitIn(column(at + 1)) : '';
    const unit = beside || (units[at] ? unitWritten(units[at] ?? '') : parts.unit);
    return { name, unit, cells: column(at), unitAt: beside === '' ? null : at + 1 };
  });
  const isCount = ({ name, unit }: { readonly name: string; readonly unit: string }) =>
    INDEX_NAME.test(words(name)) || INDEX_NAME.test(unit);
  const isOther = ({ unit }: { readonly unit: string }) => unit !== '' && isUnit(unit) && !(unit in TIME_UNITS);
  const dayAt = dayBeside(heads);
  const named = heads.map(
    (head, at) =>
      at !== dayAt &&
      TIME_NAME.test(words(head.name)) &&
      !isCount(head) &&
      !isOther(head) &&
      timeForm(head.cells[0] ?? '') !== null,
  );
  const byName = heads.findIndex(({ cells: own }, at) => named[at] && goesOn(own));
  const byUnit = heads.findIndex((head) => head.unit in TIME_UNITS && !isCount(head));
  const byForm = heads.findIndex(
    ({ cells: own }, at) =>
      at !== dayAt && goesOn(own) && ['clock', 'date', 'unit'].includes(timeForm(own[0] ?? '') ?? ''),
  );
  const nameless =
    names.length === 0 && width > lead + 1 && rises(column(lead), comma) && !(interval !== null && counts(column(lead)))
      ? lead
      : -1;
  const time = [byName, byUnit, byForm, nameless, named.indexOf(true)].find((at) => at >= 0) ?? -1;
  let values = 0;
  const columns = heads.map((head, at): HeadColumn => {
    const { name, cells: own } = head;
    const bare = own.every((cell) => cell === '' || NUMBER.test(cell));
    const called = name || (width === 1 ? 'samples' : `column ${at + 1 - lead}`);
    const none = {
      form: 'number' as const,
      quantity: null,
      unit: head.unit,
      unitAt: null,
      dayAt: null,
      bare,
      factor: 1,
      offset: 0,
    };
    if (at === time) {
      const form = timeForm(own[0] ?? '') ?? 'number';
      const days = form === 'clock' && dayAt >= 0 && !isShortClock(own) ? column(dayAt) : [];
      if (days.length > 0 && own.every((cell, index) => timeForm(`${days[index]} ${cell}`) === 'date'))
        return { ...none, name: called, role: 'time', form: 'date', dayAt, unit: '' };
      const byItsName = TIME_UNITS[unitWritten(name)] === undefined ? statedAbove.time : unitWritten(name);
      const unit = head.unit || byItsName || impliedUnit(own, comma, interval);
      return { ...none, name: called, role: 'time', form, unit, factor: TIME_UNITS[unit] ?? 1 };
    }
    if (at < lead) return { name: called, role: 'ignore', ...none };
    const numbered =
      at === lead && width > lead + 1 && head.unit === '' && quantityByName(name) === null && counts(own);
    if (isCount(head) || numbered) return { name: called, role: 'index', ...none };
    const told = own.filter((cell) => cell !== '');
    // What ends a line with a delimiter, or heads a number that stands above, has no column.
    if (told.length === 0 && (name === '' || NO_COLUMN.test(name))) return { name: called, role: 'ignore', ...none };
    const inCells = head.unit === '' ? unitOfCells(told) : '';
    const unit = head.unit || inCells || (statedAbove.values[statedAbove.values.length > 1 ? values : 0] ?? '');
    values += 1;
    if (inCells === null) return { name: called, role: 'ignore', ...none };
    if (told.length > 0 && told.filter((cell) => isNumber(cell) || EMPTY.test(cell)).length * 2 < told.length)
      return { name: called, role: 'ignore', ...none };
    return { ...none, name: called, role: 'value', unit, unitAt: head.unitAt, ...valueColumn(name, unit, own) };
  });
  return {
    delimiter: delimiter.charCodeAt(0),
    comma,
    firstLine: first,
    above: new Set(above.slice(-3)),
    columns,
    interval,
    facts: factsOf(above, names),
  };
}

/** Whether clock times of two parts are minutes and seconds: as hours and minutes they would have fractions, or go back. */
export const isShortClock = (cells: readonly string[]): boolean => {
  const two = cells.filter((cell) => /^\s*\d+:\d{1,2}(?:[.,]\d+)?\s*$/.test(cell));
  const at = two.map((cell) => secondsOf(cell, 'clock', false));
  return (
    two.some((cell) => /[.,]/.test(cell)) ||
    two.some((cell) => Number(cell.split(':')[0]) > 23) ||
    at.some((seconds, index) => index > 0 && seconds < (at[index - 1] ?? 0) && (at[index - 1] ?? 0) - seconds < 43_200)
  );
};
