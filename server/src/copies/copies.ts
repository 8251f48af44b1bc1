// The copies of the server on one database: which bench each stands beside. Kept in memory, so that they find each other
// while the database is away.
import { eq, ne, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { copies } from '../db/schema.ts';
import { dbNow } from '../leases/ownership.ts';

const EVERY_MILLISECONDS = 2000;
/** A copy that has not said so long that it is there is not asked any more, s by the database's clock. */
const SILENT_SECONDS = 10;

export interface Copy {
  readonly owner: string;
  readonly bench: string;
  readonly url: string;
}

export interface Self extends Omit<Copy, 'url'> {
  readonly db: Database;
  readonly log: Logger;
}

export class Copies {
  readonly #self: Self;
  /** Where others reach this one; null before it listens. */
  #url: string | null = null;
  #others: readonly Copy[] = [];
  #timer: NodeJS.Timeout | null = null;
  #looking: Promise<void> | null = null;

  constructor(self: Self) {
    this.#self = self;
  }

  /** The bench this copy stands beside; empty where there is one bench only. */
  get bench(): string {
    return this.#self.bench;
  }

  /** Other copies there were when the database last answered. */
  get others(): readonly Copy[] {
    return this.#others;
  }

  /** One copy of every other bench that has one: those beside one bench speak to the same instruments. */
  get benches(): readonly Copy[] {
    const found = new Map<string, Copy>();
    for (const one of this.#others) if (one.bench !== this.bench && !found.has(one.bench)) found.set(one.bench, one);
    return [...found.values()];
  }

  /** A copy beside a bench; undefined while there is none. */
  at(bench: string): Copy | undefined {
    return this.#others.find((one) => one.bench === bench);
  }

  /** This one listens: from now on others find it there. */
  async reachAt(url: string): Promise<void> {
    this.#url = url;
    await this.look();
  }

  /** See who is there, now and again and again. */
  async watch(): Promise<void> {
    this.#timer ??= setInterval(() => void this.look().catch(() => undefined), EVERY_MILLISECONDS);
    await this.look();
  }

  /** Say that this one is here, and see who else is. */
  look(): Promise<void> {
    this.#looking ??= this.#look().finally(() => {
      this.#looking = null;
    });
    return this.#looking;
  }

  async #look(): Promise<void> {
    const { db, owner, bench } = this.#self;
    const url = this.#url;
    if (url !== null)
      await db
        .insert(copies)
        .values({ owner, bench, url, aliveAt: dbNow as never })
        .onDuplicateKeyUpdate({ set: { bench, url, aliveAt: dbNow as never } });
    this.#others = await db
      .select({ owner: copies.owner, bench: copies.bench, url: copies.url })
      .from(copies)
      .where(
        sql`${ne(copies.owner, owner)} AND ${copies.aliveAt} > UTC_TIMESTAMP(3) - INTERVAL ${sql.raw(String(SILENT_SECONDS))} SECOND`,
      )
      .orderBy(copies.owner);
    await db.delete(copies).where(sql`${copies.aliveAt} < UTC_TIMESTAMP(3) - INTERVAL 1 DAY`);
  }

  /** It stops: nobody asks it any more. */
  async close(): Promise<void> {
    if (!this.#timer) return;
    clearInterval(this.#timer);
    this.#timer = null;
    await this.#looking?.catch(() => undefined);
    const { db, owner, log } = this.#self;
    await db
      .delete(copies)
      .where(eq(copies.owner, owner))
      .catch((error: unknown) => log.debug({ err: error }, 'could not say that this copy stops'));
  }
}
