// The first view: how much script it takes, and when it can be used on a slow processor.
import { chromium } from '@playwright/test';
import { CHROMIUM } from '../lib/chromium.mjs';
import { median, spread } from './figures.mjs';

const TURNS = 5;
const SLOW_DOWN = 4;

export async function measureFirstView(url) {
  const browser = await chromium.launch(CHROMIUM);
  const sizes = [];
  const usable = [];
  try {
    for (let turn = 0; turn < TURNS; turn += 1) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      const page = await context.newPage();
      const client = await context.newCDPSession(page);
      await client.send('Network.enable');
      await client.send('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
      const scripts = new Set();
      let bytes = 0;
      client.on('Network.responseReceived', ({ requestId, type }) => type === 'Script' && scripts.add(requestId));
      client.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
        if (scripts.has(requestId)) bytes += encodedDataLength;
      });
      const start = performance.now();
      await page.goto(`${url}/`, { waitUntil: 'commit' });
      await page.getByRole('table', { name: 'Samples' }).getByRole('link').first().waitFor();
      // Usable: a key typed now is answered.
      await page.getByLabel('Find by maker, model, serial or tag').fill('a');
      usable.push(performance.now() - start);
      await page.waitForLoadState('networkidle');
      sizes.push(bytes / 1000);
      await context.close();
    }
  } finally {
    await browser.close();
  }
  console.log(`first view, ${TURNS} cold starts`);
  console.log(`  script, compressed      ${median(sizes).toFixed(0)} kB, goal ≤ 250 kB`);
  console.log(`  usable at ${SLOW_DOWN}× slow-down   median ${median(usable).toFixed(0)} ms (${spread(usable)})`);
}
