// Meter files: recognised, mapped, bad lines shown by number, kept only when agreed, remembered.
import { join } from 'node:path';
import { expect, follow, freshSample, test } from './bench.ts';

const example = (name: string): string => join(import.meta.dirname, '..', 'examples', name);

test('a file with bad lines is kept only when that is agreed', async ({ page }) => {
  const { id } = await freshSample(page, 'Bad lines');
  await page.goto(`/samples/${id}/efficiency`);
  await page.getByLabel('Meter file').setInputFiles(example('inline-meter-comma.csv'));
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Values between commas, decimal point, header on line 1.');
  await expect(dialog.getByRole('status')).toHaveText('15 good lines, 4 bad');
  const bad = dialog.getByRole('list', { name: 'Bad lines' });
  await expect(bad).toContainText('Line 4 Pin is out of the meter’s range (OVERLOAD).');
  await expect(bad).toContainText('Line 8 3 values where the header has 7.');
  await expect(bad).toContainText('Line 11 Not at a load point');
  await expect(bad).toContainText('Line 14 Output 22.57 W is above input 20.1 W');
  const keep = dialog.getByRole('button', { name: 'Keep' });
  await expect(keep).toBeDisabled();
  await dialog.getByRole('checkbox', { name: /Keep the 15 good lines/ }).check();
  await keep.click();
  await expect(page.getByText('15 lines kept as 5 points.', { exact: false })).toBeVisible();
  await expect(page.getByText('Four-point average, 230 V 50 Hz').locator('..')).toContainText('92.2');
  await follow(page, `/samples/${id}/intake`);
  await expect(page.getByRole('list', { name: 'Files' })).toContainText('inline-meter-comma.csv');
});

test('a semicolon file with decimal commas and milliwatts fills both mains at once', async ({ page }) => {
  const { id } = await freshSample(page, 'Semicolon');
  await page.goto(`/samples/${id}/efficiency`);
  await page.getByLabel('Meter file').setInputFiles(example('bench-log-semicolon.csv'));
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Values between semicolons, decimal comma, header on line 4.');
  await expect(dialog.getByRole('status')).toHaveText('72 good lines, 0 bad');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Four-point average, 115 V 60 Hz').locator('..')).toContainText('91.6');
  await expect(page.getByText('Four-point average, 230 V 50 Hz').locator('..')).toContainText('92.2');
  await page.getByRole('link', { name: /^Idle/ }).click();
  await expect(page.getByRole('table', { name: 'Idle at 230 V 50 Hz' })).toContainText('below 0.0779 W');
});

test('columns are corrected once and remembered', async ({ page }) => {
  const { id } = await freshSample(page, 'Remembered');
  await page.goto(`/samples/${id}/efficiency`);
  const file = page.getByLabel('Meter file');
  const dialog = page.getByRole('dialog');
  const content = 'Set,Wall,Port U,Port I\n100,49.2,20.03,2.250\n75,36.7,20.04,1.688\n';
  const drop = () => file.setInputFiles({ name: 'own.csv', mimeType: 'text/csv', buffer: Buffer.from(content) });
  await drop();
  await expect(dialog).toContainText('Say which column holds the output volts of C1.');
  const choose = async (column: string, role: string) => {
    await dialog.getByRole('combobox', { name: column, exact: true }).click();
    await page.getByRole('option', { name: role, exact: true }).click();
  };
  await choose('Set', 'Load point');
  await choose('Port U', 'Output volts');
  await choose('Port I', 'Output amps');
  await choose('Mains of the whole file', '115 V 60 Hz');
  await expect(dialog.getByRole('status')).toHaveText('2 good lines, 0 bad');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await drop();
  await expect(dialog).toContainText('Columns as you mapped them last time.');
  await expect(dialog.getByRole('combobox', { name: 'Port U', exact: true })).toHaveText('Output volts');
});

test('what is no table says so', async ({ page }) => {
  const { id } = await freshSample(page, 'No table');
  await page.goto(`/samples/${id}/efficiency`);
  await page
    .getByLabel('Meter file')
    .setInputFiles({ name: 'note.txt', mimeType: 'text/plain', buffer: Buffer.from('hello\nthere\n') });
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('No table found');
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Keep' })).toBeDisabled();
});
