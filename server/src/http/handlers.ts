// How an operation is written: from a checked call to an answer.
import type { Operation } from '@lastmark/contract';
import type { Response } from 'express';
import type { Database } from '../db/database.ts';

/** What an operation gets. Body and query have passed their schema. */
export interface Call {
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, unknown>>;
  readonly body: unknown;
  /** The file that was sent; null when there is none. */
  readonly file: Buffer | null;
  /** Aborted when whoever asked has left. */
  readonly left: AbortSignal;
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
