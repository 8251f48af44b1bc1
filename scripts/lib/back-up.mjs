// Making a backup: written beside its place first, so that one that broke off never looks like a whole one.
import { mkdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { BackupProblem, backupPhrase, writeBackup } from './backup-file.mjs';
import { clientFor } from './current.mjs';
import { dumpOf, statement } from './dump.mjs';
import { ROOT } from './paths.mjs';

/** A moment as it stands in the name of a file. */
export const stampOf = (at) => at.toISOString().replace(/[:.]/g, '-');

/**
 * Back up a database.
 * @param target the file; sealed where LASTMARK_BACKUP_KEY names a pass phrase
 * @returns what its last line says
 * @throws BackupProblem; nothing is kept then
 */
export async function backUp(url, target) {
  const { name } = clientFor(url);
  const phrase = backupPhrase();
  try {
    mkdirSync(dirname(target), { recursive: true });
  } catch (error) {
    throw new BackupProblem(`${dirname(target)} cannot be made: ${error.message}`);
  }
  if (statement(url, 'SHOW TABLES', name).length === 0)
    throw new BackupProblem('The database is empty: there is nothing to back up.');
  const [migration = '0'] = statement(url, 'SELECT COALESCE(MAX(created_at), 0) FROM __drizzle_migrations', name);
  const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8'));
  const { sql, ended, place } = dumpOf(url, name, { placed: true });
  const unfinished = `${target}.unfinished`;
  const facts = await writeBackup(
    sql,
    unfinished,
    () => ({ format: 1, version, migration: Number(migration), place: place() }),
    phrase,
  );
  if (!(await ended())) {
    rmSync(unfinished, { force: true });
    throw new BackupProblem('The backup failed; nothing was kept.');
  }
  renameSync(unfinished, target);
  return facts;
}
