// Cells that carry their unit or a prefix themselves, and what meters write where they have no number.
import { findUnit, PREFIXES, type QuantityId, quantityOf, toSi } from '../quantity/index.ts';
import { meterNumber } from './number.ts';

const WITH_UNIT = /^([+-]?[\d.,]+(?:e[+-]?\d+)?)\s*([^\d\s.,+-][^\d]*)$/i;
const OVERLOAD = /^[+-]?(?:ol|o\.l|ovld|over|overload|overflow|inf(?:inity)?|-{2,}|9\.9\d*e\+?3\d)$/i;

/** What a meter writes where a value is beyond its range; no number. */
export const isOverload = (cell: string): boolean => OVERLOAD.test(cell.trim());

/**
 * A value written with its own unit or prefix, SI: `49.6 W`, `12m`, `1,5k`. NaN for anything else.
 * @example ownUnit('12m', false, 'voltage') // 0.012
 */
export function ownUnit(cell: string, comma: boolean, quantity: QuantityId): number {
  const [, digits = '', written = ''] = WITH_UNIT.exec(cell.trim()) ?? [];
  const value = meterNumber(digits, comma);
  if (written === '' || Number.isNaN(value)) return Number.NaN;
  const unit = findUnit(quantity, written.trim());
  if (unit) return toSi(value, unit);
  const prefix = PREFIXES[written.trim()];
  return prefix === undefined || quantityOf(quantity).si === '' ? Number.NaN : value * prefix;
}

/**
 * A number with the unit that stands in the cell beside it; whatever else a cell holds stays as it is.
 * @example withBeside('980.0', 'mW', false) // '980.0 mW'
 */
export const withBeside = (cell: string, beside: string, comma: boolean): string =>
  beside.trim() === '' || Number.isNaN(meterNumber(cell, comma)) ? cell : `${cell.trim()} ${beside.trim()}`;
