// What others do, for pages that ask every other second: the log of the last moments, and who is where. The database is asked
// once for all pages of this server that ask within half a second.

import { randomUUID } from 'node:crypto';
import type { Here, NewsEntry, NewsInput, ROUTES, News as Told } from '@lastmark/contract';
import { and, asc, eq, gt, lt, notInArray, sql } from 'drizzle-orm';
import { EVERYONE, revisionsOf } from '../changes/changes.ts';
import type { Database } from '../db/database.ts';
import { logEntries, people, presence } from '../db/schema.ts';
import { ProblemError } from '../http/problem.ts';
import { NO_NEWS, whatOf } from '../log/words.ts';
import { modelIdOf } from '../samples/store.ts';
import { unseenAmong } from '../seen/seen.ts';
import { scopeNow } from '../who/scope.ts';
import type { Who } from '../who/who.ts';

/** For so long one look serves all, ms. */
const FRESH_MILLISECONDS = 400;
/** How far each look goes back: entries of transactions that were slow, or of a copy whose clock is behind, ms. */
const BACK_MILLISECONDS = 15_000;
const MOST_AT_ONCE = 500;
/** Entries that are kept for pages that were away for a moment. */
const MOST_KEPT = 2000;
/** A page that said nothing so long is not there any more, s. */
const AWAY_SECONDS = 8;
const FORGOTTEN_SECONDS = 60;

/** After these some see samples they did not see, or see some no more: of which they are not told. */
const WHO_SEES_WHAT: readonly string[] = [
  'putInCollection',
  'updateCollection',
  'deleteCollection',
] satisfies (keyof typeof ROUTES)[];

interface Kept {
  readonly place: number;
  readonly operation: string;
  readonly request: string | null;
  readonly entry: NewsEntry;
}

export class News {
  readonly #db: Database;
  /** Of this server since it started: places of another mean nothing here. */
  readonly #series = randomUUID().slice(0, 8);
  #place = 0;
  #kept: Kept[] = [];
  #seen = new Map<string, number>();
  #here: Here[] = [];
  #tabs: string[] = [];
  #looked = Number.NEGATIVE_INFINITY;
  #looking: Promise<void> | null = null;
  #began = false;

  constructor(db: Database) {
    this.#db = db;
  }

  #look(): Promise<void> {
    if (performance.now() - this.#looked < FRESH_MILLISECONDS) return Promise.resolve();
    this.#looking ??= this.#ask().finally(() => {
      this.#looking = null;
    });
    return this.#looking;
  }

  async #ask(): Promise<void> {
    const now = Date.now();
    const rows = await this.#db
      .select({
        id: logEntries.id,
        operation: logEntries.operation,
        sampleId: logEntries.sampleId,
        subject: logEntries.subject,
        who: sql<string>`COALESCE(${people.name}, ${logEntries.who})`,
        request: logEntries.request,
      })
      .from(logEntries)
      .leftJoin(people, eq(people.id, logEntries.personId))
      .where(and(gt(logEntries.at, new Date(now - BACK_MILLISECONDS)), notInArray(logEntries.operation, [...NO_NEWS])))
      .orderBy(asc(logEntries.at))
      .limit(MOST_AT_ONCE);
    const fresh = rows.filter(({ id }) => !this.#seen.has(id));
    for (const { id, operation, sampleId, subject, who, request } of fresh) {
      this.#seen.set(id, now);
      // What was there before anybody asked is no news.
      if (!this.#began) continue;
      this.#place += 1;
      this.#kept.push({
        place: this.#place,
        operation,
        request,
        entry: { who, what: whatOf(operation), sampleId, subject },
      });
    }
    this.#began = true;
    this.#kept = this.#kept.slice(-MOST_KEPT);
    for (const [id, at] of this.#seen) if (now - at > 2 * BACK_MILLISECONDS) this.#seen.delete(id);
    const there = await this.#db
      .select()
      .from(presence)
      .where(sql`${presence.at} > UTC_TIMESTAMP(3) - INTERVAL ${sql.raw(String(AWAY_SECONDS))} SECOND`)
      .limit(MOST_AT_ONCE);
    this.#tabs = there.map(({ tab }) => tab);
    this.#here = there.map(({ personId, name, sampleId, place }) => ({ personId, name, sampleId, place }));
    this.#looked = performance.now();
  }

  /** A page is here. */
  async #isHere(who: Who, { tab, sampleId, place }: NewsInput): Promise<void> {
    if (who.id === null || who.through !== 'session') return;
    const at = sql`UTC_TIMESTAMP(3)`;
    const row = { personId: who.id, name: who.name, sampleId, place };
    await this.#db
      .insert(presence)
      .values({ tab, ...row, at })
      .onDuplicateKeyUpdate({ set: { ...row, at } });
    // Whoever comes sweeps out those that went.
    if (!this.#tabs.includes(tab))
      await this.#db
        .delete(presence)
        .where(lt(presence.at, sql`UTC_TIMESTAMP(3) - INTERVAL ${sql.raw(String(FORGOTTEN_SECONDS))} SECOND`));
  }

  async tell(who: Who, input: NewsInput): Promise<Told> {
    const { tab, newest, sampleId } = input;
    await this.#isHere(who, input);
    await this.#look();
    const [series, place = ''] = newest.split('.');
    const known = Number(place);
    const first = newest === '';
    const oldest = this.#kept[0]?.place ?? this.#place + 1;
    const missed = !first && (series !== this.#series || !Number.isInteger(known) || known < oldest - 1);
    const since =
      first || missed
        ? []
        : // What a page did itself it knows: its requests carry its name.
          this.#kept.filter((one) => one.place > known && !one.request?.startsWith(`${tab}.`));
    const entries = since.map(({ entry }) => entry);
    const unseen = new Set(
      await unseenAmong(
        this.#db,
        [...new Set([...entries.map((entry) => entry.sampleId), ...this.#here.map((one) => one.sampleId)])].flatMap(
          (id) => id ?? [],
        ),
      ),
    );
    const sees = (id: string | null) => (id === null ? scopeNow()?.rest !== false : !unseen.has(id));
    return {
      newest: `${this.#series}.${this.#place}`,
      entries: entries.filter((one) => sees(one.sampleId)),
      missed: missed || since.some(({ operation }) => WHO_SEES_WHAT.includes(operation)),
      revisions: sampleId === null ? null : await this.#revisions(sampleId),
      here: this.#here.filter((one, index) => this.#tabs[index] !== tab && sees(one.sampleId)),
    };
  }

  async #revisions(sampleId: string): Promise<Record<string, number> | null> {
    try {
      return { ...(await revisionsOf(this.#db, [sampleId, await modelIdOf(this.#db, sampleId), EVERYONE])) };
    } catch (error) {
      if (error instanceof ProblemError && error.problem.status === 404) return null;
      throw error;
    }
  }
}
