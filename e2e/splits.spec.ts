// Splits: the promised table, a combination with fewer meters than ports, the rule, and where to plug.
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';

test('a promised table is typed in the grid and as printed, and what cannot be right is pointed out', async ({
  page,
}) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.shuttle)}/splits?part=promises`);
  const table = page.getByRole('table', { name: 'Promised table' });
  await page.getByLabel('New row: C1, W').fill('60');
  await page.getByRole('button', { name: 'Add the row' }).click();
  await expect(page.getByRole('alert')).toContainText('A combination has two ports or more.');
  await page.getByLabel('New row: A1, W').fill('18 W');
  await page.keyboard.press('Enter');
  await expect(table).toContainText('adds up to 78 W; 75 W is promised in total.');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByLabel('Or as printed').fill('any two C ports: 30+30');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('no 2 ports whose label begins with C');
  await page.getByRole('button', { name: 'Remove C1+A1' }).click();
  await expect(table).not.toContainText('adds up to');
});

test('a combination is entered with one meter only; the rest follows from the socket', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.pip)}/splits`);
  await page.getByRole('button', { name: 'Measure C1+A1' }).click();
  const dialog = page.getByRole('dialog', { name: 'Enter a combination' });
  await dialog.getByLabel('C1, V', { exact: true }).fill('5.02');
  await dialog.getByLabel('C1, A', { exact: true }).fill('2');
  await dialog.getByLabel('When A1 came').click();
  await page.getByRole('option', { name: 'dropped' }).click();
  await dialog.getByLabel('for, s').fill('0.4');
  await dialog.getByLabel('At the socket, W').fill('8');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog.getByRole('alert')).toContainText('is above input');
  await dialog.getByLabel('At the socket, W').fill('23');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('table', { name: 'Combinations' })).toContainText(/C1\+A1.*…/);
  await page.getByRole('tab', { name: 'Rule and interruptions' }).click();
  await expect(page.getByRole('table', { name: 'Pairs of ports' })).toContainText('drops 0.4 s');
  await expect(page.getByText('Not determined:').first()).toBeVisible();
});

test('devices on a combination are named, with their battery and how often they were plugged in', async ({ page }) => {
  // A charger of its own: other journeys measure the same ports of the demo's.
  const { id } = await freshSample(page, 'Named', ['C1', 'A1']);
  await page.goto(`/samples/${id}/splits`);
  await page.getByRole('button', { name: 'Enter a combination' }).click();
  const dialog = page.getByRole('dialog', { name: 'Enter a combination' });
  for (const port of ['C1', 'A1']) {
    await dialog.getByRole('button', { name: port, exact: true }).click();
    await dialog.getByLabel(`${port}, V`, { exact: true }).fill('5.01');
    await dialog.getByLabel(`${port}, A`, { exact: true }).fill('1');
  }
  await dialog.getByRole('combobox', { name: 'Loaded by' }).click();
  await page.getByRole('option', { name: 'real devices' }).click();
  await dialog.getByRole('combobox', { name: 'Device on C1' }).click();
  await page.getByRole('option', { name: 'Loan phone' }).click();
  const phone = dialog.getByRole('group', { name: 'C1', exact: true });
  await phone.getByLabel('Its battery, %').fill('40');
  await phone.getByLabel('Tries until it started').fill('3');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText('C1: Loan phone at 40 %, started after 3 tries')).toBeVisible();
});

