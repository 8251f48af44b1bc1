// An amount of money as people type it: with or without a sign or three letters for the currency.
import { parseDecimal } from './parse.ts';

const SIGNS: Readonly<Record<string, string>> = { '€': 'EUR', $: 'USD', US$: 'USD', '£': 'GBP', '¥': 'JPY' };

/** Three letters of a sign as `€`; null for none. @example currencyOfSign('£') // 'GBP' */
export const currencyOfSign = (sign: string): string | null => SIGNS[sign] ?? null;

const SHAPE = /^([A-Za-z]{3}|US\$|[€$£¥])?\s*([^A-Za-z€$£¥]*?)\s*([A-Za-z]{3}|US\$|[€$£¥])?$/;
/** No price has thousandths: "1,299" and "1.299" are thousands. */
const THOUSANDS = /^([+-]?[1-9]\d{0,2})[.,](\d{3})$/;
/** Nothing behind the sign: "54.–". */
const NO_CENTS = /[.,]\s*[-–—]{1,2}$/;

export interface Money {
  /** NaN for anything that is no amount. */
  readonly amount: number;
  /** Three letters, where the text names one. */
  readonly currency: string | null;
}

/**
 * Parse an amount.
 * @param thousandths a price of something small, such as a kilowatt-hour, may have them
 * @example parseMoney('€54') // { amount: 54, currency: 'EUR' }
 */
export function parseMoney(text: string, thousandths = false): Money {
  const [, before, digits = '', after] = SHAPE.exec(text.trim()) ?? [];
  const said = before ?? after;
  const plain = digits.replace(NO_CENTS, '');
  const amount =
    before !== undefined && after !== undefined
      ? Number.NaN
      : parseDecimal(thousandths ? plain : plain.replace(THOUSANDS, '$1$2'));
  return { amount, currency: said === undefined ? null : (SIGNS[said] ?? said.toUpperCase()) };
}
