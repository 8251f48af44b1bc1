// How an operation is written: from a checked call to an answer.
import type { AnswerOf, BodyOf, Operation, ParamsOf, QueryOf } from '@lastmark/contract';
import type { Response } from 'express';
import type { Database } from '../db/database.ts';
import type { Who } from '../who/who.ts';
import type { From } from './entrance.ts';

/** What an operation gets. Body and query have passed their schema. */
export interface Call<O extends Operation = Operation> {
  readonly params: ParamsOf<O>;
  readonly query: QueryOf<O>;
  readonly body: BodyOf<O>;
  /** The file that was sent by itself; null when there is none. */
  readonly file: Buffer | null;
  /** Where the file of a form stands until the call is answered; null without one. */
  readonly path: string | null;
  /** Aborted when whoever asked has left. */
  readonly left: AbortSignal;
  readonly ifMatch: string | null;
  readonly db: Database;
  /** Who asks; somebody without a name where an operation is open to everybody. */
  readonly who: Who;
  /** Where it comes from, and what the browser gave with it. */
  readonly from: From & {
    readonly cookies: string | undefined;
    /** The whole address, as whoever asks reaches this server. */
    readonly url: string;
  };
}

export interface Answer<A = unknown> {
  /** What it is, or its bytes as they were written where it was worked out. */
  readonly body?: A | Uint8Array;
  readonly etag?: string;
  readonly headers?: Readonly<Record<string, string | readonly string[]>>;
  /** Takes over the response and writes to it as long as it lasts. */
  readonly stream?: (response: Response, lastEventId: string | undefined) => void;
}

export type Handlers = { readonly [O in Operation]: (call: Call<O>) => Promise<Answer<AnswerOf<O>>> };

/** A handler whose call the schemas of its route have checked. */
export type Handler = (call: Call<never>) => Promise<Answer>;
