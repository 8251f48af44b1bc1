// The connection to MariaDB and what every use of it shares.
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { createPool, type Pool } from 'mysql2/promise';
import { beginsAnew, writeDownWith } from '../who/who.ts';
import { readAddress } from './address.ts';
import { again, askAgain, codesOf, Once } from './again.ts';
import { Nodes, SILENT_MILLISECONDS } from './nodes.ts';
import * as schema from './schema.ts';

export type Database = MySql2Database<typeof schema> & { readonly $client: Pool };
/** A database or a transaction on it. */
export type Queries = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface Connection {
  readonly pool: Pool;
  readonly db: Database;
}

/** Wait, before anything is read or changed, until this host has what the others have taken. */
const CAUSAL = 'SET SESSION wsrep_sync_wait = 7';

/** Connections for what must never wait behind other requests. */
export const VITAL_CONNECTIONS = 4;

/**
 * Open a pool on a `mysql://` or `mariadb://` address of one host or of several of a cluster. Times are exchanged in UTC.
 * @param most connections at once
 * @throws Error where the address is none
 */
export function connect(url: string, most = 10): Connection {
  const address = readAddress(url);
  const { user, password, database, cluster } = address;
  const nodes = cluster ? new Nodes(address) : null;
  const pool = createPool({
    ...address.hosts[0],
    user,
    password,
    database,
    timezone: 'Z',
    connectionLimit: most,
    waitForConnections: true,
    charset: 'utf8mb4_unicode_ci',
    enableKeepAlive: true,
    ...(nodes ? { stream: nodes.stream, connectTimeout: SILENT_MILLISECONDS } : {}),
  });
  const db = retrying(drizzle(pool, { schema, mode: 'default' }), cluster);
  if (nodes) {
    // What was written by way of one host is seen by way of every other: whoever asks waits for what was accepted before.
    pool.pool.on('connection', (connection) => connection.query(CAUSAL, () => undefined));
    askAgain(pool, () => db);
    const end = pool.end.bind(pool);
    pool.end = async () => {
      nodes.close();
      await end();
    };
  }
  return { pool, db };
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

/**
 * Transactions that wait for each other are ended by MariaDB, one of them with an error, and so are those that are committed
 * by way of two hosts at once; done anew they succeed. So a transaction's work must be able to run twice: it touches nothing
 * but the database, or sets the same again.
 */
function retrying(db: Database, cluster: boolean): Database {
  const plain = db.transaction.bind(db);
  db.transaction = (work, config) => {
    type Result = Awaited<ReturnType<typeof work>>;
    const once = new Once(cluster);
    let kept: (() => void) | null = null;
    let result: Result | undefined;
    return again(cluster, async (attempt) => {
      await once.unlessDone(db, attempt, () =>
        plain(async (tx) => {
          beginsAnew();
          result = await work(tx);
          // Who did it is committed with what was done, or neither is.
          kept = await writeDownWith(tx, db);
          await once.mark(tx);
        }, config),
      );
      kept?.();
      return result as Result;
    });
  };
  return db;
}

/** True for the error a unique key or foreign key raises, by MariaDB's error name. */
export const isDatabaseError = (
  error: unknown,
  name: 'ER_DUP_ENTRY' | 'ER_ROW_IS_REFERENCED_2' | 'ER_NO_REFERENCED_ROW_2',
): boolean => codesOf(error).includes(name);
