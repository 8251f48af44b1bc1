// How an operation is written: from a checked call to an answer.
import type { Operation } from '@lastmark/contract';
import type { Response } from 'express';
import type { Database } from '../db/database.ts';

/** What an operation gets. Body and query have passed their schema. */
export interface Call {
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, unknown>>;
  readonly body: unknown;
  /** Raw body of a file upload, with its stated type. */
  readonly file: { readonly bytes: Buffer; readonly type: string } | null;
  readonly ifMatch: string | null;
  readonly db: Database;
}

export interface Answer {
  readonly body?: unknown;
  readonly etag?: string;
  readonly headers?: Readonly<Record<string, string>>;
  /** Takes over the response and writes to it as long as it lasts. */
  readonly stream?: (response: Response, lastEventId: string | undefined) => void;
}

export type Handler = (call: Call) => Promise<Answer>;
export type Handlers = Readonly<Record<Operation, Handler>>;

/** A path parameter that the route pattern guarantees. */
export function param(call: Call, name: string): string {
  const value = call.params[name];
  if (value === undefined) throw new Error(`Route has no {${name}}.`);
  return value;
}
