// A whole charge as a run: planned for a device, plugged in at the simulated bench, and found at Devices.
import { DEMO, expect, test } from './bench.ts';
import { findings } from './findings.ts';
import { goOnWhereNoTime, withSimulatedBench } from './simulated.ts';

test('a device is charged to its end by a run, and its charge stands beside those taken in from files', async ({
  page,
}) => {
  test.setTimeout(600_000);
  await goOnWhereNoTime(page);
  await withSimulatedBench(300, async (stage) => {
    const { items } = (await (await page.request.get(`${stage.url}/api/samples?q=${DEMO.ember2}`)).json()) as {
      items: { id: string; tag: string }[];
    };
    const { id, tag } = items[0] ?? { id: '', tag: '' };
    await page.goto(`${stage.url}/run-sheets?sample=${id}`);
    const plan = page.getByRole('form', { name: 'Plan a run' });
    await plan.getByLabel('Method').click();
    await page.getByRole('option', { name: 'Whole charges' }).click();
    await plan.getByLabel('Rig').click();
    await page.getByRole('option', { name: 'Simulated desk' }).click();
    await plan.getByRole('button', { name: 'Make the sheet' }).click();
    const steps = page.getByRole('list', { name: 'Steps in order' });
    await expect(steps).toContainText('Loan phone on C1, charged to its end');
    // Only the phone today.
    for (const name of ['Warden’s laptop', 'Hut tablet', 'Valley radio', 'Bunk-room headlamp']) {
      await steps.getByRole('button', { name: new RegExp(`Leave out step \\d+, ${name}`) }).click();
      await page.getByRole('dialog').getByLabel('Reason').fill('Another day');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('dialog')).toBeHidden();
    }
    const start = page.getByRole('form', { name: 'Start the run' });
    await start.getByLabel('Who runs it').fill('Runa');
    await start.getByLabel('Tag of the sample').fill(tag);
    await start.getByRole('button', { name: 'Start the run' }).click();
    const main = page.getByRole('main');
    // The rig is looked at by hand, the step is watched, then the plug is asked for.
    const plug = main.getByText('Plug Loan phone into C1, at 0 %, then go on.');
    await expect(async () => {
      if (await plug.isVisible()) return;
      await main.getByRole('button', { name: /^Go on/ }).click({ timeout: 2000 });
      await expect(plug).toBeVisible({ timeout: 3000 });
    }).toPass({ timeout: 120_000 });
    expect(await findings(page, { every: true })).toEqual([]);
    await main.getByRole('button', { name: 'Plug it in at the simulated bench' }).click();
    await expect(main.getByText('Loan phone is in C1 at 0 %, at ×600.')).toBeVisible();
    await main.getByRole('button', { name: /^Go on/ }).click();
    await expect(main.getByText(/Charging, \d+\.\d W/)).toBeVisible();
    await expect(main.getByText(/of it lost on the way\..* W after full\. Unplug Loan phone\./)).toBeVisible({
      timeout: 300_000,
    });
    await page.goto(`${stage.url}/samples/${id}/devices`);
    await expect(main.getByRole('table', { name: 'Charges' })).toContainText('Loan phone on C1, 230 V 50 Hz');
    await expect(main.getByRole('img', { name: /constant 2\d\.\d W/ })).toBeVisible();
  });
});
