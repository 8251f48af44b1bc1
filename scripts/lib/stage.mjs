// A whole Lastmark for tests, pictures and measurements: own data folder, own database, own port.
import { fork } from 'node:child_process';
import { mkdtempSync, openSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { copyFilled, moveBench } from './copy-filled.mjs';
import { startMariadb } from './mariadb.mjs';
import { ROOT } from './paths.mjs';
import { scratch } from './scratch.mjs';

const READY_MILLISECONDS = 180_000;
/** Filling in the demo has as long as its job, and a little more. */
const DEMO_MILLISECONDS = 960_000;

/**
 * Fork a built server and wait until it listens.
 * @param folder where its log goes
 * @param killed end it without a word as this promise is kept
 * @returns the process, its port, null when it did not start, and the code of the first person where there is one
 */
export async function forkServer(databaseUrl, folder, { port = 0, demo = false, env = {}, killed = null } = {}) {
  const log = openSync(join(folder, 'server.log'), 'a');
  const server = fork(join(ROOT, 'server', 'dist', 'main.js'), [], {
    cwd: ROOT,
    stdio: ['ignore', log, log, 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      LASTMARK_DEMO: demo ? '1' : '0',
      LOG_LEVEL: 'error',
      ...env,
    },
  });
  const exited = new Promise((resolve) => server.once('exit', resolve));
  void killed?.then(() => server.kill('SIGKILL'));
  const told = await new Promise((resolve) => {
    const timer = setTimeout(() => resolve(null), demo ? DEMO_MILLISECONDS : READY_MILLISECONDS);
    const settle = (value) => {
      clearTimeout(timer);
      resolve(value);
    };
    server.once('message', settle);
    void exited.then(() => settle(null));
  });
  return { server, exited, port: told?.port ?? null, code: told?.code ?? null };
}

/**
 * Start a stage. Needs the build to be there.
 * @param demo fill in the demo shelf
 * @param filled folder of a demo filled in before, to begin with a copy of
 * @param memory keep its data in memory where there is plenty: for tests, never for measurements
 * @param env more of the server's environment
 * @returns url of the server and of its database, stop(), which leaves nothing behind, and ways to kill and restart both
 */
export async function startStage({ demo = true, env = {}, memory = false, filled = null } = {}) {
  const folder = memory ? scratch('stage') : mkdtempSync(join(tmpdir(), 'lastmark-stage-'));
  if (filled) copyFilled(filled, folder);
  let database = await startMariadb(folder);
  if (filled) await moveBench(database.url, env.BENCH_PORT ? Number(env.BENCH_PORT) : null);
  let running = await forkServer(database.url, folder, { demo, env });
  const stop = async () => {
    if (running.server.exitCode === null) running.server.kill('SIGTERM');
    await running.exited;
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
  const { port } = running;
  if (port === null) {
    await stop();
    throw new Error('The server of the stage did not start.');
  }
  return {
    url: `http://127.0.0.1:${port}`,
    databaseUrl: database.url,
    /** Of the first person, where people are told apart. */
    code: running.code,
    serverPid: running.server.pid,
    stop,
    /** As kill -9 does: without a word. */
    killServer: async () => {
      running.server.kill('SIGKILL');
      await running.exited;
    },
    restartServer: async () => {
      running = await forkServer(database.url, folder, { port, demo });
      if (running.port === null) throw new Error('The server of the stage did not start again.');
    },
    killDatabase: async () => {
      const ended = new Promise((resolve) => database.onExit(resolve));
      process.kill(database.pid, 'SIGKILL');
      await ended;
    },
    restartDatabase: async () => {
      database = await startMariadb(folder, { port: database.port });
    },
  };
}
