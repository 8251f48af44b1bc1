// Removes what was written of traces and never named: their writer was stopped, or died.
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { sweepTraces } from './store.ts';

const EVERY_MILLISECONDS = 3_600_000;

export class Sweeper {
  readonly #db: Database;
  readonly #log: Logger;
  #timer: NodeJS.Timeout | null = null;
  #going: Promise<void> = Promise.resolve();

  constructor(db: Database, log: Logger) {
    this.#db = db;
    this.#log = log;
  }

  watch(): void {
    this.#sweep();
    this.#timer = setInterval(() => this.#sweep(), EVERY_MILLISECONDS).unref();
  }

  #sweep(): void {
    this.#going = this.#going
      .then(async () => void (await sweepTraces(this.#db)))
      .catch((error: unknown) => this.#log.warn({ err: error }, 'half-written traces could not be swept'));
  }

  async close(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer);
    await this.#going;
  }
}
