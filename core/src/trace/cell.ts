// A cell of a trace that is no plain number: one with a unit of its own, or a word for there being none.
import { isOverload, ownUnit } from '../meter-file/own-unit.ts';
import { ZERO_CELSIUS } from '../quantity/index.ts';
import type { HeadColumn } from './head.ts';

/** What a cell says: a value as the channel keeps it, that it was beyond the meter's range, nothing, or what nobody can read. */
export type Told = number | 'beyond' | 'nothing' | 'unreadable';

const NOTHING = /^(?:|nan|n\/a|null|none|-+)$/i;

/**
 * Read a cell that is no plain number.
 * @param cell without quotes and blanks around it
 * @example cellTold('68 °F', { quantity: 'temperature', … }, false) // 20
 */
export function cellTold(cell: string, { quantity }: Pick<HeadColumn, 'quantity'>, comma: boolean): Told {
  if (isOverload(cell)) return 'beyond';
  if (NOTHING.test(cell)) return 'nothing';
  const percent = /^([+-]?[\d.,]+)\s*%$/.exec(cell)?.[1];
  if (percent !== undefined) return Number(percent.replace(',', '.')) / 100;
  if (quantity === 'level') return 'unreadable';
  const si = ownUnit(cell, comma, quantity ?? 'voltage');
  if (Number.isNaN(si)) return 'unreadable';
  // Energy is kept in Wh, temperatures in °C.
  if (quantity === 'energy') return si / 3600;
  return quantity === 'temperature' ? si - ZERO_CELSIUS : si;
}
