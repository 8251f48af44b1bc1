// What idle means in use: a year by hours, a store off the grid.
import { DEMO, demoSample, expect, test } from './bench.ts';

test('hours of use weigh idle against the loss of work, and a day has 24 of them', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.ember)}/idle`);
  const use = page.getByRole('region', { name: 'In use' });
  await expect(use).toContainText(/kWh a year \(\d+\.\d\d EUR\).*idle is \d+ % of the loss/);
  await use.getByLabel('Idle, h a day').fill('21');
  await expect(use).toContainText('The hours of a day add up to 24.');
  await use.getByLabel('Full load, h a day').fill('1');
  await expect(use).toContainText('of the loss');
  await expect(use).toContainText(/Ah a day from the store, \d+\.\d % of the day’s sun/);
  await use.getByLabel('Store, V').fill('24');
  const before = await use.textContent();
  await use.getByLabel('Inverter itself, W').fill('0');
  await expect(use).not.toHaveText(before ?? '');
});
