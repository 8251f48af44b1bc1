// Applies the migration files in order, one process at a time.
import { drizzle } from 'drizzle-orm/mysql2';
import { migrate as applyMigrations } from 'drizzle-orm/mysql2/migrator';
import type { RowDataPacket } from 'mysql2';
import type { Pool } from 'mysql2/promise';

const LOCK = 'lastmark.migrate';
const LOCK_SECONDS = 60;

/** Bring the database to the current schema. A second process waits for the first. */
export async function migrate(pool: Pool, folder: string): Promise<void> {
  const connection = await pool.getConnection();
  try {
    const [rows] = await connection.query<RowDataPacket[]>('SELECT GET_LOCK(?, ?) AS got', [LOCK, LOCK_SECONDS]);
    if (rows[0]?.got !== 1)
      throw new Error('Another process has been migrating the database for a minute. Try again later.');
    // The migrator takes a connection of the promise flavour; the lock lives on this one.
    await applyMigrations(drizzle(connection as never), { migrationsFolder: folder });
  } finally {
    await connection.query('DO RELEASE_LOCK(?)', [LOCK]).catch(() => undefined);
    connection.release();
  }
}
