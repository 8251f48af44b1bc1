// The beginning of a trace file: where its table starts, how it is written, what its columns hold and what stands above.

import { secondsOf, TIME_UNITS, type TimeForm, timeForm } from '../meter-file/index.ts';
import { findUnit, type QuantityId, type Unit, ZERO_CELSIUS } from '../quantity/index.ts';
import { INDEX_NAME, nameAndUnit, quantityByName, TIME_NAME, unitWritten, words } from './names.ts';
import type { ChannelQuantity, TraceFacts } from './types.ts';

export interface HeadColumn {
  readonly name: string;
  readonly role: 'time' | 'index' | 'value' | 'ignore';
  readonly form: TimeForm;
  readonly quantity: ChannelQuantity | null;
  readonly unit: string;
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

/** Delimiters in the order they are believed in; a blank stands for any run of blanks. */
const DELIMITERS = [';', '\t', ',', '|', ' '] as const;
const LOOKED_AT = 400;
const AGREEING = 3;

const BY_UNIT: readonly (readonly [ChannelQuantity, QuantityId])[] = [
  ['voltage', 'voltage'],
  ['current', 'current'],
  ['power', 'power'],
  ['temperature', 'temperature'],
  ['energy', 'energy'],
];

const NUMBER = /^[+-]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][+-]?\d+)?$/;
const WITH_UNIT = /^[+-]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][+-]?\d+)?\s*(?:[pnuµμmkMG]?(?:V|A|W|Wh|Hz|s)?|°?[CFK]|%)$/;
const EMPTY = /^(?:|nan|n\/a|null|-+|ol|ovld|[+-]?inf(?:inity)?)$/i;

const bare = (cell: string): string =>
  cell
    .trim()
    .replace(/^"(.*)"$/s, '$1')
    .trim();
export const cellsOf = (line: string, delimiter: string): string[] =>
  (delimiter === ' ' ? line.trim().split(/\s+/) : line.split(delimiter)).map(bare);
const isNumber = (cell: string): boolean => NUMBER.test(cell) || WITH_UNIT.test(cell);
const isValue = (cell: string): boolean => isNumber(cell) || EMPTY.test(cell) || timeForm(cell) !== null;

/** Whether a line is one of the table. */
function isRow(cells: readonly string[]): boolean {
  const numbers = cells.filter(isNumber).length;
  const told = cells.filter((cell) => cell !== '').length;
  return numbers > 0 && told > 0 && cells.every((cell, at) => isValue(cell) || (at > 0 && numbers * 2 >= told));
}

interface Found {
  readonly delimiter: string;
  readonly first: number;
  readonly width: number;
}

/** The first lines of numbers that agree in their columns. */
function findTable(lines: readonly string[]): Found | null {
  let best: (Found & { readonly score: number }) | null = null;
  for (const delimiter of DELIMITERS) {
    const rows = lines.map((line) => (line.startsWith('#') ? [''] : cellsOf(line, delimiter)));
    const first = rows.findIndex((row, at) => {
      if (!isRow(row)) return false;
      const next = rows
        .slice(at + 1)
        .filter((one) => one.some((cell) => cell !== ''))
        .slice(0, AGREEING);
      const fitting = next.filter((one) => isRow(one) && Math.abs(one.length - row.length) <= 1).length;
      return fitting * 2 >= next.length;
    });
    if (first < 0) continue;
    const width = rows[first]?.length ?? 0;
    const agreeing = rows.slice(first).filter((row) => isRow(row) && row.length === width).length;
    const split = lines[first]?.includes(delimiter) ?? false;
    const score = agreeing * (split ? 1 : 0.5);
    if (!best || score > best.score * 1.01) best = { delimiter, first, width, score };
  }
  return best;
}

const unitOf = (quantity: QuantityId, written: string): Unit | undefined => findUnit(quantity, written);

