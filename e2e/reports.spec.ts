// Reports: a draft, issued once, amended, and found again by the code on the print.
import { DEMO, demoSample, expect, follow, freshSample, test } from './bench.ts';
import { findings } from './findings.ts';

test('a report is issued, amended, and its code says so', async ({ page }) => {
  const { id } = await freshSample(page, 'Reported');
  await page.goto(`/samples/${id}/verdict`);
  const reports = page.getByRole('region', { name: 'Reports' });
  await expect(reports).toContainText('None was issued.');
  await page.getByRole('button', { name: 'Issue the report' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: 'Issue' })).toBeDisabled();
  await dialog.getByLabel('Issued by').fill('Keeper of the workshop');
  await dialog.getByRole('button', { name: 'Issue' }).click();
  const table = page.getByRole('table', { name: 'Issued reports' });
  const code = (await table.getByRole('link').first().textContent()) ?? '';
  expect(code).toMatch(/^[0-9A-Z]{4}(-[0-9A-Z]{4}){3}$/);
  const href = (await table.getByRole('link').first().getAttribute('href')) ?? '';
  const pdf = await page.request.get(href);
  expect([pdf.status(), pdf.headers()['content-type']]).toEqual([200, 'application/pdf']);

  await page.getByRole('button', { name: `Amend ${code}` }).click();
  await dialog.getByLabel('What it is').click();
  await page.getByRole('option', { name: 'a follow-up: what became of the sample' }).click();
  await dialog.getByLabel('The sample').click();
  await page.getByRole('option', { name: 'repaired' }).click();
  await dialog.getByLabel('What changed, and why').fill('The lead was replaced.');
  await dialog.getByRole('button', { name: 'Issue' }).click();
  await expect(table).toContainText('follow-up: repaired');
  await expect(table).toContainText(/amended by [0-9A-Z-]{19}/);

  await page.getByRole('navigation', { name: 'Spine' }).getByRole('link', { name: 'Reports' }).click();
  await page.getByLabel('Code on a print').fill(code.toLowerCase());
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'amended since' })).toContainText(
    'repaired. The lead was replaced.',
  );
  await page.getByLabel('Code on a print').fill('7K2M');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toContainText('A code has 16 signs; this has 4.');
  await expect(page.getByRole('button', { name: 'Try again' })).toHaveCount(0);
  expect(await findings(page)).toEqual([]);
});

