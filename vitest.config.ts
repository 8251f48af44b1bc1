import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
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
          setupFiles: ['scripts/lib/chance.mjs'],
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/testing/database.global.ts', 'server/testing/answers.global.ts'],
          // What is waited for is waited for, also beside a busy processor: only what never comes ends by these.
          testTimeout: 300_000,
          hookTimeout: 120_000,
          expect: { poll: { timeout: 200_000 } },
          // Every file has a database, ports and a server of its own; most of them wait more than they work.
          maxWorkers: 4,
          isolate: false,
        },
      },
    ],
  },
});
