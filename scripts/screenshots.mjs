// npm run screenshots [-- NAME …]: remakes docs/screenshots, or those named, from the demo at 1280×800.
// Which view has a picture stands in its folder's views.json.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { CHROMIUM, CHROMIUM_PACKAGE } from './lib/chromium.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { say } from './lib/say.mjs';
import { startSimulatedBench } from './lib/simulated-bench.mjs';
import { startStage } from './lib/stage.mjs';
import { allViews } from './lib/views.mjs';

const BENCH_PORT = 5340;
const FOLDER = join(ROOT, 'docs', 'screenshots');

/** What is done before a picture is taken, where the view alone does not show it. */
const ACTS = {
  shelf: async (page) => page.getByText('being worked out').first().waitFor({ state: 'detached', timeout: 180_000 }),
  trial: async (page) => {
    await page.getByRole('link', { name: 'Does the braided cable charge quicker?' }).click();
    await page.getByRole('region', { name: 'What it says' }).locator('canvas').waitFor();
  },
  verdict: async (page) => page.locator('main details summary').first().click(),
  compare: async (page) => {
    await page.getByRole('link', { name: 'Wall chargers for the huts' }).click();
    await page.getByRole('application').focus();
    for (let step = 0; step < 4; step += 1) await page.keyboard.press('ArrowRight');
    await page.getByText(/Mass per watt \d/).waitFor();
  },
  'run-sheet': async (page) => {
    await page.getByRole('button', { name: 'Make the sheet' }).click();
    await page.getByRole('list', { name: 'Steps in order' }).waitFor();
  },
  'run-console': async (page) => {
    await page.getByRole('button', { name: 'Run it on the simulated bench' }).click();
    await page.getByText(/Settling: drift/).waitFor({ timeout: 180_000 });
    // A good part of the picture's ten minutes has passed by then.
    await page.waitForTimeout(2500);
  },
};

/** Shown in the dim theme, so that both are seen. */
const DIM = ['safety'];

/** Views that only stand after something was done. Last the run: it puts a charger on the bench and lets the clock run. */
const MADE = [
  { picture: 'run-sheet', sample: 'PT-75-3310', path: '/run-sheets?sample={id}' },
  { picture: 'compare', path: '/compare' },
  { picture: 'trial', path: '/trials' },
  { picture: 'run-console', sample: 'TE-45-0868', path: '/run-sheets?sample={id}' },
];

needNode();
needPackages();
needPrograms({ 'mariadb-server': 'mariadbd', ...CHROMIUM_PACKAGE });
needBuild();
const { chromium } = await import('@playwright/test');
mkdirSync(FOLDER, { recursive: true });
// As after npm start: the bench answers on ports in a row, and the demo's instruments have its addresses.
const bench = await startSimulatedBench({ port: BENCH_PORT });
process.env.BENCH_PORT = String(BENCH_PORT);
const stage = await startStage();
const browser = await chromium.launch(CHROMIUM);
try {
  const named = process.argv.slice(2);
  for (const { picture, sample, path } of [...allViews(), ...MADE]) {
    if (!picture || (named.length > 0 && !named.includes(picture))) continue;
    const context = await browser.newContext({
      baseURL: stage.url,
      viewport: { width: 1280, height: 800 },
      colorScheme: DIM.includes(picture) ? 'dark' : 'light',
    });
    const page = await context.newPage();
    const found = sample ? await (await page.request.get(`/api/samples?q=${sample}`)).json() : null;
    await page.goto(path.replace('{id}', found?.items[0]?.id ?? ''));
    await page.waitForLoadState('networkidle');
    await page.getByRole('heading').first().waitFor();
    await ACTS[picture]?.(page);
    await page.waitForTimeout(300);
    await page.screenshot({ path: join(FOLDER, `${picture}.png`) });
    say(`docs/screenshots/${picture}.png`);
    await context.close();
  }
} finally {
  await browser.close();
  await stage.stop();
  await bench.stop();
}
