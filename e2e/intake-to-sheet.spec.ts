// From the box to the printed sheet, the way a person does it.
import { readFileSync } from 'node:fs';
import { expect, test } from './bench.ts';

/** Input W, PF, output V, output A for 100, 75, 50, 25 and 10 %, then the idle watts. */
const ROWS = [
  ['49.60', '0.68', '20.03', '2.250'],
  ['36.90', '0.65', '20.04', '1.688'],
  ['24.50', '0.60', '20.05', '1.125'],
  ['12.30', '0.55', '20.06', '563 mA'],
  ['5,05', '0,50', '20,07', '0,225'],
  ['0.04', '0.1'],
];

/** The mean of the four efficiencies, worked out here and apart from the program. */
const expectedAverage =
  ROWS.slice(0, 4)
    .map(([watts, , volts, amps]) => (Number(volts) * (amps === '563 mA' ? 0.563 : Number(amps))) / Number(watts))
    .reduce((a, b) => a + b) / 4;

test('a wall charger from intake to the sheet', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Take in a sample' }).first().click();
  await expect(page.getByRole('heading', { name: 'Take in a sample' })).toBeVisible();
  await page.getByLabel('Maker').fill('Pellwick');
  await page.getByLabel('Model').fill('Journey 45');
  await page.getByRole('button', { name: 'Add a C port' }).click();
  await page.getByRole('button', { name: 'Add a C port' }).click();
  await page.getByRole('button', { name: 'Add an A port' }).click();
  await page.getByLabel('Label of port 2').fill('Side');
  await page.getByRole('button', { name: 'Remove port 2, Side', exact: true }).click();

  // A1 is moved in front of C1 by keyboard alone.
  const handle = page.getByRole('button', { name: 'Move port 2, A1', exact: true });
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('A1 is at place 2.')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('A1 is at place 1.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Move port 1, A1', exact: true })).toBeVisible();
  await expect(page.getByRole('img', { name: 'Ports: A1 (A), C1 (C)' })).toBeVisible();

  await page.getByLabel('Length, mm').fill('5,2 cm');
  await page.getByLabel('Mass, g').fill('83');
  await page.getByRole('button', { name: 'Add a price' }).click();
  await page.getByLabel('Amount').fill('24,50');
  await page.getByLabel('Serial').fill('J-0001');
  await page.getByRole('button', { name: 'Take in, then claims' }).click();

  await expect(page.getByRole('heading', { name: 'Claims' })).toBeVisible();
  const line = page.getByLabel('A line as printed');
  for (const text of ['C1: 20V 2.25A / 5V 3A', 'total 45 W', 'idle 0.075 W', 'efficiency 90 %', '“calm power”']) {
    await line.fill(text);
    await line.press('Enter');
    await expect(line).toHaveValue('');
  }
  await expect(page.getByRole('list', { name: 'Claims' }).getByRole('listitem')).toHaveCount(6);

  await page.getByRole('link', { name: 'Measure efficiency' }).click();
  await page.getByRole('button', { name: 'Add a loading' }).first().click();
  await page.getByRole('checkbox', { name: 'A1' }).uncheck();
  await page.getByRole('checkbox', { name: 'C1' }).check();
  await expect(page.getByLabel('C1 level, V')).toHaveValue('20 V');
  await page.getByRole('button', { name: 'Add', exact: true }).click();

  await expect(page.getByRole('dialog')).toBeHidden();

  // Number keys and Enter alone.
  await page.getByLabel('230 V 50 Hz, 100 %, input watts').focus();
  for (const row of ROWS) {
    for (const typed of row) {
      await page.keyboard.type(typed);
      await page.keyboard.press('Enter');
    }
  }
  const shown = page.getByText('Four-point average, 230 V 50 Hz').locator('..');
  await expect(shown).toContainText(`${(expectedAverage * 100).toFixed(1)} ±`);
  // Nobody said yet how it was taken: the limits only indicate.
  await expect(shown).toContainText('Indicative: see Limit sets below.');
  await page.getByRole('button', { name: 'How it was taken' }).click();
  const stating = page.getByRole('dialog');
  await stating.getByLabel('Warmed up at 100 %, min').fill('30');
  await stating.getByLabel('Input was').click();
  await page.getByRole('option', { name: 'settled' }).click();
  await stating.getByLabel('Watched for, min').fill('5');
  await stating.getByLabel('Drift over that time, %').fill('0.4');
  await stating.getByLabel('Supply as read, V').fill('230.2');
  await stating.getByLabel('Frequency as read, Hz').fill('50');
  await stating.getByLabel('Distortion of its voltage, %').fill('0.9');
  await stating.getByRole('button', { name: 'State it' }).click();
  await expect(shown).toContainText('EU 2019/1782');
  const ledger = page.getByRole('complementary', { name: 'Ledger' });
  await ledger.getByRole('button', { name: /Total 45 W/ }).click();
  await expect(ledger).toContainText('45.07 ± 0.07 W at the port; promised 45 W.');
  await expect(page.getByRole('img', { name: /Efficiency against load/ })).toBeVisible();

  await page.getByRole('link', { name: /^Verdict/ }).click();
  const total = page
    .getByRole('region', { name: 'proven' })
    .locator('details')
    .filter({ hasText: 'Total 45 W' })
    .first();
  await total.getByText('Total 45 W').click();
  await total.getByText(/readings behind it/).click();
  await expect(total.getByText(/Power mains: 49\.60 ± 0\.10 W/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'untestable' })).toContainText('calm power');

  const sheet = await page.request.get(
    (await page.getByRole('link', { name: 'Print the sheet' }).getAttribute('href')) ?? '',
  );
  expect(sheet.headers()['content-type']).toContain('application/pdf');
  const bytes = (await sheet.body()).toString('latin1');
  expect(bytes.match(/\/Type \/Page\b/g)).toHaveLength(1);
  // Real text carries a map from glyphs to characters.
  expect(bytes).toContain('/ToUnicode');

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Data as CSV' }).click(),
  ]);
  const csv = readFileSync(await download.path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(csv).toHaveLength(1 + 22);

  await page.goto('/?q=J-0001');
  await expect(page.getByRole('row').nth(1)).toContainText('Journey 45');
});
