// Practice: a drill begun, measured in a world of its own with the screens of every day, its verdict stated, the truth shown.
import type { Page } from '@playwright/test';
import { expect, test } from './bench.ts';
import { findings, WCAG } from './findings.ts';

async function reachable(page: Page): Promise<void> {
  expect(await findings(page, { tags: WCAG, every: true })).toEqual([]);
}

test('a drill is measured on a bench of its own, stated, and told apart from the truth', async ({ page }) => {
  await page.goto('/drills');
  await page.getByRole('button', { name: 'Begin One fault', exact: true }).click();
  await expect(page.getByText('Say who practises')).toBeVisible();
  await page.getByLabel('Who practises').fill('Ines');
  // Number 7 of the first level is a weak port.
  await page.getByLabel('Number of the drill').fill('7');
  await page.getByRole('button', { name: 'Begin One fault', exact: true }).click();
  await page.waitForURL('**/practice/');
  const band = page.getByRole('region', { name: 'Practice' });
  await expect(band).toContainText(' left');
  await expect(page).toHaveTitle(/^Practice/);

  // The shelf of practice has the sample of the drill, and nothing of the demo.
  const listed = (await (await page.request.get('/practice/api/samples')).json()) as { items: { id: string }[] };
  expect(listed.items).toHaveLength(1);
  const [sample] = listed.items;
  await page.goto(`/practice/samples/${sample?.id}/verdict`);
  await expect(page.getByText('What to measure next').first()).toBeVisible();
  await expect(page.getByRole('link', { name: 'Data as CSV' })).toHaveCount(0);

  // Two steps settle it: the rig proves itself, and the port is loaded fully.
  const rigs = (await (await page.request.get('/practice/api/rigs')).json()) as {
    items: { id: string; drives: { load: string | null } | null }[];
  };
  const rigId = rigs.items.find(({ drives }) => drives?.load)?.id;
  const made = await page.request.post(`/practice/api/samples/${sample?.id}/run-sheets`, {
    data: { methodId: 'local-mains', rigId },
  });
  const sheet = (await made.json()) as {
    id: string;
    title: string;
    steps: { kind: string; station?: string; load?: number; outputs?: { volts: number }[] }[];
  };
  const steps = [
    sheet.steps.find(({ kind }) => kind === 'rig'),
    sheet.steps.find(({ kind, station, load }) => kind === 'point' && station === 'proof' && load === 1),
  ];
  const kept = await page.request.put(`/practice/api/run-sheets/${sheet.id}`, {
    headers: { 'If-Match': '"v1"' },
    data: { title: sheet.title, rigId, steps, conditions: [] },
  });
  expect(kept.status(), await kept.text()).toBe(200);
  await page.goto(`/practice/run-sheets/${sheet.id}`);
  await page.getByLabel('Tag of the sample').fill(sample?.id.slice(-6) ?? '');
  await page.getByRole('button', { name: 'Start the run' }).click();
  await page.waitForURL('**/practice/runs/*');
  await expect(page.getByText(/2 steps done|1 of 2 steps done/).first()).toBeVisible({ timeout: 60_000 });
  await expect(band.getByLabel('On the bench')).toHaveValue(sample?.id ?? '');

  await band.getByRole('link', { name: 'State the verdict' }).click();
  const weak = page.getByRole('checkbox', { name: 'A port gives less than it offers' });
  await weak.check();
  // What was chosen stays over a reload.
  await page.reload();
  await expect(weak).toBeChecked();
  await reachable(page);
  await page.getByRole('button', { name: 'State it, and see the truth' }).click();
  await page.waitForURL('**/drills/*');
  await expect(page.getByText('Passed: all of 1 found')).toBeVisible();
  await expect(page.getByRole('table', { name: 'What hid and what was said' })).toContainText('four fifths');
  await reachable(page);
  await page.getByRole('link', { name: 'All drills' }).click();
  await expect(page.getByRole('table', { name: 'Progress of each person' })).toContainText('One fault');
  await expect(page.getByRole('table', { name: 'Drills there were' })).toContainText('Passed: all of 1 found');
});
