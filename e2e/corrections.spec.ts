// What was typed is corrected, dated and put back where it stands; a whole label goes in at once.
import { expect, follow, freshSample, test } from './bench.ts';

test('a corrected reading says what it was, and is put back', async ({ page }) => {
  const { id } = await freshSample(page, 'Corrected');
  await page.goto(`/samples/${id}/efficiency`);
  const cell = page.getByLabel('230 V 50 Hz, 100 %, input watts');
  for (const typed of ['71', '61']) {
    await cell.fill(typed);
    await cell.press('Enter');
    await expect(cell).toHaveAttribute('data-state', 'rest');
  }
  const main = page.getByRole('main');
  await main.getByText('Corrected in the last 14 days: 1').click();
  await expect(main).toContainText('230 V 50 Hz, 100 %, power: was 71, now 61');
  await main.getByRole('textbox', { name: 'Why: 230 V 50 Hz, 100 %, power' }).fill('the range was wrong');
  await main.getByRole('button', { name: 'Say why' }).click();
  await expect(main).toContainText(/was 71, now 61, on .* UTC, because the range was wrong/);
  await main.getByRole('button', { name: /^Put back 71/ }).click();
  await expect(cell).toHaveValue('71');
  await expect(main).toContainText('was 61, now 71');
});

test('what is typed later is dated back, and never forward', async ({ page }) => {
  const { id } = await freshSample(page, 'Dated');
  await page.goto(`/samples/${id}/efficiency`);
  await page.getByLabel('What is typed was taken').fill('2199-01-01');
  await expect(page.getByText('That is still to come.')).toBeVisible();
  await page.getByLabel('What is typed was taken').fill('2026-02-01 10:30');
  const cell = page.getByLabel('230 V 50 Hz, 100 %, input watts');
  await cell.fill('49.6');
  await cell.press('Enter');
  await expect(cell).toHaveAttribute('data-state', 'rest');
  const dossier = await (await page.request.get(`/api/samples/${id}/readings`)).json();
  expect(dossier.items[0].takenAt.slice(0, 10)).toBe('2026-02-01');
});

