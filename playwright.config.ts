import { defineConfig } from '@playwright/test';
// @ts-expect-error plain script without types
import { CHROMIUM } from './scripts/lib/chromium.mjs';

/** Journeys that wait for a bench more than they work. They begin first, so that nothing is left to wait for at the end. */
const WAITING = /(run-crash|run-sheets|live-bench|start)\.spec\.ts/;

export default defineConfig({
  projects: [
    { name: 'waiting', testMatch: WAITING },
    { name: 'journeys', testIgnore: WAITING },
  ],
  testDir: 'e2e',
  outputDir: 'test-results/journeys',
  globalSetup: './e2e/stage.ts',
  fullyParallel: true,
  // One more than cores: journeys wait for the server as often as they work.
  workers: 3,
  // What is waited for is waited for, also beside a busy processor: only what never comes ends by these.
  timeout: 300_000,
  expect: { timeout: 120_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/journeys.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    // One process draws the pages of a worker: what one of them has made fast stays fast for the next.
    launchOptions: { ...CHROMIUM, args: [...CHROMIUM.args, '--process-per-site'] },
    screenshot: 'only-on-failure',
    colorScheme: 'light',
    // Nothing moves while it is looked at: a colour on its way to another is neither.
    contextOptions: { reducedMotion: 'reduce' },
    locale: 'en-GB',
  },
});
