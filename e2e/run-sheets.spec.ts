// A run from the plan to the judged claims: on a simulated bench whose clock runs fast, and typed at the keypad.
import { DEMO, expect, freshSample, test } from './bench.ts';
import { findings } from './findings.ts';
import { goOnWhereNoTime, withSimulatedBench } from './simulated.ts';

test('a sheet is planned, edited, started with the tag of the sample, and run to its claims', async ({ page }) => {
  test.setTimeout(600_000);
  await goOnWhereNoTime(page);
  await withSimulatedBench(600, async (stage) => {
    const { items } = (await (await page.request.get(`${stage.url}/api/samples?q=${DEMO.ember2}`)).json()) as {
      items: { id: string; tag: string }[];
    };
    const tag = items[0]?.tag ?? '';
    await page.goto(`${stage.url}/samples/${items[0]?.id}/proof`);
    await expect(page.getByRole('heading', { name: 'Proof' })).toBeVisible();
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Sample, station or action' }).fill('plan a run');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Run sheets' })).toBeVisible();
    const plan = page.getByRole('form', { name: 'Plan a run' });
    await plan.getByLabel('Method').click();
    await page.getByRole('option', { name: 'Local single mains' }).click();
    await plan.getByRole('button', { name: 'Make the sheet' }).click();

    // Edited: a step left out with its reason, what that means, and back again.
    const steps = page.getByRole('list', { name: 'Steps in order' });
    await expect(steps.getByRole('listitem').first()).toContainText('The rig proves itself');
    const count = await steps.getByRole('listitem').count();
    await steps.getByRole('button', { name: /Leave out step \d+, Warm up/ }).click();
    await page.getByRole('dialog').getByLabel('Reason').fill('Warm from yesterday');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Left out: Warm from yesterday')).toBeVisible();
    await expect(page.getByText('has no warm-up before it').first()).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Left out: Warm from yesterday')).toHaveCount(0);

    // Moved with keys alone.
    const second = await steps.getByRole('listitem').nth(2).getAttribute('aria-label');
    await steps.getByRole('button', { name: /Move step 3,/ }).focus();
    const title = second?.replace(/^Step \d+: /, '') ?? '';
    await page.keyboard.press('Space');
    await expect(page.getByText(`${title} is at place 3.`)).toBeAttached();
    await page.keyboard.press('ArrowUp');
    await expect(page.getByText(`${title} is at place 2.`)).toBeAttached();
    await page.keyboard.press('Space');
    await expect(steps.getByRole('listitem').nth(1)).toContainText(title);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(steps.getByRole('listitem').nth(2)).toContainText(title);

    await page.getByRole('button', { name: 'Add a step' }).click();
    const dialog = page.getByRole('dialog', { name: 'Add a step' });
    await dialog.getByLabel('Level, V').fill('9');
    await dialog.getByLabel('Current, A').fill('3');
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(steps.getByRole('listitem')).toHaveCount(count + 1);
    await expect(steps.getByRole('listitem').last()).toContainText('C1 9 V 3 A');

    // What it does by itself: as sentences, as a tree of this sheet, and changed.
    await page.getByText(/^By itself: 4 conditions, .* more at worst$/).click();
    await expect(page.getByRole('list', { name: 'Conditions' })).toContainText('prove it again');
    const tree = page.getByRole('list', { name: 'What may follow' });
    await expect(tree).toContainText(/If it gives less than 95 %: leave out steps? \d+/);
    await page.getByRole('checkbox', { name: 'Read again until U is small enough' }).check();
    await page.getByLabel('U at most, %').fill('none');
    await expect(page.getByText('U at most: write per cent between 0 and 100.')).toBeVisible();
    await page.getByLabel('U at most, %').fill('2');
    await page.getByLabel('Readings altogether').fill('2');
    await page.getByRole('button', { name: 'Keep the conditions' }).click();
    await expect(tree).toContainText('If U is more than 2 %: read again, once more at most');

    expect(await findings(page, { every: true })).toEqual([]);

    // Started only with the sample that is meant.
    const start = page.getByRole('form', { name: 'Start the run' });
    await start.getByLabel('Who runs it').fill('Runa');
    await start.getByLabel('Tag of the sample').fill('WRONG1');
    await start.getByRole('button', { name: 'Start the run' }).click();
    await expect(start.getByRole('alert')).toContainText('No sample has the tag "WRONG1"');
    await start.getByLabel('Tag of the sample').fill(`LASTMARK:${tag}`);
    await page.keyboard.press('Enter');

    // The console, by keys.
    const present = page.getByRole('region', { name: 'Present step' });
    await expect(present.getByRole('status')).toContainText('running');
    await expect(page.getByRole('region', { name: 'Live numbers' })).toContainText('Input');
    await page.keyboard.press('h');
    await expect(present.getByRole('status')).toContainText('on hold');
    await expect(present).toContainText('loads are off');
    expect(await findings(page, { every: true })).toEqual([]);
    await page.keyboard.press('n');
    await page.getByRole('dialog').getByLabel('Note').fill('Quiet so far.');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Quiet so far.')).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(present.getByRole('status')).toContainText('running');
    // Esc reaches the loads even from a dialog of the console.
    await page.keyboard.press('n');
    await expect(page.getByRole('dialog')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name: 'Bench line' }).getByRole('status')).toContainText(
      'Every load is off.',
    );
    await expect(present.getByRole('status')).toContainText('on hold');
    if (await page.getByRole('dialog').isVisible())
      await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click();

    // A second person sees who has the instruments.
    const other = await page.context().newPage();
    await other.goto(`${stage.url}/bench`);
    await expect(other.getByText('in use by Runa').first()).toBeVisible();
    await other.close();

    await page.bringToFront();
    await page.keyboard.press('Enter');
    await expect(present.getByRole('status')).toContainText('done', { timeout: 500_000 });
    const claims = page.getByRole('list', { name: 'Claims' });
    await expect(claims.getByRole('listitem').filter({ hasText: 'C1: 20 V 2.25 A' })).toContainText('proven');
    await expect(page.getByRole('list', { name: 'Steps so far, newest first' })).toContainText('settled, drift');
    await page.getByRole('link', { name: 'To the verdict' }).click();
    await page.locator('main details summary').first().click();
    await expect(page.getByText(/run "Ember 45 TE-45-0868: Local single mains"/).first()).toBeAttached();
  });
});

