// A demo of its own with the simulated bench beside it, for journeys in which instruments run.
// @ts-expect-error plain script without types
import { portsInARow, startSimulatedBench } from '../scripts/lib/simulated-bench.mjs';
// @ts-expect-error plain script without types
import { startStage } from '../scripts/lib/stage.mjs';

export interface SimulatedStage {
  readonly url: string;
  readonly killServer: () => Promise<void>;
  readonly restartServer: () => Promise<void>;
  readonly killDatabase: () => Promise<void>;
  readonly restartDatabase: () => Promise<void>;
}

/** @param speed of the bench's clock @param work what is done there; both are stopped afterwards, however it ends */
export async function withSimulatedBench(speed: number, work: (stage: SimulatedStage) => Promise<void>): Promise<void> {
  const port = (await portsInARow()) as number;
  const bench = (await startSimulatedBench({ port, speed })) as { stop: () => Promise<void> };
  try {
    const stage = (await startStage({
      env: { BENCH_PORT: String(port) },
      memory: true,
      filled: process.env.LASTMARK_FILLED,
    })) as SimulatedStage & {
      stop: () => Promise<void>;
    };
    try {
      await work(stage);
    } finally {
      await stage.stop();
    }
  } finally {
    await bench.stop();
  }
}
