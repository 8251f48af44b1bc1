// Counts as people type them, and what is said of a field that cannot be read.

/** A count typed with or without signs between its thousands; NaN for what is none. */
export const countIn = (text: string): number =>
  /^(?:\d+|\d{1,3}(?:[\s.,’']\d{3})+)$/.test(text.trim()) ? Number(text.replace(/\D/g, '')) : Number.NaN;

/** What a field shows below it where something stands in it that cannot be read. */
export const unread = (text: string, value: number | null, says: string) =>
  text.trim() !== '' && value !== null && !Number.isFinite(value) ? { error: true, helperText: says } : {};
