// Brings the tables up to date, one process at a time. Every statement is remembered as it is begun and done, since
// MariaDB commits each change of a table by itself: a start that was cut short anywhere is simply started again.
import { readMigrationFiles } from 'drizzle-orm/migrator';
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import type { Pool, PoolConnection } from 'mysql2/promise';
import { codesOf } from './again.ts';
import { alone, MigrationProblem } from './alone.ts';

/** What a statement says when it has been carried out before. */
const DONE_BEFORE = [
  'ER_TABLE_EXISTS_ERROR',
  'ER_DUP_FIELDNAME',
  'ER_DUP_KEYNAME',
  'ER_FK_DUP_NAME',
  'ER_DUP_CONSTRAINT_NAME',
  'ER_MULTIPLE_PRI_KEY',
  'ER_CANT_DROP_FIELD_OR_KEY',
  'ER_BAD_TABLE_ERROR',
];
/** A foreign key of this name is there: MariaDB tells it as a table that cannot be made. */
const SAME_KEY = /errno: 121\b/;

interface Migration {
  readonly sql: readonly string[];
  readonly folderMillis: number;
  readonly hash: string;
}

export interface MigrateOptions {
  /** Keep a copy before a database with something in it is changed. @throws what keeps it from being made */
  readonly before?: () => Promise<void>;
  /** Told around every statement; a test cuts the start short there. */
  readonly at?: (moment: 'begun' | 'carried out' | 'done') => void;
}

class Steps {
  readonly #connection: PoolConnection;
  readonly #mine: () => void;
  readonly #options: MigrateOptions;
  readonly #known = new Map<string, boolean>();
  /** The tables were left by a version that remembered no statements: any may have been carried out. */
  #anyMayBeDone = false;

  constructor(connection: PoolConnection, mine: () => void, options: MigrateOptions) {
    this.#connection = connection;
    this.#mine = mine;
    this.#options = options;
  }

  /** What is remembered. @returns when the last whole migration was made; null for none */
  async load(): Promise<number | null> {
    const query = (sql: string) => this.#connection.query<RowDataPacket[]>(sql);
    const [tables] = await query('SHOW TABLES');
    const names = tables.map((row) => String(Object.values(row)[0]));
    // The same table the migration tool of earlier versions kept.
    await query(
      'CREATE TABLE IF NOT EXISTS `__drizzle_migrations` (id SERIAL PRIMARY KEY, hash TEXT NOT NULL, created_at BIGINT)',
    );
    await query(
      'CREATE TABLE IF NOT EXISTS `migration_steps` (migration BIGINT NOT NULL, statement INT NOT NULL, done BOOLEAN NOT NULL, PRIMARY KEY (migration, statement))',
    );
    const others = names.filter((name) => name !== '__drizzle_migrations' && name !== 'migration_steps');
    if (!names.includes('migration_steps') && others.length > 0)
      await query('INSERT IGNORE INTO `migration_steps` VALUES (0, 0, FALSE)');
    const [steps] = await query('SELECT migration, statement, done FROM `migration_steps`');
    for (const { migration, statement, done } of steps) this.#known.set(`${migration} ${statement}`, Boolean(done));
    this.#anyMayBeDone = this.#known.has('0 0');
    const [whole] = await query('SELECT MAX(created_at) AS last FROM `__drizzle_migrations`');
    return whole[0]?.last == null ? null : Number(whole[0].last);
  }

  /** Whether a migration has been begun and not ended. */
  get underWay(): boolean {
    return [...this.#known.keys()].some((key) => key !== '0 0');
  }

  async carryOut({ sql, folderMillis, hash }: Migration): Promise<void> {
    for (const [index, statement] of sql.entries()) {
      if (this.#known.get(`${folderMillis} ${index}`)) continue;
      this.#mine();
      try {
        await this.#one(folderMillis, index, statement.trim());
      } catch (error) {
        if (codesOf(error).length === 0) throw error;
        throw new MigrationProblem(
          `Bringing the tables up to date stopped at statement ${index + 1} of ${sql.length} (${statement.trim().split('\n')[0]?.slice(0, 90)}): ${(error as Error).message}\n` +
            'What was done is remembered: mend the cause and start again, and it goes on from there. Or bring back the copy made before: npm run db:restore -- FILE --replace',
          { cause: error },
        );
      }
    }
    await this.#together([
      ['INSERT INTO `__drizzle_migrations` (hash, created_at) VALUES (?, ?)', [hash, folderMillis]],
      ['DELETE FROM `migration_steps` WHERE migration = ?', [folderMillis]],
    ]);
  }

  async #one(migration: number, index: number, statement: string): Promise<void> {
    const key = `${migration} ${index}`;
    const mark = 'INSERT INTO `migration_steps` VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE done = VALUES(done)';
    const { at } = this.#options;
    if (!/^(CREATE|ALTER|DROP|RENAME)\b/i.test(statement)) {
      // Changes of rows are one with their mark.
      await this.#together([
        [statement, []],
        [mark, [migration, index, true]],
      ]);
      at?.('done');
      return;
    }
    const mayBeDone = this.#anyMayBeDone || this.#known.has(key);
    await this.#connection.query(mark, [migration, index, false]);
    at?.('begun');
    try {
      await this.#connection.query(statement);
    } catch (error) {
      const before = codesOf(error).some((code) => DONE_BEFORE.includes(code)) || SAME_KEY.test(String(error));
      if (!mayBeDone || !before) throw error;
    }
    at?.('carried out');
    await this.#connection.query(mark, [migration, index, true]);
    at?.('done');
  }

  async #together(statements: readonly (readonly [string, readonly unknown[]])[]): Promise<void> {
    await this.#connection.beginTransaction();
    try {
      for (const [sql, values] of statements) await this.#connection.query<ResultSetHeader>(sql, [...values]);
      await this.#connection.commit();
    } catch (error) {
      await this.#connection.rollback().catch(() => undefined);
      throw error;
    }
  }

  /** Everything is up to date: what earlier versions left no longer matters. */
  async end(): Promise<void> {
    if (this.#anyMayBeDone) await this.#connection.query('DELETE FROM `migration_steps` WHERE migration = 0');
  }
}

/**
 * Bring the database to the current schema. A second process waits for the first.
 * @throws MigrationProblem with where it stopped and what to do
 */
export const migrate = (pool: Pool, folder: string, options: MigrateOptions = {}): Promise<void> =>
  alone(pool, async (connection, mine) => {
    const steps = new Steps(connection, mine, options);
    const last = await steps.load();
    const all: readonly Migration[] = readMigrationFiles({ migrationsFolder: folder });
    const pending = all.filter(({ folderMillis }) => last === null || folderMillis > last);
    // A copy is made once, of the database as it was before anything was changed.
    if (pending.length > 0 && last !== null && !steps.underWay) await options.before?.();
    for (const migration of pending) await steps.carryOut(migration);
    await steps.end();
  });
