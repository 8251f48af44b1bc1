// Read-out: from what an analyser shows to findings, map and ledger.
import type { Page } from '@playwright/test';
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';

const FIVE = '51A1 0801912C 0002D12C 0004B12C 00064145 C0DC323C';

const addClaim = async (page: Page, id: string, promise: object) => {
  const data = { promise, duration: { kind: 'unstated' }, printed: 'label' };
  expect((await page.request.post(`/api/samples/${id}/claims`, { data })).status()).toBe(201);
};
const openEntry = async (page: Page, id: string) => {
  await page.goto(`/samples/${id}/read-out`);
  await page.getByRole('button', { name: 'Enter a read-out' }).first().click();
  return page.getByRole('dialog', { name: 'Enter a read-out' });
};
const choose = async (page: Page, label: string, option: string) => {
  await page.getByRole('dialog').getByLabel(label, { exact: true }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};

test('a pasted message is decoded while it is typed, kept, drawn and held against the label', async ({ page }) => {
  const { id } = await freshSample(page, 'Paste');
  await addClaim(page, id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
  await addClaim(page, id, { kind: 'port-line', port: 'C1', volts: 12, amps: 3 });
  const dialog = await openEntry(page, id);
  await dialog.getByLabel('What the analyser shows').fill(FIVE);
  const offers = dialog.getByRole('list', { name: 'Offers as decoded' }).getByRole('listitem');
  await expect(offers).toHaveCount(5);
  await expect(offers.nth(3)).toContainText('20 V 3.25 A');
  await expect(offers.nth(4)).toContainText('PPS 5–11 V 3 A');
  await offers.nth(3).getByRole('button').click();
  await expect(offers.nth(3)).toContainText('Maximum current');
  await dialog.getByText('source capabilities, R3.x').click();
  await expect(dialog.getByText('Power role')).toBeVisible();
  await choose(page, 'Asked with revision', '3.2');
  await dialog.getByLabel('Temperature, °C').fill('76');
  await expect(dialog.getByText('If the meter shows °F, that is 24.4 °C.')).toBeVisible();
  await dialog.getByLabel('Temperature, °C').fill('24.4');
  await dialog.getByRole('button', { name: 'Keep the read-out' }).click();
  await expect(dialog).toBeHidden();

  await expect(page.getByRole('img', { name: /^Level map of C1/ })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Offers' }).getByRole('row')).toHaveCount(6);
  const findings = page.getByRole('list', { name: 'Findings' });
  await expect(findings).toContainText('The label promises 12 V 3 A; the read-out has no such level.');
  const ledger = page.getByRole('complementary', { name: 'Ledger' });
  await expect(ledger.getByRole('button', { name: /C1: 20 V 2.25 A/ })).toContainText('advertised only');
  await page.getByRole('button', { name: 'Bits of 20 V 3.25 A on C1' }).click();
  await expect(page.getByText('Peak current')).toBeVisible();

  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing read out yet' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('table', { name: 'Offers' })).toBeVisible();
});

test('bytes as on the wire, levels one by one, requests and a cable’s reply', async ({ page }) => {
  const { id } = await freshSample(page, 'Forms');
  const dialog = await openEntry(page, id);
  const text = dialog.getByLabel('What the analyser shows');
  const offers = dialog.getByRole('list', { name: 'Offers as decoded' });
  await choose(page, 'Digits stand', 'as on the wire: 2C 91 01 08');
  await text.fill('2C 91 01 08');
  await expect(offers).toContainText('5 V 3 A');
  await text.fill('');
  await dialog.getByLabel('Add a level').fill('9 V');
  await expect(dialog.getByText('The amps are missing')).toBeVisible();
  await dialog.getByLabel('Add a level').fill('5 V 3 A');
  await page.keyboard.press('Enter');
  await dialog.getByLabel('Add a level').fill('PPS 3.3–11 V 3 A');
  await page.keyboard.press('Enter');
  await expect(text).toHaveValue('5 V 3 A\nPPS 3.3–11 V 3 A');
  await expect(offers.getByRole('listitem')).toHaveCount(2);
  await choose(page, 'Digits stand', 'as numbers: 0801912C');
  await choose(page, 'Bare words are', 'the cable’s reply');
  await text.fill('000A2640');
  await expect(dialog.getByText('Cable: 5 A, 48 V, EPR: up to 240 W')).toBeVisible();
  await choose(page, 'Bare words are', 'requests');
  await text.fill('41051545');
  await expect(dialog.getByText('Position 4: 3.25 A')).toBeVisible();
  await text.fill('nonsense');
  await expect(dialog.getByText('"nonsense" is not hexadecimal.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Keep the read-out' })).toBeDisabled();
});

test('a read-out of the sample export goes in again, conditions and all', async ({ page }) => {
  const from = await demoSample(page, DEMO.monolith);
  const { readOuts } = await (await page.request.get(`/api/samples/${from}/export.json`)).json();
  const { id } = await freshSample(page, 'Round trip');
  const dialog = await openEntry(page, id);
  // The whole export has several; one is chosen.
  const whole = await (await page.request.get(`/api/samples/${from}/export.json`)).text();
  await dialog
    .getByLabel('File of words')
    .setInputFiles({ name: 'sample.json', mimeType: 'application/json', buffer: Buffer.from(whole) });
  await expect(dialog.getByText(`${readOuts.length} read-outs are in this text.`)).toBeVisible();
  await dialog.getByLabel('Which read-out').click();
  await page.getByRole('option').first().click();
  await expect(dialog.getByText(/Taken as a read-out in the open form: 10 positions, EPR/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Take the conditions from the file too' }).click();
  await dialog.getByRole('button', { name: 'Keep the read-out' }).click();
  await expect(dialog).toBeHidden();
  const dossier = await (await page.request.get(`/api/samples/${id}/dossier`)).json();
  const told = ({
    words,
    epr,
    marker,
    askedWith,
    declared,
    temperature,
    elapsed,
    cableWords,
  }: Record<string, unknown>) => ({
    words,
    epr,
    marker,
    askedWith,
    declared,
    temperature: Number(temperature).toFixed(2),
    elapsed,
    cableWords,
  });
  expect(told(dossier.readOuts[0])).toEqual(told(readOuts[0]));
});

test('a file of 100 000 words is listed beside the form, which goes on answering', async ({ page }) => {
  const { id } = await freshSample(page, 'Listing');
  const dialog = await openEntry(page, id);
  const words = Array.from({ length: 100_000 }, (_, index) =>
    (Math.imul(index, 2_654_435_761) >>> 0).toString(16).toUpperCase().padStart(8, '0'),
  );
  await dialog
    .getByLabel('File of words')
    .setInputFiles({ name: 'words.txt', mimeType: 'text/plain', buffer: Buffer.from(words.join('\n')) });
  await dialog.getByLabel('Note').fill('typed meanwhile');
  await expect(dialog.getByText('Taken as words: 100,000 positions')).toBeVisible();
  await expect(dialog.getByText('A read-out holds at most 32 offers; this lists 100,000.')).toBeVisible();
  expect(await dialog.getByRole('listitem').count()).toBeLessThan(200);
  await expect(dialog.getByLabel('Note')).toHaveValue('typed meanwhile');
  await dialog.getByRole('button', { name: 'Drop it' }).click();
  await expect(dialog.getByLabel('What the analyser shows')).toBeVisible();
});

test('two read-outs stand side by side, without what one analyser cannot see', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.monolith)}/read-out`);
  const pair = page.getByRole('region', { name: 'Side by side', exact: true });
  await pair.getByLabel('Left').click();
  await page.getByRole('option', { name: /asked with R3.2, 24 °C/ }).click();
  await pair.getByLabel('Right').click();
  await page.getByRole('option', { name: /asked with R3.1/ }).click();
  await expect(pair).toContainText('The same offers.');
  await expect(pair).toContainText('Left out, since one analyser cannot see it: SPR AVS.');
  await pair.getByLabel('Right').click();
  await page.getByRole('option', { name: /3 A marker/ }).click();
  await expect(pair).toContainText('5 A EPR marker / 3 A marker');
  await expect(pair.getByRole('row', { name: /28 V 5 A/ })).toContainText('gone');
});

test('all ports of a sample are overlaid, and a promise the analyser cannot see is not called absent', async ({
  page,
}) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/read-out`);
  await page.getByRole('tab', { name: 'All ports' }).click();
  await expect(page.getByRole('img', { name: /^Level map of C1, C2/ })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText(
    'C2 should be like C1, but has 15 V 2 A instead of 15 V 3 A',
  );
  const ledger = page.getByRole('complementary', { name: 'Ledger' });
  await expect(ledger.getByRole('button', { name: /SPR AVS 9–20 V/ })).toContainText('not visible');
  await expect(page.getByRole('table', { name: 'Signalling outside PD' })).toContainText('Stepped high voltage');
});

test('a bench adds a name for signalling, and it can be looked for', async ({ page }) => {
  await page.goto('/rules');
  await page.getByRole('form', { name: 'Add a mode' }).getByLabel('Name').fill('Valley handshake');
  await page
    .getByRole('form', { name: 'Add a mode' })
    .getByLabel('How it works')
    .fill('A short pulse on D+ before 9 V.');
  await page.getByRole('button', { name: 'Add a mode' }).click();
  await expect(page.getByRole('table', { name: 'Signalling names' })).toContainText('A short pulse on D+ before 9 V.');
  const { id } = await freshSample(page, 'Own mode');
  const dialog = await openEntry(page, id);
  await expect(dialog.getByText('Valley handshake')).toBeVisible();
});
