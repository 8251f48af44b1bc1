// Turns what a person typed or a meter wrote ("3250 mA", "19,8") into an SI value.
import { findUnit, type QuantityId, quantityOf, toSi, ZERO_CELSIUS } from './units.ts';

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

const PART = '(\\d+(?:[.,]\\d+)?)';
const HOURS = `${PART}\\s*h(?:r|rs|ours?)?`;
const PARTS_OF_TIME = new RegExp(
  `^(?:${HOURS})?\\s*(?:${PART}\\s*m(?:ins?|inutes?)?)?\\s*(?:${PART}\\s*s(?:ecs?|econds?)?)?$`,
  'i',
);
const HOURS_MINUTES = new RegExp(`^${HOURS}\\s*(\\d+)$`, 'i');
const CLOCK = /^(\d+):([0-5]\d):([0-5]\d(?:[.,]\d+)?)$/;

/** A duration in several parts: `1 h 30 min`, `1h30`, `1:02:03`; null for one of a single part. */
function partsOfTime(text: string): Parsed | null {
  const clock = CLOCK.exec(text);
  const [, hours, minutes, seconds] = clock ?? PARTS_OF_TIME.exec(text) ?? HOURS_MINUTES.exec(text) ?? [];
  if ([hours, minutes, seconds].filter((one) => one !== undefined).length > 1) {
    const [h, min, s] = [hours, minutes, seconds].map((one) => parseDecimal(one ?? '0')) as [number, number, number];
    const value = h * 3600 + min * 60 + s;
    return Number.isFinite(value) ? { ok: true, value, unit: seconds === undefined ? 'min' : 's' } : null;
  }
  const [, one, other] = /^(\d+):(\d{2})$/.exec(text) ?? [];
  return one === undefined || other === undefined
    ? null
    : {
        ok: false,
        reason: `"${text}" may be hours and minutes or minutes and seconds: write ${one} h ${other} min or ${one} min ${other} s.`,
      };
}

/**
 * Parse a value of a quantity, with or without a unit.
 * @param text what was typed, e.g. `3250 mA`, `19,8`, `0.045 W`; a duration also as `1 h 30 min` or `1:02:03`
 * @param id the quantity the field holds
 * @param usual unit taken when none is written; the quantity's usual unit by default
 * @returns the SI value, or the reason it could not be read, ready to show
 */
export function parseQuantity(text: string, id: QuantityId, usual: string = quantityOf(id).usual): Parsed {
  const cleaned = text.trim().replace(/\u2212/g, '-');
  if (cleaned === '') return { ok: false, reason: 'Nothing typed.' };
  const time = id === 'duration' ? partsOfTime(cleaned) : null;
  if (time) return time;
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

/** Plausible temperatures of what a field is about, K. */
export const ROOM_RANGE = { low: 253.15, high: 333.15 } as const;
export const SURFACE_RANGE = { low: 253.15, high: 423.15 } as const;

const asCelsius = (kelvin: number): string => (kelvin - ZERO_CELSIUS).toFixed(1);

/**
 * Parse a temperature for a field that is in °C: another unit is refused with the value it would be, and so is a number
 * that looks like one read in °F.
 * @param what the field is about: "room", "hottest spot"
 */
export function parseCelsius(
  text: string,
  range: { readonly low: number; readonly high: number },
  what: string,
): Parsed {
  const parsed = parseQuantity(text, 'temperature');
  if (!parsed.ok) return parsed;
  if (parsed.unit !== '°C')
    return {
      ok: false,
      reason: `${text.trim()} is ${asCelsius(parsed.value)} °C. This field is in °C: type ${asCelsius(parsed.value)} if that is meant.`,
    };
  if (parsed.value >= range.low && parsed.value <= range.high) return parsed;
  const celsius = parsed.value - ZERO_CELSIUS;
  return {
    ok: false,
    reason: `${celsius.toFixed(1)} °C for the ${what}? If the meter shows °F, that is ${(((celsius - 32) * 5) / 9).toFixed(1)} °C.`,
  };
}

/**
 * SI step of the last digit as written: `20.4` volts → 0.1, `3250 mA` → 0.001.
 * @returns 0 for text that is not a value of the quantity
 */
export function digitStep(text: string, id: QuantityId): number {
  const parsed = parseQuantity(text, id);
  if (!parsed.ok) return 0;
  const unit = findUnit(id, parsed.unit);
  const decimals = /[.,](\d+)(?:\s*\D*)?$/.exec(text.trim())?.[1]?.length ?? 0;
  return (unit?.factor ?? 1) * 10 ** -decimals;
}
