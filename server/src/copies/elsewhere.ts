// What is done by the copy of the server beside another bench, because only that speaks to the instruments there.
import type { Operation } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import { benchOfInstrument, benchOfRigId } from '../bench/benches.ts';
import type { Queries } from '../db/database.ts';
import { instruments, runSheets, sheetRuns } from '../db/schema.ts';
import type { Answer, Call } from '../http/handlers.ts';
import { ProblemError } from '../http/problem.ts';
import type { Copies } from './copies.ts';
import type { Peers } from './peers.ts';

/** What one copy has another do, in whose name. */
export interface Question {
  readonly operation: Operation;
  readonly params: unknown;
  readonly query: unknown;
  readonly body: unknown;
  readonly ifMatch: string | null;
  readonly who: Call['who'];
  readonly request: string | null;
}

type BenchOf<O extends Operation> = (db: Queries, call: Call<O>) => Promise<string | null>;

const byInstrument: BenchOf<'getTraffic' | 'sendCommand'> = (db, { params }) =>
  benchOfInstrument(db, params.instrumentId);

/** An instrument that is given an address: the copy beside its bench knows where instruments may be there. */
async function byAddress(
  db: Queries,
  id: string | null,
  { address, bench }: { readonly address: string | null; readonly bench?: string | undefined },
): Promise<string | null> {
  if (address === null) return null;
  const [row] = id === null ? [] : await db.select().from(instruments).where(eq(instruments.id, id));
  const next = bench ?? row?.bench ?? null;
  return row && row.address === address && row.bench === next ? null : next;
}

const BENCH_OF: { readonly [O in Operation]?: BenchOf<O> } = {
  sendCommand: byInstrument,
  getTraffic: byInstrument,
  createInstrument: (db, { body }) => byAddress(db, null, body),
  updateInstrument: (db, { body, params }) => byAddress(db, params.instrumentId, body),
  addCapture: async (db, { body, path }) =>
    path === null && body.scopeId !== null ? benchOfInstrument(db, body.scopeId) : null,
  startRun: async (db, { params }) => {
    const [row] = await db.select({ rigId: runSheets.rigId }).from(runSheets).where(eq(runSheets.id, params.sheetId));
    return row?.rigId ? benchOfRigId(db, row.rigId) : null;
  },
  resumeRun: async (db, { params }) => {
    const [row] = await db.select({ rigId: sheetRuns.rigId }).from(sheetRuns).where(eq(sheetRuns.id, params.runId));
    return row ? benchOfRigId(db, row.rigId) : null;
  },
};

const nobodyThere = (bench: string): ProblemError =>
  new ProblemError(
    503,
    'Bench away',
    bench === ''
      ? 'The instruments this needs stand on no bench. Enter at Bench where they stand.'
      : `No server stands beside bench "${bench}" now. Start the one there (LASTMARK_BENCH=${bench}), then try again.`,
  );

export class Elsewhere {
  readonly #copies: Copies;
  readonly #peers: Peers;

  constructor(copies: Copies, peers: Peers) {
    this.#copies = copies;
    this.#peers = peers;
  }

  /**
   * Have it done where it belongs.
   * @returns null where that is here
   * @throws 503 where no copy stands beside that bench, or it does not answer; else what it says
   */
  async ask(operation: Operation, call: Call, request: string | null): Promise<Answer | null> {
    const benchOf = BENCH_OF[operation] as BenchOf<Operation> | undefined;
    const bench = benchOf ? await benchOf(call.db, call) : null;
    if (bench === null || bench === this.#copies.bench) return null;
    const copy = this.#copies.at(bench);
    if (!copy) throw nobodyThere(bench);
    const { params, query, body, ifMatch, who, left } = call;
    const question: Question = { operation, params, query, body, ifMatch, who, request };
    const { body: told, etag } = await this.#peers.ask(copy, question, left);
    return { body: told, ...(etag ? { etag } : {}) };
  }
}
