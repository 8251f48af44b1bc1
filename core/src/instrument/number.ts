// Numbers as instruments write them.

/** A number as SCPI writes it, already known to be one; NaN for "not a number" (9.91E37), infinities for ±9.9E37. SCPI-1999, volume 1, 7.2.1.4 */
function scpiNumber(text: string): number {
  const value = Number(text);
  if (Math.abs(value - 9.91e37) < 1e34) return Number.NaN;
  if (Math.abs(value) >= 9.9e37) return value > 0 ? Number.POSITIVE_INFINITY : Number.NEGATIVE_INFINITY;
  return value;
}

/** What instruments write for too much, in capitals. */
const TOO_MUCH = /^([-+]?)\s*(O\.?L\.?D?|OVLD|OVER|OVERLOAD|OVERFLOW|INF|INFINITY|O\.F|OVRNG)$/;
/** … and for nothing measured. */
const NOTHING = /^(NAN|-+|\?+|N\/A|NONE|INVALID|ERR|ERROR)$/;

/**
 * A number, or a word an instrument writes in its place.
 * @returns infinity for out of range, NaN for nothing measured; null for a text that is neither
 * @example numberFrom('+9.9E37') // Infinity
 * @example numberFrom('OVLD') // Infinity
 */
export function numberFrom(text: string): number | null {
  const plain = text.trim().toUpperCase();
  const over = TOO_MUCH.exec(plain);
  if (over) return over[1] === '-' ? Number.NEGATIVE_INFINITY : Number.POSITIVE_INFINITY;
  if (NOTHING.test(plain)) return Number.NaN;
  if (!/^[-+]?(\d+\.?\d*|\.\d+)(E[-+]?\d+)?$/.test(plain)) return null;
  return scpiNumber(plain);
}

/**
 * Numbers of a reply, between commas; NaN for what is none, as for SCPI's own "not a number".
 * @example numbersFrom('20.01,OVLD,') // [20.01, Infinity, NaN]
 */
export const numbersFrom = (text: string): number[] => text.split(',').map((one) => numberFrom(one) ?? Number.NaN);
