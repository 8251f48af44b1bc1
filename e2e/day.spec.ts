// A bench day: sheets chosen, planned around the people who are there, a step held in its place, and the day taken along.
import { readFile } from 'node:fs/promises';
import { DEMO, demoSample, expect, test } from './bench.ts';
import { findings } from './findings.ts';

test('two sheets are planned, a step is held and let go, and the day goes out as a calendar', async ({ page }) => {
  const rigs = (await (await page.request.get('/api/rigs')).json()).items as { id: string; name: string }[];
  const rig = rigs.find(({ name }) => name === 'Load bench') ?? rigs[0];
  const sheets: string[] = [];
  for (const serial of [DEMO.ember2, DEMO.trio]) {
    const id = await demoSample(page, serial);
    const made = await page.request.post(`/api/samples/${id}/run-sheets`, {
      data: { methodId: 'desk', rigId: rig?.id },
    });
    expect(made.status()).toBe(201);
    sheets.push(((await made.json()) as { id: string }).id);
  }
  await page.goto('/today');
  await page.getByRole('link', { name: 'Plan the bench day' }).click();
  await expect(page.getByText('Choose the sheets of the day.')).toBeVisible();
  // The other day's form is there once the day was fetched.
  const fetched = page.waitForResponse(/\/bench-days\/2026-11-30$/);
  await page.getByLabel('Day', { exact: true }).fill('2026-11-30');
  await fetched;
  await page.getByLabel('Who is there, a line each').fill('Warden 8:00–12:00, 13:00–22:00\nKeeper 25:00–3:00');
  await expect(page.getByRole('alert').filter({ hasText: 'Line' })).toContainText('Line 2: “25:00–3:00” are no hours.');
  await page.getByLabel('Who is there, a line each').fill('Warden 8:00–12:00, 13:00–22:00');
  await page
    .getByRole('checkbox', { name: /Ember 45, TE-45-0868: Desk rig/ })
    .first()
    .check();
  await page
    .getByRole('checkbox', { name: /Trio 75, PT-75-3310: Desk rig/ })
    .first()
    .check();
  // What is planned is everybody’s, and stays over a reload.
  await expect(page.getByText('Kept for everybody.')).toBeVisible();
  await page.getByLabel(/There from: .*Trio 75/).fill('soon');
  await expect(page.getByRole('alert').filter({ hasText: 'there from' })).toContainText('write a time such as 10:30');
  await page.getByLabel(/There from: .*Trio 75/).fill('9:00');
  await expect(page.getByText('Kept for everybody.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel(/There from: .*Trio 75/)).toHaveValue('9:00');
  // What cannot be kept yet is there again after a reload, and is never kept over what another kept meanwhile.
  await page.getByLabel('Set-up, min').fill('a while');
  await page.reload();
  await expect(page.getByLabel('Set-up, min')).toHaveValue('a while');
  const day = await page.request.get('/api/bench-days/2026-11-30');
  const { day: _day, version: _version, ...theirs } = (await day.json()) as Record<string, unknown>;
  const put = await page.request.put('/api/bench-days/2026-11-30', {
    headers: { 'If-Match': day.headers().etag ?? '' },
    data: { ...theirs, from: 27_000 },
  });
  expect(put.status()).toBe(200);
  await page.reload();
  await page.getByLabel('Set-up, min').fill('5');
  await expect(page.getByText('Somebody else changed this day meanwhile')).toBeVisible();
  expect(((await (await page.request.get('/api/bench-days/2026-11-30')).json()) as { from: number }).from).toBe(27_000);
  await page.getByRole('button', { name: 'Take theirs' }).click();
  await expect(page.getByLabel('From', { exact: true })).toHaveValue('7:30');
  const plan = page.getByRole('region', { name: 'The plan' });
  await expect(plan.getByRole('status')).toContainText(/Over at \d+:\d\d/);
  await expect(plan).toContainText('no plan is over before');
  await expect(plan.getByRole('group', { name: 'Warden' })).toBeVisible();
  await expect(plan.getByRole('list', { name: 'The day in order' })).toContainText('Warden');

  const bar = plan.getByRole('group', { name: 'Load bench' }).getByRole('button').nth(3);
  await bar.focus();
  await page.keyboard.press('ArrowRight');
  await expect(plan.getByRole('button', { name: /^Let go: / })).toHaveCount(1);
  await expect(plan.getByRole('button', { name: /held there$/ })).not.toHaveCount(0);
  await plan.getByRole('button', { name: /^Let go: / }).click();
  await expect(plan.getByRole('button', { name: /^Let go: / })).toHaveCount(0);

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    plan.getByRole('button', { name: 'Calendar file' }).click(),
  ]);
  const calendar = (await readFile(await download.path())).toString('utf8');
  expect(calendar).toContain('BEGIN:VCALENDAR');
  expect(calendar).toContain('DTSTART:20261130T08');
  expect(await findings(page)).toEqual([]);
  for (const id of sheets) {
    const sheet = await page.request.get(`/api/run-sheets/${id}`);
    await page.request.delete(`/api/run-sheets/${id}`, { headers: { 'If-Match': sheet.headers().etag ?? '' } });
  }
});
