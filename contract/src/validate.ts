// Validation with many errors at once, each with its path; a little at a time, so that no body can hold a server up.
import { type AnyObject, type ObjectSchema, type Schema, ValidationError } from 'yup';
import type { Union } from './parts.ts';
import { fieldName, inWords } from './words.ts';

export interface FieldError {
  readonly path: string;
  readonly message: string;
  /** Sent again with "yes, really" it is taken. */
  readonly really?: boolean;
}

export type Validated<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly errors: FieldError[] };

/** Looking for errors ends at so many. */
export const MOST_ERRORS = 100;
/** Deeper than anything the schemas have. */
const MOST_DEPTH = 24;
/** Names that mean something to the language itself. */
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);
const HALF_CHARACTER = /\p{Surrogate}/u;

type AnySchema = Schema<unknown> | Union;

const inside = (path: string, key: string): string => (path === '' ? key : `${path}.${key}`);

/** What no schema needs to be asked about: half characters, reserved names, endless nesting. Null is a place to rest. */
function* roughProblems(value: unknown, path: string, depth: number): Generator<FieldError | null> {
  if (typeof value === 'string') {
    if (HALF_CHARACTER.test(value)) yield { path, message: `${fieldName(path)} has half a character in it.` };
    return;
  }
  if (typeof value !== 'object' || value === null) return;
  yield null;
  if (depth > MOST_DEPTH) {
    yield { path, message: `${fieldName(path)} is nested deeper than anything here.` };
    return;
  }
  if (Array.isArray(value)) {
    for (let index = 0; index < value.length; index += 1)
      yield* roughProblems(value[index], `${path}[${index}]`, depth + 1);
    return;
  }
  for (const key of Object.keys(value)) {
    const at = inside(path, key.slice(0, 60));
    if (RESERVED.has(key) || HALF_CHARACTER.test(key)) yield { path: at, message: `${at} is no name of a field.` };
    else yield* roughProblems((value as Record<string, unknown>)[key], at, depth + 1);
  }
}

/** What one schema says of one value, without what lies inside it. */
function own(schema: Schema<unknown>, value: unknown, path: string): FieldError[] {
  try {
    // `path` is what messages are written with; the types leave it out.
    schema.validateSync(value, { abortEarly: false, recursive: false, path } as object);
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return inner.map((one) => ({ path: one.path || path, message: inWords(one, one.path || path) }));
  }
}

/** Everything a schema has to say, outside in: a list that is too long is not gone through. Null is a place to rest. */
function* schemaProblems(schema: AnySchema, value: unknown, path: string): Generator<FieldError | null> {
  if ('resolve' in schema && 'variants' in schema) {
    const resolved = (schema as unknown as { resolve: (options: object) => Schema<unknown> }).resolve({ value });
    yield* schemaProblems(resolved, value, path);
    return;
  }
  const found = own(schema as Schema<unknown>, value, path);
  yield* found.length > 0 ? found : [null];
  const { fields, innerType } = schema as unknown as {
    fields?: Record<string, AnySchema>;
    innerType?: AnySchema;
  };
  if (innerType && Array.isArray(value) && found.length === 0) {
    for (let index = 0; index < value.length; index += 1)
      yield* schemaProblems(innerType, value[index], `${path}[${index}]`);
  } else if (fields && typeof value === 'object' && value !== null && !Array.isArray(value)) {
    for (const [key, field] of Object.entries(fields))
      yield* schemaProblems(field, (value as Record<string, unknown>)[key], inside(path, key));
  }
}

function* problems(schema: ObjectSchema<AnyObject>, value: unknown): Generator<FieldError | null> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    yield { path: '', message: 'An object is expected here.' };
    return;
  }
  let rough = false;
  for (const problem of roughProblems(value, '', 0)) {
    rough ||= problem !== null;
    yield problem;
  }
  if (!rough) yield* schemaProblems(schema, value, '');
}

const outcome = <T>(value: unknown, errors: FieldError[]): Validated<T> =>
  errors.length > 0 ? { ok: false, errors } : { ok: true, value: value as T };

/** Check a value of unknown origin against a schema. Never throws for bad input; ends at {@link MOST_ERRORS} errors. */
export function validate<T>(schema: ObjectSchema<AnyObject>, value: unknown): Validated<T> {
  const errors: FieldError[] = [];
  for (const problem of problems(schema, value)) {
    if (problem) errors.push(problem);
    if (errors.length >= MOST_ERRORS) break;
  }
  return outcome(value, errors);
}

/**
 * The same in slices, so that others have their turn.
 * @param slice how long to go on at a time, ms
 * @param rest lets others have their turn
 */
export async function validateInSlices<T>(
  schema: ObjectSchema<AnyObject>,
  value: unknown,
  slice: number,
  rest: () => Promise<void>,
): Promise<Validated<T>> {
  const errors: FieldError[] = [];
  let begun = performance.now();
  for (const problem of problems(schema, value)) {
    if (problem) errors.push(problem);
    if (errors.length >= MOST_ERRORS) break;
    if (performance.now() - begun < slice) continue;
    await rest();
    begun = performance.now();
  }
  return outcome(value, errors);
}

/** Check the parameters of an address, whose numbers come as text. @returns them as what they mean */
export function validateQuery(schema: ObjectSchema<AnyObject>, value: object): Validated<Record<string, unknown>> {
  const rough = [...roughProblems(value, '', 0)].filter((one) => one !== null);
  if (rough.length > 0) return outcome(value, rough);
  try {
    return { ok: true, value: schema.validateSync(value, { abortEarly: false }) };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return { ok: false, errors: inner.map((one) => ({ path: one.path ?? '', message: inWords(one, one.path ?? '') })) };
  }
}
