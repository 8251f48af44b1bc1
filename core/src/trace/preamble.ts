// What stands above the table of a trace file: how far apart its samples are, in which units, and how they were taken.
import { TIME_UNITS } from '../meter-file/index.ts';
import { PREFIXES } from '../quantity/index.ts';
import { unitWritten } from './names.ts';
import type { TraceFacts } from './types.ts';

/** A line of the beginning, in its cells. */
export type Cells = readonly string[];

/** A number that is none of a name: `CH1` holds none. */
const NUMBER = /(?<![A-Za-z\d.])[+-]?(?:\d{1,3}(?:,\d{3}){2,}|\d+[.,]?\d*|\.\d+)(?:[eE][+-]?\d+)?/;
/** A comma stands for the point, or parts thousands where there are two. */
const numberOf = (text: string): number =>
  Number(/,.*,/.test(text) ? text.replaceAll(',', '') : text.replace(',', '.'));
/** What is called so is how far apart samples are. */
export const INTERVAL =
  /(?:sampl\w*|time|horizontal|x)?[\s_-]*(?:interval|incr\w*|period|spacing|\bdt\b|delta ?t|step)|^\W*dt\b|\bh(?:orizontal)?[\s_-]?resolution|time resolution/i;
const RATE = /sampl\w*[\s_-]*(?:rate|frequency)|\brate\b|sa\/s|samples? ?\/ ?s|^\W*(?:fs|sr|srate|sps)\b/i;

interface Stated {
  readonly value: number;
  readonly unit: string;
}

/** A number with its unit, behind it or in brackets before it: `200 ns`, `5.00E+06 Sa/s`, `(us): 2`. */
function stated(text: string): Stated | null {
  const found = NUMBER.exec(text);
  if (!found) return null;
  const behind = /^\s*([^\d\s,;=:[\](){}]*(?:\/s(?:ec)?)?)/.exec(text.slice(found.index + found[0].length))?.[1] ?? '';
  const before = /[[(]\s*([^\])\d]+?)\s*[\])]/.exec(text.slice(0, found.index))?.[1] ?? '';
  return { value: numberOf(found[0]), unit: behind || before };
}

/**
 * What a line states under a name: behind the name, else anywhere with a unit of its kind.
 * @param isOf whether a unit is of its kind
 */
function statedAs(text: string, name: RegExp, isOf: (unit: string) => boolean): Stated | null {
  const found = name.exec(text);
  if (!found) return null;
  const behind = stated(text.slice(found.index + found[0].length));
  if (behind && (behind.unit === '' || isOf(behind.unit))) return behind;
  const numbers = [...text.matchAll(new RegExp(NUMBER, 'g'))].map(({ index }) => stated(text.slice(index)));
  return numbers.find((one) => one && isOf(one.unit)) ?? null;
}

/** Of "sec/pt" the seconds. */
const timeUnit = (unit: string): number | undefined => TIME_UNITS[unitWritten(unit.split('/')[0] ?? '')];

const BARE_PREFIX = /^[kKMG]$/;
const prefixOf = (unit: string, base: RegExp): number => {
  const found = base.exec(unit);
  // `20M` means what it leaves out.
  return PREFIXES[found ? unit.slice(0, found.index) : BARE_PREFIX.test(unit) ? unit : ''] ?? 1;
};
const ONE_A_SECOND = /(?:S|Sa|Hz|samples?|pts)(?:\/s|$|ps)/i;

/** The cell below one that names it: heads in one line, what they say in the next. */
function below(lines: readonly Cells[], line: number, name: RegExp): number | null {
  const at = lines[line]?.findIndex((cell) => name.test(cell)) ?? -1;
  const cell = at < 0 ? '' : (lines[line + 1]?.[at] ?? '');
  return NUMBER.exec(cell)?.[0] === cell && cell !== '' ? numberOf(cell) : null;
}

/**
 * s between samples, as the lines above a table state it; null where none does.
 * @example statedInterval([['Sample Interval (us)', '2']]) // 2e-6
 */
export function statedInterval(lines: readonly Cells[]): number | null {
  for (const [line, cells] of lines.entries()) {
    const text = cells.join(' ');
    const interval = statedAs(text, INTERVAL, (unit) => timeUnit(unit) !== undefined);
    if (interval && interval.value > 0) return interval.value * (timeUnit(interval.unit) ?? 1);
    if (!interval && INTERVAL.test(text)) {
      const own = below(lines, line, INTERVAL);
      if (own !== null && own > 0) return own;
    }
    const rate = statedAs(text, RATE, (unit) => ONE_A_SECOND.test(unit) || BARE_PREFIX.test(unit));
    if (rate && rate.value > 0) return 1 / (rate.value * prefixOf(rate.unit, ONE_A_SECOND));
  }
  return null;
}

export interface StatedUnits {
  /** Unit of times; empty where none is stated. */
  readonly time: string;
  /** Units of values in their order, one for all of them, or none. */
  readonly values: readonly string[];
}

/** Units that lines above a table state: `Horizontal Units,us`, `Vertical Units,mV`. */
export function statedUnits(lines: readonly Cells[]): StatedUnits {
  let time = '';
  let values: readonly string[] = [];
  for (const [line, cells] of lines.entries()) {
    const at = cells.findIndex((cell) => /units?\b/i.test(cell));
    const [, name = '', own = ''] = /^(.*?)units?\b\W*(.*)$/i.exec(cells[at] ?? '') ?? [];
    const here = [own, ...cells.slice(at + 1)].some((cell) => cell !== '');
    const told = (here ? [own, ...cells.slice(at + 1)] : [lines[line + 1]?.[at] ?? ''])
      .map((cell) => unitWritten(cell.replace(/[[\]()]/g, '').trim()))
      .filter(Boolean);
    if (at < 0 || told.length === 0 || told.some((unit) => NUMBER.test(unit))) continue;
    if (/time|horiz|^\W*x\b/i.test(name)) time = told[0] as string;
    else values = told;
  }
  return { time, values };
}

/** How samples were taken: bandwidth, Hz; whether they are envelopes; coupling. */
export function factsOf(lines: readonly string[], names: readonly string[]): TraceFacts {
  const bandwidth = lines.map((line) => {
    const one = statedAs(line, /bandwidth|\bbw\b/i, (unit) => /Hz$/i.test(unit) || BARE_PREFIX.test(unit));
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