/** What a column of values holds, by its unit and else by its name. */
export function valueColumn(name: string, unit: string): Pick<HeadColumn, 'quantity' | 'factor' | 'offset'> {
  for (const [quantity, id] of BY_UNIT) {
    const found = unit === '' ? undefined : unitOf(id, unit);
    if (!found) continue;
    if (quantity === 'temperature')
      return { quantity, factor: found.factor, offset: (found.offset ?? 0) - ZERO_CELSIUS };
    // Energy is kept in Wh, as people say it.
    if (quantity === 'energy') return { quantity, factor: found.factor / 3600, offset: 0 };
    return { quantity, factor: found.factor, offset: 0 };
  }
  const named = quantityByName(name);
  if (unit === '%' || (unit === '' && named === 'level')) return { quantity: 'level', factor: 0.01, offset: 0 };
  return { quantity: unit === '' ? named : null, factor: 1, offset: 0 };
}

/** A number of a preamble with its unit: `200 ns`, `5.00E+06 Sa/s`, `5 MS/s`. */
function stated(text: string): { readonly value: number; readonly unit: string } | null {
  const found = /([+-]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][+-]?\d+)?)\s*([^\d\s,;]*(?:\/s(?:ec)?)?)/.exec(text);
  return found ? { value: Number((found[1] ?? '').replace(',', '.')), unit: found[2] ?? '' } : null;
}

const PREFIX: Readonly<Record<string, number>> = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};
const prefixOf = (unit: string, base: RegExp): number => {
  const found = base.exec(unit);
  return found ? (PREFIX[unit.slice(0, found.index)] ?? 1) : 1;
};

/** s between samples by the lines above the table. */
function statedInterval(lines: readonly string[], delimiter: string): number | null {
  for (const line of lines) {
    const text = cellsOf(line, delimiter).join(' ');
    if (
      /(sampl\w*|time|horizontal|x)?[\s_-]*(interval|increment|period|spacing|\bdt\b|delta ?t|step)|^\s*dt\b/i.test(
        text,
      )
    ) {
      const one = stated(text.replace(/^[^\d+-]*/, ''));
      if (one && one.value > 0) return one.value * (TIME_UNITS[one.unit] ?? 1);
    }
    if (/sampl\w*[\s_-]*(rate|frequency)|\brate\b|sa\/s|samples? ?\/ ?s|^\W*(?:fs|sr|srate|sps)\b/i.test(text)) {
      const one = stated(text.replace(/^[^\d+-]*/, ''));
      if (one && one.value > 0) return 1 / (one.value * prefixOf(one.unit, /(?:S|Sa|Hz|samples?|pts)(?:\/s|$|ps)/i));
    }
  }
  return null;
}

function factsOf(lines: readonly string[], names: readonly string[]): TraceFacts {
  const bandwidth = lines.map((line) => {
    if (!/bandwidth|\bbw\b/i.test(line)) return null;
    const one = stated(line.replace(/^[^\d+-]*/, ''));
    return one && one.value > 0 ? one.value * prefixOf(one.unit, /Hz/i) : null;
  });
  const coupling = lines.map((line) => /coupling\W+(AC|DC)\b/i.exec(line)?.[1]?.toUpperCase());
  const pair = names.some((name) => /\bmin(imum)?\b/i.test(name)) && names.some((name) => /\bmax(imum)?\b/i.test(name));
  return {
    bandwidth: bandwidth.find((one) => one !== null) ?? null,
    envelope: pair || lines.some((line) => /peak[\s_-]*det|envelope|\bmin[\s/_-]*max\b/i.test(line)),
    coupling: (coupling.find((one) => one !== undefined) as 'AC' | 'DC' | undefined) ?? null,
  };
}

