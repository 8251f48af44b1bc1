import { defineConfig } from '@playwright/test';
// @ts-expect-error plain script without types
import { CHROMIUM } from './scripts/lib/chromium.mjs';

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  globalSetup: './e2e/stage.ts',
  fullyParallel: true,
  workers: 2,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/journeys.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    screenshot: 'only-on-failure',
    colorScheme: 'light',
    // Nothing moves while it is looked at: a colour on its way to another is neither.
    contextOptions: { reducedMotion: 'reduce' },
    locale: 'en-GB',
  },
});
