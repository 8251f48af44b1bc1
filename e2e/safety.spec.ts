// The safety look, as somebody trained goes about it: cautions first, a name before a value, bands, and nothing certified.
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';
import { findings } from './findings.ts';

test('a touch current asks first who reads it, is held against its limits, corrected, and taken back', async ({
  page,
}) => {
  const { id } = await freshSample(page, 'Looked at');
  await page.goto(`/samples/${id}/safety`);
  const main = page.getByRole('main');
  await expect(main).toContainText('Records, never a certificate.');
  await expect(main).toContainText('Still open: touch current was not looked at; fit in the socket was not looked at.');
  await page.getByRole('button', { name: 'Touch current', exact: true }).click();
  const dialog = page.getByRole('dialog');
  const value = dialog.getByLabel('Touch current, µA');
  await expect(value).toBeDisabled();
  await dialog.getByLabel('Measured by').fill('Workshop electrician');
  await expect(value).toBeDisabled();
  await dialog.getByLabel('Who is').click();
  await page.getByRole('option', { name: 'licensed', exact: true }).click();
  await value.fill('612');
  await dialog.getByLabel('Its accuracy, as printed in its manual').fill('±(2 % + 2 µA)');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  const table = page.getByRole('table', { name: 'Touch current' });
  await expect(table).toContainText('612 ± 17 µA rms from shell of C1');
  await expect(table).toContainText('Workshop electrician, licensed');
  await expect(table.getByRole('row', { name: /Computing equipment/ })).toContainText('over');
  await expect(main).toContainText('touch current with the plug turned round');
  await expect(page.getByRole('navigation', { name: 'Spine' }).getByRole('link', { name: /^Safety/ })).toContainText(
    'short',
  );

  // A comma was in the wrong place.
  await page.getByRole('button', { name: /^Correct Touch current 612/ }).click();
  await value.fill('61,2');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(table.getByRole('row', { name: /Computing equipment/ })).toContainText('within');
  await expect(table).not.toContainText('proven');
  await page.getByRole('button', { name: /^Take back Touch current 61/ }).click();
  await expect(table).toHaveCount(0);
  await page.getByText('Corrected and taken back: 1').click();
  await page.getByRole('button', { name: /^Put back Touch current 61/ }).click();
  await expect(table).toContainText('61 ± 4 µA');
});

test('how it sits needs its mass, and says what it bears on the socket', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.ember)}/safety`);
  const fit = page.getByRole('region', { name: 'Fit in the socket' });
  await expect(fit).toContainText('Sits firm, bears 0.026 N·m on the socket');
  await expect(page.getByRole('table', { name: 'Marks' })).toContainText('Stated; nobody here verified it.');
});

test('an earthed brick: earth, output to earth and what it means, harmonics, ports still to be proved', async ({
  page,
}) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.monolith)}/safety`);
  await expect(page.getByRole('region', { name: 'Output to earth' })).toContainText('Its outputs are earth');
  await expect(page.getByRole('table', { name: 'Protective earth' })).toContainText('71 ± 4 mΩ');
  await expect(page.getByRole('img', { name: /^Harmonics as parts of their limit/ })).toBeVisible();
  await expect(page.getByRole('main')).toContainText('Its rated input is above 75 W');
  await expect(page.getByRole('region', { name: 'Ports after the last stress' })).toContainText(
    'Due: read it once more.',
  );
  expect(await findings(page)).toEqual([]);
});

test('an earth read with too little current decides nothing', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.six)}/safety`);
  await expect(page.getByRole('table', { name: 'Protective earth' })).toContainText(
    'Read at 0.2 A; the text asks for 32 A.',
  );
});