test('a desk sheet waits for the keypad, step by step', async ({ page }) => {
  await goOnWhereNoTime(page);
  const { id } = await freshSample(page, 'Desk run');
  const claim = {
    promise: { kind: 'port-line', port: 'C1', volts: 9, amps: 2 },
    duration: { kind: 'unstated' },
    printed: 'label',
  };
  expect((await page.request.post(`/api/samples/${id}/claims`, { data: claim })).status()).toBe(201);
  await page.goto(`/run-sheets?sample=${id}`);
  const plan = page.getByRole('form', { name: 'Plan a run' });
  await plan.getByLabel('Method').click();
  await page.getByRole('option', { name: 'Desk rig without instruments' }).click();
  await plan.getByLabel('Rig').click();
  await page.getByRole('option', { name: 'Load bench' }).click();
  await plan.getByRole('button', { name: 'Make the sheet' }).click();
  const start = page.getByRole('form', { name: 'Start the run' });
  await start.getByLabel('Who runs it').fill('Ivo');
  await start.getByLabel('Tag of the sample').fill(id.slice(-6));
  await page.keyboard.press('Enter');

  const present = page.getByRole('region', { name: 'Present step' });
  await expect(present).toContainText('then go on');
  await page.keyboard.press('Enter');
  await expect(present).toContainText('Idle, nothing attached');
  const fields = page.getByRole('form', { name: 'Readings' });
  await fields.getByLabel('or input power, W').fill('45 mW');
  await page.keyboard.press('Enter');
  await expect(present).toContainText('C1 9 V, no load');
  await fields.getByLabel('C1, V').fill('9,05');
  await page.keyboard.press('Enter');
  await expect(present).toContainText('C1 9 V 2 A');
  // Volts, amps and watts with number keys and Enter alone; what cannot be is refused and nothing typed is lost.
  await expect(fields.getByLabel('C1, V')).toBeFocused();
  await page.keyboard.type('8.97');
  await page.keyboard.press('Enter');
  await expect(fields.getByLabel('C1, A')).toBeFocused();
  await page.keyboard.type('2');
  await fields.getByLabel('Input, W').fill('1.9');
  await page.keyboard.press('Enter');
  await expect(present).toContainText('is above input');
  await fields.getByLabel('C1, V').fill('8.97');
  await fields.getByLabel('C1, A').fill('2');
  await fields.getByLabel('Input, W').fill('19.9');
  await page.keyboard.press('Enter');
  await expect(present).toContainText('settled 3 min');
  await fields.getByLabel('C1, W').fill('17.2');
  await fields.getByLabel('C1, V').fill('8.98');
  await fields.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByRole('list', { name: 'Steps so far, newest first' })).toContainText('17.2 W, charging');
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await page.getByRole('dialog').getByLabel('Reason').fill('Enough for the desk.');
  await page.keyboard.press('Enter');
  await expect(present.getByRole('status')).toContainText('stopped');
  await expect(page.getByRole('list', { name: 'Claims' })).toContainText('C1: 9 V 2 A');
});
