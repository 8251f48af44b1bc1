// npm start: install, build, database, server; Ctrl-C ends all of it.
import { fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { runningOwner } from './lib/current.mjs';
import { historyDays } from './lib/history-folder.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { startMariadb } from './lib/mariadb.mjs';
import { dataFolder, ROOT } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';

const data = dataFolder();
const ownerFile = join(data, 'owner.pid');

/** Pauses before a server that died is started again, ms; the last one stays. */
const AGAIN_MILLISECONDS = [200, 1000, 3000, 10_000, 30_000];
/** A server that lived so long begins with the first pause again, ms. */
const WELL_MILLISECONDS = 60_000;
/** How long a child has to end in order before it is ended, ms. */
const END_MILLISECONDS = 15_000;

/** One start a data folder: a second one would fight over the database files. */
function claimFolder() {
  mkdirSync(data, { recursive: true, mode: 0o700 });
  const owner = runningOwner(data);
  if (owner !== null && owner !== process.pid) {
    giveUp(
      `Lastmark is running on ${data} already (process ${owner}).\nStop it, or set LASTMARK_DATA to another folder and PORT to another port.`,
    );
  }
  writeFileSync(ownerFile, String(process.pid));
}

let database;
/** The database on its way up. */
let starting = Promise.resolve();
let server;
let bench;
let stopping = false;
let again = null;

const isOver = (child) => child.exitCode !== null || child.signalCode !== null;

/** End a child in order, or after a while all the same. */
async function end(child) {
  if (!child || isOver(child)) return;
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  const late = setTimeout(() => child.kill('SIGKILL'), END_MILLISECONDS);
  await ended;
  clearTimeout(late);
}

async function stop(code) {
  if (stopping) {
    // Asked twice: whoever presses again does not want to wait.
    for (const child of [server, bench]) if (child && !isOver(child)) child.kill('SIGKILL');
    return;
  }
  stopping = true;
  if (again) clearTimeout(again);
  if (server && !isOver(server)) say('stopping the server');
  await end(server);
  await end(bench);
  await starting;
  if (database) {
    say('stopping the database');
    await database.stop();
  }
  rmSync(ownerFile, { force: true });
  say('stopped');
  process.exit(code);
}

/** What to say where people sign in. */
const signingIn = (code) =>
  code
    ? `\n  Nobody is here yet: open the address and come in with the code\n\n      ${code}\n\n  within a day. Whoever has it becomes admin and can let others in.\n`
    : '  People          sign in with name and password\n';

/** What to say where everybody on the network can listen. */
const OPEN_LINE =
  '\n  WITHOUT TLS: passwords can be read on the way. Set LASTMARK_TLS_CERT and LASTMARK_TLS_KEY, or put a proxy with TLS before it.\n';

/** The simulated bench of the demo. Without its ports everything else still works. @returns its first port, or null */
function startBench() {
  const port = process.env.BENCH_PORT ?? '5300';
  bench = fork(join(ROOT, 'bench', 'dist', 'main.js'), [], {
    cwd: ROOT,
    detached: true,
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    env: { ...process.env, BENCH_PORT: port },
  });
  let complaint = '';
  bench.stderr.on('data', (piece) => {
    complaint += piece;
  });
  return new Promise((resolve) => {
    bench.once('message', () => resolve(port));
    bench.once('exit', () => {
      if (!stopping && complaint) console.error(`${complaint.trim()} Going on without it.`);
      resolve(null);
    });
  });
}

/**
 * Start the server, and again whenever it dies.
 * @param tries how often it died lately
 * @param died name of the server that died: its loads go off before this one lets anyone in
 */
function startServer(databaseUrl, benchPort, tries = 0, died = '') {
  const name = randomUUID();
  const began = Date.now();
  let wasReady = false;
  // detached: a Ctrl-C at the terminal reaches this script alone, which then stops things in order.
  server = fork(join(ROOT, 'server', 'dist', 'main.js'), [], {
    cwd: ROOT,
    detached: true,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      LASTMARK_DATA: data,
      LASTMARK_BACKUPS: process.env.LASTMARK_BACKUPS ?? '24',
      LASTMARK_SERVER: name,
      LASTMARK_DIED: died,
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      ...(benchPort ? { BENCH_PORT: benchPort } : {}),
    },
  });
  server.on('message', ({ ready, port, people, code, secure }) => {
    if (!ready) return;
    wasReady = true;
    const host = process.env.HOST ?? 'localhost';
    say('ready');
    const address = `${secure ? 'https' : 'http'}://${host === '127.0.0.1' ? 'localhost' : host}:${port}`;
    const near = /^(localhost|127\.|\[?::1)/.test(host);
    console.log(
      `\n  Lastmark is at  ${address}\n  Data is in      ${data}\n${people ? signingIn(code) : ''}${people && !secure && !near && !process.env.LASTMARK_PROXIES ? OPEN_LINE : ''}  Ctrl-C stops everything.\n`,
    );
  });
  server.once('exit', (code, signal) => {
    if (stopping) return;
    // What it refused at the start it would refuse again.
    if (!wasReady && signal === null) {
      console.error('The server did not start.');
      void stop(code || 1);
      return;
    }
    const turn = Date.now() - began > WELL_MILLISECONDS ? 0 : tries;
    const pause = AGAIN_MILLISECONDS[Math.min(turn, AGAIN_MILLISECONDS.length - 1)];
    console.error(
      `The server ended by itself (${signal ?? `exit ${code}`}). It is started again in ${pause / 1000} s; loads are switched off first.`,
    );
    again = setTimeout(() => startServer(databaseUrl, benchPort, turn + 1, name), pause);
  });
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

needNode();
claimFolder();
needPackages();
const configured = process.env.DATABASE_URL || null;
if (!configured) needPrograms({ 'mariadb-server': 'mariadbd' });
needBuild();
if (configured) say('using the database of DATABASE_URL');
else {
  say('starting the database');
  try {
    const up = startMariadb(data, { history: historyDays() }).then((made) => {
      database = made;
    });
    starting = up.catch(() => undefined);
    await up;
  } catch (error) {
    rmSync(ownerFile, { force: true });
    giveUp(error.message);
  }
  database.onExit(() => {
    if (!stopping) {
      console.error('The database stopped by itself.');
      void stop(1);
    }
  });
}
if (!stopping) {
  const demo = process.env.LASTMARK_DEMO !== '0';
  if (demo) say('starting the simulated bench');
  const benchPort = demo ? await startBench() : null;
  say('starting the server (first it brings the tables up to date)');
  startServer(configured ?? database.url, benchPort);
}
