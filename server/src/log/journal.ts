// What was done is written down even while the database is away: it waits in memory until it is back, and in a file for
// whoever comes after this server.
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import type { Deed } from '../who/who.ts';
import type { Spool, Waiting } from './spool.ts';
import { writeEntry } from './write.ts';

const AGAIN_MILLISECONDS = 1000;
/** What the database has not taken by then goes into the file, ms. */
const SPOOL_MILLISECONDS = 500;
/** Most that wait in memory; more waits in the file alone, for the next start. */
const MOST_WAITING = 10_000;

export class Journal {
  readonly #db: Database;
  readonly #log: Logger;
  readonly #spool: Spool | null;
  /** What no try is under way for. */
  #waiting: Waiting[] = [];
  /** What the database has not taken. */
  readonly #open = new Set<Waiting>();
  readonly #spooled = new Set<Waiting>();
  #timer: NodeJS.Timeout | null = null;
  #going: Promise<void> = Promise.resolve();

  /** @param spool where entries outlive this server; null for nowhere */
  constructor(db: Database, log: Logger, spool: Spool | null = null) {
    this.#db = db;
    this.#log = log;
    this.#spool = spool;
  }

  /** Write an entry that no transaction wrote. Resolves once it was tried: what fails is tried again. */
  keep(deed: Deed, made: readonly string[] = []): Promise<void> {
    const entry: Waiting = { deed, made, at: new Date().toISOString() };
    this.#open.add(entry);
    return this.#try(entry);
  }

  /** Write what servers before this one left. */
  async takeUp(): Promise<void> {
    for (const { entries, letGo } of (await this.#spool?.left()) ?? []) {
      for (const { deed, made, at } of entries) await writeEntry(this.#db, deed, made, new Date(at));
      await letGo();
      this.#log.info({ entries: entries.length }, 'entries of the log that a server before this one left were written');
    }
  }

  async #try(entry: Waiting): Promise<void> {
    // A database that hangs fails nothing: what it does not take in time is kept all the same.
    const late = setTimeout(() => void this.#keepInFile(entry), SPOOL_MILLISECONDS);
    try {
      await writeEntry(this.#db, entry.deed, entry.made, new Date(entry.at));
      this.#open.delete(entry);
      if (this.#spooled.delete(entry) && this.#spooled.size === 0) await this.#spool?.clear();
    } catch (error) {
      await this.#keepInFile(entry);
      this.#failed(entry, error);
    } finally {
      clearTimeout(late);
    }
  }

  #failed(entry: Waiting, error: unknown): void {
    if (this.#waiting.length < MOST_WAITING) {
      this.#waiting.push(entry);
      this.#wait();
      return;
    }
    this.#open.delete(entry);
    if (!this.#spooled.has(entry)) this.#lost(entry, error);
  }

  async #keepInFile(entry: Waiting): Promise<void> {
    if (!this.#spool || this.#spooled.has(entry) || !this.#open.has(entry)) return;
    this.#spooled.add(entry);
    await this.#spool.add(entry).catch((error: unknown) => {
      this.#spooled.delete(entry);
      this.#log.warn({ err: error }, 'an entry of the log could not be kept in a file');
    });
  }

  #lost({ deed }: Waiting, error?: unknown): void {
    const { operation, who, id } = deed;
    this.#log.error({ err: error, operation, who: who.name, entry: id }, 'an entry of the log was lost');
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
    for (const entry of waiting) await this.#try(entry);
  }

  /** Try once more, and let go: what was not taken stays in the file. */
  async close(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    await this.#going;
    await this.#again();
    if (this.#timer) clearTimeout(this.#timer);
    for (const entry of this.#open) if (!this.#spooled.has(entry)) this.#lost(entry);
    if (this.#spool && this.#spooled.size > 0)
      this.#log.warn({ entries: this.#spooled.size, file: this.#spool.file }, 'entries of the log wait in a file');
  }
}
