// Chains what was written down: one server at a time, soon after.
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { takeTurn } from '../leases/turn.ts';
import { sealSome } from '../log/chain.ts';

const WHAT = 'log';
const LOOK_MILLISECONDS = 2000;

interface Parts {
  readonly db: Database;
  readonly log: Logger;
  readonly owner: string;
}

export class Sealer {
  readonly #parts: Parts;
  #timer: NodeJS.Timeout | null = null;
  #going: Promise<void> = Promise.resolve();
  #closed = false;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  watch(): void {
    if (this.#closed) return;
    this.#timer = setTimeout(() => {
      this.#going = this.#work().finally(() => this.watch());
    }, LOOK_MILLISECONDS).unref();
  }

  async #work(): Promise<void> {
    const { db, owner, log } = this.#parts;
    try {
      while (!this.#closed && (await takeTurn(db, WHAT, owner)) && (await sealSome(db)) > 0);
    } catch (error) {
      if (!this.#closed) log.warn({ err: error }, 'the log could not be sealed; tried again');
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
    await this.#going;
  }
}
