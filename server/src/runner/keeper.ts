// Commits what the instruments tell, in parts of less than half a second, and keeps what the database would not take.
import type { LiveEvent, RunSample } from '@lastmark/contract';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { runParts } from '../db/schema.ts';
import { LostOwnership, type Ownership } from '../leases/ownership.ts';

const PART_MILLISECONDS = 400;

interface Part {
  readonly stepId: string;
  readonly body: RunSample[];
}

export class Keeper {
  readonly #db: Database;
  readonly #runId: string;
  readonly #own: Ownership;
  readonly #onFailure: (error: unknown) => void;
  readonly #timer: NodeJS.Timeout;
  #open: Part | null = null;
  #waiting: Part[] = [];
  #busy: Promise<void> = Promise.resolve();

  /** @param onFailure told when the database did not take a part; it is kept and tried again */
  constructor(db: Database, runId: string, own: Ownership, onFailure: (error: unknown) => void) {
    this.#db = db;
    this.#runId = runId;
    this.#own = own;
    this.#onFailure = onFailure;
    this.#timer = setInterval(() => void this.flush(), PART_MILLISECONDS);
  }

  take(stepId: string, { instrumentId, values }: LiveEvent): void {
    if (this.#open?.stepId !== stepId) {
      this.#close();
      this.#open = { stepId, body: [] };
    }
    this.#open.body.push({ at: Date.now(), instrumentId, values });
  }

  #close(): void {
    if (this.#open && this.#open.body.length > 0) this.#waiting.push(this.#open);
    this.#open = null;
  }

  /** Commit everything there is. One at a time, in order. */
  flush(): Promise<void> {
    this.#close();
    this.#busy = this.#busy.then(() => this.#write());
    return this.#busy;
  }

  async #write(): Promise<void> {
    const parts = this.#waiting;
    if (parts.length === 0) return;
    try {
      await this.#db.transaction(async (tx) => {
        await this.#own.assert(tx);
        await tx
          .insert(runParts)
          .values(parts.map(({ stepId, body }) => ({ id: newId(), runId: this.#runId, stepId, body })));
      });
      this.#waiting = this.#waiting.slice(parts.length);
    } catch (error) {
      // Told after another server took over: its own are the run's now.
      if (error instanceof LostOwnership) this.#waiting = [];
      this.#onFailure(error);
    }
  }

  /** Nothing more will come. @throws while the database does not take what is left; it is kept for another try */
  async close(): Promise<void> {
    clearInterval(this.#timer);
    await this.flush();
    if (this.#waiting.length > 0) throw new Error('The last readings could not be stored yet.');
  }
}
