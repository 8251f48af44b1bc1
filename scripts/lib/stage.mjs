// A whole Lastmark for tests, pictures and measurements: own data folder, own database, own port.
import { fork } from 'node:child_process';
import { mkdtempSync, openSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startMariadb } from './mariadb.mjs';
import { ROOT } from './paths.mjs';

const READY_MILLISECONDS = 60_000;

/**
 * Start a stage. Needs the build to be there.
 * @param demo fill in the demo shelf
 * @returns url of the server and of its database, and stop(), which leaves nothing behind
 */
export async function startStage({ demo = true } = {}) {
  const folder = mkdtempSync(join(tmpdir(), 'lastmark-stage-'));
  const database = await startMariadb(folder);
  const log = openSync(join(folder, 'server.log'), 'a');
  const server = fork(join(ROOT, 'server', 'dist', 'main.js'), [], {
    cwd: ROOT,
    stdio: ['ignore', log, log, 'ipc'],
    env: { ...process.env, DATABASE_URL: database.url, PORT: '0', LASTMARK_DEMO: demo ? '1' : '0', LOG_LEVEL: 'error' },
  });
  const exited = new Promise((resolve) => server.once('exit', resolve));
  const stop = async () => {
    if (server.exitCode === null) server.kill('SIGTERM');
    await exited;
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
  const port = await new Promise((resolve) => {
    const timer = setTimeout(() => resolve(null), READY_MILLISECONDS);
    const settle = (value) => {
      clearTimeout(timer);
      resolve(value);
    };
    server.once('message', (message) => settle(message.port));
    void exited.then(() => settle(null));
  });
  if (port === null) {
    await stop();
    throw new Error('The server of the stage did not start.');
  }
  return { url: `http://127.0.0.1:${port}`, databaseUrl: database.url, serverPid: server.pid, stop };
}
