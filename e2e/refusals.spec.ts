// When something goes wrong: what is said, and that nothing typed is lost.
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';

test('a contradiction is refused with a sentence and can be mended', async ({ page }) => {
  const { id } = await freshSample(page, 'Contradiction');
  await page.goto(`/samples/${id}/efficiency`);
  await page.getByLabel('115 V 60 Hz, 100 %, input watts').focus();
  for (const typed of ['39.6', '0.68', '20.03', '2.25']) {
    await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByRole('alert')).toContainText('Output 45.07 W is above input 39.6 W.');
  const amps = page.getByLabel('115 V 60 Hz, 100 %, C1 amps');
  await expect(amps).toHaveValue('2.25');
  await page.getByLabel('115 V 60 Hz, 100 %, input watts').fill('49.6');
  await page.getByLabel('115 V 60 Hz, 100 %, input watts').press('Enter');
  await amps.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /^100 %/ }).first()).toContainText('90.8');
});

test('what cannot be read is said in the row', async ({ page }) => {
  const { id } = await freshSample(page, 'Unreadable');
  await page.goto(`/samples/${id}/efficiency`);
  const cell = page.getByLabel('115 V 60 Hz, 100 %, input watts');
  await cell.fill('49 V');
  await cell.press('Enter');
  await expect(page.getByRole('alert')).toContainText('"V" is not a unit of power. Use W, mW');
  await expect(cell).toBeFocused();
});

test('a reading typed while the server is away is kept over a reload and saved later', async ({ page }) => {
  const { id } = await freshSample(page, 'Server away');
  await page.goto(`/samples/${id}/efficiency`);
  const cell = page.getByLabel('115 V 60 Hz, 100 %, input watts');
  await expect(cell).toBeVisible();
  await page.route('**/readings', (route) => route.abort());
  await cell.fill('49.6');
  await cell.press('Enter');
  await expect(page.getByRole('alert')).toContainText('The server does not answer');
  await page.unroute('**/readings');
  await page.reload();
  await expect(cell).toHaveValue('49.6');
  await expect(page.getByRole('alert')).toContainText('Not saved yet');
  await cell.focus();
  await cell.press('Enter');
  await expect(cell).toHaveAttribute('data-state', 'rest');
  const { total } = (await (await page.request.get(`/api/samples/${id}/readings`)).json()) as { total: number };
  expect(total).toBe(1);
});

test('an intake half typed survives a reload, and mistakes are named by field', async ({ page }) => {
  await page.goto('/samples/new');
  await page.getByLabel('Maker').fill('Gravelin');
  await page.getByLabel('Mass, g').fill('heavy');
  await page.reload();
  await expect(page.getByLabel('Maker')).toHaveValue('Gravelin');
  await page.getByRole('button', { name: 'Take in, then claims' }).click();
  await expect(page.getByText('Not saved.', { exact: false })).toContainText('Model is empty');
  await expect(page.getByText('"heavy" is not a number.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Start empty' }).click();
  await expect(page.getByLabel('Maker')).toHaveValue('');
});

test('missing pages, samples and an unreachable server say what to do', async ({ page }) => {
  await page.goto('/nowhere');
  await expect(page.getByText('There is no page at /nowhere.')).toBeVisible();
  await page.goto('/samples/01JZZZZZZZZZZZZZZZZZZZZZZZ/intake');
  await expect(page.getByRole('main').getByRole('status')).toContainText('There is no such sample');
  await expect(page.getByRole('link', { name: 'Go to the shelf' })).toBeVisible();
  await page.route('**/api/samples?**', (route) => route.abort());
  await page.goto('/');
  await expect(page.getByRole('alert')).toContainText('Could not load the shelf');
  await page.unroute('**/api/samples?**');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('table', { name: 'Samples' })).toBeVisible();
});

test('a removed claim comes back by undo', async ({ page }) => {
  const { id } = await freshSample(page, 'Undo');
  await page.goto(`/samples/${id}/claims`);
  await page.getByLabel('A line as printed').fill('total 45 W');
  await page.getByLabel('A line as printed').press('Enter');
  await page.getByRole('button', { name: 'Remove Total 45 W' }).click();
  await expect(page.getByRole('list', { name: 'Claims' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('list', { name: 'Claims' })).toContainText('Total 45 W');
});

test('a label line that breaks off half-way stays typed, and sent again counts once', async ({ page }) => {
  const { id } = await freshSample(page, 'Half');
  await page.goto(`/samples/${id}/claims`);
  const line = page.getByLabel('A line as printed');
  let sent = 0;
  await page.route(`**/api/samples/${id}/claims`, (route) => {
    sent += 1;
    return sent === 2 ? route.abort() : route.continue();
  });
  await line.fill('C1: 5V 3A / 9V 3A / 20V 2.25A');
  await line.press('Enter');
  const claims = page.getByRole('list', { name: 'Claims' }).getByRole('listitem');
  await expect(claims).toHaveCount(1);
  await expect(line).toHaveValue('C1: 5V 3A / 9V 3A / 20V 2.25A');
  await expect(page.getByRole('alert')).toBeVisible();
  await line.press('Enter');
  await expect(claims).toHaveCount(3);
  await expect(line).toHaveValue('');
  expect(sent).toBe(4);
});

test('a photo is attached with a thumbnail; a program is refused', async ({ page }) => {
  const { id } = await freshSample(page, 'Photo');
  await page.goto(`/samples/${id}/intake`);
  const input = page.getByLabel('Attach files to this sample');
  const picture = await page.screenshot({ clip: { x: 0, y: 0, width: 200, height: 100 } });
  await input.setInputFiles({ name: 'label.png', mimeType: 'image/png', buffer: picture });
  const tile = page.getByRole('list', { name: 'Files' }).getByRole('listitem');
  await expect(tile).toContainText('label.png');
  await expect.poll(() => tile.locator('img').evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(200);
  await page.getByRole('button', { name: 'Caption of label.png' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What it shows').fill('The label from below');
  await dialog.getByLabel('Stands in the report').check();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(tile).toContainText('The label from below');
  await expect(tile).toContainText('In the report');
  await input.setInputFiles({ name: 'run.txt', mimeType: 'text/plain', buffer: Buffer.from([0, 1, 2, 255]) });
  await expect(page.getByText('run.txt: Attach a PNG, JPEG or WebP picture', { exact: false })).toBeVisible();
  const remove = page.getByRole('button', { name: 'Remove label.png' });
  await remove.click();
  await page.getByRole('group', { name: 'Remove label.png' }).getByRole('button', { name: 'Keep it' }).press('Escape');
  await expect(remove).toBeFocused();
  await expect(tile).toHaveCount(1);
  await remove.click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(tile).toHaveCount(0);
});

test('a sample the arithmetic refuses fails alone: the frame, and what stands in it, stays', async ({ page }) => {
  const id = await demoSample(page, DEMO.ember);
  await page.route(`**/api/samples/${id}/dossier`, async (route) => {
    const answer = await route.fetch();
    const text = (await answer.text()).replaceAll(/"u":[0-9.e-]+/g, '"u":-1');
    await route.fulfill({ response: answer, body: text });
  });
  // The error itself is logged by React, and meant here.
  page.removeAllListeners('console');
  await page.goto(`/samples/${id}/efficiency`);
  await expect(page.getByRole('heading', { name: 'This page failed' })).toBeVisible();
  await expect(page.getByText('This sample cannot be worked out.')).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Bench', exact: true })).toBeVisible();
});
