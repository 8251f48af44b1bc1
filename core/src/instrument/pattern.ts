// A reply pattern: how one maker's reply is read, as named fields in a line that looks like the reply itself.
import { PREFIXES } from '../quantity/index.ts';
import { numberFrom } from './number.ts';

/** What a field stands for: its unit as a plain reply would have it. */
const UNITS: Readonly<Record<string, string>> = {
  time: 's',
  seconds: 's',
  watts: 'W',
  volts: 'V',
  amps: 'A',
  powerFactor: '',
  wattHours: 'Wh',
  hertz: 'Hz',
  celsius: '°C',
  rate: '/s',
  value: '',
  on: '',
};

/** Other ways of writing a unit, and what one of it is in the plain one. */
const ALIASES: Readonly<Record<string, readonly [unit: string, factor: number]>> = {
  C: ['°C', 1],
  degC: ['°C', 1],
  sec: ['s', 1],
  min: ['s', 60],
  h: ['s', 3600],
  VA: ['W', Number.NaN],
  '%': ['', 0.01],
};

/** One field of a pattern. */
export interface PatternField {
  /** volts, amps, watts …; a number behind it is the channel: volts2. */
  readonly name: string;
  /** Where it stands: the n-th part of the reply, from 0, or behind a key wherever that is. */
  readonly at: number | string;
  readonly scale: number;
  readonly offset: number;
  /** Words that stand for numbers: ON=1. */
  readonly words: Readonly<Record<string, number>>;
}

/** A pattern taken apart, or why it is none. */
export type Pattern =
  | { readonly ok: true; readonly fields: readonly PatternField[] }
  | { readonly ok: false; readonly reason: string };

/** A reply as a pattern reads it. */
export interface PatternReading {
  /** By field name; NaN for what is no number, ±infinity for out of range. */
  readonly values: ReadonlyMap<string, number>;
  /** What was not understood, a sentence each; empty when all of it was. */
  readonly problems: readonly string[];
}

const FIELD =
  /^\{\s*([A-Za-z]+\d*)\s*(?:\*\s*([-+]?[\d.]+(?:[eE][-+]?\d+)?))?\s*(?:([-+])\s*([\d.]+(?:[eE][-+]?\d+)?))?\s*(?::\s*([^{}]*))?\}$/;
const KEYED = /^([^\s=:{}][^=:{}]*?)\s*[=:]\s*(\{.*\}|\*)$/;

/** Without the channel behind it. */
export const baseOf = (name: string): string => name.replace(/\d+$/, '');

/** Parts of a line: commas and semicolons part them; without either, blanks do. Braces and quotes hold together. */
function partsOf(text: string, parting: RegExp): string[] {
  const parts = [''];
  let depth = 0;
  let quote = false;
  for (const sign of text) {
    if (sign === '"') quote = !quote;
    if (sign === '{') depth += 1;
    if (sign === '}') depth -= 1;
    if (depth === 0 && !quote && parting.test(sign)) parts.push('');
    else if (sign !== '"') parts[parts.length - 1] += sign;
  }
  const trimmed = parts.map((part) => part.trim());
  // Blanks part however many they are; between two commas something is missing.
  return parting.test(' ') ? trimmed.filter((part) => part !== '') : trimmed;
}

const outside = (text: string): string => text.replace(/\{[^}]*\}|"[^"]*"/g, '');
const partingOf = (text: string): RegExp =>
  /[,;\t]/.test(outside(text)) ? /[,;\t]/ : /[=:]\s/.test(outside(text)) ? /[\n]/ : /\s/;

function fieldOf(text: string, at: number | string): PatternField | string {
  const found = FIELD.exec(text);
  if (!found) return `"${text}" is no field: write {volts}, {volts*0.001}, {amps-0.02} or {on:ON=1|OFF=0}.`;
  const [, name = '', scale, sign, offset, words] = found;
  if (!(baseOf(name) in UNITS) && words === undefined)
    return `{${name}} is not known. Known: ${Object.keys(UNITS).join(', ')}; a channel is a number behind it.`;
  const pairs = (words ?? '')
    .split('|')
    .filter((pair) => pair.trim() !== '')
    .map((pair) => pair.split('=').map((one) => one.trim()) as [string, string?]);
  const wrong = pairs.find(([, value]) => value === undefined || value === '' || !Number.isFinite(Number(value)));
  if (wrong) return `"${wrong[0]}" in {${name}} stands for no number: write it as ON=1.`;
  const factor = scale === undefined ? 1 : Number(scale);
  const shift = offset === undefined ? 0 : Number(`${sign}${offset}`);
  if (!Number.isFinite(factor) || factor === 0 || !Number.isFinite(shift)) return `The numbers in ${text} are none.`;
  return {
    name,
    at,
    scale: factor,
    offset: shift,
    words: Object.fromEntries(pairs.map(([word, value]) => [word.toUpperCase(), Number(value)])),
  };
}