const rises = (cells: readonly string[], comma: boolean): boolean => {
  const times = cells.filter((cell) => cell !== '').map((cell) => Number(comma ? cell.replace(',', '.') : cell));
  return (
    times.length > 2 &&
    times.every((time, at) => at === 0 || time >= (times[at - 1] ?? 0)) &&
    (times.at(-1) ?? 0) > (times[0] ?? 0)
  );
};
const counts = (cells: readonly string[]): boolean =>
  cells.every((cell, at) => /^\d+$/.test(cell) && (at === 0 || Number(cell) === Number(cells[at - 1]) + 1));

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
  for (let at = first - 1; at >= Math.max(0, first - 3); at -= 1) {
    const cells = fits(lines[at]);
    if (!cells) break;
    above.unshift(cells);
  }
  const isUnits = (cells: readonly string[]) =>
    cells.every(
      (cell) =>
        cell === '' ||
        /^[[(]?\s*(?:[pnuµμmkM]?(?:V|A|W|s|Wh|Hz)|volts?|amps?|watts?|seconds?|sec|min|h|°?[CFK]|deg ?C|%|-)\s*[\])]?$/i.test(
          cell,
        ),
    );
  const units = above.findIndex(isUnits);
  const named = above.filter((_, at) => at !== units);
  const clean = (cell: string) => cell.replace(/[[\]()]/g, '').trim();
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
  const { delimiter, first, width } = found;
  const rows = lines
    .slice(first)
    .map((line) => cellsOf(line, delimiter))
    .filter((row) => row.length === width && isRow(row));
  const column = (at: number) => rows.map((row) => row[at] ?? '');
  const cells = rows.flat();
  const commas = cells.filter((cell) => /^[+-]?\d*,\d/.test(cell)).length;
  const points = cells.filter((cell) => /^[+-]?\d*\.\d/.test(cell)).length;
  const comma = delimiter !== ',' && commas > points;
  const { names, units } = namesOf(lines, found);
  const above = lines.slice(0, first).filter((line) => line.trim() !== '');
  const interval = statedInterval(above, delimiter);
  const heads = Array.from({ length: width }, (_, at) => {
    const parts = nameAndUnit(names[at] ?? '');
    return { name: parts.name, unit: units[at] ? unitWritten(units[at] ?? '') : parts.unit, cells: column(at) };
  });
  const byName = heads.findIndex(
    ({ name, cells: own }) => TIME_NAME.test(words(name)) && timeForm(own[0] ?? '') !== null,
  );
  const byUnit = heads.findIndex(({ name, unit }) => unit in TIME_UNITS && !INDEX_NAME.test(words(name)));
  const byForm = heads.findIndex(({ cells: own }) => ['clock', 'date', 'unit'].includes(timeForm(own[0] ?? '') ?? ''));
  const nameless =
    names.length === 0 && width > 1 && rises(column(0), comma) && !(interval !== null && counts(column(0))) ? 0 : -1;
  const time = [byName, byUnit, byForm, nameless].find((at) => at >= 0) ?? -1;
  const columns = heads.map(({ name, unit, cells: own }, at): HeadColumn => {
    const called = name || (width === 1 ? 'samples' : `column ${at + 1}`);
    if (at === time) {
      const form = timeForm(own[0] ?? '') ?? 'number';
      const since1970 = Number(own[0]?.replace(',', '.'));
      // Counts since 1970 are in milliseconds where seconds would lie far ahead.
      const factor =
        TIME_UNITS[unit] ?? TIME_UNITS[name.toLowerCase()] ?? (since1970 > 1e11 && since1970 < 1e14 ? 1e-3 : 1);
      return { name: called, role: 'time', form, quantity: null, unit, factor, offset: 0 };
    }
    const isIndex = INDEX_NAME.test(words(name)) || (time < 0 && at === 0 && width > 1 && counts(own));
    const none = { form: 'number' as const, quantity: null, unit, factor: 1, offset: 0 };
    if (isIndex) return { name: called, role: 'index', ...none };
    const told = own.filter((cell) => cell !== '');
    if (told.length > 0 && told.filter((cell) => isNumber(cell) || EMPTY.test(cell)).length * 2 < told.length)
      return { name: called, role: 'ignore', ...none };
    return { name: called, role: 'value', form: 'number', unit, ...valueColumn(name, unit) };
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
