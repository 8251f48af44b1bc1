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
  await page.keyboard.press('Alt+=');
  await expect(page.getByRole('heading', { name: 'Verdict' })).toBeVisible();
  // Where the claims are listed anyway there is no second list of them.
  await expect(page.getByRole('complementary', { name: 'Ledger' })).toHaveCount(0);
  await page.keyboard.press('Alt+8');
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

/** Most keys from the box to the first judged claim; a practised person types about three a second. */
const MOST_KEYS = 70;

test('from the box to the first judged claim by keyboard alone, in few keys', async ({ page }) => {
  let keys = 0;
  const press = async (key: string) => {
    keys += 1;
    await page.keyboard.press(key);
  };
  const type = async (text: string) => {
    keys += text.length;
    await page.keyboard.type(text);
  };
  const focused = () =>
    page.evaluate(
      () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '',
    );
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
  await press('Control+k');
  await expect(page.getByRole('listbox')).toBeVisible();
  await type('take');
  await press('Enter');
  await expect(page.getByLabel('Maker')).toBeFocused();
  await type('Tarnhook');
  await press('Tab');
  await type('Spark 45');
  const tabTo = async (found: () => Promise<boolean>) => {
    for (let step = 0; step < 12 && !(await found()); step += 1) await press('Tab');
    expect(await found(), await focused()).toBe(true);
  };
  await tabTo(async () => (await focused()).includes('C port'));
  await press('Enter');
  await expect(page.getByLabel('Label of port 1')).toHaveValue('C1');
  // Enter in any field takes it in.
  await tabTo(() => page.evaluate(() => document.activeElement?.tagName === 'INPUT'));
  await press('Enter');
  await expect(page.getByRole('heading', { name: 'Claims' })).toBeVisible();
  await expect(page.getByLabel('A line as printed')).toBeFocused();
  await type('5V 3A / 20V 2.25A');
  await press('Enter');
  await expect(page.getByRole('list', { name: 'Claims' }).getByRole('listitem')).toHaveCount(2);
  await press('Alt+4');
  await expect(page.getByRole('heading', { name: 'Proof' })).toBeVisible();
  await expect(page.getByLabel('C1 5 V, no load, port volts')).toBeVisible();
  await press('Alt+g');
  await expect(page.getByLabel('C1 5 V, no load, port volts')).toBeFocused();
  await press('ArrowDown');
  for (const typed of ['4.97', '3.0']) {
    await type(typed);
    await press('Enter');
  }
  await expect(page.getByRole('complementary', { name: 'Ledger' })).toContainText('proven');
  test.info().annotations.push({ type: 'keys', description: String(keys) });
  expect(keys, 'keys from the box to the first judged claim').toBeLessThanOrEqual(MOST_KEYS);
});

test('a block from a spreadsheet is pasted over a grid, and a unit holds for its column', async ({ page }) => {
  const { id } = await freshSample(page, 'Pasted');
  await page.goto(`/samples/${id}/efficiency`);
  const grid = page.getByRole('table', { name: 'Readings at 230 V 50 Hz' });
  const first = page.getByLabel('230 V 50 Hz, 100 %, input watts');
  await first.focus();
  await first.evaluate((field, text) => {
    const data = new DataTransfer();
    data.setData('text', text);
    field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, '49.6\t0.68\t20.03\t2.25\r\n37.1\t0.65\t20.04\t1.6875\r\n');
  await expect(grid.getByRole('row', { name: /^100 %/ })).toContainText('90.8');
  await expect(grid.getByRole('row', { name: /^75 %/ })).toContainText('91.');
  await page.getByLabel('Unit of Output, A').or(grid.getByLabel('Unit of Output').nth(1)).first().selectOption('mA');
  await page.getByLabel('230 V 50 Hz, 50 %, C1 amps').fill('1125');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('230 V 50 Hz, 50 %, C1 amps')).toHaveValue('1125 mA');
  // To the left and right by arrows, once the caret stands at the end.
  await first.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByLabel('230 V 50 Hz, 100 %, power factor')).toBeFocused();
});
