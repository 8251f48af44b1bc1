// The database the scripts speak of: the one configured, the one running, or the private one started for the moment.
import { existsSync, readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import { historyDays } from './history-folder.mjs';
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

const LOOK_MILLISECONDS = 2000;

const answers = (host, port) =>
  new Promise((resolve) => {
    const socket = connect({ host, port, timeout: LOOK_MILLISECONDS });
    const end = (value) => {
      socket.destroy();
      resolve(value);
    };
    // A host that only hangs takes the connection, and greets nobody.
    socket.once('data', () => end(true));
    for (const sign of ['error', 'timeout', 'close']) socket.once(sign, () => end(false));
  });

/** The address of one host: of several in a cluster, the first that answers. */
export async function oneOf(url) {
  const [, before, hosts, after] = /^((?:mysql|mariadb):\/\/(?:[^@/]*@)?)([^/?]+)(\/[^?]*)/.exec(url) ?? [];
  if (!hosts?.includes(',')) return url;
  for (const one of hosts.split(',')) {
    const { hostname, port } = new URL(`mysql://${one}`);
    if (await answers(hostname, Number(port || 3306))) return `${before}${one}${after}`;
  }
  throw new Error('No host of the database answers.');
}

/** Use the database: `work(url)`; a private one that rests is started for as long as that takes. */
export async function withDatabase(work) {
  needPrograms({ 'mariadb-server': 'mariadbd' });
  if (process.env.DATABASE_URL) return work(await oneOf(process.env.DATABASE_URL));
  const folder = dataFolder();
  if (runningOwner(folder)) return work(read(join(folder, 'database.url')));
  const database = await startMariadb(folder, { history: historyDays() });
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
