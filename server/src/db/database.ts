// The connection to MariaDB and what every use of it shares.
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { createPool, type Pool } from 'mysql2/promise';
import { writeDownWith } from '../who/who.ts';
import * as schema from './schema.ts';

export type Database = MySql2Database<typeof schema> & { readonly $client: Pool };
/** A database or a transaction on it. */
export type Queries = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface Connection {
  readonly pool: Pool;
  readonly db: Database;
}

/** Connections for what must never wait behind other requests. */
export const VITAL_CONNECTIONS = 4;

/** Open a pool on a `mysql://` or `mariadb://` address. Times are exchanged in UTC. @param most connections at once */
export function connect(url: string, most = 10): Connection {
  const pool = createPool({
    uri: url.replace(/^mariadb:/, 'mysql:'),
    timezone: 'Z',
    connectionLimit: most,
    waitForConnections: true,
    charset: 'utf8mb4_unicode_ci',
    enableKeepAlive: true,
  });
  return { pool, db: retrying(drizzle(pool, { schema, mode: 'default' })) };
}

/** Connections of a pool in use, and requests that wait for one. */
export function connectionsOf(pool: Pool): { readonly used: number; readonly waiting: number } {
  const { _allConnections, _freeConnections, _connectionQueue } = pool.pool as unknown as Record<
    '_allConnections' | '_freeConnections' | '_connectionQueue',
    { readonly length: number } | undefined
  >;
  return {
    used: (_allConnections?.length ?? 0) - (_freeConnections?.length ?? 0),
    waiting: _connectionQueue?.length ?? 0,
  };
}

/** Errors of a transaction that failed only because another ran at the same time. */
const COLLISIONS = ['ER_LOCK_DEADLOCK', 'ER_CHECKREAD'] as const;
const MOST_TRIES = 5;
const PAUSE_MILLISECONDS = 20;

/**
 * Transactions that wait for each other are ended by MariaDB, one of them with an error; done anew it succeeds. So a
 * transaction's work must be able to run twice: it touches nothing but the database, or sets the same again.
 */
function retrying(db: Database): Database {
  const once = db.transaction.bind(db);
  db.transaction = async (work, config) => {
    for (let attempt = 1; ; attempt += 1) {
      try {
        let kept: (() => void) | null = null;
        const result = await once(async (tx) => {
          const done = await work(tx);
          // Who did it is committed with what was done, or neither is.
          kept = await writeDownWith(tx, db);
          return done;
        }, config);
        (kept as (() => void) | null)?.();
        return result;
      } catch (error) {
        if (attempt >= MOST_TRIES || !COLLISIONS.some((name) => isDatabaseError(error, name))) throw error;
        await new Promise((resolve) => setTimeout(resolve, PAUSE_MILLISECONDS * attempt * (1 + Math.random())));
      }
    }
  };
  return db;
}

/** MariaDB's names for what went wrong, outermost first; empty for an error that is not the database's. */
export function codesOf(error: unknown): string[] {
  const codes: string[] = [];
  for (let at: unknown = error; typeof at === 'object' && at !== null; at = (at as { cause?: unknown }).cause) {
    const { code } = at as { code?: unknown };
    if (typeof code === 'string') codes.push(code);
  }
  return codes;
}

/** True for the error a unique key or foreign key raises, by MariaDB's error name. */
export const isDatabaseError = (
  error: unknown,
  name: 'ER_DUP_ENTRY' | 'ER_ROW_IS_REFERENCED_2' | 'ER_NO_REFERENCED_ROW_2' | (typeof COLLISIONS)[number],
): boolean => codesOf(error).includes(name);
