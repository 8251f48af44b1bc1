// The shape of JSON values as a schema, learnt from values that were seen, and whether another value has it.

/** What of JSON Schema (draft 2020-12) a shape needs. */
export interface Shape {
  readonly type?: string | readonly string[];
  readonly format?: 'date-time';
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly required?: readonly string[];
  /** Of every entry of a map; false where no other property is known. */
  readonly additionalProperties?: Shape | false;
  readonly items?: Shape;
}

const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d+)?Z$/;
/** Keys that name things rather than properties: ids, ports, what people typed. */
const IS_NAME = /^[a-z][A-Za-z0-9]{0,40}$/;
/** So many keys of one shape are a map. */
const MANY_KEYS = 40;

const typesOf = ({ type }: Shape): readonly string[] =>
  type === undefined ? [] : typeof type === 'string' ? [type] : type;
const typed = (types: readonly string[]): Pick<Shape, 'type'> => {
  const sorted = [...new Set(types)].sort();
  return sorted.length === 0 ? {} : { type: sorted.length === 1 ? (sorted[0] as string) : sorted };
};
const kindOf = (value: unknown): string => (value === null ? 'null' : Array.isArray(value) ? 'array' : typeof value);

/** A shape both fit. */
export function joined(a: Shape, b: Shape): Shape {
  const bothStrings = [a, b].every((one) => typesOf(one).includes('string'));
  const text = [a, b].filter((one) => typesOf(one).includes('string'));
  const dated = text.length > 0 && text.every(({ format }) => format) && (bothStrings || text.length === 1);
  const base: Shape = {
    ...typed([...typesOf(a), ...typesOf(b)]),
    ...(dated ? { format: 'date-time' as const } : {}),
    ...(a.items || b.items ? { items: joined(a.items ?? {}, b.items ?? {}) } : {}),
  };
  const objects = [a, b].filter((one) => typesOf(one).includes('object'));
  if (objects.length === 0) return base;
  if (objects.length === 1) {
    const { properties, required, additionalProperties } = objects[0] as Shape;
    return {
      ...base,
      ...(properties ? { properties } : {}),
      ...(required ? { required } : {}),
      ...(additionalProperties === undefined ? {} : { additionalProperties }),
    };
  }
  const isMap = objects.some(({ additionalProperties }) => additionalProperties);
  const properties: Record<string, Shape> = {};
  for (const { properties: own = {} } of objects)
    for (const [key, shape] of Object.entries(own)) {
      const before = properties[key];
      properties[key] = before ? joined(before, shape) : shape;
    }
  if (isMap || Object.keys(properties).length > MANY_KEYS) {
    const values = [
      ...Object.values(properties),
      ...objects.flatMap(({ additionalProperties }) => additionalProperties || []),
    ];
    return { ...base, additionalProperties: values.reduce(joined, {}) };
  }
  const required = (a.required ?? []).filter((key) => b.required?.includes(key));
  const sorted = Object.fromEntries(Object.entries(properties).sort(([x], [y]) => (x < y ? -1 : 1)));
  return { ...base, properties: sorted, required: [...required].sort(), additionalProperties: false };
}

/** The shape of one value. */
export function shapeOf(value: unknown): Shape {
  const type = kindOf(value);
  if (type === 'string') return MOMENT.test(value as string) ? { type, format: 'date-time' } : { type };
  if (Array.isArray(value)) {
    const items = value.map(shapeOf).reduce(joined, {});
    return { type, ...(typesOf(items).length > 0 ? { items } : {}) };
  }
  if (type !== 'object') return { type };
  const entries = Object.entries(value as object);
  if (entries.length === 0 || !entries.every(([key]) => IS_NAME.test(key)))
    return entries.length === 0
      ? { type, properties: {}, required: [], additionalProperties: false }
      : { type, additionalProperties: entries.map(([, one]) => shapeOf(one)).reduce(joined, {}) };
  return {
    type,
    properties: Object.fromEntries(entries.map(([key, one]) => [key, shapeOf(one)])),
    required: entries.map(([key]) => key).sort(),
    additionalProperties: false,
  };
}

/**
 * Where a value does not have a shape, in words; null where it has.
 * @example misfit({ type: 'number' }, 'x') // 'it is string, not number'
 */
export function misfit(shape: Shape, value: unknown, at = ''): string | null {
  const where = at === '' ? 'it' : at;
  const kind = kindOf(value);
  const types = typesOf(shape);
  if (types.length > 0 && !types.includes(kind)) return `${where} is ${kind}, not ${types.join(' or ')}`;
  if (kind === 'string' && shape.format && !MOMENT.test(value as string)) return `${where} is no moment`;
  if (Array.isArray(value)) {
    if (!shape.items) return value.length === 0 ? null : `${where} holds what is not described`;
    for (const [index, one] of value.entries()) {
      const wrong = misfit(shape.items, one, `${at}[${index}]`);
      if (wrong) return wrong;
    }
    return null;
  }
  if (kind !== 'object' || types.length === 0) return null;
  const entries = Object.entries(value as object);
  const lacking = (shape.required ?? []).find((key) => !entries.some(([own]) => own === key));
  if (lacking !== undefined) return `${where} lacks ${lacking}`;
  for (const [key, one] of entries) {
    const own = shape.properties?.[key] ?? shape.additionalProperties;
    if (!own) return `${where} has ${key}, which is not described`;
    const wrong = misfit(own, one, at === '' ? key : `${at}.${key}`);
    if (wrong) return wrong;
  }
  return null;
}
