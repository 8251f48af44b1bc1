// A word as named fields: one table per kind of word serves decoding, encoding and the bit-by-bit view.

/** One field of a word of up to 32 bits. */
export interface Field<Id extends string = string> {
  readonly id: Id;
  readonly high: number;
  readonly low: number;
  readonly title: string;
  /** What a raw value means, in words. */
  readonly says: (raw: number) => string;
  /** Bits the standard leaves unused: they are zero in a sound word. */
  readonly reserved?: true;
}

export type Layout<Id extends string = string> = readonly Field<Id>[];
export type Raw<Id extends string> = Readonly<Record<Id, number>>;

/** A field with what it is, ready to show. */
export interface ExplainedField {
  /** `19:10`, or `26` for a single bit. */
  readonly bits: string;
  readonly title: string;
  readonly raw: number;
  readonly says: string;
  /** False for reserved bits that are set. */
  readonly sound: boolean;
}

const width = ({ high, low }: Field): number => high - low + 1;
const valueIn = (word: number, field: Field): number => Math.floor(word / 2 ** field.low) % 2 ** width(field);

/** Raw values of all fields. @param word unsigned */
export function unpack<Id extends string>(layout: Layout<Id>, word: number): Raw<Id> {
  return Object.fromEntries(layout.map((field) => [field.id, valueIn(word, field)])) as Raw<Id>;
}

/**
 * The word made of raw field values; fields left out are zero.
 * @throws RangeError for a value that does not fit its field
 */
export function pack<Id extends string>(layout: Layout<Id>, raw: Partial<Raw<Id>>): number {
  return layout.reduce((word, field) => {
    const value = raw[field.id] ?? 0;
    if (!Number.isInteger(value) || value < 0 || value >= 2 ** width(field)) {
      throw new RangeError(`${field.title} does not fit its ${width(field)} bits.`);
    }
    return word + value * 2 ** field.low;
  }, 0);
}

/** Every field of a word with its meaning, highest bits first. */
export function explain(layout: Layout, word: number): readonly ExplainedField[] {
  return layout.map((field) => {
    const raw = valueIn(word, field);
    return {
      bits: field.high === field.low ? String(field.high) : `${field.high}:${field.low}`,
      title: field.title,
      raw,
      says: field.says(raw),
      sound: !field.reserved || raw === 0,
    };
  });
}

/** Bits of the reserved fields of a word, in their places. */
export const reservedPart = (layout: Layout, word: number): number =>
  layout.reduce((sum, field) => (field.reserved ? sum + valueIn(word, field) * 2 ** field.low : sum), 0);

const span = (high: number, low = high) => ({ high, low });

/** A field that counts steps of a unit. */
export const steps = <Id extends string>(
  id: Id,
  high: number,
  low: number,
  title: string,
  step: number,
  unit: string,
): Field<Id> => ({ id, ...span(high, low), title, says: (raw) => `${Number((raw * step).toFixed(3))} ${unit}` });

/** A single bit that says yes or no. */
export const flag = <Id extends string>(id: Id, bit: number, title: string): Field<Id> => ({
  id,
  ...span(bit),
  title,
  says: (raw) => (raw === 1 ? 'yes' : 'no'),
});

/** A field whose values have names; others are reserved. */
export const choice = <Id extends string>(
  id: Id,
  high: number,
  low: number,
  title: string,
  names: Readonly<Record<number, string>>,
): Field<Id> => ({ id, ...span(high, low), title, says: (raw) => names[raw] ?? 'reserved value' });

/** A plain number. */
export const number = <Id extends string>(id: Id, high: number, low: number, title: string): Field<Id> => ({
  id,
  ...span(high, low),
  title,
  says: String,
});

/** A number people know in hexadecimal. */
export const hexadecimal = <Id extends string>(id: Id, high: number, low: number, title: string): Field<Id> => ({
  id,
  ...span(high, low),
  title,
  says: (raw) =>
    `0x${raw
      .toString(16)
      .toUpperCase()
      .padStart(Math.ceil((high - low + 1) / 4), '0')}`,
});

/** Bits without a meaning. */
export const reserved = (high: number, low = high): Field<never> =>
  ({
    id: `reserved ${high}:${low}`,
    ...span(high, low),
    title: 'Reserved',
    says: (raw: number) => (raw === 0 ? 'zero, as it should be' : 'set, should be zero'),
    reserved: true,
  }) as unknown as Field<never>;

/** A word as eight hexadecimal digits. */
export const wordText = (word: number): string => word.toString(16).toUpperCase().padStart(8, '0');

/** A word from eight hexadecimal digits. @throws RangeError for anything else */
export function wordOf(text: string): number {
  if (!/^[0-9a-f]{8}$/i.test(text)) throw new RangeError(`"${text}" is not a word of eight hexadecimal digits.`);
  return Number.parseInt(text, 16);
}
