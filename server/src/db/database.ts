// The connection to MariaDB and what every use of it shares.
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { createPool, type Pool } from 'mysql2/promise';
import * as schema from './schema.ts';

export type Database = MySql2Database<typeof schema>;
/** A database or a transaction on it. */
export type Queries = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface Connection {
  readonly pool: Pool;
  readonly db: Database;
}

/** Open a pool on a `mysql://` or `mariadb://` address. Times are exchanged in UTC. */
export function connect(url: string): Connection {
  const pool = createPool({
    uri: url.replace(/^mariadb:/, 'mysql:'),
    timezone: 'Z',
    connectionLimit: 10,
    waitForConnections: true,
    charset: 'utf8mb4_unicode_ci',
    enableKeepAlive: true,
  });
  return { pool, db: drizzle(pool, { schema, mode: 'default' }) };
}

/** True for the error a unique key or foreign key raises, by MariaDB's error name. */
export function isDatabaseError(
  error: unknown,
  name: 'ER_DUP_ENTRY' | 'ER_ROW_IS_REFERENCED_2' | 'ER_NO_REFERENCED_ROW_2',
): boolean {
  for (let at: unknown = error; typeof at === 'object' && at !== null; at = (at as { cause?: unknown }).cause) {
    if ((at as { code?: unknown }).code === name) return true;
  }
  return false;
}
