// Sizes and times of copies in the units people read them in.
import { parseQuantity } from '../quantity/index.ts';

const SIZES: readonly (readonly [RegExp, number])[] = [
  [/^tb$/i, 1e12],
  [/^gb$/i, 1e9],
  [/^mb$/i, 1e6],
  [/^kb$/i, 1e3],
  [/^tib$/i, 2 ** 40],
  [/^gib$/i, 2 ** 30],
  [/^mib$/i, 2 ** 20],
  [/^kib$/i, 2 ** 10],
  [/^b(?:ytes?)?$/i, 1],
];

/** Bytes of one unit of size; null for one nobody knows. @example sizeFactor('GiB') // 1073741824 */
export const sizeFactor = (unit: string): number | null => SIZES.find(([pattern]) => pattern.test(unit))?.[1] ?? null;

/**
 * Bytes of a size: `8 GB` are 8 000 000 000, `8 GiB` 8 589 934 592.
 * @param usual unit of a number alone
 * @returns NaN for what is none
 */
export function typedBytes(text: string, usual = 'GB'): number {
  const [, number = '', unit = usual] = /^\s*([\d.,]+)\s*([a-z]+)?\s*$/i.exec(text) ?? [];
  const factor = sizeFactor(unit);
  const value = Number(number.replace(',', '.'));
  return number === '' || factor === null || !(value > 0) ? Number.NaN : Math.round(value * factor);
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
  const parsed = parseQuantity(/[a-z]/i.test(text) || text.trim() === '' ? text : `${text} ${usual}`, 'duration');
  return parsed.ok ? parsed.value : Number.NaN;
}

/**
 * bit/s of a rate as programs tell it: bytes and bits, decimal and binary.
 * @param usual unit of a number alone
 * @returns NaN for what is none
 * @example typedRate('38.4 MB/s') // 307.2e6
 */
export function typedRate(text: string, usual = 'MB/s'): number {
  const [, number = '', unit = usual] = /^\s*([\d.,]+)\s*([a-z]+(?:\/s|ps)?)?\s*$/i.exec(text) ?? [];
  const [, prefix = '', what = ''] = /^([kmgt]i?)?(b|bits?|bytes?)(?:\/s|ps)$/i.exec(unit) ?? [];
  const value = Number(number.replace(',', '.'));
  const factor = sizeFactor(`${prefix}b`);
  // A small b before "ps" or "/s" is a bit, a large one a byte.
  const bytes = what === 'B' || /^bytes?$/i.test(what);
  if (number === '' || what === '' || factor === null || !(value > 0)) return Number.NaN;
  return value * factor * (bytes ? 8 : 1);
}
