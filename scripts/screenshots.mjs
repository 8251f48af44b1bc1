// npm run screenshots [-- NAME …]: remakes docs/screenshots, or those named, from the demo at 1280×800.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { CHROMIUM } from './lib/chromium.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { say } from './lib/say.mjs';
import { startSimulatedBench } from './lib/simulated-bench.mjs';
import { startStage } from './lib/stage.mjs';

const BENCH_PORT = 5340;
const FOLDER = join(ROOT, 'docs', 'screenshots');

/** Each picture: its name, the sample by serial, the path, and what to do before it is taken. */
const PICTURES = [
  { name: 'shelf', path: '/' },
  { name: 'intake', serial: 'PT-75-3310', path: '/samples/{id}/intake' },
  { name: 'claims', serial: 'PT-75-3310', path: '/samples/{id}/claims' },
  { name: 'read-out', serial: 'OB-18-0092', path: '/samples/{id}/read-out' },
  { name: 'proof', serial: 'OB-18-0092', path: '/samples/{id}/proof' },
  { name: 'meter-chain', serial: 'GQ-20931', path: '/samples/{id}/proof?part=meters' },
  { name: 'idle', serial: 'TE-45-0117', path: '/samples/{id}/idle' },
  { name: 'efficiency', serial: 'TE-45-0117', path: '/samples/{id}/efficiency' },
  { name: 'surface', serial: 'TE-45-0117', path: '/samples/{id}/efficiency?view=surface' },
  {
    name: 'mains-current',
    serial: 'OB-18-0092',
    path: '/samples/{id}/efficiency?view=mains',
    dim: true,
    act: async (page) => {
      await page.getByRole('button', { name: 'Show' }).nth(2).click();
      await page.getByRole('img', { name: /Harmonics/ }).waitFor();
      await page
        .getByRole('heading', { name: 'Waveforms and inrush' })
        .evaluate((part) => part.scrollIntoView({ block: 'start' }));
    },
  },
  { name: 'car-supply', serial: 'SH-0441', path: '/samples/{id}/efficiency?view=supply' },
  { name: 'splits', serial: 'GQ-20931', path: '/samples/{id}/splits' },
  {
    name: 'plug',
    serial: 'GQ-20931',
    path: '/samples/{id}/splits?part=plug',
    act: async (page) => {
      for (const name of ['Warden’s laptop', 'Loan phone', 'Valley radio', 'Hut tablet'])
        await page.getByRole('checkbox', { name }).check();
      await page.getByLabel('Loan phone: comes after, h').fill('1');
      await page.getByRole('table', { name: 'The evening' }).waitFor();
      await page
        .getByRole('region', { name: 'Arrangement' })
        .evaluate((part) => part.scrollIntoView({ block: 'start' }));
    },
  },
  {
    name: 'verdict',
    serial: 'PT-75-3310',
    path: '/samples/{id}/verdict',
    act: async (page) => page.locator('main details summary').first().click(),
  },
  { name: 'bench', path: '/bench' },
  { name: 'rules', path: '/rules', act: async (page) => page.locator('main details summary').first().click() },
  {
    name: 'run-sheet',
    serial: 'PT-75-3310',
    path: '/run-sheets?sample={id}',
    act: async (page) => {
      await page.getByRole('button', { name: 'Make the sheet' }).click();
      await page.getByRole('list', { name: 'Steps in order' }).waitFor();
    },
  },
  {
    name: 'live-bench',
    path: '/bench',
    act: async (page) => {
      const dialog = page.getByRole('dialog');
      for (const [instrument, ...commands] of [
        ['Simulated AC source', 'OUTP ON'],
        ['Simulated DC load', 'SINK:CONN ON', 'SINK:REQ 4', 'CURR 2.25', 'INP ON', 'MEAS:VOLT?', 'MEAS:CURR?'],
      ]) {
        if (await dialog.isVisible()) await dialog.getByRole('button', { name: 'Close' }).click();
        await page.getByRole('button', { name: `Console of ${instrument}`, exact: true }).click();
        for (const command of commands) {
          await dialog.getByLabel('Command').fill(command);
          await page.keyboard.press('Enter');
          await dialog.getByRole('log').getByText(command).first().waitFor();
          await page.waitForTimeout(300);
        }
      }
    },
  },
  {
    // Last: it puts a charger on the bench and lets the clock run.
    name: 'run-console',
    serial: 'TE-45-0868',
    path: '/run-sheets?sample={id}',
    act: async (page) => {
      await page.getByRole('button', { name: 'Run it on the simulated bench' }).click();
      await page.getByText(/Settling: drift/).waitFor({ timeout: 180_000 });
      // A good part of the picture's ten minutes has passed by then.
      await page.waitForTimeout(2500);
    },
  },
];

needNode();
needPackages();
needPrograms({ 'mariadb-server': 'mariadbd', chromium: 'chromium' });
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
  for (const { name, serial, path, act, dim } of PICTURES) {
    if (named.length > 0 && !named.includes(name)) continue;
    const context = await browser.newContext({
      baseURL: stage.url,
      viewport: { width: 1280, height: 800 },
      colorScheme: dim ? 'dark' : 'light',
    });
    const page = await context.newPage();
    const found = serial ? await (await page.request.get(`/api/samples?q=${serial}`)).json() : null;
    await page.goto(path.replace('{id}', found?.items[0]?.id ?? ''));
    await page.waitForLoadState('networkidle');
    await page.getByRole('heading').first().waitFor();
    await act?.(page);
    await page.waitForTimeout(300);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
    say(`docs/screenshots/${name}.png`);
    await context.close();
  }
} finally {
  await browser.close();
  await stage.stop();
  await bench.stop();
}
