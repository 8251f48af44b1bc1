// A demo of its own with the simulated bench beside it, for journeys in which instruments run.
import type { Page } from '@playwright/test';
// @ts-expect-error plain script without types
import { portsInARow, startSimulatedBench } from '../scripts/lib/simulated-bench.mjs';
// @ts-expect-error plain script without types
import { startStage } from '../scripts/lib/stage.mjs';
import { NO_TIME } from '../server/testing/no-time.ts';

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

/** Where only this machine had no time for a run, go on with it at its console, as a person would. */
export const goOnWhereNoTime = (page: Page): Promise<void> =>
  page.addLocatorHandler(
    page.getByRole('region', { name: 'Present step' }).getByRole('alert').filter({ hasText: NO_TIME }),
    () => page.getByRole('button', { name: /^Go on/ }).click(),
  );
