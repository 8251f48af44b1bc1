// npm run db:restore -- FILE [--replace] [--until MOMENT]: brings a backup back, with what was done after it up to a moment. It is checked, loaded beside the data that is there, and
// compared, before anything changes; what was there is kept until the restored database answers.
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { BackupProblem, checkBackup } from './lib/backup-file.mjs';
import { clientFor, runningOwner, withDatabase } from './lib/current.mjs';
import { statement } from './lib/dump.mjs';
import { bringForward, momentOf } from './lib/history.mjs';
import { forgetHistory } from './lib/history-folder.mjs';
import { loadBeside } from './lib/load.mjs';
import { dataFolder, ROOT } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';

const { values: flags, positionals } = parseArgs({
  options: { replace: { type: 'boolean', default: false }, until: { type: 'string' } },
  allowPositionals: true,
});
const [file] = positionals;
if (!file) giveUp('Which backup? npm run db:restore -- FILE [--replace] [--until "2026-11-28 13:00"]');
const source = resolve(file);
if (!existsSync(source)) giveUp(`There is no ${source}.`);
if (!process.env.DATABASE_URL && runningOwner())
  giveUp('Lastmark is running on this data. Stop it first, then restore.');

const newestMigration = () => {
  const { entries } = JSON.parse(readFileSync(join(ROOT, 'server', 'migrations', 'meta', '_journal.json'), 'utf8'));
  return Math.max(...entries.map(({ when }) => when));
};

const tablesOf = (url, name) => statement(url, 'SHOW TABLES', name);
const moved = (tables, from, to) => tables.map((table) => `\`${from}\`.\`${table}\` TO \`${to}\`.\`${table}\``);

/** Instruments of a copy are reached at no address until someone enters it here. @returns where each was */
function withoutAddresses(url, name) {
  if (!tablesOf(url, name).includes('instruments')) return [];
  const were = statement(
    url,
    "SELECT CONCAT(name, ' was at ', address) FROM instruments WHERE address IS NOT NULL ORDER BY name",
    name,
  );
  statement(url, 'UPDATE instruments SET address = NULL', name);
  return were;
}

async function restore(url) {
  const { name } = clientFor(url);
  const beside = `${name}_restoring`;
  const kept = `${name}_before`;
  const facts = await checkBackup(source);
  say(facts ? `checked: whole, made by version ${facts.version}` : 'checked: whole, made by an earlier version');
  if (facts && facts.migration > newestMigration())
    throw new BackupProblem(
      `${source} was made by version ${facts.version}, which is newer than this one. Restore it with that version. Nothing was changed.`,
    );
  const until = flags.until === undefined ? null : momentOf(flags.until);
  if (until !== null && (process.env.DATABASE_URL || !facts?.place))
    throw new BackupProblem(
      'This backup does not say where it stands among the changes, or they are kept elsewhere: it can be restored as it is only, without --until. Nothing was changed.',
    );
  const old = tablesOf(url, name);
  if (old.length > 0 && !flags.replace)
    throw new BackupProblem(
      `The database has ${old.length} tables already. Add --replace to put the backup in their place.`,
    );
  await loadBeside(url, source, beside, facts?.sha256);
  say('loaded beside the data and compared');
  if (until !== null) {
    await bringForward(url, dataFolder(), facts.place, beside, until);
    say(`brought forward to ${until.toISOString()}`);
  }
  const asleep = withoutAddresses(url, beside);
  const fresh = tablesOf(url, beside);
  statement(url, `DROP DATABASE IF EXISTS \`${kept}\`; CREATE DATABASE \`${kept}\``);
  // One statement: MariaDB moves all tables or none.
  const swap = [...moved(old, name, kept), ...moved(fresh, beside, name)];
  statement(url, `SET FOREIGN_KEY_CHECKS = 0; RENAME TABLE ${swap.join(', ')}`);
  try {
    const [samples] = statement(url, 'SELECT COUNT(*) FROM samples', name);
    if (tablesOf(url, name).length !== fresh.length) throw new Error('tables are missing');
    say(`in place: ${samples} samples`);
  } catch (error) {
    const back = [...moved(fresh, name, beside), ...moved(old, kept, name)];
    statement(url, `SET FOREIGN_KEY_CHECKS = 0; RENAME TABLE ${back.join(', ')}`);
    throw new BackupProblem(`The restored database does not answer (${error.message}); what was there is back.`);
  }
  statement(url, `DROP DATABASE \`${beside}\`; DROP DATABASE \`${kept}\``);

  if (asleep.length > 0)
    say(
      `so that this copy drives no bench it does not stand at, its instruments have no address. Enter them at Bench:\n${asleep.map((line) => `  ${line}`).join('\n')}`,
    );
}

let problem = '';
await withDatabase((url) =>
  restore(url).catch((error) => {
    problem = error.message;
  }),
);
if (problem) giveUp(problem);
// Nothing that was done to the tables of before leads to these.
if (!process.env.DATABASE_URL) forgetHistory(dataFolder());
say(`restored ${source}`);
