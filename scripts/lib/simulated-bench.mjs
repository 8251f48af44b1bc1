// A simulated bench for tests and measurements: own process, any free ports.
import { fork } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';

/** Ports a bench needs: its control and eleven instruments. */
const IN_A_ROW = 12;
/** Below what the system hands out by itself. */
const LOWEST = 10_000;
const HIGHEST = 30_000;

/** First of as many free ports in a row as a bench needs, for a demo that finds its instruments by counting. */
export async function portsInARow() {
  for (;;) {
    const first = LOWEST + Math.floor(Math.random() * (HIGHEST - LOWEST));
    const probes = Array.from({ length: IN_A_ROW }, () => createServer());
    const free = await Promise.all(
      probes.map(
        (probe, index) =>
          new Promise((resolve) => {
            probe.once('error', () => resolve(false));
            probe.listen(first + index, '127.0.0.1', () => resolve(true));
          }),
      ),
    );
    await Promise.all(probes.map((probe) => new Promise((resolve) => probe.close(resolve))));
    if (free.every(Boolean)) return first;
  }
}

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
