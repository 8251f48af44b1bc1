// What people asked of a run and it has not acted on yet, in order.
import type { Ask } from '@lastmark/contract';
import type { Database } from '../db/database.ts';
import { openAsks } from '../leases/asks.ts';
import type { Ownership } from '../leases/ownership.ts';

export class AskQueue {
  readonly #db: Database;
  readonly #runId: string;
  readonly #own: Ownership;
  /** Told when an ask could not be marked as done: it may be found again after a restart. */
  readonly #onFailure: (error: unknown) => void;
  #open: { readonly id: string; readonly body: Ask }[] = [];
  #seen = new Set<string>();

  constructor(db: Database, runId: string, own: Ownership, onFailure: (error: unknown) => void) {
    this.#db = db;
    this.#runId = runId;
    this.#own = own;
    this.#onFailure = onFailure;
  }

  /** Look for new ones in the database. @returns whether any is open */
  async look(): Promise<boolean> {
    for (const { id, body } of await openAsks(this.#db, this.#runId)) {
      if (this.#seen.has(id)) continue;
      this.#seen.add(id);
      this.#open.push({ id, body });
    }
    return this.#open.length > 0;
  }

  /** Take the first open one of a kind; it is then done. */
  take<K extends Ask['kind']>(kind: K): (Ask & { kind: K }) | null {
    const at = this.#open.findIndex(({ body }) => body.kind === kind);
    const [taken] = at < 0 ? [] : this.#open.splice(at, 1);
    if (!taken) return null;
    void this.#own.closeAsk(taken.id).catch(this.#onFailure);
    return taken.body as Ask & { kind: K };
  }

  /** Leave out the open ones of a kind: they were about something else. */
  drop(kind: Ask['kind']): void {
    for (const { id, body } of this.#open) if (body.kind === kind) void this.#own.closeAsk(id).catch(this.#onFailure);
    this.#open = this.#open.filter(({ body }) => body.kind !== kind);
  }
}
