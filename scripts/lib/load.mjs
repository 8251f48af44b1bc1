// Loading a backup into a database of its own, beside what is there.
import { spawn } from 'node:child_process';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { BackupProblem, sqlOf } from './backup-file.mjs';
import { clientFor } from './current.mjs';
import { checkOf, statement } from './dump.mjs';
import { findProgram } from './install.mjs';

/** Make an empty database. @throws BackupProblem with what to allow */
function makeDatabase(url, name) {
  const { name: own } = clientFor(url);
  try {
    statement(
      url,
      `DROP DATABASE IF EXISTS \`${name}\`; CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`,
    );
  } catch (error) {
    throw new BackupProblem(
      `A backup is loaded beside the data first, into the database ${name}, and that could not be made: ${error.message}\nAllow it: GRANT ALL ON \`${own}%\`.* TO the user of DATABASE_URL. Nothing was changed.`,
    );
  }
}

/**
 * Load a backup into a new database and hold it against its check.
 * @param sha256 of what was backed up; undefined for a backup of an earlier version, which has none
 * @throws BackupProblem
 */
export async function loadBeside(url, source, name, sha256) {
  makeDatabase(url, name);
  const { args, env } = clientFor(url);
  const client = spawn(findProgram('mariadb'), [...args, '--max-allowed-packet=64M', name], {
    env,
    stdio: ['pipe', 'inherit', 'inherit'],
  });
  const ended = new Promise((done) => client.once('exit', done));
  await pipeline(Readable.from(sqlOf(source)), client.stdin).catch(() => undefined);
  if ((await ended) !== 0)
    throw new BackupProblem('MariaDB refused the backup; see the messages above. Nothing was changed.');
  if (sha256 !== undefined && (await checkOf(url, name)) !== sha256)
    throw new BackupProblem('What was loaded is not what was backed up. Nothing was changed.');
}