test('while a sentence waits for a yes nothing is issued, and what was typed stays', async ({ page }) => {
  const { id } = await freshSample(page, 'Waiting');
  const claim = (watts: number) =>
    page.request.post(`/api/samples/${id}/claims`, {
      data: { promise: { kind: 'total', watts }, duration: { kind: 'unstated' }, printed: 'label' },
    });
  await claim(45);
  await page.goto(`/samples/${id}/verdict`);
  await page.getByRole('button', { name: /^Move down: Promises tested/ }).click();
  await expect(page.getByRole('list', { name: 'Sentences' }).getByRole('listitem').first()).not.toContainText(
    'Promises',
  );
  await claim(65);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Conclusion' })).toContainText('wait for a yes');
  await page.getByRole('button', { name: 'Issue the report' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Issued by').fill('Keeper');
  await dialog.getByRole('button', { name: 'Issue' }).click();
  await expect(dialog).toContainText('of the conclusion wait for a yes');
  await expect(dialog.getByLabel('Issued by')).toHaveValue('Keeper');
});

test('the demo has two reports, one amended after its unit died', async ({ page }) => {
  await page.goto('/reports');
  const table = page.getByRole('table', { name: 'Issued reports' });
  await expect(table.getByRole('row').filter({ hasText: 'Pellwick Trio 75' })).toHaveCount(2);
  await expect(table.getByRole('row').filter({ hasText: 'Tarnhook Ember 45' })).not.toHaveCount(0);
  await expect(table).toContainText('follow-up: died');
  await follow(page, `/samples/${await demoSample(page, DEMO.trio)}/verdict`);
  await expect(page.getByRole('list', { name: 'Sentences' })).toContainText('one laptop at a time');
});

test('a package goes out, is recognised when it comes back, and what is none is refused', async ({ page }) => {
  const id = await demoSample(page, DEMO.pip);
  const packed = await (await page.request.get(`/api/samples/${id}/package.zip`)).body();
  await page.goto('/samples/new');
  const input = page.getByLabel('Package of another Lastmark');
  await input.setInputFiles({ name: 'pip.lastmark.zip', mimeType: 'application/zip', buffer: packed });
  await expect(page.getByRole('main')).toContainText('was here already: nothing is new.');
  await input.setInputFiles({ name: 'none.zip', mimeType: 'application/zip', buffer: Buffer.from('hello') });
  await expect(page.getByRole('main')).toContainText('Nothing was taken in. It is no archive that can be read');
});

test('a report leaves out what somebody chose and holds another sample, and its amendment begins with the same', async ({
  page,
}) => {
  const { id } = await freshSample(page, 'Chosen');
  await page.goto(`/samples/${id}/verdict`);
  await page.getByRole('button', { name: 'Issue the report' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Issued by').fill('Keeper of the workshop');
  await dialog.getByRole('checkbox', { name: 'Ripple' }).uncheck();
  await dialog.getByLabel('Other samples in it').fill('GQ-20931');
  await page.getByRole('option', { name: /GQ-20931/ }).click();
  await dialog.getByLabel('The maker, before').click();
  await page.getByRole('option', { name: 'did not see it' }).click();
  const draft = (await dialog.getByRole('link', { name: 'Look at it as a draft' }).getAttribute('href')) ?? '';
  expect(draft).toContain('leaves=ripple&otherSamples=');
  expect((await page.request.get(draft)).headers()['content-type']).toBe('application/pdf');
  expect(await findings(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Issue' }).click();
  const table = page.getByRole('table', { name: 'Issued reports' });
  const html = (await table.getByRole('link', { name: /as HTML$/ }).getAttribute('href')) ?? '';
  const text = await (await page.request.get(html)).text();
  expect(text).toContain('Left out of this report: Ripple.');
  expect(text).toContain('The maker did not see this text before it was issued.');
  expect(text).toContain('Beside each other');
  await expect(page.getByRole('region', { name: 'History' })).toContainText('Reports:');

  await page.getByRole('button', { name: /^Amend / }).click();
  await expect(dialog.getByRole('checkbox', { name: 'Ripple' })).not.toBeChecked();
  await expect(dialog.getByRole('checkbox', { name: 'Heat' })).toBeChecked();
  await expect(dialog.getByRole('button', { name: (await demoSample(page, DEMO.quad)).slice(-6) })).toBeVisible();
});

test('a phone sends its photos to the sample whose tag it names', async ({ page }) => {
  const { id } = await freshSample(page, 'Photographed');
  const tag = id.slice(-6);
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto(`/photo/${tag.toLowerCase()}`);
  await expect(page.getByRole('button', { name: 'Take a photo' })).toBeVisible();
  const picture = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAgAAAAICAIAAABLbSncAAAAEUlEQVR4nGMwaAjAihiGlgQA+jBAAcsE/yMAAAAASUVORK5CYII=',
    'base64',
  );
  await page
    .getByLabel('Photo of the sample')
    .setInputFiles({ name: 'c1.png', mimeType: 'image/png', buffer: picture });
  const sent = page.getByRole('list', { name: 'Sent' });
  await expect(sent).toContainText('c1.png');
  await page.getByRole('button', { name: 'Caption of c1.png' }).click();
  await page.getByRole('dialog').getByLabel('What it shows').fill('The label of C1');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await expect(sent).toContainText('The label of C1');
  const { items } = await (await page.request.get(`/api/attachments?sampleId=${id}`)).json();
  expect(items.map(({ caption }: { caption: string }) => caption)).toEqual(['The label of C1']);
  expect(await findings(page)).toEqual([]);
  await page.goto('/photo/NNNNNN');
  await expect(page.getByRole('alert')).toContainText('No sample has the tag NNNNNN.');
});

test('a report as HTML is looked into: its plots stretch by drag and by key, and say what is pointed at', async ({
  page,
}) => {
  const id = await demoSample(page, DEMO.pip);
  const text = await (await page.request.get(`/api/samples/${id}/report.html?language=en`)).text();
  const faults: string[] = [];
  page.on('pageerror', ({ message }) => faults.push(message));
  page.on('console', (line) => line.type() === 'error' && faults.push(line.text()));
  await page.setContent(text);
  const plot = page.locator('figure:has(svg[data-across])').first();
  const picture = plot.locator('svg[data-across]');
  const numbers = () => plot.locator('[data-ticks] text').allTextContents();
  const whole = await numbers();
  expect(whole.length).toBeGreaterThan(2);
  await expect(plot.getByRole('button', { name: 'All' })).toBeDisabled();
  await picture.focus();
  await page.keyboard.press('+');
  await expect.poll(numbers).not.toEqual(whole);
  const spanOf = (words: readonly string[]) => Number(words.at(-1)) - Number(words[0]);
  expect(spanOf(await numbers())).toBeLessThan(0.7 * spanOf(whole));
  const closer = await numbers();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(numbers).not.toEqual(closer);
  await plot.getByRole('button', { name: 'All' }).click();
  await expect.poll(numbers).toEqual(whole);
  const box = await picture.boundingBox();
  const [x, y] = [(box?.x ?? 0) + 0.5 * (box?.width ?? 0), (box?.y ?? 0) + 0.5 * (box?.height ?? 0)];
  await page.mouse.move(x, y);
  await expect(plot.locator('output')).toContainText('→');
  await page.mouse.down();
  await page.mouse.move(x + 80, y);
  await page.mouse.up();
  await expect.poll(async () => spanOf(await numbers())).toBeLessThan(0.3 * spanOf(whole));
  expect(faults).toEqual([]);
});
