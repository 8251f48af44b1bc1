// npm run db:keep: a backup as it is made by night. It is loaded into a database of its own and compared; only then are
// earlier ones cleared away, by the rule of keep-rule.mjs.
import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { backUp, stampOf } from './lib/back-up.mjs';
import { checkBackup } from './lib/backup-file.mjs';
import { clientFor, withDatabase } from './lib/current.mjs';
import { statement } from './lib/dump.mjs';
import { mayGo } from './lib/keep-rule.mjs';
import { loadBeside } from './lib/load.mjs';
import { dataFolder } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';

const NAME = /^auto-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})-(\d{3})Z\.sql\.gz(\.sealed)?$/;
const folder = process.env.LASTMARK_BACKUP_FOLDER || join(dataFolder(), 'backups');
const sealed = process.env.LASTMARK_BACKUP_KEY ? '.sealed' : '';
const target = join(folder, `auto-${stampOf(new Date())}.sql.gz${sealed}`);

/** The backups made by this script: those of a person, or of before an upgrade, are nobody's to clear away. */
const made = () =>
  readdirSync(folder).flatMap((name) => {
    const [, day, hour, minute, second, rest] = NAME.exec(name) ?? [];
    return day ? [{ name, at: new Date(`${day}T${hour}:${minute}:${second}.${rest}Z`) }] : [];
  });

/** What a backup that was broken off left behind. */
function sweep() {
  if (!existsSync(folder)) return;
  for (const name of readdirSync(folder))
    if (NAME.test(name.replace(/(\.unchecked)?(\.unfinished)?$/, '')) && !NAME.test(name))
      rmSync(join(folder, name), { force: true });
}

async function keep(url) {
  sweep();
  const beside = `${clientFor(url).name}_checking`;
  // Not called a backup before it was brought back once.
  const unchecked = `${target}.unchecked`;
  await backUp(url, unchecked);
  try {
    const { sha256 } = await checkBackup(unchecked);
    await loadBeside(url, unchecked, beside, sha256);
    renameSync(unchecked, target);
  } catch (error) {
    // One that cannot be brought back is no backup, and must not push out those that can.
    rmSync(unchecked, { force: true });
    throw error;
  } finally {
    statement(url, `DROP DATABASE IF EXISTS \`${beside}\``);
  }
  const gone = mayGo(made());
  for (const name of gone) rmSync(join(folder, name), { force: true });
  say(
    `kept ${target} (${(statSync(target).size / 1024).toFixed(0)} kB), brought back once and compared; ${gone.length} earlier ${gone.length === 1 ? 'one' : 'ones'} cleared away`,
  );
}

let problem = '';
await withDatabase((url) =>
  keep(url).catch((error) => {
    problem = error.message;
  }),
);
if (problem) giveUp(problem);
