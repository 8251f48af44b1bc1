// The OpenAPI 3.1 description, made from the routes and their schemas.
import type { Schema, SchemaDescription } from 'yup';
import { ANSWERS, type Seen } from './answers.ts';
import type { Union } from './parts.ts';
import { type Operation, ROUTES, type Route } from './routes.ts';
import type { Shape } from './shape.ts';
import { described } from './words.ts';

type Json = Record<string, unknown>;

/** A Yup schema as JSON Schema (draft 2020-12), as far as the schemas of this package go. */
export function toJsonSchema(schema: Schema<unknown> | Union): Json {
  if ('variants' in schema) {
    const variants = schema.variants.map((variant) => toJsonSchema(variant as Schema<unknown>));
    return { oneOf: schema.nullable ? [...variants, { type: 'null' }] : variants };
  }
  const description = schema.describe() as SchemaDescription;
  const type = nullableType(description);
  const allowed = description.oneOf.filter((value) => value !== undefined);
  const json: Json = { ...(type ? { type } : {}), ...(allowed.length > 0 ? { enum: allowed } : {}) };
  for (const { name, params } of description.tests) {
    if (name === 'min')
      json[description.type === 'string' ? 'minLength' : description.type === 'array' ? 'minItems' : 'minimum'] =
        params?.min;
    if (name === 'max')
      json[description.type === 'string' ? 'maxLength' : description.type === 'array' ? 'maxItems' : 'maximum'] =
        params?.max;
    if (name === 'matches' && params?.regex) json.pattern = String(params.regex).slice(1, -1);
    if (name === 'integer') json.type = 'integer';
  }
  const { fields, innerType } = schema as unknown as {
    fields?: Record<string, Schema<unknown>>;
    innerType?: Schema<unknown>;
  };
  if (description.type === 'object' && fields) {
    json.properties = Object.fromEntries(
      Object.entries(fields).map(([key, field]) => [key, withWords(key, toJsonSchema(field))]),
    );
    json.required = Object.entries(fields).flatMap(([key, field]) => (isRequired(field) ? [key] : []));
    json.additionalProperties = false;
  }
  if (description.type === 'array' && innerType) json.items = toJsonSchema(innerType);
  return json;
}

/** A property with what it is. */
function withWords(key: string, json: Json): Json {
  const description = described(key);
  return description === null ? json : { description, ...json };
}

/** The shape of an answer with what its properties are. */
const inWords = ({ properties, additionalProperties, items, ...rest }: Shape): Json => ({
  ...rest,
  ...(properties
    ? {
        properties: Object.fromEntries(
          Object.entries(properties).map(([key, one]) => [key, withWords(key, inWords(one))]),
        ),
      }
    : {}),
  ...(additionalProperties === undefined
    ? {}
    : { additionalProperties: additionalProperties && inWords(additionalProperties) }),
  ...(items ? { items: inWords(items) } : {}),
});

function nullableType(description: SchemaDescription): unknown {
  if (description.type === 'mixed' || description.type === 'lazy') return undefined;
  return description.nullable ? [description.type, 'null'] : description.type;
}

function isRequired(field: Schema<unknown> | Union): boolean {
  return 'variants' in field || (field.describe() as SchemaDescription).optional === false;
}

const PROBLEM: Json = {
  type: 'object',
  required: ['type', 'title', 'status', 'detail'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    errors: {
      type: 'array',
      items: { type: 'object', properties: { path: { type: 'string' }, message: { type: 'string' } } },
    },
  },
};

const IDEMPOTENCY_KEY: Json = {
  name: 'Idempotency-Key',
  in: 'header',
  required: false,
  description: 'Where ids are left out: the same key and body, sent again, count once',
  schema: { type: 'string', maxLength: 255 },
};

/** Not asked for: an id the server makes where it is left out. */
function withoutIds(json: Json, paths: readonly (readonly string[])[]): Json {
  if (paths.length === 0) return json;
  const variants = json.oneOf as Json[] | undefined;
  if (variants) return { ...json, oneOf: variants.map((one) => withoutIds(one, paths)) };
  const properties = { ...(json.properties as Record<string, Json> | undefined) };
  for (const [first = '', ...rest] of paths) {
    const name = first.replace('[]', '');
    const own = properties[name];
    if (!own || rest.length === 0) continue;
    properties[name] = first.endsWith('[]')
      ? { ...own, items: withoutIds(own.items as Json, [rest]) }
      : withoutIds(own, [rest]);
  }
  const required = ((json.required as string[] | undefined) ?? []).filter(
    (name) => !paths.some((path) => path.length === 1 && path[0] === name),
  );
  return { ...json, properties, required };
}

