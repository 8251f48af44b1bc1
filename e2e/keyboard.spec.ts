// Everything from the keyboard.
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';

test('command box, stations, grid and ledger without a mouse', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('table', { name: 'Samples' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('PT-75');
  await expect(page.getByRole('option', { name: /Pellwick Trio 75/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /Intake/ })).toBeVisible();
  await page.keyboard.press('Alt+8');
  await expect(page.getByRole('heading', { name: 'Verdict' })).toBeVisible();
  // Where the claims are listed anyway there is no second list of them.
  await expect(page.getByRole('complementary', { name: 'Ledger' })).toHaveCount(0);
  await page.keyboard.press('Alt+7');
  await expect(page.getByRole('heading', { name: 'Efficiency' })).toBeVisible();
  await page.keyboard.press('Alt+l');
  await expect(page.getByRole('button', { name: /Ledger \(/ })).toBeVisible();
  await page.keyboard.press('Alt+l');
  const entry = page.getByRole('complementary', { name: 'Ledger' }).getByRole('button', { name: /Total 75 W/ });
  await entry.focus();
  await page.keyboard.press('Enter');
  await expect(entry).toHaveAttribute('aria-expanded', 'true');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
});

test('a whole load point is typed with number keys and Enter, arrows move, Esc takes back', async ({ page }) => {
  const { id } = await freshSample(page, 'Keys only');
  await page.goto(`/samples/${id}/efficiency`);
  await page.getByLabel('115 V 60 Hz, 100 %, input watts').focus();
  for (const typed of ['49.6', '0.68', '20.03', '2.25']) {
    await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByLabel('115 V 60 Hz, 75 %, input watts')).toBeFocused();
  await expect(page.getByRole('row', { name: /^100 %/ }).first()).toContainText('90.8');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('115 V 60 Hz, 100 %, input watts')).toBeFocused();
  await page.keyboard.type('99');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('115 V 60 Hz, 100 %, input watts')).toHaveValue('49.6');
});

test('focus is always seen', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.ember)}/verdict`);
  await expect(page.getByRole('heading', { name: 'Verdict' })).toBeVisible();
  for (let step = 0; step < 25; step += 1) {
    await page.keyboard.press('Tab');
    const visible = await page.evaluate(() => {
      const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(document.activeElement as Element);
      return (outlineStyle !== 'none' && Number.parseFloat(outlineWidth) >= 2) || boxShadow !== 'none';
    });
    const what = await page.evaluate(() => document.activeElement?.outerHTML.slice(0, 120));
    expect(visible, what ?? '').toBe(true);
  }
});
