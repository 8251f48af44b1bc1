// npm start: install, build, database, server; Ctrl-C ends all of it.
import { fork } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { isRunning, startMariadb } from './lib/mariadb.mjs';
import { dataFolder, ROOT } from './lib/paths.mjs';
import { giveUp, say } from './lib/say.mjs';

const data = dataFolder();
const ownerFile = join(data, 'owner.pid');

/** One start a data folder: a second one would fight over the database files. */
function claimFolder() {
  mkdirSync(data, { recursive: true, mode: 0o700 });
  const owner = existsSync(ownerFile) ? Number.parseInt(readFileSync(ownerFile, 'utf8'), 10) : Number.NaN;
  if (Number.isInteger(owner) && owner !== process.pid && isRunning(owner)) {
    giveUp(
      `Lastmark is running on ${data} already (process ${owner}).\nStop it, or set LASTMARK_DATA to another folder and PORT to another port.`,
    );
  }
  writeFileSync(ownerFile, String(process.pid));
}

let database;
let server;
let bench;
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  if (server && server.exitCode === null) {
    say('stopping the server');
    const ended = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGTERM');
    await ended;
  }
  if (bench && bench.exitCode === null) {
    const ended = new Promise((resolve) => bench.once('exit', resolve));
    bench.kill('SIGTERM');
    await ended;
  }
  if (database) {
    say('stopping the database');
    await database.stop();
  }
  rmSync(ownerFile, { force: true });
  say('stopped');
  process.exit(code);
}

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

function startServer(databaseUrl, benchPort) {
  // detached: a Ctrl-C at the terminal reaches this script alone, which then stops things in order.
  server = fork(join(ROOT, 'server', 'dist', 'main.js'), [], {
    cwd: ROOT,
    detached: true,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      ...(benchPort ? { BENCH_PORT: benchPort } : {}),
    },
  });
  server.on('message', ({ ready, port }) => {
    if (!ready) return;
    const host = process.env.HOST ?? 'localhost';
    say('ready');
    console.log(
      `\n  Lastmark is at  http://${host === '127.0.0.1' ? 'localhost' : host}:${port}\n  Data is in      ${data}\n  Ctrl-C stops everything.\n`,
    );
  });
  server.once('exit', (code) => {
    if (!stopping) {
      console.error('The server stopped by itself.');
      void stop(code ?? 1);
    }
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
    database = await startMariadb(data);
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
