// The conclusion on the verdict page: drafted, ordered, worded, added to, and asked about when the evidence changes.
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';
import { findings } from './findings.ts';

test('a conclusion is drafted, put in order, worded with its figures, and said in another language', async ({
  page,
}) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.quad)}/verdict`);
  const sentences = page.getByRole('list', { name: 'Sentences' }).getByRole('listitem');
  await expect(sentences.first()).toContainText('Promises tested: 7 of 8. Proven 2, short 5, undecided 0.');
  await expect(sentences.nth(1)).toContainText(
    'C1 + C2: 65 + 65 W falls short: 56.00 ± 0.08 W where at least 63.7 W counts as kept',
  );
  await expect(page.getByRole('table', { name: 'Claims by station and state' })).toContainText('Splits');
  await expect(page.getByRole('list', { name: 'Promised and proven at each port' })).toContainText('100 W');

  await page.getByRole('button', { name: /^Move down: Promises tested/ }).click();
  await expect(sentences.first()).toContainText('C1 + C2: 65 + 65 W falls short');
  await page.getByRole('button', { name: /^Leave out: It weighs/ }).click();
  await expect(page.getByRole('button', { name: /^Take in: It weighs/ })).toBeVisible();

  // A number is never typed: it comes from the evidence.
  await page.getByRole('button', { name: /^Word: C1 \+ C2: 65/ }).click();
  const dialog = page.getByRole('dialog');
  const text = dialog.getByLabel('In English');
  await text.fill('Only 56 W.');
  await expect(dialog).toContainText('“56” is typed and would not follow the evidence');
  await expect(dialog.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await text.fill('Two laptops are too much: ');
  await dialog.getByRole('button', { name: /^\{found\}/ }).click();
  await expect(dialog).toContainText('Two laptops are too much: 56.00 ± 0.08 W');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(sentences.first()).toContainText('Two laptops are too much: 56.00 ± 0.08 W');

  await page.getByRole('button', { name: 'Add own words' }).click();
  await text.fill('The wardens keep what they have.');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(sentences.last()).toContainText('own words');

  await page.reload();
  await expect(sentences.first()).toContainText('Two laptops are too much');
  await page.getByLabel('Language').click();
  await page.getByRole('option', { name: 'Deutsch' }).click();
  await expect(sentences.nth(1)).toContainText('Geprüfte Zusagen: 7 von 8.');
  await expect(sentences.first()).toContainText('wird verfehlt: 56,00 ± 0,08 W');
  expect(await findings(page)).toEqual([]);
});

test('when the evidence changes a sentence says what it was and is, and waits for a yes', async ({ page }) => {
  const { id } = await freshSample(page, 'Bound');
  await page.goto(`/samples/${id}/claims`);
  await page.getByLabel('A line as printed').fill('total 45 W');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Claims' })).toContainText('Total 45 W');
  const spine = page.getByRole('navigation', { name: 'Spine' });
  await spine.getByRole('link', { name: /^Verdict/ }).click();
  const sentences = page.getByRole('list', { name: 'Sentences' });
  await expect(sentences).toContainText('Promises tested: 0 of 1.');
  await page.getByRole('button', { name: /^Move down: Promises tested/ }).click();
  await expect(sentences.getByRole('listitem').first()).not.toContainText('Promises tested');

  await spine.getByRole('link', { name: /^Claims/ }).click();
  await page.getByLabel('A line as printed').fill('idle 0.1 W');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Claims' })).toContainText('Idle below 0.1 W');
  await spine.getByRole('link', { name: /^Verdict/ }).click();
  await expect(page.getByRole('region', { name: 'Conclusion' })).toContainText('2 sentences wait for a yes');
  await expect(sentences).toContainText('claims was 1, is now 2');
  await page.getByRole('button', { name: /^Yes: Promises tested/ }).click();
  await expect(sentences).toContainText('Promises tested: 0 of 2.');
  await expect(page.getByRole('region', { name: 'Conclusion' })).toContainText('One sentence waits');
});
