// One process at a time starts on a database, whichever host of a cluster it reaches it by: a row says who, and says so no
// longer by itself when that one is gone.
import { setTimeout as pause } from 'node:timers/promises';
import type { Pool, PoolConnection, RowDataPacket } from 'mysql2/promise';
import { ulid } from 'ulid';
import { collided } from './again.ts';

/** How long others wait, ms. */
const PATIENCE_MILLISECONDS = 60_000;
/** How long the row holds unless it is written again, s by the database's clock. */
const HOLDS_SECONDS = 5;
const RENEW_MILLISECONDS = 1000;
const LOOK_MILLISECONDS = 100;

/** Why the tables could not be brought up to date, and what to do. */
export class MigrationProblem extends Error {}

const TABLE =
  'CREATE TABLE IF NOT EXISTS `starts` (`id` INT PRIMARY KEY, `owner` VARCHAR(40) NOT NULL, `until_at` DATETIME(3) NOT NULL)';
// Columns are set in their order: first whose it is, and for that one how long.
const TAKE = `INSERT INTO \`starts\` VALUES (1, ?, UTC_TIMESTAMP(3) + INTERVAL ${HOLDS_SECONDS} SECOND)
  ON DUPLICATE KEY UPDATE
    \`owner\` = IF(\`until_at\` < UTC_TIMESTAMP(3), VALUES(\`owner\`), \`owner\`),
    \`until_at\` = IF(\`owner\` = VALUES(\`owner\`), VALUES(\`until_at\`), \`until_at\`)`;

/** One statement by itself: nothing else is there to rely on before the tables are up to date. */
async function plain(pool: Pool, sql: string, values: readonly string[] = []): Promise<RowDataPacket[]> {
  const connection = await pool.getConnection();
  try {
    const [rows] = await connection.query<RowDataPacket[]>(sql, [...values]);
    return rows;
  } finally {
    connection.release();
  }
}

/** Take the row, or take it again. @returns false while it is somebody else's */
async function take(pool: Pool, owner: string): Promise<boolean> {
  try {
    await plain(pool, TAKE, [owner]);
  } catch (error) {
    // Another took it by way of another host at this moment.
    if (!collided(error)) throw error;
  }
  const [row] = await plain(pool, 'SELECT `owner` FROM `starts` WHERE `id` = 1');
  return row?.owner === owner;
}

/**
 * Run something while no other process starts on the same database.
 * @param work given a connection of its own and what throws once the row may be somebody else's
 * @throws MigrationProblem where another process is at it for a minute
 */
export async function alone<T>(
  pool: Pool,
  work: (connection: PoolConnection, mine: () => void) => Promise<T>,
): Promise<T> {
  const owner = ulid();
  await plain(pool, TABLE);
  const began = performance.now();
  let taken = performance.now();
  while (!(await take(pool, owner))) {
    if (performance.now() - began > PATIENCE_MILLISECONDS)
      throw new MigrationProblem('Another process has been starting on this database for a minute. Try again later.');
    await pause(LOOK_MILLISECONDS);
    taken = performance.now();
  }
  let lost = false;
  const mine = () => {
    if (lost || performance.now() - taken > HOLDS_SECONDS * 1000)
      throw new MigrationProblem('The database was silent, and another process may be starting on it. Start again.');
  };
  const renewal = setInterval(() => {
    const asked = performance.now();
    take(pool, owner).then(
      (kept) => {
        if (kept) taken = asked;
        else lost = true;
      },
      () => undefined,
    );
  }, RENEW_MILLISECONDS);
  const connection = await pool.getConnection().catch((error: unknown) => {
    clearInterval(renewal);
    throw error;
  });
  try {
    return await work(connection, mine);
  } finally {
    clearInterval(renewal);
    connection.release();
    await plain(pool, 'DELETE FROM `starts` WHERE `owner` = ?', [owner]).catch(() => undefined);
  }
}
