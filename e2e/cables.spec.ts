// Cables and trials, as somebody at the bench goes about them.
import type { Page } from '@playwright/test';
import { expect, follow, test } from './bench.ts';
import { findings, WCAG } from './findings.ts';

test('a cable is taken in, its marker read, drops typed and pasted, and bent: each says what it comes to', async ({
  page,
}) => {
  await page.goto('/samples/new');
  await page.getByLabel('Maker').fill('Quernstone');
  await page.getByLabel('Model').fill('Journey Rope');
  await page.getByLabel('Kind').click();
  await page.getByRole('option', { name: 'cable' }).click();
  await expect(page.getByText('Ports, in physical order')).toHaveCount(0);
  await page.getByLabel('Length, m').fill('1,5');
  await page.getByLabel('Braided').check();
  await page.getByRole('button', { name: 'Take in, then claims' }).click();
  await expect(page.getByRole('navigation', { name: 'Spine' })).toContainText('Quernstone Journey Rope');
  await expect(page.getByRole('img', { name: 'C plug to C plug, 1.5 m, braided' })).toBeVisible();
  const spine = page.getByRole('navigation', { name: 'Spine' });

  await spine.getByRole('link', { name: /^Claims/ }).click();
  await page.getByLabel('A line as printed').fill('240 W, 480 Mbps');
  await page.keyboard.press('Enter');
  const claims = page.getByRole('list', { name: 'Claims' });
  await expect(claims).toContainText('Carries 240 W: 5 A at 48 V');
  await page.getByLabel('A line as printed').fill('8000 bends');
  await page.keyboard.press('Enter');
  await expect(claims).toContainText('8000 bends');

  await spine.getByRole('link', { name: /^Marker/ }).click();
  await page.getByRole('button', { name: 'Enter its marker', exact: true }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What there is').click();
  await page.getByRole('option', { name: 'nothing answered' }).click();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText(
    '5 A, 240 W (label) is printed, and no marker answers',
  );
  await expect(page.getByRole('table', { name: 'Chargers it holds back' })).toContainText('Monolith 180');

  // Read again at the other end by form: a marker is there after all.
  await page.getByRole('button', { name: 'Enter the marker at the device' }).click();
  await dialog.getByLabel('What there is').click();
  await page.getByRole('option', { name: 'a form' }).click();
  await dialog.getByLabel('Highest voltage').click();
  await page.getByRole('option', { name: '50 V' }).click();
  await dialog.getByLabel('EPR capable').click();
  await page.getByRole('option', { name: 'yes' }).click();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('main')).toContainText('240 W: 5 A at 48 V');
  await expect(page.getByRole('list', { name: 'Findings' })).toHaveCount(0);

  await spine.getByRole('link', { name: /^Resistance/ }).click();
  await page.getByRole('button', { name: 'Enter drops' }).first().click();
  await dialog.getByLabel('Rig').click();
  await page.getByRole('option', { name: 'Load bench' }).click();
  await dialog.getByLabel('Cable, °C').fill('23');
  for (const [at, millivolts] of [0.4, 118.9, 356.1, 593.4].entries())
    await dialog.getByLabel(`Drop ${at + 1}, mV`).fill(String(millivolts));
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('main')).toContainText(/11[89](\.\d+)? ± [\d.]+ mΩ there and back/);
  await expect(page.getByRole('table', { name: 'What it means for a device' })).toContainText('Warden’s laptop');

  await page.getByRole('button', { name: 'Enter drops' }).click();
  await dialog.getByRole('button', { name: 'Paste a table' }).click();
  await dialog.getByLabel('Table of drops').fill('current_A;drop_mV\n1;abc');
  await expect(dialog).toContainText('Line 2: its drop is no number.');
  await dialog.getByLabel('Table of drops').fill('current_A;near_V;far_V\n1;20;19,9');
  await expect(dialog).toContainText('The table has the volts at both ends: choose “two meters”.');
  await expect(dialog.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await dialog
    .getByLabel('Table of drops')
    .fill('current_A;drop_mV;temp_C\n0;0,4;23\n1;121,2;23\n3;362,8;23\n5;604,1;23');
  await expect(dialog).toContainText('4 readings up to 5 A.');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('table', { name: /^Drop at 5 A/ })).toContainText('2 ×');

  await spine.getByRole('link', { name: /^Bends/ }).click();
  await page.getByRole('button', { name: 'Enter a look' }).click();
  await expect(dialog.getByLabel('Bends altogether')).toHaveValue('2000');
  await dialog.getByLabel('Bends altogether').fill('2.5');
  await expect(dialog).toContainText('A whole number, as 2000.');
  await expect(dialog.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await dialog.getByLabel('Bends altogether').fill('2000');
  const log = dialog.getByLabel('Logged while it was wiggled, at 5 V');
  await log.fill('time_s;volts\n0;5.02\n1;loose');
  await expect(dialog).toContainText('Line 3: "loose" under "volts" is no number.');
  await log.fill(
    ['time_s;volts', ...Array.from({ length: 40 }, (_, at) => `${at / 10};${at > 9 && at < 14 ? 0.02 : 5.02}`)].join(
      '\n',
    ),
  );
  await expect(dialog).toContainText('1 interruption in 3.9 s, the longest 0.4 s.');
  await dialog.getByLabel('What is wrong').click();
  await page.getByRole('option', { name: 'open', exact: true }).click();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('main')).toContainText('Failed by 2000 bends: open');
  await expect(page.getByRole('img', { name: 'Wiggled: 1 interruption in 3.9 s, the longest 0.4 s' })).toBeVisible();
  await page.getByRole('button', { name: /^Take back 2000 bends/ }).click();
  await expect(page.getByRole('main')).toContainText('0 of 10000 bends');
});

