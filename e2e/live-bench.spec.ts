// Instruments that answer: address and profile, console, loads off. On a stage of its own, beside a simulated bench.
// @ts-expect-error plain script without types
import { startSimulatedBench } from '../scripts/lib/simulated-bench.mjs';
// @ts-expect-error plain script without types
import { startStage } from '../scripts/lib/stage.mjs';
import { expect, test } from './bench.ts';

test('a load is connected, spoken to at the console, and switched off from any view', async ({ page }) => {
  const stage = (await startStage({ demo: false })) as { url: string; stop: () => Promise<void> };
  const bench = (await startSimulatedBench()) as { ports: Record<string, number>; stop: () => Promise<void> };
  try {
    // The charger on the simulated bench gets its mains.
    const source = await page.request.post(`${stage.url}/api/instruments`, {
      data: {
        name: 'Valley mains',
        class: 'AC source',
        firmware: '',
        calibrationDue: null,
        address: `127.0.0.1:${bench.ports['ac-source']}`,
        profileId: 'built-in-ac-source',
        sees: null,
        specs: {},
      },
    });
    const { id } = (await source.json()) as { id: string };
    const on = await page.request.post(`${stage.url}/api/instruments/${id}/commands`, { data: { command: 'OUTP ON' } });
    expect(on.status()).toBe(201);
    await page.goto(`${stage.url}/bench`);
    await expect(page.getByRole('button', { name: 'Loads off' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Add an instrument' }).first().click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name').fill('Valley load');
    await dialog.getByLabel('Class').click();
    await page.getByRole('option', { name: 'DC load' }).click();
    await dialog.getByRole('button', { name: /^More/ }).click();
    await dialog.getByLabel('Address', { exact: true }).fill('nowhere');
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(dialog.getByRole('alert')).toContainText('write it as 192.168.1.20:5025');
    await dialog.getByLabel('Address', { exact: true }).fill(`127.0.0.1:${bench.ports['dc-load']}`);
    await dialog.getByLabel('Profile').click();
    await page.getByRole('option', { name: 'Simulated DC load' }).click();
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(dialog).toBeHidden();
    await expect(page.getByRole('button', { name: 'Loads off' })).toBeVisible();

    await page.getByRole('button', { name: 'Console of Valley load' }).click();
    const say = async (command: string) => {
      await dialog.getByLabel('Command').fill(command);
      await page.keyboard.press('Enter');
    };
    await say('*IDN?');
    await expect(dialog.getByRole('log')).toContainText('Fernwall Workshop,DC load');
    await say('CURR 99');
    await expect(dialog.getByRole('alert')).toContainText('Data out of range;99 is not in 0 to 6');
    for (const command of ['SINK:CONN ON', 'CURR 1.5', 'INP ON']) {
      await say(command);
      await expect(dialog.getByLabel('Command')).toHaveValue('');
    }
    await say('INP?');
    await expect(dialog.getByRole('log').getByText('1', { exact: true })).toBeVisible();
    await dialog.getByRole('button', { name: 'Close' }).click();

    const line = page.getByRole('region', { name: 'Bench line' });
    await expect(line).toContainText(/4\.\d\d V 1\.(49|50)\d A 7\.\d W/);
    await page.getByRole('link', { name: 'Rules' }).click();
    await expect(page.getByRole('heading', { name: 'Rules' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(line.getByRole('status')).toContainText('Every load is off.');
    await expect(line).toContainText(/[45]\.\d\d V [-−]?0\.00\d A/);
    await page.getByRole('link', { name: 'Bench' }).click();
    await page.getByRole('button', { name: 'Console of Valley load' }).click();
    await expect(dialog.getByRole('log')).toContainText('INP:ALL OFF');
    await say('INP?');
    await expect(dialog.getByRole('log').getByText('0', { exact: true })).toBeVisible();
    await dialog.getByRole('button', { name: 'Close' }).click();

    await bench.stop();
    await page.getByRole('button', { name: 'Loads off' }).click();
    await expect(line.getByRole('status')).toContainText(
      /Nobody knows whether "Valley load" is off: it does not answer at 127\.0\.0\.1:\d+\. Switch it off at the load itself/,
    );
  } finally {
    await bench.stop();
    await stage.stop();
  }
});

test('a profile that ships is copied and its strings changed', async ({ page }) => {
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Copy Simulated DC load' }).click();
  const dialog = page.getByRole('dialog', { name: /Copy the profile/ });
  await dialog.getByLabel('Name').fill('Hut load');
  const amps = dialog.getByLabel('Command to set the current, A');
  await amps.fill('ISET');
  await expect(dialog.getByText('"amps" lacks {amps}.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Keep the copy' })).toBeDisabled();
  await amps.fill('ISET {amps}');
  await dialog.getByRole('button', { name: 'Keep the copy' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('button', { name: 'Change Hut load' })).toBeVisible();
});