test('a device run is corrected and put back', async ({ page }) => {
  const { id } = await freshSample(page, 'Device corrected');
  await page.goto(`/samples/${id}/proof?part=devices`);
  await page.getByRole('button', { name: 'Enter a device run' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Not all there yet');
  await dialog.getByLabel('Level, V').fill('20');
  await dialog.getByLabel('Plateau, W').fill('30');
  await dialog.getByLabel('Taken').fill('2026-03-02 14:30');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  const list = page.getByRole('region', { name: 'Devices' });
  await list.getByRole('button', { name: /^Correct the run of 2026-03-02/ }).click();
  await expect(dialog.getByLabel('Plateau, W')).toHaveValue('30 W');
  await dialog.getByLabel('Plateau, W').fill('31');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await list.getByText('Corrected and taken back: 1').click();
  await expect(list).toContainText('C1: 30 W, charging of 2026-03-02');
  await expect(page.getByRole('img', { name: /^Power, W/ })).toHaveAttribute('aria-label', /31 W/);
  await list.getByRole('button', { name: /^Put back C1: 30 W/ }).click();
  await expect(page.getByRole('img', { name: /^Power, W/ })).toHaveAttribute('aria-label', /30 W/);
});

test('a label is pasted whole: what is understood goes in, what is not stays', async ({ page }) => {
  const { id } = await freshSample(page, 'Label');
  await page.goto(`/samples/${id}/claims`);
  const text = page.getByLabel('A line as printed');
  await text.fill('Input: 100-240V 50/60Hz 1.2A\nC1: 5V⎓3A, 9V⎓3A,\n20V⎓2.25A\nTotal: 45W Max');
  await expect(page.getByRole('list', { name: 'Understood' })).toContainText('C1: 20 V 2.25 A');
  await expect(page.getByRole('list', { name: 'Understood' })).toContainText('belongs to the input rating at Intake');
  await text.press('Enter');
  await expect(page.getByRole('list', { name: 'Claims' }).getByRole('listitem')).toHaveCount(4);
  await expect(text).toHaveValue('Input: 100-240V 50/60Hz 1.2A');
  await page.getByRole('button', { name: 'Remove Total 45 W' }).click();
  await expect(page.getByRole('list', { name: 'Claims' }).getByRole('listitem')).toHaveCount(3);
  await page.getByText('Removed: 1').click();
  await page.getByRole('button', { name: 'Bring back Total 45 W' }).click();
  await expect(page.getByRole('list', { name: 'Claims' }).getByRole('listitem')).toHaveCount(4);
});

test('lines typed faster than they are kept wait their turn, and one that is refused comes back', async ({ page }) => {
  const { id } = await freshSample(page, 'Fast');
  await page.goto(`/samples/${id}/claims`);
  let letGo = () => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  let asked = 0;
  await page.route(`**/api/samples/${id}/claims`, async (route) => {
    asked += 1;
    if (asked === 1) await held;
    if (asked === 2) {
      const body = { type: 'about:blank', title: 'No room for it now.', status: 503, detail: 'No room for it now.' };
      await route.fulfill({ status: 503, contentType: 'application/problem+json', body: JSON.stringify(body) });
    } else await route.continue();
  });
  const text = page.getByLabel('A line as printed');
  for (const line of ['C1: 5V 3A', 'C1: 9V 3A', 'total 45 W']) {
    await text.fill(line);
    await text.press('Enter');
    await expect(text).toHaveValue('');
  }
  await text.fill('idle 0.1');
  letGo();
  const claims = page.getByRole('list', { name: 'Claims' });
  await expect(claims).toContainText('C1: 5 V 3 A');
  await expect(claims).toContainText('Total 45 W');
  await expect(claims.getByRole('listitem')).toHaveCount(2);
  await expect(text).toHaveValue('C1: 9V 3A\nidle 0.1');
  // Shown before the server has it; until then its line would come back.
  await expect.poll(() => page.evaluate(() => JSON.stringify(localStorage))).not.toContain('total 45 W');
  await page.reload();
  await expect(text).toHaveValue('C1: 9V 3A\nidle 0.1');
});

test('readings typed in the wrong row are moved to where they belong', async ({ page }) => {
  const { id } = await freshSample(page, 'Moved');
  await page.goto(`/samples/${id}/efficiency`);
  const wrong = page.getByLabel('230 V 50 Hz, 100 %, input watts');
  await wrong.focus();
  for (const typed of ['25.1', '0.6', '20.04', '1.125']) {
    await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
  }
  const grid = page.getByRole('table', { name: 'Readings at 230 V 50 Hz' });
  await expect(grid.getByRole('row', { name: /^100 %/ })).toContainText('89.8');
  await page.getByText('Typed in the wrong place?').click();
  await page.getByRole('combobox', { name: 'to', exact: true }).click();
  await page.getByRole('option', { name: 'C1 20 V' }).click();
  await page.getByRole('combobox', { name: 'load', exact: true }).click();
  await page.getByRole('option', { name: '50 %' }).click();
  await page.getByRole('button', { name: 'Move it there' }).click();
  await expect(page.getByLabel('230 V 50 Hz, 50 %, input watts')).toHaveValue('25.1');
  await expect(wrong).toHaveValue('');
});

test('what would go is said before a sample is removed, and what stands keeps it', async ({ page }) => {
  const { id } = await freshSample(page, 'Removed');
  await page.goto(`/samples/${id}/intake`);
  await page.getByRole('button', { name: 'Remove from the shelf' }).click();
  const ask = page.getByRole('group', { name: 'Remove from the shelf' });
  await expect(ask).toContainText('This unit of Removed');
  await ask.getByRole('button', { name: 'Keep it' }).click();
  await expect(ask).toBeHidden();
  await follow(page, `/samples/${id}/efficiency`);
  await page.getByLabel('230 V 50 Hz, 100 %, input watts').fill('49.6');
  await page.getByLabel('230 V 50 Hz, 100 %, input watts').press('Enter');
  await expect(page.getByLabel('230 V 50 Hz, 100 %, input watts')).toHaveAttribute('data-state', 'rest');
  await follow(page, `/samples/${id}/intake`);
  await page.getByRole('button', { name: 'Remove from the shelf' }).click();
  await expect(ask).toContainText('1 point stands on it');
  await expect(ask.getByRole('button', { name: 'Remove it' })).toHaveCount(0);
});
