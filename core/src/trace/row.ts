// One line of numbers read from its bytes: a long file has tens of millions of them.

const ZERO = 48;
const NINE = 57;
const SPACE = 32;
const QUOTE = 34;
const MINUS = 45;
const PLUS = 43;
const UPPER_E = 69;
const LOWER_E = 101;
const TAB = 9;
/** Digits whose value a double holds exactly. */
const MOST_DIGITS = 15;
/** Powers of ten a double holds exactly. */
const POWERS = Array.from({ length: 23 }, (_, exponent) => 10 ** exponent);

const decoder = new TextDecoder('latin1');
/** Text of a stretch of a line. */
export const textOf = (bytes: Uint8Array, from: number, to: number): string => decoder.decode(bytes.subarray(from, to));

/**
 * A number from bytes; NaN for anything that is none. Up to 15 digits and a power of ten up to 22 are exact in binary, so
 * one product or quotient of them is the double nearest to what was written; the rest goes through Number.
 * @param decimal code of the decimal sign
 */
export function numberAt(bytes: Uint8Array, from: number, to: number, decimal: number): number {
  let at = from;
  let end = to;
  while (at < end && (bytes[at] === SPACE || bytes[at] === QUOTE || bytes[at] === TAB)) at += 1;
  while (end > at && (bytes[end - 1] === SPACE || bytes[end - 1] === QUOTE || bytes[end - 1] === TAB)) end -= 1;
  const begin = at;
  const sign = bytes[at];
  if (sign === MINUS || sign === PLUS) at += 1;
  let mantissa = 0;
  let digits = 0;
  let scale = 0;
  let any = false;
  let fraction = false;
  for (; at < end; at += 1) {
    const code = bytes[at] as number;
    if (code >= ZERO && code <= NINE) {
      mantissa = mantissa * 10 + (code - ZERO);
      any = true;
      if (mantissa > 0) digits += 1;
      if (fraction) scale -= 1;
    } else if (code === decimal && !fraction) fraction = true;
    else break;
  }
  if (!any) return Number.NaN;
  if (at < end && (bytes[at] === LOWER_E || bytes[at] === UPPER_E)) {
    at += 1;
    const minus = bytes[at] === MINUS;
    if (minus || bytes[at] === PLUS) at += 1;
    let exponent = 0;
    const start = at;
    for (; at < end; at += 1) {
      const code = bytes[at] as number;
      if (code < ZERO || code > NINE) return Number.NaN;
      exponent = exponent * 10 + (code - ZERO);
    }
    if (at === start) return Number.NaN;
    scale += minus ? -exponent : exponent;
  }
  if (at < end) return Number.NaN;
  if (digits > MOST_DIGITS || scale > 22 || scale < -22)
    return Number(textOf(bytes, begin, end).replace(String.fromCharCode(decimal), '.'));
  const value = scale < 0 ? mantissa / (POWERS[-scale] as number) : mantissa * (POWERS[scale] as number);
  return sign === MINUS ? -value : value;
}
