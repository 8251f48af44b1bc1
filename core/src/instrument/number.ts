// Numbers as instruments write them.

/** A number as SCPI writes it; NaN for "not a number" (9.91E37), infinities for ±9.9E37. SCPI-1999, volume 1, 7.2.1.4 */
export function scpiNumber(text: string): number {
  const value = Number(text.trim() === '' ? 'x' : text);
  if (Math.abs(value - 9.91e37) < 1e34) return Number.NaN;
  if (Math.abs(value) >= 9.9e37) return value > 0 ? Number.POSITIVE_INFINITY : Number.NEGATIVE_INFINITY;
  return value;
}
