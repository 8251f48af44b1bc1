// An amount of money as people type it: with or without a sign or three letters for the currency.
import { parseDecimal } from './parse.ts';

const SIGNS: Readonly<Record<string, string>> = { '€': 'EUR', $: 'USD', '£': 'GBP', '¥': 'JPY' };
const SHAPE = /^([A-Za-z]{3}|[€$£¥])?\s*([^A-Za-z€$£¥]*?)\s*([A-Za-z]{3}|[€$£¥])?$/;

export interface Money {
  /** NaN for anything that is no amount. */
  readonly amount: number;
  /** Three letters, where the text names one. */
  readonly currency: string | null;
}

/**
 * Parse an amount.
 * @example parseMoney('€54') // { amount: 54, currency: 'EUR' }
 */
export function parseMoney(text: string): Money {
  const [, before, digits = '', after] = SHAPE.exec(text.trim()) ?? [];
  const said = before ?? after;
  const amount = before !== undefined && after !== undefined ? Number.NaN : parseDecimal(digits);
  return { amount, currency: said === undefined ? null : (SIGNS[said] ?? said.toUpperCase()) };
}
