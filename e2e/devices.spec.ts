// Whole charges: from a log with its stages named, from levels typed line by line, and two of them compared.
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';

/** A log in another dialect: 18 W for 30 min, falling evenly to 2 W over 40 min, then 0.1 W. */
function log(): Buffer {
  const watts = (t: number) => (t < 1800 ? 18 : t < 4200 ? 18 - ((t - 1800) / 2400) * 16 : 0.1);
  const rows = Array.from({ length: 1000 }, (_, at) => {
    const t = at * 5;
    return `${t};9,0${at % 7};${((watts(t) / 9) * 1000).toFixed(0)}`;
  });
  return Buffer.from(['Inline log', 't (s);U (V);I (mA)', ...rows].join('\n'));
}

test('a charge from a log has its stages, its times and what it draws after full; levels typed are enough to begin', async ({
  page,
}) => {
  const { id } = await freshSample(page, 'Charged');
  await page.goto(`/samples/${id}/devices`);
  const main = page.getByRole('main');
  await main.getByRole('button', { name: 'Take in a charge' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('combobox', { name: 'Device' }).click();
  await page.getByRole('option', { name: 'Hut tablet' }).click();
  await dialog.getByLabel('Level at the start, %').fill('25');
  await dialog.getByLabel('Log of a charge').setInputFiles({ name: 'inline.csv', mimeType: 'text/csv', buffer: log() });
  await expect(
    dialog.getByText(/1000 samples\. 50 % after .* by delivered energy\. 15\.\d+ Wh in 70 min/),
  ).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(
    main.getByRole('img', { name: /constant 18\.\d W, 0 to 30 min; tail \d+\.\d W, 30 to 70 min/ }),
  ).toBeVisible();
  await expect(main.getByRole('table', { name: 'Charges' })).toContainText('0.10');
  await main.getByRole('button', { name: 'Take in a charge' }).first().click();
  await dialog.getByRole('combobox', { name: 'Device' }).click();
  await page.getByRole('option', { name: 'Hut tablet' }).click();
  await dialog.getByLabel('Or levels, line by line').fill('time [min]; level [%]\n0; 20\n30; 60\n90; 100');
  await dialog.getByLabel('Note').focus();
  await expect(
    dialog.getByText(/3 samples\. 50 % after 2[23] min, 80 % after 60 min, 100 % after 90 min as typed/),
  ).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(main.getByRole('table', { name: 'Charges' }).getByRole('row')).toHaveCount(3);
  // The same device in the same place: repeats of one another.
  await expect(main.getByText(/^Hut tablet on C1, .*2 charges from 25 % to 100 %: .* on average/)).toBeVisible();
  await main.getByRole('button', { name: 'Take back' }).first().click();
  await expect(main.getByRole('table', { name: 'Charges' }).getByRole('row')).toHaveCount(2);
});

test('the demo’s charges: cables compared, times foretold, hunting named, a night that cut one off', async ({
  page,
}) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/devices`);
  const main = page.getByRole('main');
  await expect(
    main.getByRole('img', { name: /^Warden’s laptop, 20 % to 100 %: on C1, 240 W cable, 1 m.* takes 1\d % less time/ }),
  ).toBeVisible();
  const foretold = main.getByRole('table', { name: 'Foretold times' });
  await expect(foretold.getByRole('row', { name: /^Warden’s laptop C1, 240 W cable, 1 m/ })).toContainText('inside');
  // A charger nobody ran the laptop on says what it could not tell; the others stand beside each other.
  await expect(main.getByRole('table', { name: 'Devices by charger' })).toContainText('98 % of its baseline');
  await main.getByRole('button', { name: /^Loan phone on C2/ }).click();
  await expect(main.getByRole('img', { name: /constant .*; hunting .*; constant .*; tail/ })).toBeVisible();
  await main.getByRole('button', { name: /^Hut tablet on C2/ }).click();
  await expect(main.getByText('The end was not reached: no level can be told from what was delivered.')).toBeVisible();
});

test('a promised charge time is read as printed, and settled by the charges there are', async ({ page }) => {
  const { id } = await freshSample(page, 'Promised');
  await page.goto(`/samples/${id}/claims`);
  const line = page.getByRole('textbox', { name: 'A line as printed' });
  await line.fill('charges a Warden’s laptop from 15 to 50 % in 10 minutes');
  await line.press('Enter');
  const main = page.getByRole('main');
  await expect(main.getByText('Warden’s laptop: 15 to 50 % in 10 min').first()).toBeVisible();
  await expect(main.getByText('No whole charge of Warden’s laptop yet.').first()).toBeVisible();
});
