// Two people edit one sample: nobody's work is overwritten unseen.
import { expect, follow, freshSample, test } from './bench.ts';

test('the second to save is shown both versions and decides', async ({ page, browser, baseURL }) => {
  const { id } = await freshSample(page, 'Two people');
  const other = await (await browser.newContext({ baseURL: baseURL ?? '' })).newPage();
  for (const one of [page, other]) await one.goto(`/samples/${id}/intake`);
  await page.getByLabel('Input rating as printed').fill('100–240 V by the first');
  await other.getByLabel('Input rating as printed').fill('230 V by the second');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await other.getByRole('button', { name: 'Save', exact: true }).click();
  const dialog = other.getByRole('dialog');
  await expect(dialog).toContainText('Someone else saved this sample meanwhile');
  const row = dialog.getByRole('row', { name: /inputRating/ });
  await expect(row).toContainText('230 V by the second');
  await expect(row).toContainText('100–240 V by the first');
  await dialog.getByRole('button', { name: 'Save mine over theirs' }).click();
  await expect(dialog).toBeHidden();
  await expect
    .poll(async () => (await (await page.request.get(`/api/samples/${id}`)).json()).model.inputRating)
    .toBe('230 V by the second');
  await other.context().close();
});

test('the second to correct a reading is told, and keeps what was typed', async ({ page, browser, baseURL }) => {
  const { id } = await freshSample(page, 'Two readings');
  const cell = '115 V 60 Hz, 100 %, input watts';
  await page.goto(`/samples/${id}/efficiency`);
  await page.getByLabel(cell).fill('49.6');
  await page.getByLabel(cell).press('Enter');
  await expect(page.getByLabel(cell)).toHaveAttribute('data-state', 'rest');
  const other = await (await browser.newContext({ baseURL: baseURL ?? '' })).newPage();
  await other.goto(`/samples/${id}/efficiency`);
  await expect(other.getByLabel(cell)).toHaveValue('49.6');
  await other.getByLabel(cell).fill('49.9');
  await page.getByLabel(cell).fill('49.7');
  await page.getByLabel(cell).press('Enter');
  await expect(page.getByLabel(cell)).toHaveAttribute('data-state', 'rest');
  await other.getByLabel(cell).press('Enter');
  // Told by the server, or by the page where it has heard of it already.
  await expect(other.getByRole('alert')).toContainText(
    /Someone corrected this reading meanwhile|Somebody else wrote 49\.7 here meanwhile/,
  );
  await expect(other.getByLabel(cell)).toHaveValue('49.9');
  await other.context().close();
});

test('what one measures appears at the other without a reload, and a cell typed over meanwhile is told of', async ({
  page,
  browser,
  baseURL,
}) => {
  const { id } = await freshSample(page, 'Two at once');
  const [watts, volts] = ['input watts', 'C1 volts'].map((what) => `115 V 60 Hz, 100 %, ${what}`) as [string, string];
  const other = await (await browser.newContext({ baseURL: baseURL ?? '' })).newPage();
  for (const one of [page, other]) await one.goto(`/samples/${id}/efficiency`);
  await expect(other.getByLabel(watts)).toHaveValue('');
  // In the middle of typing: it stays, and what the other did is shown beside it.
  await other.getByLabel(watts).fill('49.9');
  await page.getByLabel(watts).fill('49.7');
  await page.getByLabel(watts).press('Enter');
  await page.getByLabel(volts).fill('20.01');
  await page.getByLabel(volts).press('Enter');
  await expect(other.getByLabel(volts)).toHaveValue('20.01');
  await expect(other.getByLabel(watts)).toHaveValue('49.9');
  await other.getByLabel(watts).press('Enter');
  await expect(other.getByRole('alert')).toContainText('Somebody else wrote 49.7 here meanwhile.');
  await other.getByLabel(watts).press('Enter');
  await expect(other.getByLabel(watts)).toHaveAttribute('data-state', 'rest');
  // The first sees the correction by itself; both have one run of the row.
  await expect(page.getByLabel(watts)).toHaveValue('49.9');
  const { points } = (await (await page.request.get(`/api/samples/${id}/dossier`)).json()) as { points: unknown[] };
  expect(points).toHaveLength(1);
  // The log stands still while it is read, and says what came meanwhile.
  await follow(page, `/log?sample=${id}`);
  const log = page.getByRole('list', { name: 'Log' });
  await expect(log).toContainText('49.9');
  const before = await log.innerText();
  await other.getByLabel(volts).fill('20.02');
  await other.getByLabel(volts).press('Enter');
  const more = page.getByRole('button', { name: /by others: show/ });
  await expect(more).toBeVisible();
  expect(await log.innerText()).toBe(before);
  // What is done to no sample is told of too, and others do that beside this journey.
  await expect(async () => {
    if (await more.isVisible()) await more.click();
    await expect(log).toContainText('20.02', { timeout: 2000 });
  }).toPass();
  await expect(more).toBeHidden();
  await other.context().close();
});