test('a list of combinations is looked at before it is kept', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.shuttle)}/splits`);
  const text = 'order,mains_W,C1_V,C1_A,A1_V,A1_A,C1_W\nC1,,20.02,3,,,60\nC9,,1,1,,,\nC1+A1,66,15.01,3,5.02,2.4,45\n';
  await page
    .getByLabel('List of combinations')
    .setInputFiles({ name: 'splits.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  const dialog = page.getByRole('dialog', { name: /A list of combinations/ });
  await expect(dialog).toContainText('2 combinations');
  await expect(dialog.getByRole('alert').first()).toContainText('Line 3: order names ports of this sample');
  await expect(dialog).toContainText('Not read: C1_W.');
  await expect(dialog).toContainText('Line 4: C1 15.01 V 3 A, then A1 5.02 V 2.4 A; mains 66 W');
  await dialog.getByRole('button', { name: 'Keep 2, leave out 1' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('table', { name: 'Combinations' })).toContainText('57.1 W');
});

test('the demo’s four ports: short combinations, who drops out, and where each device belongs', async ({ page }) => {
  const id = await demoSample(page, DEMO.quad);
  await page.goto(`/samples/${id}/splits`);
  const row = page
    .getByRole('table', { name: 'Combinations' })
    .getByRole('row')
    .filter({ hasText: /^C1\+C2/ })
    .first();
  await expect(row).toContainText('of 130 W');
  await expect(row).toContainText('short');
  await page.getByRole('tab', { name: 'Rule and interruptions' }).click();
  const rule = page.getByRole('region', { name: 'Rule', exact: true });
  await expect(rule.getByRole('table', { name: 'Sharing rule' })).toContainText('share 112 W');
  await rule.getByText('The rule in words').click();
  await expect(rule).toContainText('C1+C2 60 + 45 W');
  await page.getByRole('tab', { name: 'Where to plug' }).click();
  await page.getByRole('checkbox', { name: 'Warden’s laptop' }).check();
  await page.getByRole('checkbox', { name: 'Bunk-room headlamp' }).check();
  const port = (label: string) => page.getByRole('group', { name: label, exact: true });
  await expect(port('C1')).toContainText('Warden’s laptop');
  await expect(page.getByRole('status').filter({ hasText: 'Best' })).toContainText('W in use');
  const before = await page.getByRole('table', { name: 'The evening' }).getByRole('row').nth(1).textContent();
  // Another arrangement, by drag: the laptop into the small port.
  const chip = page.getByRole('button', { name: 'Move Warden’s laptop' });
  const from = await chip.boundingBox();
  const to = await port('A1').boundingBox();
  if (!from || !to) throw new Error('nothing to drag');
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 40, to.y + 60, { steps: 8 });
  await page.mouse.up();
  await expect(port('A1')).toContainText('Warden’s laptop');
  await expect(page.getByRole('status').filter({ hasText: 'As arranged' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'The evening' }).getByRole('row').nth(1)).not.toHaveText(before ?? '');
  await page.getByRole('button', { name: 'Back to the best' }).click();
  await expect(port('C1')).toContainText('Warden’s laptop');
});

test('devices are shared among several chargers, with what must be ready when, and what would do alone', async ({
  page,
}) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/splits?part=plug`);
  const main = page.getByRole('main');
  for (const name of ['Warden’s laptop', 'Loan phone', 'Hut tablet'])
    await main.getByRole('checkbox', { name, exact: true }).check();
  await expect(main.getByText('fills as its charges show').first()).toBeVisible();
  await main.getByLabel('Warden’s laptop: needs, %').fill('90');
  await main.getByLabel('Warden’s laptop: by, h').fill('2');
  // Alone: the evening says when.
  await expect(main.getByRole('table', { name: 'The evening' })).toContainText(/[●▼] 90 % by 2 h 00 min/);
  await main.getByRole('combobox', { name: 'Add a charger' }).fill('Monolith');
  await page.getByRole('option', { name: /Monolith/ }).click();
  const shared = main.getByRole('table', { name: 'Devices by charger and port' });
  await expect(shared.getByRole('row', { name: /^Warden’s laptop/ })).toContainText('Monolith 180');
  await expect(main.getByText(/^Best: \d+ W in use, 1 of 1 ready in time\.$/)).toBeVisible();
  // With the phone alone either would do.
  for (const name of ['Warden’s laptop', 'Hut tablet'])
    await main.getByRole('checkbox', { name, exact: true }).uncheck();
  await expect(main.getByText(/Monolith 180, .* alone would do: \d+ g to carry instead of \d+ g/)).toBeVisible();
});
