// Small schemas shared by many: ids, texts, numbers that are really numbers.
import { RANGE_SUPPLIES } from '@lastmark/core/reading';
import { type AnyObject, array, lazy, mixed, number, type ObjectSchema, object, type Schema, string } from 'yup';

/** A union told apart by its `kind`, keeping its variants for the API description. */
export interface Union {
  readonly variants: readonly ObjectSchema<AnyObject>[];
  readonly nullable: boolean;
}

/** ULID of anything stored. */
export const id = () =>
  string()
    .strict()
    .matches(/^[0-9A-HJKMNP-TV-Z]{26}$/, '${path} is not an id')
    .required();

/** A short text that must be there. */
export const text = (max: number) =>
  string()
    .strict()
    .trim('${path} has spaces around it')
    .min(1, '${path} is empty')
    .max(max)
    .defined('${path} is missing');

/** A text that may be empty. */
export const optionalText = (max: number) => string().strict().max(max).defined();

/** A finite SI number inside bounds. */
export const si = (min: number, max: number) =>
  number()
    .strict()
    .test('finite', '${path} is not a finite number', (value) => value == null || Number.isFinite(value))
    .min(min, '${path} must be at least ${min}')
    .max(max, '${path} must be at most ${max}');

export const whole = (min: number, max: number) => si(min, max).integer('${path} is not a whole number');

/** Calendar day as `2026-03-02`. */
export const day = () =>
  string()
    .strict()
    .matches(/^\d{4}-\d{2}-\d{2}$/, '${path} is not a date like 2026-03-02')
    .test('real-day', '${path} is not a day of the calendar', (value) => {
      if (value == null) return true;
      const time = Date.parse(`${value}T00:00:00Z`);
      return !Number.isNaN(time) && new Date(time).toISOString().startsWith(value);
    });

/** The end of the time anything can have been measured in. */
const LATEST = Date.UTC(2200, 0, 1);

/** A moment in UTC as `2026-03-02T09:00:00.000Z`. */
export const moment = () =>
  string()
    .strict()
    .matches(
      /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(\.\d{1,3})?Z$/,
      '${path} is not a UTC time like 2026-03-02T09:00:00Z',
    )
    .test('real-time', '${path} is not a time between 1970 and 2200', (value) => {
      if (value == null) return true;
      const time = Date.parse(value);
      return time >= 0 && time < LATEST;
    });

export const oneOf = <T extends string>(values: readonly T[]) =>
  string()
    .strict()
    .oneOf(values, `\${path} must be one of: ${values.join(', ')}`)
    .required();

export const currency = () =>
  string()
    .strict()
    .matches(/^[A-Z]{3}$/, '${path} is not a three-letter currency such as EUR')
    .required();

/** An object without surprises: unknown keys are refused rather than dropped. */
export const record = <T extends Record<string, unknown>>(fields: T) =>
  object(fields as never)
    .strict()
    .exact('${path} has a field nobody knows: ${properties}')
    .required('${path} is missing') as ObjectSchema<AnyObject>;

export const list = (of: unknown, max: number) =>
  array(of as Schema<unknown>)
    .strict()
    .max(max)
    .required();

/** One of several objects, told apart by `kind`, or by another field. */
export function union(
  variants: Record<string, ObjectSchema<AnyObject>>,
  nullable = false,
  by = 'kind',
): Schema<unknown> & Union {
  const kinds = Object.keys(variants);
  const none = record({ [by]: oneOf(kinds) });
  const schema = lazy((value: unknown) => {
    if (nullable && value === null) return mixed().nullable();
    const kind = typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[by] : undefined;
    return (typeof kind === 'string' && Object.hasOwn(variants, kind) ? variants[kind] : undefined) ?? none;
  });
  return Object.assign(schema as unknown as Schema<unknown>, { variants: Object.values(variants), nullable });
}

const mainsVariants = {
  ac: record({ kind: oneOf(['ac']), volts: si(1, 1000).required(), hertz: si(1, 1000).required() }),
  dc: record({ kind: oneOf(['dc']), volts: si(1, 1000).required() }),
};

/** A supply condition. */
export const mains = () => union(mainsVariants);

/** A supply condition, or null for none in particular. */
export const anyMains = () => union(mainsVariants, true);

export const portLabel = () => text(24);

/** One output as it is loaded. */
export const output = record({
  port: portLabel(),
  volts: si(0.5, 60).required(),
  amps: si(0.001, 20).required(),
  supply: string()
    .strict()
    .oneOf([...RANGE_SUPPLIES])
    .optional(),
});
