// Validation with every error at once, each with its path.
import { type AnyObject, type ObjectSchema, ValidationError } from 'yup';

export interface FieldError {
  readonly path: string;
  readonly message: string;
}

export type Validated<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly errors: FieldError[] };

/** Check a value of unknown origin against a schema. Never throws for bad input. */
export function validate<T>(schema: ObjectSchema<AnyObject>, value: unknown): Validated<T> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    return { ok: false, errors: [{ path: '', message: 'An object is expected here.' }] };
  }
  try {
    return { ok: true, value: schema.validateSync(value, { abortEarly: false }) as T };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return { ok: false, errors: inner.map(({ path, message }) => ({ path: path ?? '', message })) };
  }
}
