// Days as people write them.
import { monthOf } from '../table/index.ts';

const MOST_MONTHS = 12;

/** Year, month and day of a text; null where two orders are possible, or none. */
function partsOf(text: string): readonly [year: string, month: number, day: string] | null {
  const [, y, m, d] = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T\s].*)?$/.exec(text) ?? [];
  if (y && m && d) return [y, Number(m), d];
  const [, first = '', sign, second = '', year] = /^(\d{1,2})([-/.])(\d{1,2})\2(\d{4})$/.exec(text) ?? [];
  if (year) {
    if (sign === '.' || Number(first) > MOST_MONTHS || first === second) return [year, Number(second), first];
    return Number(second) > MOST_MONTHS ? [year, Number(first), second] : null;
  }
  const [, day, named = '', ofYear] = /^(\d{1,2})(?:st|nd|rd|th)?[.\s-]+([a-z]+\.?)[,\s-]+(\d{4})$/i.exec(text) ?? [];
  if (day && ofYear) return [ofYear, monthOf(named), day];
  const [, name = '', dayAfter, yearAfter] = /^([a-z]+\.?)\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})$/i.exec(text) ?? [];
  return dayAfter && yearAfter ? [yearAfter, monthOf(name), dayAfter] : null;
}

/**
 * A day as people write it, as an ISO day: with the year first, with points, with the month by name, or in an order that only
 * one reading allows.
 * @returns null for one that can be read two ways (`03/02/2026`), and for none
 * @example dayOf('2 Mar 2026') // '2026-03-02'
 */
export function dayOf(text: string): string | null {
  const parts = partsOf(text.trim());
  if (!parts) return null;
  const iso = `${parts[0]}-${String(parts[1]).padStart(2, '0')}-${parts[2].padStart(2, '0')}`;
  const time = Date.parse(`${iso}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(iso) ? iso : null;
}
