// The simulated bench of a drill, as a process of its own beside the server.
import { fork } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BenchFile, Rack } from '@lastmark/bench/sim';
import { BENCH } from '../paths.ts';

/** So many times as fast as a clock on the wall. */
export const PRACTICE_SPEED = 60;
const START_MILLISECONDS = 60_000;

export interface PracticeBench {
  readonly ports: Rack['ports'];
  readonly close: () => Promise<void>;
}

/** Start a bench with what was drawn. */
export type StartBench = (file: BenchFile) => Promise<PracticeBench>;

/** @throws Error where it does not come up */
export const startBenchProcess: StartBench = async (file) => {
  const folder = await mkdtemp(join(tmpdir(), 'lastmark-bench-'));
  const path = join(folder, 'drawn.json');
  await writeFile(path, JSON.stringify(file), { mode: 0o600 });
  const child = fork(BENCH, [], {
    detached: true,
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    env: { ...process.env, BENCH_PORT: '0', BENCH_SPEED: String(PRACTICE_SPEED), BENCH_CHARGERS: path },
  });
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const close = async () => {
    child.kill('SIGTERM');
    await ended;
  };
  try {
    const ports = await new Promise<Rack['ports']>((resolve, reject) => {
      const late = setTimeout(() => reject(new Error('The simulated bench did not come up.')), START_MILLISECONDS);
      child.once('message', (message: { ports: Rack['ports'] }) => {
        clearTimeout(late);
        resolve(message.ports);
      });
      child.once('exit', () => reject(new Error('The simulated bench did not start.')));
    });
    return { ports, close };
  } catch (error) {
    await close();
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
};
