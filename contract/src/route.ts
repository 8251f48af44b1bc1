// What an operation of the API is: its address, what goes in and what comes out. Handlers and client take their types from it.
import type { AnyObject, ObjectSchema } from 'yup';
import type { Role } from './roles.ts';

declare const MEANS: unique symbol;

/** A schema that knows what it lets through. */
export type Of<T> = ObjectSchema<AnyObject> & { readonly [MEANS]?: T };

/** What an answer is; it is made by us and needs no schema. */
export interface Is<T> {
  readonly [MEANS]?: T;
}

/** Say what a schema lets through: the one place where schema and type meet. */
export const of = <T>(schema: ObjectSchema<AnyObject>): Of<T> => schema;

/** Say what an answer is. */
export const is = <T>(): Is<T> => ({});

export interface Route<P extends string = string, B = unknown, Q = unknown, A = unknown> {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Path below /api with {name} parameters. */
  readonly path: P;
  readonly summary: string;
  readonly body?: Of<B>;
  readonly query?: Of<Q>;
  readonly answer?: Is<A>;
  /** Status when it works. */
  readonly status: 200 | 201 | 204 | 302;
  /** Media type of the answer. */
  readonly answers: string;
  /** Ids of its body a script may leave out, as paths: `points[].id`. An Idempotency-Key then tells what was sent before. */
  readonly ids?: readonly string[];
  /** Needs If-Match with the version last seen, so that nobody's edit is overwritten unseen. */
  readonly ifMatch?: boolean;
  /** The body is a file rather than JSON; or a form of the JSON as `input` and the file as `file`. */
  readonly file?: true | 'with input';
  /** Largest body, or file of a form, bytes; the default is 1 MiB. */
  readonly limit?: number;
  /** The least role of whoever may ask it; nobody at all for what must be reached to come in. Left out: reader to read, engineer to write. */
  readonly needs?: Role | 'nobody';
  /** Nothing is changed by it, though it is no GET: it is not written down. */
  readonly keepsNothing?: true;
}

/** The least role an operation needs. */
export const neededFor = ({ needs, method }: Pick<Route, 'needs' | 'method'>): Role | 'nobody' =>
  needs ?? (method === 'get' ? 'reader' : 'engineer');

/** What a route says beyond its address. */
type More<B, Q, A> = Partial<Omit<Route<string, B, Q, A>, 'method' | 'path' | 'summary'>>;

const JSON_TYPE = 'application/json';

export const get = <P extends string, Q = undefined, A = undefined>(
  path: P,
  summary: string,
  more: More<undefined, Q, A> = {},
): Route<P, undefined, Q, A> => ({ method: 'get', path, summary, status: 200, answers: JSON_TYPE, ...more });

export const write = <P extends string, B = undefined, Q = undefined, A = undefined>(
  method: Route['method'],
  path: P,
  summary: string,
  more: More<B, Q, A> = {},
): Route<P, B, Q, A> => ({
  method,
  path,
  summary,
  status: method === 'post' ? 201 : method === 'delete' ? 204 : 200,
  answers: JSON_TYPE,
  ...more,
});

/** Names of the parameters of a path. */
export type ParamOf<P extends string> = P extends `${string}{${infer Name}}${infer Rest}`
  ? Name | ParamOf<Rest>
  : never;
