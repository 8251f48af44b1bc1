// What to measure next, and by which method: a sheet in one press, a method copied, versioned, held against another, sent and taken in.
import { readFile } from 'node:fs/promises';
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';
import { findings } from './findings.ts';

test('what settles most stands first, and one press makes its sheet', async ({ page }) => {
  const id = await demoSample(page, DEMO.ember2);
  await page.goto(`/samples/${id}/verdict`);
  const next = page.getByRole('table', { name: 'What to measure next' });
  await expect(next).toContainText('C1: 15 V 3 A');
  await expect(next.getByRole('row').nth(1)).toContainText('Make the sheet');
  await page.getByRole('button', { name: 'Sheet down to here' }).first().click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('what settles most');
  await expect(page.getByText(/ steps/).first()).toContainText('3');
  await page.getByRole('button', { name: 'Remove the sheet' }).click();
  const asked = page.getByRole('group', { name: 'Remove the sheet' });
  await expect(asked).toContainText(/Its \d+ steps go with it\. This cannot be undone\./);
  await expect(asked.getByRole('button', { name: 'Keep it' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(asked).toBeHidden();
  await page.getByRole('button', { name: 'Remove the sheet' }).click();
  await asked.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.getByRole('heading', { name: 'Run sheets' })).toBeVisible();
});

test('a method is copied, changed into a version, held against its source, exported, taken in and retired', async ({
  page,
}) => {
  await page.goto('/methods');
  await page.getByRole('button', { name: 'Copy Publication bench' }).click();
  const dialog = page.getByRole('dialog');
  const name = `Hut school ${Date.now()}`;
  await dialog.getByLabel('Title').fill(name);
  await dialog.getByLabel('Mains, in their order').fill('230 V');
  await expect(dialog.getByRole('status')).toContainText('“230 V” is no supply');
  await expect(dialog.getByRole('button', { name: 'Add the method' })).toBeDisabled();
  await dialog.getByLabel('Mains, in their order').fill('230 V 50 Hz');
  await dialog.getByLabel('Soak at each mains').fill('90 min');
  expect(await findings(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Add the method' }).click();
  await expect(dialog).toBeHidden();
  const all = page.getByRole('table', { name: 'Methods' });
  await expect(all).toContainText(name);

  await page.getByRole('button', { name: `Change ${name}` }).click();
  await dialog.getByLabel('Soak at each mains').fill('120 min');
  await dialog.getByLabel('What changed, and why').fill('still rising after 90');
  await dialog.getByRole('button', { name: 'Keep the version' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: `Versions of ${name}` }).click();
  const versions = page.getByRole('list', { name: `Versions of ${name}` });
  await expect(versions).toContainText('still rising after 90');
  await expect(versions).toContainText('Soak: 90 min → 120 min');

  await page.getByLabel('One', { exact: true }).click();
  await page.getByRole('option', { name: 'Publication bench' }).click();
  await page.getByLabel('Other', { exact: true }).click();
  await page.getByRole('option', { name }).click();
  await expect(page.getByText(/^They differ in 2 of \d+/)).toBeVisible();

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: `Export ${name}` }).click(),
  ]);
  const file = await readFile(await download.path());
  const input = page.getByLabel('Method as a file');
  await input.setInputFiles({
    name: 'none.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"form":"x","method":{}}'),
  });
  await expect(page.getByText('Nothing was taken in. none.json: It is of the form x')).toBeVisible();
  const renamed = Buffer.from(file.toString('utf8').replace(name, `${name}, sent`));
  await input.setInputFiles({ name: 'sent.method.json', mimeType: 'application/json', buffer: renamed });
  await expect(page.getByText(`${name}, sent was taken in.`)).toBeVisible();
  for (const one of [`${name}, sent`, name]) {
    await page.getByRole('button', { name: `Retire ${one}`, exact: true }).click();
    await expect(page.getByRole('button', { name: `Retire ${one}`, exact: true })).toHaveCount(0);
  }
  const { id } = await freshSample(page, 'By method');
  await page.goto(`/run-sheets?sample=${id}`);
  await page.getByLabel('Method', { exact: true }).click();
  await expect(page.getByRole('option', { name })).toHaveCount(0);
});
