// A private MariaDB on loopback with its own data folder.
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { forgetHistory, historyFolder, seriesOf } from './history-folder.mjs';
import { findProgram } from './install.mjs';

const READY_MILLISECONDS = 60_000;
const STOP_MILLISECONDS = 30_000;
const LONGEST_SOCKET_PATH = 100;

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A port nobody listens on right now. */
export function freePort(host = '127.0.0.1') {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, host, () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

/** True while a process with this id runs. */
export function isRunning(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/** Every database process that works on a folder, the one that creates it included. */
function processesOn(dataDir) {
  if (!existsSync('/proc/self/cmdline')) return [];
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
    .filter((pid) => {
      try {
        const words = readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0');
        return words.includes(`--datadir=${dataDir}`) || words.includes(`--datadir=${dataDir}.unfinished`);
      } catch {
        return false;
      }
    })
    .map(Number);
}

/** Database processes left by a start that was killed, wherever it was killed. */
async function endLeftovers(dataDir) {
  for (let waited = 0; ; waited += 100) {
    const left = processesOn(dataDir);
    if (left.length === 0) return;
    for (const pid of left) {
      try {
        process.kill(pid, waited >= STOP_MILLISECONDS ? 'SIGKILL' : 'SIGTERM');
      } catch {
        // Gone by itself.
      }
    }
    await pause(100);
  }
}

/** A small file that is whole or not there. */
export function writeWhole(path, text) {
  writeFileSync(`${path}.unfinished`, text, { mode: 0o600 });
  renameSync(`${path}.unfinished`, path);
}

/** Create the database files beside their place, and move them there when they are whole. */
function install(dataDir, temporary, user) {
  const program = findProgram('mariadb-install-db');
  const unfinished = `${dataDir}.unfinished`;
  rmSync(unfinished, { recursive: true, force: true });
  const { status, stdout, stderr } = spawnSync(
    program,
    [
      '--no-defaults',
      `--datadir=${unfinished}`,
      `--tmpdir=${temporary}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      `--user=${user}`,
    ],
    { encoding: 'utf8' },
  );
  if (status !== 0) throw new Error(`mariadb-install-db failed:\n${stdout}${stderr}`);
  renameSync(unfinished, dataDir);
}

/** The password of a database, kept beside its files. */
export function secretOf(folder) {
  const path = join(folder, 'database.secret');
  if (!existsSync(path) || readFileSync(path, 'utf8') === '') writeWhole(path, randomBytes(24).toString('hex'));
  return readFileSync(path, 'utf8');
}

/** Written through before a change counts, as the tables are: what was accepted is in both or in neither. */
const historyOptions = (folder, days) => {
  mkdirSync(historyFolder(folder), { recursive: true, mode: 0o700 });
  return [
    `--log-bin=${join(historyFolder(folder), `change-${seriesOf(folder)}`)}`,
    '--server-id=1',
    '--binlog-format=ROW',
    // What is loaded beside the data, for restoring and for drills, is no change of it.
    '--binlog-do-db=lastmark',
    `--binlog-expire-logs-seconds=${days * 86_400}`,
    '--max-binlog-size=64M',
    '--sync-binlog=1',
  ];
};

/**
 * Start MariaDB on a folder, creating what is missing.
 * @param folder data folder; holds `mariadb/`, the log and the secret
 * @param options where it listens; of a host of a cluster also `cluster`: its further options (`more`), environment, what it
 *   is started `within`, and whether it is `filled` by the others rather than by itself; `history`, days for which every
 *   change is kept, so that a backup can be brought forward to any moment
 * @returns url, socket, and stop(), which waits until the files are safe
 */
export async function startMariadb(folder, { port, host = '127.0.0.1', cluster = null, history = 0 } = {}) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const dataDir = join(folder, 'mariadb');
  const pidFile = join(folder, 'mariadb.pid');
  // A database that starts clears away the temporary tables it finds, whoever they belong to: each has a place of its own.
  const temporary = join(folder, 'mariadb.tmp');
  const user = userInfo().username;
  await endLeftovers(dataDir);
  rmSync(temporary, { recursive: true, force: true });
  mkdirSync(temporary, { mode: 0o700 });
  // A folder without the system tables is one an earlier version was cut short in.
  if (!existsSync(join(dataDir, 'mysql'))) {
    if (existsSync(join(dataDir, 'lastmark')))
      throw new Error(`${dataDir} has data but no system tables. Bring back a copy of the folder, or move it away.`);
    rmSync(dataDir, { recursive: true, force: true });
    if (cluster?.filled) mkdirSync(dataDir, { mode: 0o700 });
    else install(dataDir, temporary, user);
  }
  if (history === 0 && !cluster && existsSync(historyFolder(folder))) {
    // What was begun with changes kept is ended with them; then they go.
    const once = await startMariadb(folder, { history: 1 });
    await once.stop();
    forgetHistory(folder);
  }
  const secret = secretOf(folder);
  const chosenPort = port ?? (await freePort(host));
  const from = cluster ? '%' : host;
  const ownSocket = join(folder, 'mariadb.sock');
  const socketFolder = ownSocket.length > LONGEST_SOCKET_PATH ? mkdtempSync(join(tmpdir(), 'lastmark-')) : null;
  const socket = socketFolder ? join(socketFolder, 'db.sock') : ownSocket;
  const init = join(folder, 'init.sql');
  writeFileSync(
    init,
    [
      'CREATE DATABASE IF NOT EXISTS lastmark CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;',
      `CREATE USER IF NOT EXISTS 'lastmark'@'${from}' IDENTIFIED BY '${secret}';`,
      `GRANT ALL ON \`lastmark%\`.* TO 'lastmark'@'${from}';`,
      // To say where in the changes a backup stands, and to do changes again.
      ...(history > 0 ? [`GRANT BINLOG MONITOR, BINLOG REPLAY ON *.* TO 'lastmark'@'${from}';`] : []),
      `ALTER USER 'root'@'localhost' IDENTIFIED BY '${secret}';`,
    ].join('\n'),
    { mode: 0o600 },
  );
  const log = openSync(join(folder, 'mariadb.log'), 'a');
  const [program, ...words] = [...(cluster?.within ?? []), findProgram('mariadbd')];
  const child = spawn(
    program,
    [
      ...words,
      '--no-defaults',
      `--datadir=${dataDir}`,
      `--tmpdir=${temporary}`,
      `--socket=${socket}`,
      `--port=${chosenPort}`,
      `--bind-address=${host}`,
      '--skip-name-resolve',
      `--user=${user}`,
      `--pid-file=${pidFile}`,
      `--init-file=${init}`,
      '--character-set-server=utf8mb4',
      '--max-allowed-packet=64M',
      '--innodb-buffer-pool-size=256M',
      '--innodb-flush-log-at-trx-commit=1',
      // What takes longer than a second is written down, with how many rows were looked at.
      '--slow-query-log=1',
      '--long-query-time=1',
      `--slow-query-log-file=${join(folder, 'slow.log')}`,
      ...(history > 0 ? historyOptions(folder, history) : []),
      ...(cluster?.more ?? []),
    ],
    // A group of its own: Ctrl-C at the terminal must not reach it before the server has finished.
    { stdio: ['ignore', log, log], detached: true, env: cluster?.env ?? process.env },
  );
  let ended = false;
  const end = new Promise((resolve) => child.once('exit', resolve));
  child.once('exit', () => {
    ended = true;
  });
  const ping = () =>
    spawnSync(
      findProgram('mariadb-admin'),
      [
        '--no-defaults',
        '--protocol=tcp',
        `--host=${host}`,
        '--connect-timeout=2',
        `--port=${chosenPort}`,
        '--user=lastmark',
        'ping',
      ],
      {
        env: { ...process.env, MYSQL_PWD: secret },
      },
    ).status === 0;
  for (let waited = 0; !ping(); waited += 100) {
    if (ended || waited > READY_MILLISECONDS)
      throw new Error(`MariaDB did not start. See ${join(folder, 'mariadb.log')}`);
    await pause(100);
  }
  const url = `mysql://lastmark:${secret}@${host}:${chosenPort}/lastmark`;
  writeWhole(join(folder, 'database.url'), url);
  return {
    url,
    host,
    port: chosenPort,
    socket,
    pid: child.pid,
    /** End it as a loss of power would. */
    kill: async () => {
      if (!ended) child.kill('SIGKILL');
      await end;
    },
    onExit: (listener) => child.once('exit', listener),
    stop: async () => {
      if (!ended) {
        child.kill('SIGTERM');
        // An unreferenced timer: waiting must not outlive the database.
        await Promise.race([end, new Promise((resolve) => setTimeout(resolve, STOP_MILLISECONDS).unref())]);
      }
      if (socketFolder) rmSync(socketFolder, { recursive: true, force: true });
    },
  };
}
