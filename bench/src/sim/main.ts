// The simulated bench as a process of its own.
import { readFileSync } from 'node:fs';
import { type BenchParts, benchParts, readBench } from './parameter-file.ts';
import { startRack } from './rack.ts';

const wanted = (name: string, otherwise: number): number => {
  const value = Number(process.env[name] ?? otherwise);
  if (!Number.isFinite(value) || value < 0) {
    console.error(`${name} is not a number of 0 or more.`);
    process.exit(1);
  }
  return value;
};

/** What a parameter file puts beside the world: chargers, cables, faults of the rig. */
function more(): BenchParts {
  const file = process.env.BENCH_CHARGERS;
  if (!file) return benchParts({});
  try {
    return readBench(readFileSync(file, 'utf8'));
  } catch (error) {
    console.error(`BENCH_CHARGERS: ${(error as Error).message}`);
    process.exit(1);
  }
}

const { chargers, cables, rig } = more();
const rack = await startRack({
  firstPort: wanted('BENCH_PORT', 5300),
  speed: wanted('BENCH_SPEED', 1),
  seed: wanted('BENCH_SEED', 1),
  chargers: chargers.map(({ truth }) => truth),
  cables: cables.map(({ truth }) => truth),
  rig,
}).catch((error: Error) => {
  console.error(`The simulated bench cannot start: ${error.message}. Choose other ports with BENCH_PORT.`);
  process.exit(1);
});

process.send?.({ ready: true, ports: rack.ports });
if (!process.send) {
  console.log('The simulated bench answers SCPI on 127.0.0.1:\n');
  for (const [name, port] of Object.entries(rack.ports)) console.log(`  ${String(port).padEnd(6)} ${name}`);
  console.log('\nCtrl-C stops it.');
}

const stop = () => void rack.close().then(() => process.exit(0));
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, stop);
process.on('disconnect', stop);
