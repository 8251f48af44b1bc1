// Comparison: a set with its rule, like with like, who is first, weights, units, one's own measure, and the shelf filed.
import { expect, freshSample, test } from './bench.ts';
import { findings } from './findings.ts';

test('the demo’s set says who fell out, marks a sample by keyboard, and calls only what is first beyond uncertainty', async ({
  page,
}) => {
  await page.goto('/compare');
  await page.getByRole('link', { name: 'Wall chargers for the huts' }).click();
  await expect(page.getByText(/^\d+ samples/).first()).toBeVisible();
  // Figures of a fresh shelf come one by one.
  await expect(page.getByText('being worked out')).toHaveCount(0);
  await page.getByText(/outside, and why/).click();
  await expect(page.getByRole('list', { name: 'Outside' })).toContainText('desktop, and the set takes wall');
  await expect(page.getByRole('list', { name: 'Outside' })).toContainText(
    'another unit of its model stands in the set',
  );
  const picture = page.getByRole('application');
  await picture.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('figure')).toContainText('Gravelin Shard 65, GS-6502: Mass per watt 1.292 g/W');
  const drawn = () => picture.locator('canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const before = await drawn();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('figure')).toContainText('Solo 65');
  // The ring goes with it.
  await expect.poll(drawn).not.toBe(before);
  await page.getByRole('button', { name: 'Numbers' }).click();
  await expect(page.getByRole('table', { name: /^Numbers of/ })).toContainText('true');

  await page.getByRole('button', { name: 'First', exact: true }).click();
  const firsts = page.getByRole('list', { name: 'Firsts' });
  await expect(firsts).toContainText('▲ First: Gravelin Shard 65, GS-6502 1.292 g/W');
  await expect(firsts).toContainText(/≈ .* 100 %, level with/);
  const average = firsts.getByRole('listitem').filter({ hasText: 'Average efficiency' });
  await average.getByText('Before').click();
  await expect(average).toContainText('ousted Ossory Bay Reef 65, OB-65-0007');

  await page.getByRole('button', { name: 'Strips', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Strips' })).toContainText(/2 of \d+, ahead of \d+ %/);
  expect(await findings(page)).toEqual([]);
});

test('weights make an order that says how easily it turns, and one unit of a lot is told from its model', async ({
  page,
}) => {
  await page.goto('/compare');
  await page.getByRole('link', { name: 'Wall chargers for the huts' }).click();
  await page.getByRole('button', { name: 'Weights', exact: true }).click();
  const ranking = page.getByRole('region', { name: 'Ranking' });
  await expect(ranking).toContainText(/First: Quernstone Lark 65/);
  await expect(ranking).toContainText(/rather than 10 % makes .* first/);
  const mass = page.getByRole('slider', { name: 'Mass per watt' });
  await mass.focus();
  for (let step = 0; step < 8; step += 1) await page.keyboard.press('ArrowRight');
  await expect(ranking).not.toContainText(/First: Quernstone Lark 65/);
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toBeEnabled();

  await page.goto('/compare');
  await page.getByRole('link', { name: '45 W, unit by unit' }).click();
  await page.getByRole('button', { name: 'Units', exact: true }).click();
  const units = page.getByRole('list', { name: 'Units' });
  await expect(units).toContainText('▼ Pellwick Duo 45, PD-2505 is not like the others');
  await expect(units).toContainText('F1 2518');
  await page.getByRole('button', { name: 'One against one', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Differences' })).toContainText('Average efficiency');
  await page.getByRole('button', { name: 'Kit', exact: true }).click();
  for (const [field, sample] of [
    ['What there is', 'PD-2501'],
    ['What there is', 'PD-2502'],
    ['What would replace it', 'QL-45-12'],
  ] as const) {
    await page.getByLabel(field).fill(sample);
    await page.getByRole('option', { name: new RegExp(sample) }).click();
  }
  await expect(page.getByRole('table', { name: 'The kit' })).toContainText('184 g');
  await expect(page.getByText('The one is lighter and draws less.')).toBeVisible();
  const evening = page.getByRole('table', { name: 'An evening with either' });
  await expect(evening).toContainText(/full in \d+\.\d h/);
  // One port serves one device at a time.
  await expect(evening).toContainText('waits for a port');
  await page.getByRole('button', { name: 'Table', exact: true }).click();
  await page.getByLabel('Idle to').fill('60');
  await expect(page.getByText(/^\d+ of \d+ samples$/)).toBeVisible();
  await page.getByLabel('Group by').click();
  await page.getByRole('option', { name: 'maker' }).click();
  const table = page.getByRole('table', { name: 'Samples of the set' });
  await expect(table).toContainText('Pellwick: ');
  const heads = table.getByRole('columnheader');
  const columns = await heads.count();
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('menuitemcheckbox', { name: /^Average efficiency/ }).click();
  await page.getByRole('menuitemradio', { name: 'Keep Idle beside the names' }).click();
  await page.keyboard.press('Escape');
  await expect(heads).toHaveCount(columns - 1);
  await expect(heads.nth(1)).toContainText('Idle');

  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByLabel('Hold to a range').click();
  await page.getByRole('option', { name: 'Idle, mW' }).click();
  const to = page.getByRole('slider', { name: 'Idle to' });
  await to.focus();
  await page.keyboard.press('Home');
  await expect(page.getByText(/^[1-9]\d* of \d+ samples$/)).toBeVisible();
  await page.getByLabel('Up', { exact: true }).click();
  await page.getByRole('option', { name: 'every measure' }).click();
  const panels = page.getByRole('list', { name: /^Every measure against / });
  await expect(panels.getByRole('listitem')).not.toHaveCount(0);
  expect(await findings(page)).toEqual([]);
  await panels.getByRole('button', { name: /^Average efficiency: / }).click();
  await expect(page.getByRole('figure')).toContainText('Average efficiency against');
});

test('samples are selected, labelled and compared, an own measure is held to its units, and all of it is kept', async ({
  page,
}) => {
  const [one, two] = [await freshSample(page, 'Paired A'), await freshSample(page, 'Paired B')];
  await page.goto('/?q=Paired');
  await page.getByRole('button', { name: 'Select several' }).click();
  const rows = page.getByRole('table', { name: 'Samples' });
  await rows.getByRole('button', { name: /Paired A/ }).click();
  await rows.getByRole('button', { name: /Paired B/ }).click();
  const bar = page.getByRole('region', { name: 'Selected' });
  await expect(bar).toContainText('2 samples');
  await bar.getByLabel('Label').fill('trial shelf');
  await bar.getByRole('button', { name: 'Add label' }).click();
  await expect(rows.getByRole('button', { name: 'All labelled trial shelf' })).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows.getByRole('button', { name: 'All labelled trial shelf' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Keep this search' }).click();
  await expect(page.getByRole('group', { name: 'Kept searches' })).toContainText('Paired');
  await bar.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing on the shelf matches' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toContainText('Paired A');
  await bar.getByRole('button', { name: 'Compare them' }).click();
  await expect(page.getByText('2 picked by hand')).toBeVisible();

  await page.getByRole('button', { name: 'Set and measures' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Title').fill('Two of a pair');
  await dialog.getByLabel('Own measure').fill('Twice the ports');
  await dialog.getByLabel('Formula').fill('mass + ports');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(dialog).toContainText('Its units do not fit');
  await dialog.getByLabel('Formula').fill('2 × ports');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(dialog.getByRole('button', { name: 'Remove Twice the ports' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Take over' }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Two of a pair is kept with 2 samples.')).toBeVisible();
  await page.getByRole('button', { name: 'Table', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Samples of the set' })).toContainText('Twice the ports');
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Two of a pair' })).toBeVisible();
  expect([one.id, two.id].every((id) => id.length === 26)).toBe(true);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('group', { name: 'Remove' })).toContainText('its samples stay');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page).toHaveURL(/\/compare$/);
  await expect(page.getByRole('main')).not.toContainText('Two of a pair');
});