const parametersOf = ({ path, query, ifMatch, ids }: Route): Json[] => {
  const fields = query ? ((query as unknown as { fields: Record<string, Schema<unknown>> }).fields ?? {}) : {};
  return [
    ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    })),
    ...Object.entries(fields).map(([name, field]) => ({
      name,
      in: 'query',
      required: isRequired(field),
      schema: toJsonSchema(field),
    })),
    ...(ifMatch ? [{ name: 'If-Match', in: 'header', required: true, schema: { type: 'string' } }] : []),
    ...(ids ? [IDEMPOTENCY_KEY] : []),
  ];
};

const problem = (description: string): Json => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
});

/** What may go wrong with an operation, by status. RFC 9110, 15.5; RFC 6585, 3 */
function problemsOf({ method, path, body, query, ifMatch, file }: Route): Json {
  const said: readonly (readonly [status: number, when: boolean, description: string])[] = [
    [404, path.includes('{'), 'Something named in the path is not there'],
    [409, method !== 'get', 'It contradicts what is there: used elsewhere, changed meanwhile, or held by a run'],
    [412, ifMatch ?? false, 'Someone saved another version meanwhile; its ETag is the new one'],
    [413, body !== undefined || file !== undefined, 'The body is too large'],
    [
      422,
      body !== undefined || query !== undefined || file !== undefined,
      'A value is wrong; errors say which and why',
    ],
    [428, ifMatch ?? false, 'If-Match is missing: send the ETag last seen'],
  ];
  return Object.fromEntries(
    said.flatMap(([status, when, description]) => (when ? [[status, problem(description)]] : [])),
  );
}

/** Whether an answer carries the version of a thing that is later changed with If-Match. */
const isVersioned = ({ path, method, ifMatch }: Route): boolean =>
  (ifMatch === true && method !== 'delete') ||
  (method === 'get' &&
    Object.values(ROUTES).some((other) => (other as Route).path === path && (other as Route).ifMatch));

const ETAG: Json = {
  ETag: { description: 'Version of the thing; send it as If-Match to change it', schema: { type: 'string' } },
};

/** What an operation answers with, and an answer it gave. */
const answerOf = (operationId: string, seen: Seen | undefined): Json =>
  seen
    ? {
        schema: { $ref: `#/components/schemas/${nameOfAnswer(operationId)}` },
        ...(seen.example === undefined ? {} : { example: seen.example }),
      }
    : {};

const nameOfAnswer = (operationId: string): string =>
  `${operationId.charAt(0).toUpperCase()}${operationId.slice(1)}Answer`;

function operationOf(operationId: string, route: Route): Json {
  const seen = ANSWERS[operationId as Operation];
  const example = seen?.sent === undefined ? {} : { example: seen.sent };
  const ids = (route.ids ?? []).map((path) => path.split('.'));
  const input = route.body && withoutIds(toJsonSchema(route.body), ids);
  const file = { type: 'string', format: 'binary' };
  const body =
    route.file === true
      ? { required: true, content: { 'application/octet-stream': {} } }
      : route.file
        ? {
            required: true,
            content: { 'multipart/form-data': { schema: { type: 'object', properties: { input, file } } } },
          }
        : input && { required: true, content: { 'application/json': { schema: input, ...example } } };
  return {
    operationId,
    summary: route.summary,
    parameters: parametersOf(route),
    ...(body ? { requestBody: body } : {}),
    responses: {
      [route.status]:
        route.status === 204
          ? { description: 'Done' }
          : {
              description: 'Done',
              ...(isVersioned(route) ? { headers: ETAG } : {}),
              content: { [route.answers]: answerOf(operationId, seen) },
            },
      ...problemsOf(route),
      default: problem('Problem details'),
    },
  };
}

/** The whole description. @param version version of the running program */
export function openapiDocument(version: string): Json {
  const paths: Record<string, Json> = {};
  for (const [operationId, route] of Object.entries(ROUTES)) {
    paths[`/api${route.path}`] = { ...paths[`/api${route.path}`], [route.method]: operationOf(operationId, route) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Lastmark', version, description: 'Values are SI, times UTC, ids ULIDs.' },
    paths,
    components: {
      schemas: {
        Problem: PROBLEM,
        ...Object.fromEntries(
          Object.entries(ANSWERS).map(([operationId, { shape }]) => [nameOfAnswer(operationId), inWords(shape)]),
        ),
      },
    },
  };
}
