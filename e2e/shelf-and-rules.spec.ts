// The shelf with many samples, ports moved by mouse, the method changed, the curve taken along.
import { readFileSync } from 'node:fs';
import { DEMO, demoSample, expect, follow, freshSample, test } from './bench.ts';

test('a long shelf draws only the rows in sight and fetches more when scrolled', async ({ page }) => {
  const { id } = await freshSample(page, 'Many');
  const unit = { revision: '', serial: 'MANY', dateCode: '', obtained: 'bought', disclosure: '', notes: '' };
  for (let made = 0; made < 70; made += 1) {
    const answer = await page.request.post(`/api/samples/${id}/units`, {
      data: { unit: { ...unit, serial: `MANY-${made}` } },
    });
    expect(answer.status()).toBe(201);
  }
  await page.goto('/?q=MANY');
  await expect(page.getByText('71 samples')).toBeVisible();
  const table = page.getByRole('table', { name: 'Samples' });
  await expect(table).toHaveAttribute('aria-rowcount', '72');
  expect(await table.getByRole('row').count()).toBeLessThan(40);
  await expect
    .poll(async () => {
      await table.evaluate((one) => one.scrollTo(0, one.scrollHeight));
      return table.getByText('S-Many', { exact: false }).count();
    })
    .toBe(1);
  expect(await table.getByRole('row').count()).toBeLessThan(40);
});

test('what nobody has worked out yet is not called unmeasured', async ({ page }) => {
  await page.route('**/api/samples?**', async (route) => {
    const answer = await route.fetch();
    const shelf = await answer.json();
    const [first] = shelf.items;
    first.pending = true;
    first.figures = { ...first.figures, watts: null, efficiency: null, idle: null, claims: {}, stations: [] };
    await route.fulfill({ response: answer, json: shelf });
  });
  await page.goto('/?q=TE-45-0117');
  const row = page.getByRole('row').filter({ hasText: 'TE-45-0117' });
  await expect(row).toContainText('being worked out');
  await expect(row.getByRole('img', { name: 'not worked out yet' })).toHaveCount(2);
  await expect(row).not.toContainText(/not measured|not known|none entered/);
});

