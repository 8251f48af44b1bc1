// Proof: load steps, the meter chain, refusals, holds, searches and devices.
import type { Page } from '@playwright/test';
import { DEMO, demoSample, expect, follow, freshSample, test } from './bench.ts';

const LINE = { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 };
const prepared = async (page: Page, model: string, promises: readonly object[] = [LINE]) => {
  const { id } = await freshSample(page, model);
  for (const promise of promises) {
    const data = { promise, duration: { kind: 'unstated' }, printed: 'label' };
    expect((await page.request.post(`/api/samples/${id}/claims`, { data })).status()).toBe(201);
  }
  return id;
};
const chooseRig = async (page: Page, name: string) => {
  await page.getByLabel('Rig', { exact: true }).first().click();
  await page.getByRole('option', { name, exact: true }).click();
};
const ledger = (page: Page) => page.getByRole('complementary', { name: 'Ledger' });

test('a step typed with number keys and Enter alone is judged and settles its claim', async ({ page }) => {
  const id = await prepared(page, 'Steps');
  await page.goto(`/samples/${id}/proof`);
  await chooseRig(page, 'Proof bench');
  await page.getByLabel('C1 20 V, no load, port volts').focus();
  for (const typed of ['20.08', '20.081', '']) {
    if (typed) await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByLabel('C1 20 V 2.25 A, port volts')).toBeFocused();
  for (const typed of ['20.03', '2.251', '19.77', '2.25', '49.6']) {
    await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
  }
  const row = page.getByRole('row', { name: /^20 V 2.25 A/ });
  await expect(row).toContainText('proven');
  await expect(row.getByRole('img', { name: /at least 19 V, at most 21 V/ })).toBeVisible();
  await expect(ledger(page).getByRole('button', { name: /C1: 20 V 2.25 A/ })).toContainText('proven');
  await page.getByRole('tab', { name: 'Meter chain' }).click();
  // 20.03 − 19.77 V at 2.25 A, less 20.08 − 20.081 V without current
  await expect(page.getByRole('region', { name: 'Proof bench' })).toContainText(
    /Between the two meters: 11[56](\.\d)? ± /,
  );
  await expect(page.getByRole('table', { name: 'Load regulation' })).toContainText('mV/A with load');
});

test('what cannot be true together is refused with a sentence, and stays in the field', async ({ page }) => {
  const id = await prepared(page, 'Impossible');
  await page.goto(`/samples/${id}/proof`);
  await chooseRig(page, 'Proof bench');
  await page.getByLabel('C1 20 V 2.25 A, port volts').fill('20.03');
  await page.keyboard.press('Enter');
  await page.getByLabel('C1 20 V 2.25 A, port amps').fill('2.25');
  await page.keyboard.press('Enter');
  const watts = page.getByLabel('C1 20 V 2.25 A, mains watts');
  await watts.fill('4.96');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'is above input' })).toContainText('Are the two swapped');
  await expect(watts).toHaveValue('4.96');
  await watts.fill('49.6');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('a step beyond the cable is refused with the reason, and runs with a reason of one’s own', async ({ page }) => {
  const id = await prepared(page, 'Thin', [{ ...LINE, amps: 3.25 }]);
  await page.goto(`/samples/${id}/proof`);
  await chooseRig(page, 'Desk rig');
  const row = page.getByRole('row', { name: /^20 V 3.25 A/ });
  await expect(row).toContainText('no marker and no rating stated: at most 3 A, 60 W');
  await expect(row.getByRole('textbox')).toHaveCount(0);
  await row.getByRole('button', { name: /^Go beyond/ }).click();
  const dialog = page.getByRole('group', { name: /^Beyond the line/ });
  await expect(dialog).toContainText('Keep it to seconds');
  await dialog.getByLabel('Reason').fill('Ten seconds, the cable laid open.');
  await dialog.getByRole('button', { name: 'Go beyond' }).click();
  await page.getByLabel('C1 20 V 3.25 A, port volts').fill('19.8');
  await page.keyboard.press('Enter');
  await page.getByLabel('C1 20 V 3.25 A, port amps').fill('3.25');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'C1' })).toContainText('because: Ten seconds, the cable laid open.');
});

