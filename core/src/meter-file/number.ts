// Numbers as meters write them, read fast: a long file has millions.

const ZERO = 48;
const NINE = 57;
const SPACE = 32;
const MINUS = 45;
const PLUS = 43;
const POINT = 46;
const COMMA = 44;
/** Digits whose value a double holds exactly. */
const MOST_DIGITS = 15;
const POWERS = Array.from({ length: MOST_DIGITS + 1 }, (_, exponent) => 10 ** exponent);

/**
 * A number with the given decimal sign, spaces around it allowed. NaN for anything else, infinities and empty cells
 * included. Plain digits are read directly: up to 15 of them and a power of ten are exact in binary, so their quotient
 * is the double nearest to what was written; the rest goes through Number.
 */
export function meterNumber(cell: string, comma: boolean): number {
  const decimal = comma ? COMMA : POINT;
  let at = 0;
  let end = cell.length;
  while (at < end && cell.charCodeAt(at) === SPACE) at += 1;
  while (end > at && cell.charCodeAt(end - 1) === SPACE) end -= 1;
  const first = cell.charCodeAt(at);
  const negative = first === MINUS;
  if (negative || first === PLUS) at += 1;
  let mantissa = 0;
  let digits = 0;
  let fraction = -1;
  for (; at < end; at += 1) {
    const code = cell.charCodeAt(at);
    if (code >= ZERO && code <= NINE) {
      mantissa = mantissa * 10 + (code - ZERO);
      digits += 1;
      if (fraction >= 0) fraction += 1;
    } else if (code === decimal && fraction < 0) fraction = 0;
    else return viaNumber(cell, comma);
  }
  if (digits === 0) return Number.NaN;
  if (digits > MOST_DIGITS) return viaNumber(cell, comma);
  const value = fraction > 0 ? mantissa / (POWERS[fraction] as number) : mantissa;
  return negative ? -value : value;
}

/** Exponents and very long numbers. A point in a file with decimal commas is a mistake, not a decimal sign. */
function viaNumber(cell: string, comma: boolean): number {
  if (comma && cell.includes('.')) return Number.NaN;
  const value = cell.trim() === '' ? Number.NaN : Number(comma ? cell.replace(',', '.') : cell);
  return Number.isFinite(value) && !/[xob_]/i.test(cell) ? value : Number.NaN;
}