test('copies are typed all at once, and what a host calls the link counts', async ({ page }) => {
  const answer = await page.request.get('/api/samples?q=PL3-0440');
  const { items } = (await answer.json()) as { items: { id: string }[] };
  const created = await page.request.post(`/api/samples/${items[0]?.id}/units`, {
    data: { unit: { revision: '', serial: 'PL3-J', dateCode: '', obtained: 'bought', disclosure: '', notes: '' } },
  });
  const { id } = (await created.json()) as { id: string };
  await page.goto(`/samples/${id}/data`);
  await page.getByRole('button', { name: 'Enter copies' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Size, GB').fill('2 GB');
  await dialog.getByLabel('Times, s; one a copy').fill('50.1 51.3 0:52');
  await expect(dialog).toContainText('39.9 MB/s · 39 MB/s · 38.5 MB/s');
  await dialog.getByLabel('Computer, drive and ports').fill('bench laptop');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  const copies = page.getByRole('table', { name: 'Copies', exact: true });
  await expect(copies).toContainText('3 copies');
  await expect(copies).toContainText('480 Mbit/s at least');

  await page.getByRole('button', { name: 'Paste a table' }).click();
  await dialog.getByLabel('Table of copies', { exact: true }).fill('direction;size_GB;time_s\nread;2;soon');
  await expect(dialog).toContainText('Line 2: “soon” is no time.');
  await dialog.getByLabel('Table of copies', { exact: true }).fill('direction;size_GB;time_s\nread;2;40\nread;2;41,5');
  await expect(dialog).toContainText('2 copies.');
  await dialog.getByLabel('Computer, drive and ports, where it does not say').fill('bench laptop');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(copies).toContainText(/from the device\s*bench laptop\s*49\.1 MB\/s/);
});

test('a sheet of a cable reads it in three pluggings, and a station of chargers says that it is none of a cable’s', async ({
  page,
}) => {
  const { items } = (await (await page.request.get('/api/samples?q=GT240-0093')).json()) as { items: { id: string }[] };
  const id = items[0]?.id ?? '';
  await page.goto(`/samples/${id}/efficiency`);
  await expect(page.getByRole('heading', { name: 'Efficiency' })).toBeVisible();
  await expect(page.getByText('This sits in the line: only chargers have it.')).toBeVisible();
  const rig = await page.request.post('/api/rigs', { data: await bothEnds(page) });
  const rigId = ((await rig.json()) as { id: string }).id;
  const made = await page.request.post(`/api/samples/${id}/run-sheets`, { data: { methodId: 'line', rigId } });
  const sheet = (await made.json()) as { id: string };
  await follow(page, `/run-sheets/${sheet.id}`);
  const steps = page.getByRole('list', { name: 'Steps' });
  await expect(steps.getByText('Drop up to 5 A, plugged in again')).toHaveCount(2);
  await page.getByRole('button', { name: 'Add a step' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What', { exact: true }).click();
  await expect(page.getByRole('option')).toHaveText([
    'Rig check',
    'Read-out',
    'Cool down',
    'Resistance',
    'Bends',
    'By hand',
  ]);
  await page.getByRole('option', { name: 'Bends' }).click();
  await dialog.getByLabel('Bends altogether at its end').fill('2000');
  await dialog.getByRole('button', { name: 'Add' }).click();
  await expect(steps.getByText('Bend to 2000, then look at it')).toBeVisible();
});

test('a trial is planned, run in the drawn order, refuses a second change, and concludes', async ({ page }) => {
  await page.goto('/trials');
  await page.getByRole('button', { name: 'Plan a trial' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Question').fill('Does the journey’s blue plug charge quicker?');
  await dialog.getByLabel('What is changed', { exact: true }).fill('plug');
  await dialog.getByLabel('plug 1').fill('blue');
  await dialog.getByLabel('plug 2').fill('grey');
  await dialog.getByLabel('What is held, a line each').fill('port: C1');
  await dialog.getByLabel('Difference that matters').fill('1');
  await dialog.getByLabel('Spread of the differences').fill('1');
  await expect(dialog).toContainText('it takes 10 pairs');
  await dialog.getByLabel('Pairs').fill('3');
  await expect(dialog).toContainText('3 may miss it');
  await dialog.getByLabel('Blind').click();
  await page.getByRole('option', { name: 'yes' }).click();
  await dialog.getByRole('button', { name: 'Plan it' }).click();
  const next = page.getByRole('region', { name: 'Next run' });
  await expect(next).toContainText('Run 1 of 6, pair 1');
  await expect(next).not.toContainText('blue');
  // Before anything was run it may be removed, which is asked.
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('group', { name: 'Remove' })).toContainText(
    'The plan goes, with the order that was drawn.',
  );
  await page.getByRole('button', { name: 'Keep it' }).click();

  // Another port than is held: refused with the reason, and what was typed stays.
  await next.getByLabel('time to 50 %, min').fill('40.2');
  await next.getByLabel('port').fill('C2');
  await next.getByRole('button', { name: 'Keep' }).click();
  await expect(next.getByRole('alert')).toContainText('“port” was C2, and the trial holds it at C1');
  await expect(next.getByLabel('time to 50 %, min')).toHaveValue('40.2');
  await next.getByLabel('port').fill('C1');
  await next.getByRole('button', { name: 'Keep' }).click();
  for (const [at, minutes] of ['41.1', '40.6', '41.9', '40.1', '41.4'].entries()) {
    await expect(next).toContainText(`Run ${at + 2} of 6`);
    await next.getByLabel('time to 50 %, min').fill(minutes);
    await page.keyboard.press('Enter');
  }
  await expect(next).toHaveCount(0);
  const says = page.getByRole('region', { name: 'What it says' });
  await expect(says).toContainText(/“[AB]”.*“[AB]”/);
  await page.getByRole('button', { name: 'Open the letters' }).click();
  await expect(says).toContainText(/“(blue|grey)”.*“(blue|grey)”/);
  await expect(page.getByRole('main')).toContainText(/Run blind: A was (blue|grey), B was (blue|grey)\./);
  expect(await findings(page, { tags: WCAG, every: true })).toEqual([]);
});

test('a finished trial and a table under way stand in the demo, and at the cables they compare', async ({ page }) => {
  await page.goto('/trials');
  await page.getByRole('link', { name: 'Does the braided cable charge quicker?' }).click();
  await expect(page.getByRole('region', { name: 'What it says' })).toContainText('No difference larger than');
  await page.goBack();
  await page.getByRole('link', { name: 'Cable, device or port: what makes the difference?' }).click();
  await expect(page.getByRole('region', { name: 'What it says' })).toContainText(
    /Port explains \d\d ± \d+ % of what differs/,
  );
  await expect(page.getByRole('region', { name: 'Next run' })).toContainText('Run 28 of 36');
  const { items } = (await (await page.request.get('/api/samples?q=QH-7715')).json()) as { items: { id: string }[] };
  await follow(page, `/samples/${items[0]?.id}/verdict`);
  await expect(page.getByRole('region', { name: 'Trials' })).toContainText('No difference larger than');
});

/** A rig with a load that runs by itself and a voltmeter at either end. */
async function bothEnds(page: Page): Promise<object> {
  const { items } = (await (await page.request.get('/api/rigs')).json()) as { items: Record<string, unknown>[] };
  const { id: _id, version: _version, meters, ...rest } = items.find(({ name }) => name === 'Load bench') ?? {};
  const { outputVolts, ...others } = meters as Record<string, string>;
  return {
    ...rest,
    name: 'Journey bench, both ends',
    outputPlace: 'port',
    meters: { ...others, outputVolts, loadEnd: outputVolts },
    drives: { source: null, load: outputVolts, thermometer: null, analyser: null, scope: null },
  };
}