test('a list of steps is looked through before it is kept', async ({ page }) => {
  const id = await prepared(page, 'List');
  await page.goto(`/samples/${id}/proof`);
  await chooseRig(page, 'Proof bench');
  const lines = [
    'port;set_V;load_A;port_V;port_A;end_V;mains_W',
    'C1;20;0;20,08;;20,08;',
    'C1;20;2,25;20,03;2250 mA;19,77;49,6',
    'C7;9;3;9;3;;',
  ];
  await page
    .getByLabel('List of steps')
    .setInputFiles({ name: 'steps.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('2 steps with readings');
  await expect(dialog).toContainText('Line 4: there is no port "C7"');
  await dialog.getByRole('button', { name: 'Keep 2, leave out 1' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByLabel('C1 20 V 2.25 A, port amps')).toHaveValue('2250 mA');
  await expect(page.getByRole('row', { name: /^20 V 2.25 A/ })).toContainText('proven');
});

test('a hold is told from its time and its heat, and a re-proof becomes due', async ({ page }) => {
  const id = await prepared(page, 'Hold');
  await page.goto(`/samples/${id}/proof?part=hold`);
  const enter = async (amps: string, held: string, hottest: string) => {
    await page.getByRole('button', { name: 'Enter a hold' }).click();
    const dialog = page.getByRole('dialog', { name: 'Enter a hold' });
    await expect(dialog).toContainText('Never leave a soak alone');
    await dialog.getByLabel('Amps').fill(amps);
    await dialog.getByLabel('Held, min').fill(held);
    await dialog.getByLabel('How it ended').click();
    await page.getByRole('option', { name: 'cut off' }).click();
    await dialog.getByLabel('Hottest, °C').fill(hottest);
    await dialog.getByRole('button', { name: 'Keep' }).click();
    await expect(dialog).toBeHidden();
  };
  await enter('2.25', '10', '63');
  await expect(page.getByText('Repeat at a second power to tell a timer from the heat.')).toBeVisible();
  await enter('1.9', '10.1', '55');
  await expect(page.getByText('The same time at two powers: a timer.')).toBeVisible();
  await expect(page.getByRole('img', { name: /Hold-time against power/ })).toBeVisible();
  // The picture of the other tab comes late, when this one's stands again: neither minds.
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  await page.route(/StepMap/, async (route) => {
    await held;
    await route.continue();
  });
  const late = page.waitForResponse(/StepMap.*\.js/);
  await page.getByRole('tab', { name: 'Steps' }).click();
  await expect(page.getByRole('heading', { name: 'Prove again: 1 of 1 due' })).toBeVisible();
  await page.getByRole('tab', { name: 'For how long' }).click();
  await expect(page.getByRole('img', { name: /Hold-time against power/ })).toBeVisible();
  release();
  await (await late).finished();
  await page
    .getByRole('button', { name: /^Take back the run/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: /^Take back the run/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Take back the run/ })).toHaveCount(2);
});

test('over the rating is off until the rules turn it on; then it stops by itself and never runs with a device', async ({
  page,
}) => {
  const id = await prepared(page, 'Over');
  await page.goto(`/samples/${id}/proof?part=over`);
  await expect(page.getByText('Off: load steps stop at the rating.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Go to Rules' })).toBeVisible();
  // Only this page believes the rule is on: other journeys share the bench, and the server must still refuse.
  await page.route('**/dossier', async (route) => {
    const answer = await route.fetch();
    const body = await answer.json();
    body.profile.overRating.on = true;
    await route.fulfill({ response: answer, json: body });
  });
  await page.reload();
  await page.getByRole('button', { name: 'Search the cut-off' }).click();
  const dialog = page.getByRole('dialog', { name: 'Over the rating' });
  await expect(dialog).toContainText('This can destroy the sample.');
  await dialog.getByLabel('Attached').click();
  await page.getByRole('option', { name: 'device' }).click();
  await expect(dialog).toContainText('A real device is attached');
  await expect(dialog.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await dialog.getByLabel('Attached').click();
  await page.getByRole('option', { name: 'electronic load' }).click();
  for (const [index, [amps, volts]] of [
    ['2.25', '20'],
    ['2.31', '19.9'],
    ['0', '0.1'],
  ].entries()) {
    await dialog
      .getByLabel('Read, A')
      .nth(index)
      .fill(amps ?? '');
    await dialog
      .getByLabel('Read, V')
      .nth(index)
      .fill(volts ?? '');
  }
  await expect(dialog).toContainText('It cut off. The search is over');
  await expect(dialog.getByLabel('Read, A')).toHaveCount(3);
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toContainText('Searches over the rating are off');
  await expect(dialog.getByLabel('Read, A').nth(1)).toHaveValue('2.31');
});

test('a device proves at least what it took and never refutes', async ({ page }) => {
  await page.goto('/bench');
  const name = 'Journey tablet';
  await page.getByRole('button', { name: 'Add a device' }).click();
  const form = page.getByRole('dialog', { name: 'Add a device' });
  await form.getByLabel('Name').fill(name);
  await form.getByLabel('Lead').fill('short lead');
  await form.getByLabel('W', { exact: true }).fill('30');
  await form.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Devices' })).toContainText(name);
  const id = await prepared(page, 'Device');
  await follow(page, `/samples/${id}/proof?part=devices`);
  await page.getByRole('button', { name: 'Enter a device run' }).click();
  const dialog = page.getByRole('dialog', { name: 'Enter a device run' });
  await dialog.getByLabel('Device', { exact: true }).click();
  await page.getByRole('option', { name }).first().click();
  await dialog.getByLabel('Level, V').fill('20');
  await dialog.getByLabel('Plateau, W').fill('29.4');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('region', { name: 'Devices' })).toContainText(
    'It takes 30 W at most over this lead: the device limits.',
  );
  await expect(ledger(page).getByRole('button', { name: /C1: 20 V 2.25 A/ })).toContainText('at least');
});

test('a display that is off is named among three meters', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.quad)}/proof?part=meters`);
  await expect(page.getByRole('alert')).toContainText(/the display stands alone against the other two/);
  await expect(page.getByRole('img', { name: /^Drop against current/ })).toBeVisible();
  await page.getByText('Every step').click();
  await expect(page.getByRole('table', { name: 'Drops on Proof bench' })).toContainText('C1 20 V, 5 A');
});
