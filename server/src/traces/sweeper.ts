// Removes what nobody needs any more: what was written of traces and never named, since their writer was stopped or died,
// and marks of commits and keys of requests that nobody asks for again.

import { sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { commits, requestKeys } from '../db/schema.ts';
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
      .then(async () => {
        await sweepTraces(this.#db);
        await this.#db.delete(commits).where(sql`${commits.at} < UTC_TIMESTAMP(3) - INTERVAL 1 HOUR`);
        await this.#db.delete(requestKeys).where(sql`${requestKeys.at} < UTC_TIMESTAMP(3) - INTERVAL 7 DAY`);
      })
      .catch((error: unknown) => this.#log.warn({ err: error }, 'what nobody needs could not be swept'));
  }

  async close(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer);
    await this.#going;
  }
}
