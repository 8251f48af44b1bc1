import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Files that take longest: they begin first, so that nothing is left to wait for at the end. */
const LONG =
  /(start-cut-short|two-servers|captures|run-faults|hostile|run-sheets|first-run|packages|practice|guards|benches|run-silence|charge-run)\.test/;

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    return [...sorted].sort((one, other) => Number(LONG.test(other.moduleId)) - Number(LONG.test(one.moduleId)));
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        test: {
          name: 'unit',
          setupFiles: ['scripts/lib/chance.mjs'],
          // Chance is drawn often enough to tell; beside a busy processor that takes its time.
          testTimeout: 120_000,
          // Nothing in these has a state to be kept apart.
          isolate: false,
          maxWorkers: 2,
          include: ['{core,bench,contract,web,scripts}/**/*.test.{ts,mjs}'],
          exclude: ['**/node_modules/**'],
        },
      },
      {
        test: {
          name: 'api',
          setupFiles: ['scripts/lib/chance.mjs', 'scripts/lib/stacks.mjs'],
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/testing/database.global.ts', 'server/testing/answers.global.ts'],
          // What is waited for is waited for, also beside a busy processor: only what never comes ends by these.
          testTimeout: 300_000,
          hookTimeout: 120_000,
          expect: { poll: { timeout: 200_000, interval: 100 } },
          // What a run said is told whole.
          chaiConfig: { truncateThreshold: 0 },
          // Every file has a database, ports and a server of its own; one worker more than cores, for they wait a part of their time.
          maxWorkers: 3,
          isolate: false,
        },
      },
    ],
  },
});