/**
 * Take a pattern apart. Its parts stand as in the reply; `*` passes one over; a part with a key is found by its key
 * wherever it stands. A field may be scaled and shifted, or name words that stand for numbers.
 * @example parsePattern('{time},{watts},*,{volts*0.001}')
 * @example parsePattern('U={volts}; I={amps}; P={watts}')
 * @example parsePattern('{on:ON=1|OFF=0}')
 */
export function parsePattern(text: string): Pattern {
  const fields: PatternField[] = [];
  for (const [index, part] of partsOf(text.trim(), partingOf(text)).entries()) {
    if (part === '*' || part === '') continue;
    const keyed = KEYED.exec(part);
    const inner = keyed ? (keyed[2] ?? '') : part;
    if (inner === '*') continue;
    const field = fieldOf(inner, keyed ? (keyed[1] ?? '').trim().toUpperCase() : index);
    if (typeof field === 'string') return { ok: false, reason: field };
    if (fields.some(({ name }) => name === field.name))
      return { ok: false, reason: `{${field.name}} stands there twice.` };
    fields.push(field);
  }
  return fields.length > 0 ? { ok: true, fields } : { ok: false, reason: 'The pattern has no field such as {volts}.' };
}

/** A value with its unit, in the plain unit of its field; null for what cannot be read. */
function fieldValue(text: string, { name, scale, offset, words }: PatternField): number | string {
  const word = words[text.toUpperCase()];
  if (word !== undefined) return word * scale + offset;
  const found = /^([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)\s*([^\s\d]*)$/.exec(text.replace(/^([-+])\s+/, '$1'));
  if (!found) {
    const special = numberFrom(text);
    return special === null ? `"${text.slice(0, 24)}" is no number` : special;
  }
  const plain = numberFrom(found[1] ?? '') ?? Number.NaN;
  if (!Number.isFinite(plain)) return plain;
  const unit = found[2] ?? '';
  const wanted = UNITS[baseOf(name)] ?? '';
  const factor = unitFactor(unit, wanted);
  if (factor === null) return `"${unit}" is no unit of {${name}}${wanted ? `, which is in ${wanted}` : ''}`;
  // 371.6 mA are 0.3716 A: what binary adds behind the twelfth digit, no instrument said.
  return Number((plain * factor * scale + offset).toPrecision(12));
}

function unitFactor(unit: string, wanted: string): number | null {
  if (unit === '' || unit === wanted) return 1;
  const [alias, per] = ALIASES[unit] ?? [];
  if (alias !== undefined && alias === wanted && per !== undefined) return Number.isNaN(per) ? null : per;
  // A prefix alone, as in 12m, or before the unit.
  const bare = wanted !== '' && unit.endsWith(wanted) ? unit.slice(0, unit.length - wanted.length) : unit;
  return bare === '' ? 1 : (PREFIXES[bare] ?? null);
}

/**
 * Read a reply by a pattern.
 * @param text the reply as it came
 * @example readPattern(pattern, 'P=49.6 W, U=20.02 V').values.get('watts') // 49.6
 */
export function readPattern({ fields }: Pattern & { ok: true }, text: string): PatternReading {
  const parts = partsOf(text.trim(), partingOf(text)).flatMap((part) => splitPairs(part));
  const joined = joinUnits(parts);
  const keyed = new Map<string, string>();
  for (const part of joined) {
    const found = /^([^\s=:][^=:]*?)\s*[=:]\s*(.*)$/.exec(part);
    if (found) keyed.set((found[1] ?? '').trim().toUpperCase(), (found[2] ?? '').trim());
  }
  const values = new Map<string, number>();
  const problems: string[] = [];
  for (const field of fields) {
    const raw = typeof field.at === 'string' ? keyed.get(field.at) : joined[field.at];
    if (raw === undefined || raw === '') {
      problems.push(
        `{${field.name}}: ${typeof field.at === 'string' ? `nothing behind "${field.at}"` : `the reply has no part ${field.at + 1}`}.`,
      );
      continue;
    }
    const value = fieldValue(raw, field);
    if (typeof value === 'string') problems.push(`{${field.name}}: ${value}.`);
    else values.set(field.name, value);
  }
  return { values, problems };
}

/** "U=20.0 I=2.2" in one part: several keys with their values. */
function splitPairs(part: string): string[] {
  const pairs = part.match(/[^\s=:]+\s*[=:]\s*[-+]?[^\s=:]+(?:\s+[^\s=:\d]+(?=\s|$)(?!\s*[=:]))?/g);
  return pairs && pairs.length > 1 ? pairs.map((pair) => pair.trim()) : [part];
}

/** Parted by blanks a unit stands apart from its number. */
function joinUnits(parts: readonly string[]): string[] {
  const joined: string[] = [];
  for (const part of parts) {
    const before = joined.at(-1);
    const isUnit = /^[^\d\s=:*]{1,4}$/.test(part) && numberFrom(part) === null && !/^(ON|OFF)$/i.test(part);
    if (before !== undefined && isUnit && /^[-+.\d]/.test(before) && /\d$/.test(before))
      joined[joined.length - 1] = `${before} ${part}`;
    else joined.push(part);
  }
  return joined;
}