test('kinds and words narrow the shelf, and nothing found says so', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Car', exact: true }).click();
  await expect(page.getByRole('row', { name: /Shuttle 75/ })).toBeVisible();
  await expect(page.getByRole('row')).toHaveCount(2);
  await page.getByLabel('Find by maker, model, serial or tag').fill('nothing of the kind');
  await expect(page.getByRole('heading', { name: 'Nothing on the shelf matches' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(page.getByRole('button', { name: 'All', exact: true })).toHaveAttribute('aria-pressed', 'true');
});

test('a port is moved by mouse and the face follows', async ({ page }) => {
  await page.goto('/samples/new');
  await page.getByRole('button', { name: 'Add a C port' }).click();
  await page.getByRole('button', { name: 'Add an A port' }).click();
  await expect(page.getByRole('img', { name: 'Ports: C1 (C), A1 (A)' })).toBeVisible();
  const from = await page.getByRole('button', { name: 'Move port 2, A1', exact: true }).boundingBox();
  const to = await page.getByRole('button', { name: 'Move port 1, C1', exact: true }).boundingBox();
  if (!from || !to) throw new Error('The handles are not on the page.');
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2, from.y - 10, { steps: 5 });
  await page.mouse.move(to.x + to.width / 2, to.y + 5, { steps: 10 });
  await page.mouse.up();
  await expect(page.getByRole('img', { name: 'Ports: A1 (A), C1 (C)' })).toBeVisible();
});

test('a new price of the kilowatt-hour changes what idle costs', async ({ page }) => {
  const idle = `/samples/${await demoSample(page, DEMO.ember)}/idle`;
  await page.goto(idle);
  const table = page.getByRole('table', { name: 'Idle at 230 V 50 Hz' });
  await expect(table).toContainText('0.12 EUR');
  const setTariff = async (typed: string) => {
    if (!page.url().endsWith('/rules')) await follow(page, '/rules');
    await page.getByLabel('Price of a kWh').fill(typed);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved. Every sample is judged anew.')).toBeVisible();
  };
  await follow(page, '/rules');
  await page.getByLabel('Price of a kWh').fill('dear');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('Price of a kWh is not a number');
  await setTariff('0,64');
  await follow(page, idle);
  await expect(table).toContainText(/0\.2[34] EUR/);
  await setTariff('0.32');
});

test('limits follow the nameplate tried', async ({ page }) => {
  await page.goto('/rules');
  await page.getByText('US Level VI').click();
  await page.getByLabel('Try a nameplate, W').fill('27');
  await expect(page.getByRole('table', { name: 'US Level VI' })).toContainText('86.620 %');
});

test('the curve is taken along as data', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.ember)}/efficiency`);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const lines = readFileSync(await download.path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(lines[0]).toBe('mains,load_percent,efficiency_percent,expanded_uncertainty_percent');
  expect(lines).toHaveLength(11);
  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as PNG' }).click(),
  ]);
  expect(
    readFileSync(await picture.path())
      .subarray(1, 4)
      .toString(),
  ).toBe('PNG');
});

test('the theme is chosen and remembered', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Dim theme' }).click();
  const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  await expect.poll(ground).toBe('rgb(17, 23, 21)');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Light theme' })).toBeVisible();
  await expect.poll(ground).toBe('rgb(17, 23, 21)');
});

test('a limit set of one’s own is checked by the text’s worked values, judges once chosen, and goes again', async ({
  page,
}) => {
  await page.goto('/rules');
  await page.locator('summary', { hasText: 'EU 2019/1782' }).click();
  await page.getByRole('button', { name: 'Copy and change' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Title').fill('Strict trial');
  const basic = dialog.getByRole('group', { name: 'average efficiency, at least, basic' });
  await basic.getByLabel('constant, piece 2').fill('0.76');
  await expect(basic).toContainText('gives 0.90948, the text says 0.81948');
  await expect(dialog.getByRole('button', { name: 'Add the set' })).toBeDisabled();
  await basic.getByLabel(/Worked values/).fill('10 = 0.90948');
  await basic.getByLabel('constant, piece 3').fill('0,99');
  await expect(dialog.getByRole('img', { name: /against nameplate power/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Add the set' }).click();
  await expect(dialog).toBeHidden();
  const judges = page.getByRole('checkbox', { name: 'judges' });
  await expect(judges).toHaveCount(4);
  await judges.nth(3).click();
  await expect(judges.nth(3)).toBeChecked();
  await expect(page.getByText('Every sample is judged anew. No reading changed.')).toBeVisible();
  const sample = await demoSample(page, DEMO.ember);
  await follow(page, `/samples/${sample}/efficiency`);
  await expect(page.getByRole('table', { name: 'Limit sets' })).toContainText('Strict trial');
  await follow(page, '/rules');
  await judges.nth(3).click();
  await expect(judges.nth(3)).not.toBeChecked();
  // It shows what was asked for at once, and can be pressed again once the server has it.
  await expect(judges.nth(3)).toBeEnabled();
  await follow(page, `/samples/${sample}/efficiency`);
  await expect(page.getByRole('table', { name: 'Limit sets' })).not.toContainText('Strict trial');
  await page.getByLabel('Judge also under').click();
  await page.getByRole('option', { name: 'Strict trial' }).click();
  await expect(page.getByRole('table', { name: 'Limit sets' })).toContainText('Strict trial');
  await follow(page, '/rules');
  await page.locator('summary', { hasText: 'Strict trial' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('group', { name: 'Remove' })).toContainText('This cannot be undone.');
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(judges).toHaveCount(3);
});
