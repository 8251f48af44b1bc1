// What was done is written down even while the database is away: it waits in memory until it is back.
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import type { Deed } from '../who/who.ts';
import { writeEntry } from './write.ts';

const AGAIN_MILLISECONDS = 1000;
const MOST_WAITING = 10_000;

interface Waiting {
  readonly deed: Deed;
  readonly made: readonly string[];
}

export class Journal {
  readonly #db: Database;
  readonly #log: Logger;
  #waiting: Waiting[] = [];
  #timer: NodeJS.Timeout | null = null;
  #going: Promise<void> = Promise.resolve();

  constructor(db: Database, log: Logger) {
    this.#db = db;
    this.#log = log;
  }

  /** Write an entry that no transaction wrote. Resolves once it was tried: what fails is tried again. */
  keep(deed: Deed, made: readonly string[] = []): Promise<void> {
    return writeEntry(this.#db, deed, made).catch((error: unknown) => {
      if (this.#waiting.length >= MOST_WAITING) {
        this.#log.error({ err: error, operation: deed.operation, who: deed.who.name }, 'an entry of the log was lost');
        return;
      }
      this.#waiting.push({ deed, made });
      this.#wait();
    });
  }

  #wait(): void {
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      this.#going = this.#again();
    }, AGAIN_MILLISECONDS).unref();
  }

  async #again(): Promise<void> {
    const waiting = this.#waiting;
    this.#waiting = [];
    for (const { deed, made } of waiting) await this.keep(deed, made);
  }

  /** Try once more, and let go. */
  async close(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    await this.#going;
    await this.#again();
    if (this.#timer) clearTimeout(this.#timer);
    for (const { deed } of this.#waiting)
      this.#log.error(
        { operation: deed.operation, who: deed.who.name, entry: deed.id },
        'an entry of the log was lost',
      );
  }
}
