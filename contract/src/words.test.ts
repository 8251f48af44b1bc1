// Whatever somebody writes into whichever field: what is said about it is in their words and units.
import { describe, expect, it } from 'vitest';
import { type AnyObject, type ObjectSchema, object, type Schema } from 'yup';
import { deviceInput, profileInput, ROUTES, runBody, sampleInput, validate } from './index.ts';
import { fieldName } from './words.ts';

interface Node {
  readonly fields?: Readonly<Record<string, unknown>>;
  readonly innerType?: unknown;
  readonly variants?: readonly unknown[];
}

interface Leaf {
  readonly path: string;
  readonly schema: Schema<unknown>;
}

/** Every field of a schema with the path it has in a body, lists by their first entry. */
function leaves(node: unknown, path: string): Leaf[] {
  const { fields, innerType, variants } = node as Node;
  if (variants) return variants.flatMap((one) => leaves(one, path));
  if (innerType) return [{ path, schema: node as Schema<unknown> }, ...leaves(innerType, `${path}[0]`)];
  const own = path === '' ? [] : [{ path, schema: node as Schema<unknown> }];
  if (!fields) return own;
  return [...own, ...Object.entries(fields).flatMap(([key, one]) => leaves(one, path === '' ? key : `${path}.${key}`))];
}

const SCHEMAS = Object.entries(ROUTES).flatMap(([name, route]) => {
  const { body } = route as { body?: ObjectSchema<AnyObject> };
  return body ? [{ name, body }] : [];
});

const WRONG: readonly unknown[] = [
  undefined,
  null,
  Number.NaN,
  Number.POSITIVE_INFINITY,
  -1e9,
  1e12,
  1.5,
  '',
  ' spaces ',
  'x'.repeat(5000),
  true,
  [],
  Array.from({ length: 1001 }, () => 'x'),
  {},
  { nobody: 1 },
];

/** What only somebody who wrote the program would say. */
const ENGINE_ROOM =
  /[a-z]{2}[A-Z]|\[\d|`|\$\{|undefined|NaN|\bnull\b|final value|must match|field must|\bthis\b|\bThis\b|object type|[a-z]\.[a-z]+\.[a-z]/;

/** What one field alone says of a value. */
function said({ path, schema }: Leaf, value: unknown): string[] {
  const key = path.split('.').at(-1) ?? path;
  const inList = /\[0\]$/.test(key);
  const bare = key.replace(/\[0\]$/, '');
  const found = inList
    ? validate(object({ [bare]: schema as never }), { [bare]: value })
    : validate(object({ [key]: schema as never }), { [key]: value });
  return found.ok ? [] : found.errors.map(({ message }) => message);
}

describe('messages', () => {
  it.each(SCHEMAS)('of $name are in the words of its users, whatever is written', ({ body }) => {
    const all = leaves(body, '');
    expect(all.length).toBeGreaterThan(0);
    for (const leaf of all)
      for (const value of WRONG)
        for (const message of said(leaf, value))
          if (ENGINE_ROOM.test(message)) expect(message, leaf.path).toBe('in words');
  });

  it('of every field have a name for it', () => {
    const nameless = SCHEMAS.flatMap(({ body }) => leaves(body, ''))
      .map(({ path }) => path)
      .filter((path) => fieldName(path) === 'This' || fieldName(path).startsWith('Entry'));
    expect([...new Set(nameless)]).toEqual([]);
  });

  it.each([
    [sampleInput, 'model.mass', { model: { mass: 0 } }, 'Mass must be at least 1 g'],
    [sampleInput, 'model.length', { model: { length: 3 } }, 'Length must be at most 2000 mm'],
    [
      sampleInput,
      'model.prices[1].currency',
      { model: { prices: [{}, { currency: 'euro' }] } },
      'Currency of price 2 is not a three-letter currency such as EUR',
    ],
    [profileInput, 'tariff', { tariff: Number.NaN }, 'Price of a kWh is not a number'],
    [profileInput, 'continuous', { continuous: 5 }, 'What counts as continuous must be at least 60 s'],
    [profileInput, 'limits.hottest', { limits: { hottest: 600 } }, 'Hottest point must be at most 226.9 °C'],
    [deviceInput, 'ceilings[0].watts', { ceilings: [{ watts: 900 }] }, 'Power of ceiling 1 must be at most 500 W'],
    [
      runBody,
      'run.shares[0].volts',
      { run: { kind: 'split', shares: [{ port: 'C1', volts: 230 }] } },
      'Voltage of share 1 must be at most 60 V',
    ],
  ])('say it with the unit of the field: %#', (schema, path, value, message) => {
    const found = validate(schema, value);
    expect(found.ok ? [] : found.errors.filter((one) => one.path === path)).toEqual([{ path, message }]);
  });

  it('say where in a list of lists', () => {
    expect(fieldName('points[0].readings[2].typed')).toBe('What was typed of reading 3 of point 1');
    expect(fieldName('run.order[1]')).toBe('Port in the order 2');
  });
});
