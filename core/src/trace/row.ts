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

const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
const western = new TextDecoder('windows-1252');
/** Text of a stretch of a line: UTF-8, and the old Western code page where it is none. */
export function textOf(bytes: Uint8Array, from: number, to: number): string {
  const stretch = bytes.subarray(from, to);
  const text = decoder.decode(stretch);
  return text.includes('\ufffd') ? western.decode(stretch) : text;
}

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

export type Bounds = readonly number[] | Int32Array;
export interface Row {
  readonly bytes: Uint8Array;
  /** Where each cell begins; the last entry is one beyond the end. */
  readonly bounds: Bounds;
}

const scratch: number[] = [];
/** Where the cells of a line begin. The list is one and the same for every line. */
export function split(bytes: Uint8Array, from: number, to: number, delimiter: number, most: number): Bounds {
  scratch.length = 0;
  scratch.push(from);
  for (let at = from; at < to && scratch.length < most; at += 1) if (bytes[at] === delimiter) scratch.push(at + 1);
  if (scratch.length < most) scratch.push(to + 1);
  else {
    const end = bytes.indexOf(delimiter, scratch[scratch.length - 1]);
    scratch.push((end >= 0 && end < to ? end : to) + 1);
  }
  return scratch;
}

/** Whether a stretch of a line holds any digit. */
export function hasDigit(bytes: Uint8Array, from: number, to: number): boolean {
  for (let at = from; at < to; at += 1) if ((bytes[at] as number) >= ZERO && (bytes[at] as number) <= NINE) return true;
  return false;
}

/** Whether a line holds delimiters, blanks and empty quotes alone: spreadsheets pad with them. */
export function isEmpty(bytes: Uint8Array, from: number, to: number, delimiter: number): boolean {
  let at = from;
  while (at < to && (bytes[at] === delimiter || bytes[at] === SPACE || bytes[at] === QUOTE)) at += 1;
  return at === to;
}

/** A line whose cells are parted by runs of blanks, as one parted by single ones. */
export function spaced(bytes: Uint8Array, from: number, to: number): Row {
  const text = new TextEncoder().encode(textOf(bytes, from, to).trim().replace(/\s+/g, ' '));
  return { bytes: text, bounds: split(text, 0, text.length, 32, Number.MAX_SAFE_INTEGER) };
}
