import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['{core,bench,contract,web,scripts}/**/*.test.{ts,mjs}'],
          exclude: ['**/node_modules/**'],
        },
      },
      {
        test: {
          name: 'api',
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/test/database.global.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
