// Turns what a person typed or a meter wrote ("3250 mA", "19,8") into an SI value.
import { findUnit, type QuantityId, quantityOf, toSi } from './units.ts';

export type Parsed =
  | { readonly ok: true /** SI */; readonly value: number /** unit as recognised */; readonly unit: string }
  | { readonly ok: false; readonly reason: string };

const SHAPE = /^([+-]?)((?:\d[\d.,' \u00a0\u202f]*)|(?:[.,]\d+))(e[+-]?\d+)?\s*([^\d\s.,+-][^\d]*)?$/i;

const PLAIN = /^[+-]?(\d+[.,]?\d*|[.,]\d+)(e[+-]?\d+)?$/i;
const GROUPED = /^([+-]?\d{1,3}(?:([.,' \u00a0\u202f])\d{3})(?:\2\d{3})*)(?:([.,])(\d+))?$/;

/**
 * Parse a plain decimal number with either decimal sign. A sign that occurs once is the decimal sign ("1,234" is
 * 1.234); groups of three are thousands only where that cannot be a decimal sign ("1.234,5", "1 234", "1,234,567").
 * Returns NaN for anything that is not a finite number.
 */
export function parseDecimal(text: string): number {
  const digits = text.trim().replace(/\u2212/g, '-');
  if (PLAIN.test(digits)) return finiteOrNaN(Number(digits.replace(',', '.')));
  const grouped = GROUPED.exec(digits);
  if (!grouped) return Number.NaN;
  const [, whole = '', separator = '', decimalSign, fraction = ''] = grouped;
  if (decimalSign === separator) return Number.NaN;
  return finiteOrNaN(Number(`${whole.replaceAll(separator, '')}.${fraction || '0'}`));
}

const finiteOrNaN = (value: number): number => (Number.isFinite(value) ? value : Number.NaN);

/**
 * Parse a value of a quantity, with or without a unit.
 * @param text what was typed, e.g. `3250 mA`, `19,8`, `0.045 W`
 * @param id the quantity the field holds
 * @param usual unit taken when none is written; the quantity's usual unit by default
 * @returns the SI value, or the reason it could not be read, ready to show
 */
export function parseQuantity(text: string, id: QuantityId, usual: string = quantityOf(id).usual): Parsed {
  const cleaned = text.trim().replace(/\u2212/g, '-');
  if (cleaned === '') return { ok: false, reason: 'Nothing typed.' };
  const match = SHAPE.exec(cleaned);
  if (!match) return { ok: false, reason: `"${cleaned}" is not a number. Type it like 19.8 or 19,8.` };
  const [, sign = '', digits = '', exponent = '', written = ''] = match;
  const number = parseDecimal(`${sign}${digits.trim()}${exponent}`);
  if (Number.isNaN(number)) return { ok: false, reason: `"${cleaned}" is not a number. Type it like 19.8 or 19,8.` };
  const found = findUnit(id, written.trim() === '' ? usual : written.trim());
  if (!found) {
    const known = quantityOf(id)
      .units.map((candidate) => candidate.symbol)
      .filter(Boolean)
      .join(', ');
    return {
      ok: false,
      reason: `"${written.trim()}" is not a unit of ${quantityOf(id).label.toLowerCase()}. Use ${known || 'a plain number'}.`,
    };
  }
  return { ok: true, value: toSi(number, found), unit: found.symbol };
}
