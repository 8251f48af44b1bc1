// A meter of unknown accuracy: nothing is decided, it says why, and one press leads to where it is stated.
import { expect, freshSample, test } from './bench.ts';

test('what a nameless meter read is decided once its accuracy is stated, one press away', async ({ page }) => {
  const post = async (path: string, data: object) => {
    const answer = await page.request.post(`/api${path}`, { data });
    expect(answer.status(), await answer.text()).toBe(201);
    return (await answer.json()) as { id: string };
  };
  const sample = await freshSample(page, 'Unstated');
  const meter = await post('/instruments', {
    name: 'Nameless meter',
    class: 'bench multimeter',
    firmware: '',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: null,
    specs: {},
  });
  const rig = await post('/rigs', {
    name: 'Kitchen table',
    meters: { mains: meter.id, outputVolts: meter.id, outputAmps: meter.id, loadEnd: null },
    outputPlace: 'port',
    leadOhms: 0,
    leadUOhms: 0,
    elements: [],
    note: '',
  });
  const promise = { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 };
  await post(`/samples/${sample.id}/claims`, { promise, duration: { kind: 'unstated' }, printed: 'label' });
  const share = { port: 'C1', volts: 20.04, amps: 2.25, light: false };
  await post(`/samples/${sample.id}/runs`, {
    run: {
      id: '01JC0000000000000000000001',
      kind: 'split',
      port: 'C1',
      order: ['C1'],
      rigId: rig.id,
      takenAt: '2026-03-02T10:00:00.000Z',
      note: '',
      supersedes: null,
      withdrawn: false,
      mains: { kind: 'ac', volts: 230, hertz: 50 },
      shares: [share],
      mainsWatts: null,
      evidence: 'load',
      drops: [],
    },
  });
  await page.goto(`/samples/${sample.id}/verdict`);
  const main = page.getByRole('main');
  await expect(main.getByText('The accuracy of “Nameless meter” for', { exact: false }).first()).toBeVisible();
  await main.getByRole('region', { name: 'cannot be decided' }).locator('details > summary').first().click();
  await main.getByRole('link', { name: 'State the accuracy of Nameless meter' }).click();
  const dialog = page.getByRole('dialog', { name: 'Change the instrument' });
  for (const quantity of ['Voltage', 'Current']) {
    await dialog.getByLabel(`${quantity}: % of reading`).first().fill('0.05');
  }
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('link', { name: 'Back to the sample' }).click();
  await expect(page.getByRole('heading', { name: 'Verdict' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'proven' })).toBeVisible();
});
