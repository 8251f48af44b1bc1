// Sizes, times and rates of copies in the units people and programs write them in.
import { parseDecimal, parseQuantity } from '../quantity/index.ts';

const PREFIXES: Readonly<Record<string, number>> = {
  '': 1,
  ...{ k: 1e3, m: 1e6, g: 1e9, t: 1e12 },
  ...{ ki: 2 ** 10, mi: 2 ** 20, gi: 2 ** 30, ti: 2 ** 40 },
  ...{ kilo: 1e3, mega: 1e6, giga: 1e9, tera: 1e12 },
  ...{ kibi: 2 ** 10, mebi: 2 ** 20, gibi: 2 ** 30, tebi: 2 ** 40 },
};
const NUMBER = String.raw`(\d[\d.,'\s]*(?:e[+-]?\d+)?)`;
const SIZE = new RegExp(`^\\s*${NUMBER}\\s*([a-z]+)?\\s*$`, 'i');
const RATE = new RegExp(`^\\s*${NUMBER}\\s*([a-z]+(?:/s(?:ec)?)?)?\\s*$`, 'i');
const PREFIXED = /^(|[kmgt]i?|kilo|mega|giga|tera|kibi|mebi|gibi|tebi)(b|bits?|bytes?)$/i;
/** In small letters nobody can say whether bits or bytes are meant; "mbps" are bits to everyone. */
const EITHER = /^[kmgt]i?b\/s/;

/** Bytes of one unit of size; null for one nobody knows. @example sizeFactor('GiB') // 1073741824 */
export function sizeFactor(unit: string): number | null {
  const [, prefix = '', what = ''] = PREFIXED.exec(unit) ?? [];
  return what === '' || /^bits?$/i.test(what) ? null : (PREFIXES[prefix.toLowerCase()] ?? null);
}

/**
 * bit/s of one unit of rate; null for one nobody knows, and for one that may be bits or bytes.
 * @example rateFactor('MB/s') // 8e6
 */
export function rateFactor(unit: string): number | null {
  const [, per = ''] = /^(.+?)(?:\/s(?:ec)?|ps)$/i.exec(unit) ?? [];
  const [, prefix = '', what = ''] = PREFIXED.exec(per) ?? [];
  if (what === '' || EITHER.test(unit)) return null;
  // A small b is a bit, a large one a byte.
  return (PREFIXES[prefix.toLowerCase()] ?? Number.NaN) * (what === 'B' || /^bytes?$/i.test(what) ? 8 : 1);
}

/** NaN for what is no number above 0, or is in no known unit. */
const times = (number: string, factor: number | null): number => {
  const value = parseDecimal(number.trim());
  return factor !== null && value > 0 ? value * factor : Number.NaN;
};

/**
 * Bytes of a size: `8 GB` are 8 000 000 000, `8 GiB` 8 589 934 592.
 * @param usual unit of a number alone
 * @returns NaN for what is none
 */
export function typedBytes(text: string, usual = 'GB'): number {
  const [, number = '', unit = usual] = SIZE.exec(text) ?? [];
  return Math.round(times(number, sizeFactor(unit)));
}

/**
 * s of a time: `1:42` are 102, a number alone is seconds.
 * @param usual unit of a number alone
 * @returns NaN for what is none
 * @example typedSeconds('3.4', 'min') // 204
 */
export function typedSeconds(text: string, usual = 's'): number {
  const clock = /^\s*(?:(\d+):)?(\d{1,2}):(\d{1,2}(?:[.,]\d+)?)\s*$/.exec(text);
  if (clock) {
    const [, hours = '0', minutes = '0', seconds = '0'] = clock;
    return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds.replace(',', '.'));
  }
  const parsed = parseQuantity(text, 'duration', usual);
  return parsed.ok ? parsed.value : Number.NaN;
}

/**
 * bit/s of a rate as programs tell it: bytes and bits, decimal and binary.
 * @param usual unit of a number alone
 * @returns NaN for what is none, and where bits and bytes cannot be told apart (`38 mb/s`)
 * @example typedRate('38.4 MB/s') // 307.2e6
 */
export function typedRate(text: string, usual = 'MB/s'): number {
  const [, number = '', unit = usual] = RATE.exec(text) ?? [];
  return times(number, rateFactor(unit));
}
