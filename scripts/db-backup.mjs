// npm run db:backup [-- FILE]: the whole database, files included, into one compressed SQL file that checks itself.
import { mkdirSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { writeBackup } from './lib/backup-file.mjs';
import { clientFor, withDatabase } from './lib/current.mjs';
import { dumpOf, statement } from './lib/dump.mjs';
import { dataFolder, ROOT } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';

const stamp = new Date().toISOString().replace(/[:.]/g, '-');
const target = resolve(process.argv[2] ?? join(dataFolder(), 'backups', `lastmark-${stamp}.sql.gz`));

await withDatabase(async (url) => {
  const { name } = clientFor(url);
  try {
    mkdirSync(dirname(target), { recursive: true });
  } catch (error) {
    giveUp(`${dirname(target)} cannot be made: ${error.message}`);
  }
  if (statement(url, 'SHOW TABLES', name).length === 0) giveUp('The database is empty: there is nothing to back up.');
  const [migration = '0'] = statement(url, 'SELECT COALESCE(MAX(created_at), 0) FROM __drizzle_migrations', name);
  const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8'));
  const { sql, ended } = dumpOf(url);
  // Written beside the target first: a backup that broke off never looks like a whole one.
  const unfinished = `${target}.unfinished`;
  await writeBackup(sql, unfinished, { format: 1, version, migration: Number(migration) });
  if (!(await ended())) {
    rmSync(unfinished, { force: true });
    giveUp('The backup failed; nothing was kept.');
  }
  renameSync(unfinished, target);
});
say(`backed up to ${target} (${(statSync(target).size / 1024).toFixed(0)} kB)`);
