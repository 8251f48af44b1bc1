// A simulated bench for tests and measurements: own process, any free ports.
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';

/** Start one. @returns its ports by instrument class, and stop() */
export async function startSimulatedBench({ speed = 1, seed = 1, port = 0 } = {}) {
  const bench = fork(join(ROOT, 'bench', 'dist', 'main.js'), [], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, BENCH_PORT: String(port), BENCH_SPEED: String(speed), BENCH_SEED: String(seed) },
  });
  const exited = new Promise((resolve) => bench.once('exit', resolve));
  const ports = await Promise.race([
    new Promise((resolve) => bench.once('message', (message) => resolve(message.ports))),
    exited.then(() => {
      throw new Error('The simulated bench did not start.');
    }),
  ]);
  return {
    ports,
    stop: async () => {
      bench.kill('SIGTERM');
      await exited;
    },
  };
}
