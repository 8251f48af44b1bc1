// An empty bench greets with three ways in.
// @ts-expect-error plain script without types
import { startStage } from '../scripts/lib/stage.mjs';
import { expect, test } from './bench.ts';

test('three ways in: a spreadsheet, the demo and away again, a charger', async ({ page }) => {
  const stage = await startStage({ demo: false });
  try {
    await page.goto(stage.url);
    await expect(page.getByRole('heading', { name: 'The shelf is empty' })).toBeVisible();
    await page.getByLabel('List of samples').setInputFiles({
      name: 'chargers.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(
        'maker;model;kind;ports;mass_g;paid\nTarnhook;Ember 45;wall;C1;82,5;24,50 €\nMirefold;;wall;C1;;\nGravelin;Quad 130;desktop;3C 1A;410;\n',
      ),
    });
    const dialog = page.getByRole('dialog', { name: /A list of samples/ });
    await expect(dialog.getByRole('alert')).toContainText('Line 3: maker and model are needed.');
    await expect(dialog.getByRole('table')).toContainText('C1 C2 C3 A1');
    await dialog.getByRole('button', { name: 'Take in 2, leave out 1' }).click();
    await expect(dialog).toBeHidden();
    const table = page.getByRole('table', { name: 'Samples' });
    await expect(table).toContainText('Ember 45');
    await expect(table).toContainText('Quad 130');
    // The demo fills an empty bench only: nobody's work is mixed with it.
    expect((await page.request.put(`${stage.url}/api/demo`, { data: { shown: true } })).status()).toBe(409);
  } finally {
    await stage.stop();
  }
});

test('the demo is tried, says that it is one, and is put away', async ({ page }) => {
  // It is filled in here beside other journeys: its job has a quarter of an hour.
  const longest = 900_000;
  test.setTimeout(longest + 120_000);
  const stage = await startStage({ demo: false });
  try {
    await page.goto(stage.url);
    await page.getByRole('button', { name: 'Try the demo' }).click();
    const table = page.getByRole('table', { name: 'Samples' });
    await expect(table).toContainText('Quad 130', { timeout: longest });
    await expect(page.getByText('Demo, all of it invented.')).toBeVisible();
    await page.getByRole('button', { name: 'Put it away' }).click();
    await expect(page.getByRole('heading', { name: 'The shelf is empty' })).toBeVisible();
    await page.getByRole('button', { name: 'Show the demo again' }).click();
    await expect(table).toContainText('Quad 130');
  } finally {
    await stage.stop();
  }
});
