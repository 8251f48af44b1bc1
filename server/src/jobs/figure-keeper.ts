// Sees to it that the shelf's figures follow what changed: one server at a time, whenever something was written.
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { takeTurn } from '../leases/turn.ts';
import type { Jobs } from './jobs.ts';

const WHAT = 'figures';
/** How many samples at a time, and for how long, ms; between two batches others have their turn. */
const BATCH = 100;
const BATCH_MILLISECONDS = 1000;
/** How often it looks by itself: runs and other servers write too, ms. */
const LOOK_MILLISECONDS = 2000;
/** From something written until it begins, ms: who types goes on typing, and all of it is worked out at once. */
const SOON_MILLISECONDS = 400;
/** After something went wrong, ms. */
const PAUSE_MILLISECONDS = 5000;

interface Parts {
  readonly db: Database;
  readonly jobs: Jobs;
  readonly log: Logger;
  readonly owner: string;
}

export class FigureKeeper {
  readonly #parts: Parts;
  #timer: NodeJS.Timeout | null = null;
  #due = Number.POSITIVE_INFINITY;
  #going: Promise<void> | null = null;
  #again = false;
  #closed = false;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** Begin to look by itself. */
  watch(): void {
    this.#begin();
  }

  /** Something was written. */
  nudge(): void {
    if (this.#closed) return;
    if (this.#going) this.#again = true;
    else this.#beginIn(SOON_MILLISECONDS);
  }

  #beginIn(milliseconds: number): void {
    const due = performance.now() + milliseconds;
    if (due >= this.#due) return;
    if (this.#timer) clearTimeout(this.#timer);
    this.#due = due;
    this.#timer = setTimeout(() => this.#begin(), milliseconds).unref();
  }

  #begin(): void {
    if (this.#closed || this.#going) return;
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    this.#due = Number.POSITIVE_INFINITY;
    this.#again = false;
    this.#going = this.#work()
      .then(() => LOOK_MILLISECONDS)
      .catch((error: unknown) => {
        if (!this.#closed) this.#parts.log.warn({ err: error }, 'figures could not be worked out; tried again');
        return PAUSE_MILLISECONDS;
      })
      .then((pause) => {
        this.#going = null;
        if (this.#closed) return;
        this.#beginIn(this.#again && pause === LOOK_MILLISECONDS ? SOON_MILLISECONDS : pause);
      });
  }

  async #work(): Promise<void> {
    while (!this.#closed && (await takeTurn(this.#parts.db, WHAT, this.#parts.owner))) {
      if (!(await this.#parts.jobs.run('figures', { most: BATCH, milliseconds: BATCH_MILLISECONDS }))) return;
    }
  }

  /** What was written is worked out now. @returns when it is */
  async settle(): Promise<void> {
    this.#begin();
    await this.#going;
  }

  async close(): Promise<void> {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
    await this.#going;
  }
}
