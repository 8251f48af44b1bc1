// What a meter logged while a cable was wiggled: how often it came apart, and for how long.
import { findUnit, type QuantityId } from '../quantity/index.ts';
import { textRows } from '../table/index.ts';

/** A trace as it is kept: what it shows, and its outline. */
export interface Wiggle {
  readonly quantity: 'voltage' | 'current';
  /** s from the first to the last sample. */
  readonly seconds: number;
  /** Stretches below half of what flowed while it was whole. */
  readonly interruptions: number;
  /** s of the longest of them; 0 for none. */
  readonly longest: number;
  /** Least and most of each of up to a hundred even stretches, V or A. */
  readonly outline: readonly { readonly least: number; readonly most: number }[];
}

export interface WiggleSample {
  /** s */
  readonly seconds: number;
  readonly value: number;
}

const STRETCHES = 100;
/** Part of the samples the level of a whole cable stands above: it may be apart most of the time. */
const WHOLE_PART = 0.95;
/** An interruption is below this part of that level. */
const APART = 0.5;

/**
 * How often a trace is interrupted. A stretch counts from its first low sample to the next that is not, or to the end.
 * @param samples in the order of time
 * @returns null for fewer than ten samples, or where nothing flowed
 * @example wiggleOf([…5 V, 5 V, 0 V, 5 V…], 'voltage')?.interruptions // 1
 */
export function wiggleOf(samples: readonly WiggleSample[], quantity: Wiggle['quantity']): Wiggle | null {
  const known = samples.filter(({ seconds, value }) => Number.isFinite(seconds) && Number.isFinite(value));
  const [first, last] = [known[0], known.at(-1)];
  if (!first || !last || known.length < 10 || !(last.seconds > first.seconds)) return null;
  const sorted = known.map(({ value }) => value).sort((a, b) => a - b);
  const whole = sorted[Math.floor(WHOLE_PART * (sorted.length - 1))] ?? 0;
  if (!(whole > 0)) return null;
  let interruptions = 0;
  let longest = 0;
  let since: number | null = null;
  for (const { seconds, value } of known) {
    if (value < APART * whole) {
      if (since === null) interruptions += 1;
      since ??= seconds;
    }
    if (since !== null) longest = Math.max(longest, seconds - since);
    if (value >= APART * whole) since = null;
  }
  const span = last.seconds - first.seconds;
  const outline: { least: number; most: number }[] = [];
  let at = -1;
  for (const { seconds, value } of known) {
    const stretch = Math.min(STRETCHES - 1, Math.floor(((seconds - first.seconds) / span) * STRETCHES));
    const now = outline.at(-1);
    if (stretch > at || !now) outline.push({ least: value, most: value });
    else {
      now.least = Math.min(now.least, value);
      now.most = Math.max(now.most, value);
    }
    at = Math.max(at, stretch);
  }
  return { quantity, seconds: span, interruptions, longest, outline };
}

/** `3 interruptions in 12 s, the longest 0.4 s` */
export const wiggleWords = ({ interruptions, longest, seconds }: Wiggle): string => {
  const inAll = `in ${Number(seconds.toPrecision(3))} s`;
  if (interruptions === 0) return `no interruption ${inAll}`;
  return `${interruptions} ${interruptions === 1 ? 'interruption' : 'interruptions'} ${inAll}, the longest ${Number(longest.toPrecision(2))} s`;
};

type Read =
  | { readonly ok: true; readonly wiggle: Wiggle }
  | { readonly ok: false; readonly line: number; readonly reason: string };

const HEADS: readonly (readonly ['time' | 'voltage' | 'current', RegExp])[] = [
  ['time', /time|second|elapsed|^t\b|^t_|^s$|^ms$/],
  ['voltage', /volt|^v\b|^u\b|_v$|\bv\b|vbus/],
  ['current', /current|amp|^i\b|^a\b|_m?a$|\bm?a\b/],
];

const numberIn = (cell: string): number => (cell === '' ? Number.NaN : Number(cell.replace(',', '.')));

/** What a head's unit is to SI: `time_ms` 0.001. */
function factorOf(head: string, quantity: QuantityId): number {
  const unit =
    head
      .split(/[\s_,;()[\]]+/)
      .filter(Boolean)
      .at(-1) ?? '';
  return findUnit(quantity, unit)?.factor ?? 1;
}

/**
 * Read a trace from a table: a column of time, and one of volts or amps; without heads time and volts.
 * @returns the first line that cannot be read, or why it shows nothing
 * @example readWiggle('time_s,volts\n0,5.1\n…')
 */
export function readWiggle(text: string): Read {
  const { rows } = textRows(text);
  const [first] = rows;
  if (!first) return { ok: false, line: 1, reason: 'nothing in it.' };
  const headed = first.cells.some((cell) => Number.isNaN(numberIn(cell)) && cell !== '');
  const roles: readonly (string | undefined)[] = headed
    ? first.cells.map((cell) => HEADS.find(([, pattern]) => pattern.test(cell.trim().toLowerCase()))?.[0])
    : ['time', 'voltage'];
  const time = roles.indexOf('time');
  const quantity = roles.includes('voltage') ? 'voltage' : 'current';
  const at = roles.indexOf(quantity);
  if (time < 0 || at < 0)
    return { ok: false, line: first.line, reason: 'it has a column of time, and one of volts or amps.' };
  const [perSecond, perUnit] = headed
    ? [factorOf(first.cells[time] ?? '', 'duration'), factorOf(first.cells[at] ?? '', quantity)]
    : [1, 1];
  const samples: WiggleSample[] = [];
  let before = Number.NEGATIVE_INFINITY;
  for (const { cells, line } of headed ? rows.slice(1) : rows) {
    const seconds = numberIn(cells[time] ?? '') * perSecond;
    const value = numberIn(cells[at] ?? '') * perUnit;
    if (Number.isNaN(seconds) || Number.isNaN(value)) return { ok: false, line, reason: 'it is no time and value.' };
    if (seconds < before) return { ok: false, line, reason: 'its time is before that of the line above.' };
    before = seconds;
    samples.push({ seconds, value });
  }
  const wiggle = wiggleOf(samples, quantity);
  return wiggle
    ? { ok: true, wiggle }
    : {
        ok: false,
        line: first.line,
        reason: samples.length < 10 ? 'it has fewer than ten samples.' : 'nothing flowed in it.',
      };
}
