// The database the scripts speak of: the one configured, the one running, or the private one started for the moment.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { needPrograms } from './install.mjs';
import { isRunning, startMariadb } from './mariadb.mjs';
import { dataFolder } from './paths.mjs';

const read = (path) => (existsSync(path) ? readFileSync(path, 'utf8').trim() : '');

/** Whether a process is a start command; its number may have gone to another program since. */
function isStart(pid) {
  const path = `/proc/${pid}/cmdline`;
  return !existsSync('/proc/self/cmdline') || (existsSync(path) && readFileSync(path, 'utf8').includes('start.mjs'));
}

/** Process id of a running `npm start` on the data folder, or null. */
export function runningOwner(folder = dataFolder()) {
  const pid = Number.parseInt(read(join(folder, 'owner.pid')), 10);
  return Number.isInteger(pid) && isRunning(pid) && isStart(pid) ? pid : null;
}

/** Use the database: `work(url)`; a private one that rests is started for as long as that takes. */
export async function withDatabase(work) {
  needPrograms({ 'mariadb-server': 'mariadbd' });
  if (process.env.DATABASE_URL) return work(process.env.DATABASE_URL);
  const folder = dataFolder();
  if (runningOwner(folder)) return work(read(join(folder, 'database.url')));
  const database = await startMariadb(folder);
  try {
    return await work(database.url);
  } finally {
    await database.stop();
  }
}

/** Arguments and environment for MariaDB's own command line programs. The password stays out of the process list. */
export function clientFor(url) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: [
      '--no-defaults',
      '--protocol=tcp',
      `--host=${hostname}`,
      `--port=${port || 3306}`,
      `--user=${decodeURIComponent(username)}`,
    ],
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
    name: decodeURIComponent(pathname.slice(1)),
  };
}
