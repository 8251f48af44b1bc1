// What is done anew when it failed for no reason of its own: it ran beside something else, or the database it was told to is
// gone and another host of the cluster has the same data.
import { sql } from 'drizzle-orm';
import type { Pool, PoolConnection, ResultSetHeader } from 'mysql2/promise';
import { ulid } from 'ulid';
import type { Database, Queries } from './database.ts';
import { commits } from './schema.ts';

/** MariaDB's names for what went wrong, outermost first; empty for an error that is not the database's. */
export function codesOf(error: unknown): string[] {
  return causesOf(error).flatMap(({ code }) => (typeof code === 'string' ? [code] : []));
}

function causesOf(error: unknown): { readonly code?: unknown; readonly fatal?: unknown }[] {
  const causes: object[] = [];
  for (let at: unknown = error; typeof at === 'object' && at !== null; at = (at as { cause?: unknown }).cause)
    causes.push(at);
  return causes;
}

/** Errors of a transaction that failed only because another ran at the same time, here or on another host. */
const COLLISIONS = ['ER_LOCK_DEADLOCK', 'ER_CHECKREAD'];
const MOST_TRIES = 8;
const PAUSE_MILLISECONDS = 20;

/** Errors of a connection: of the database's where the driver calls them fatal, else of something else that is reached. */
const BROKEN = new Set([
  'PROTOCOL_CONNECTION_LOST',
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENETUNREACH',
]);
/** What the database says when it is on its way out. */
const GOING = new Set([
  'ER_SERVER_SHUTDOWN',
  'ER_NORMAL_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_NEW_ABORTING_CONNECTION',
  'ER_ABORTING_CONNECTION',
  'ER_CON_COUNT_ERROR',
]);
/** Further ones of a host that is on its way out of its cluster, or not in it yet. */
const LEFT_ALONE = new Set([
  'ER_UNKNOWN_COM_ERROR',
  'ER_QUERY_INTERRUPTED',
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_ERROR_DURING_COMMIT',
  'ER_OPTION_PREVENTS_STATEMENT',
]);
/** How long another host is looked for, ms. */
const LONGEST_MILLISECONDS = 20_000;
const MOST_PAUSE_MILLISECONDS = 400;

/** Whether the database does not answer, whatever was asked of it. */
export const isGone = (error: unknown): boolean =>
  codesOf(error).some((code) => GOING.has(code)) ||
  causesOf(error).some(({ code, fatal }) => fatal === true && (typeof code !== 'string' || BROKEN.has(code)));

const isLost = (error: unknown): boolean => isGone(error) || codesOf(error).some((code) => LEFT_ALONE.has(code));
/** Whether it failed only because something else ran at the same time. */
export const collided = (error: unknown): boolean => codesOf(error).some((code) => COLLISIONS.includes(code));

const pause = (milliseconds: number) =>
  new Promise((resolve) => setTimeout(resolve, milliseconds * (0.5 + Math.random())));

/**
 * Do something until it is done or fails for a reason of its own.
 * @param cluster whether another host may have what this one has lost
 * @param work given how often it was tried, from 0
 */
export async function again<T>(cluster: boolean, work: (attempt: number) => Promise<T>): Promise<T> {
  let collisions = 0;
  let since: number | null = null;
  for (let attempt = 0; ; attempt += 1) {
    try {
      return await work(attempt);
    } catch (error) {
      if (collided(error)) {
        collisions += 1;
        if (collisions >= MOST_TRIES) throw error;
        await pause(PAUSE_MILLISECONDS * collisions);
        continue;
      }
      if (!cluster || !isLost(error)) throw error;
      since ??= performance.now();
      if (performance.now() - since > LONGEST_MILLISECONDS) throw error;
      await pause(Math.min(PAUSE_MILLISECONDS * 2 ** Math.min(attempt, 5), MOST_PAUSE_MILLISECONDS));
    }
  }
}

/**
 * Something that is done once, however often it is tried. When a host goes while it commits, nobody can say whether it did:
 * a mark in the same transaction can. A mark is there once, so a commit that was only late fails against it.
 */
export class Once {
  readonly #id = ulid();
  readonly #cluster: boolean;

  constructor(cluster: boolean) {
    this.#cluster = cluster;
  }

  /** Try it, unless an earlier try was committed after all: also one whose commit comes to light only by this one's failing. */
  async unlessDone(db: Queries, attempt: number, work: () => Promise<void>): Promise<void> {
    if (await this.#done(db, attempt)) return;
    try {
      await work();
    } catch (error) {
      if (isLost(error) || collided(error) || !(await this.#done(db, attempt))) throw error;
    }
  }

  async #done(db: Queries, attempt: number): Promise<boolean> {
    if (!this.#cluster || attempt === 0) return false;
    const rows = await db.select({ id: commits.id }).from(commits).where(sql`${commits.id} = ${this.#id}`);
    return rows.length > 0;
  }

  /** Leave the mark, in the transaction that does it. */
  async mark(tx: Queries): Promise<void> {
    if (this.#cluster) await tx.insert(commits).values({ id: this.#id, at: sql`UTC_TIMESTAMP(3)` });
  }

  /** The same for a connection that knows no tables. */
  async markPlain(connection: PoolConnection): Promise<void> {
    await connection.query<ResultSetHeader>('INSERT INTO `commits` (`id`, `at`) VALUES (?, UTC_TIMESTAMP(3))', [
      this.#id,
    ]);
  }
}

/** A statement and its mark as one transaction. @param done given what the statement gave back, before it is committed: after that nobody may hear it */
async function committed(
  pool: Pool,
  args: unknown[],
  mark: (connection: PoolConnection) => Promise<void>,
  done: (result: unknown) => void,
): Promise<void> {
  const connection = await pool.getConnection();
  try {
    await connection.query('begin');
    done(await (connection.query as (...all: unknown[]) => Promise<unknown>).apply(connection, args));
    await mark(connection);
    await connection.query('commit');
  } catch (error) {
    await connection.query('rollback').catch(() => undefined);
    throw error;
  } finally {
    connection.release();
  }
}

const READS = /^\s*\(?\s*(select|show|with)\b/i;
const WRITES = /^\s*(insert|update|delete|replace)\b/i;

/**
 * Have single statements of a pool done again where a host goes. One that reads is asked again; one that writes becomes a
 * transaction with its mark. Others (of tables, of databases) are for whoever sends them.
 */
export function askAgain(pool: Pool, db: () => Database): void {
  const plain = pool.query.bind(pool) as (...args: unknown[]) => Promise<unknown>;
  const repeated = async (...args: unknown[]): Promise<unknown> => {
    const [what] = args;
    const text = typeof what === 'string' ? what : (what as { sql: string }).sql;
    if (READS.test(text)) return again(true, () => plain(...args));
    if (!WRITES.test(text)) return plain(...args);
    const once = new Once(true);
    let result: unknown;
    return again(true, async (attempt) => {
      await once.unlessDone(db(), attempt, () =>
        committed(
          pool,
          args,
          (connection) => once.markPlain(connection),
          (told) => {
            result = told;
          },
        ),
      );
      return result;
    });
  };
  pool.query = repeated as typeof pool.query;
}
