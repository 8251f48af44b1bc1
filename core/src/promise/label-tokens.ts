// What a printed line is made of: ports, amounts, ranges, words and signs, each with the text it stands for.
import { findUnit, parseDecimal } from '../quantity/index.ts';

interface Place {
  /** As it stands in the line. */
  readonly text: string;
  /** Nothing lies between it and what stands before it. */
  readonly tight?: true;
}

export type Token =
  | (Place & { readonly kind: 'port'; readonly port: string })
  /** A connector that several ports have, said of one of them. */
  | (Place & { readonly kind: 'which'; readonly ports: readonly string[] })
  | (Place & { readonly kind: 'amount'; readonly quantity: Quantity; readonly value: number })
  /** Several levels before one unit: "5/9/15 V". */
  | (Place & { readonly kind: 'levels'; readonly volts: readonly number[] })
  | (Place & { readonly kind: 'range'; readonly low: number; readonly high: number })
  | (Place & { readonly kind: 'number'; readonly value: number })
  | (Place & { readonly kind: 'word'; readonly word: string })
  | (Place & { readonly kind: 'sign'; readonly sign: string });

type Quantity = 'voltage' | 'current' | 'power' | 'efficiency' | 'duration';

const NUMBER = '\\d+(?:[.,]\\d+)?';
const VOLTS = '(?:V|volts?)(?:DC)?(?![A-Za-z])';
const RANGE = new RegExp(`^(${NUMBER})\\s*(?:V(?:DC)?)?\\s*(?:-|–|—|~|…|\\.{2,3}|to)\\s*(${NUMBER})\\s*${VOLTS}`, 'i');
const LEVELS = new RegExp(`^(${NUMBER}(?:\\s*/\\s*${NUMBER})+)\\s*${VOLTS}`, 'i');
const AMOUNT = new RegExp(
  `^(${NUMBER})\\s*(mV|V|mA|A|mW|W|kW|%|min|minutes?|seconds?|s|hours?|h|volts?|amps?|amperes?|watts?)(?:DC|(AC))?(?![A-Za-z])`,
  'i',
);
const LEVEL = new RegExp(`^\\s*${NUMBER}(?:\\s*[-–/~]\\s*${NUMBER})*\\s*(?:m?[VAW]|volts?|watts?)(?![A-Za-z])`, 'i');
const BARE = new RegExp(`^${NUMBER}`);
const WORD = /^[\p{L}][\p{L}.’'-]*/u;
/** What a maker puts before a port's label. */
const PREFIX = /^(?:usb[-\s]*)?(?:type[-\s]*)?(?:ports?[-\s]*)?/i;

/** V. Below it a voltage is none of a mains. */
export const LEAST_MAINS = 85;

const UNITS: Readonly<Record<string, [Quantity, string]>> = {
  v: ['voltage', 'V'],
  volt: ['voltage', 'V'],
  mv: ['voltage', 'mV'],
  a: ['current', 'A'],
  amp: ['current', 'A'],
  ampere: ['current', 'A'],
  ma: ['current', 'mA'],
  w: ['power', 'W'],
  watt: ['power', 'W'],
  mw: ['power', 'mW'],
  kw: ['power', 'kW'],
  '%': ['efficiency', '%'],
  s: ['duration', 's'],
  second: ['duration', 's'],
  min: ['duration', 'min'],
  minute: ['duration', 'min'],
  h: ['duration', 'h'],
  hour: ['duration', 'h'],
};

function amountOf(text: string, number: string, written: string): Token | null {
  const lower = written.toLowerCase();
  const [quantity, symbol] = UNITS[lower] ?? UNITS[lower.replace(/s$/, '')] ?? [];
  if (!quantity || !symbol) return null;
  const factor = symbol === 'kW' ? 1000 : findUnit(quantity, symbol)?.factor;
  return factor ? { kind: 'amount', text, quantity, value: parseDecimal(number) * factor } : null;
}

/** A label of a letter and a number, as makers also print it: "C 1", "C-1". */
const APART = /^([a-z]+)(\d+)$/i;
/** A connector named without a number. */
const CONNECTOR = /^([ca])(?![\p{L}\d])/iu;

/** Length of a label at the start of a text in small letters, 0 where it does not stand there. */
function lengthOf(label: string, text: string, before: string): number {
  const one = label.toLowerCase();
  if (text.startsWith(one) && !/^[\p{L}\d]/u.test(text.slice(one.length))) return one.length;
  const [, letters = '', digits = ''] = APART.exec(one) ?? [];
  if (letters === '') return 0;
  // "USB-C 2 × 45 W" counts ports, it names none.
  const apart = new RegExp(
    `^${letters}${before === '' ? '-' : '[-\\s]*'}${digits}(?![\\p{L}\\d.,])(?!\\s*(?:[x×*]|m?[vaw](?![\\p{L}])))`,
    'u',
  );
  return apart.exec(text)?.[0].length ?? 0;
}

/**
 * A label at the start of a text, with what a maker puts before it; the longest label wins. "USB-A" is the port where there
 * is only one of its kind, unless it says of the port before it what it is.
 * @param last the port before it
 * @param atStart there a letter alone is a connector too, before a colon: "C: 65 W"
 */
function portAt(text: string, labels: readonly string[], last: string | null, atStart: boolean): Token | null {
  const bare = PREFIX.exec(text)?.[0] ?? '';
  for (const before of [bare, '']) {
    const rest = text.slice(before.length).toLowerCase();
    for (const label of labels) {
      const length = lengthOf(label, rest, before);
      if (length > 0) return { kind: 'port', port: label, text: text.slice(0, before.length + length) };
    }
  }
  const after = text.slice(bare.length + 1);
  const named = bare !== '' || (atStart && /^\s*[:：=]/.test(after));
  const letter = named ? CONNECTOR.exec(text.slice(bare.length))?.[1] : undefined;
  // A number behind it is a level, or the number of a port there is not.
  if (letter === undefined || (/^\s*-?\d/.test(after) && !LEVEL.test(after))) return null;
  const ports = labels
    .filter((one) => new RegExp(`^${letter}\\d*$`, 'i').test(one))
    .sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
  const whole = text.slice(0, bare.length + 1);
  const [only] = ports;
  if (only === undefined || ports.includes(last ?? '')) return null;
  if (ports.length === 1) return { kind: 'port', port: only, text: whole };
  return /^\s*[:：=]/.test(after) ? { kind: 'which', ports, text: whole } : null;
}

function tokenAt(text: string, labels: readonly string[], atStart: boolean, last: string | null): Token {
  const port = atStart || !/^\d/.test(text) ? portAt(text, labels, last, atStart) : null;
  if (port) return port;
  const range = RANGE.exec(text);
  if (range) {
    const [whole, low = '', high = ''] = range;
    return { kind: 'range', text: whole, low: parseDecimal(low), high: parseDecimal(high) };
  }
  const levels = LEVELS.exec(text);
  if (levels) {
    const [whole, list = ''] = levels;
    return { kind: 'levels', text: whole, volts: list.split('/').map((one) => parseDecimal(one.trim())) };
  }
  const amount = AMOUNT.exec(text);
  // Only a mains is alternating.
  const mains = amount?.[3] === undefined || parseDecimal(amount[1] ?? '') >= LEAST_MAINS;
  const found = amount && mains ? amountOf(amount[0], amount[1] ?? '', amount[2] ?? '') : null;
  if (found) return found;
  const bare = BARE.exec(text);
  if (bare) return { kind: 'number', text: bare[0], value: parseDecimal(bare[0]) };
  const word = WORD.exec(text);
  if (word) return { kind: 'word', text: word[0], word: word[0].toLowerCase().replace(/[.’'-]+$/, '') };
  const sign = String.fromCodePoint(text.codePointAt(0) ?? 32);
  return { kind: 'sign', text: sign, sign };
}

/** Signs of full width, as printed in the east, in their usual shape. */
const plain = (line: string): string =>
  line
    .replace(/[\uff01-\uff5e]/g, (sign) => String.fromCharCode(sign.charCodeAt(0) - 0xfee0))
    .replaceAll('\u3000', ' ');

/** Take a line apart. @param labels the ports of the sample */
export function tokensOf(line: string, labels: readonly string[]): readonly Token[] {
  const longestFirst = [...labels].sort((a, b) => b.length - a.length);
  const tokens: Token[] = [];
  let rest = plain(line).trim();
  let last: string | null = null;
  let tight: true | undefined;
  while (rest !== '') {
    const token = tokenAt(rest, longestFirst, tokens.length === 0, last);
    if (token.kind === 'port') last = token.port;
    const after = rest.slice(token.text.length);
    tokens.push(tight && tokens.length > 0 ? { ...token, tight } : token);
    rest = after.trimStart();
    tight = rest.length === after.length ? true : undefined;
  }
  return tokens;
}
