// Electrical quality: what a verdict needs behind it, the surface, comparison, captures, a car's supply.
import { DEMO, demoSample, expect, follow, freshSample, test } from './bench.ts';
import { watchShifts, whatMoved } from './shifts.ts';

const EFFICIENCY = (id: string) => `/samples/${id}/efficiency`;

/** Type the four points of an average and light load for a fresh sample, by the API. */
async function measured(page: import('@playwright/test').Page, sample: { id: string; setupId: string }, eta = 0.9) {
  const { items } = (await (await page.request.get('/api/rigs')).json()) as { items: { id: string; name: string }[] };
  const rigId = items.find(({ name }) => name === 'Load bench')?.id;
  const ulid = (at: number) =>
    `01M8Z${String(Math.floor(Math.random() * 1e9)).padStart(9, '0')}${String(at).padStart(12, '0')}`;
  for (const [index, load] of [1, 0.75, 0.5, 0.25, 0.1].entries()) {
    const reading = (at: number, quantity: string, place: string, port: string | null, typed: string) => ({
      id: ulid(index * 10 + at),
      quantity,
      place,
      port,
      typed,
    });
    const answer = await page.request.post(`/api/samples/${sample.id}/readings`, {
      data: {
        points: [
          {
            id: ulid(index * 10),
            setupId: sample.setupId,
            mains: { kind: 'ac', volts: 230, hertz: 50 },
            load,
            attached: 'nothing',
            rigId,
            takenAt: `2026-11-02T09:0${index}:00.000Z`,
            readings: [
              reading(1, 'power', 'mains', null, ((45 * load) / eta).toFixed(4)),
              reading(2, 'voltage', 'port', 'C1', '20'),
              reading(3, 'current', 'port', 'C1', (2.25 * load).toFixed(4)),
            ],
          },
        ],
      },
    });
    expect(answer.status(), await answer.text()).toBe(201);
  }
}

test('a result nobody wrote down stays indicative; stated by the book it is a verdict, hurried it is not', async ({
  page,
}) => {
  const sample = await freshSample(page, 'By the book');
  await measured(page, sample);
  await page.goto(EFFICIENCY(sample.id));
  const main = page.getByRole('main');
  await expect(main).toContainText('Indicative: see Limit sets below.');
  await expect(main).toContainText('Warm-up is not recorded. 230 V 50 Hz');
  await expect(main).toContainText('Supply voltage, frequency, distortion not recorded.');
  const state = async (warmUp: string) => {
    await page.getByRole('button', { name: 'How it was taken' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Warmed up at 100 %, min').fill(warmUp);
    await dialog.getByLabel('Input was').click();
    await page.getByRole('option', { name: 'settled' }).click();
    await dialog.getByLabel('Watched for, min').fill('5');
    await dialog.getByLabel('Drift over that time, %').fill('0,4');
    await dialog.getByLabel('Supply as read, V').fill('230.3');
    await dialog.getByLabel('Frequency as read, Hz').fill('50');
    await dialog.getByLabel('Distortion of its voltage, %').fill('1.1');
    await dialog.getByRole('button', { name: 'State it' }).click();
    await expect(dialog).toBeHidden();
  };
  await state('30');
  await expect(main).toContainText(/provenEU 2019\/1782/);
  await expect(main).not.toContainText('Indicative: see Limit sets below.');
  await expect(main).not.toContainText('Warm-up is not recorded.');
  await state('12 min');
  await expect(main).toContainText('Warmed up 12 min; the procedure asks for 30 min. 230 V 50 Hz');
});

test('the class follows from the offers, and another needs a reason', async ({ page }) => {
  const sample = await freshSample(page, 'Class of its own');
  await measured(page, sample);
  await page.goto(EFFICIENCY(sample.id));
  const main = page.getByRole('main');
  await expect(main).toContainText('One voltage at a time, 20 V, 2.25 A: basic.');
  await page.getByRole('button', { name: 'Change the class' }).click();
  const asked = page.getByRole('group', { name: 'Nameplate class' });
  await asked.getByLabel('Judged as').click();
  await page.getByRole('option', { name: 'multiple-voltage' }).click();
  await expect(asked.getByRole('button', { name: 'Save' })).toBeDisabled();
  await asked.getByLabel('Why').fill('A second output sits behind the flap.');
  await asked.getByRole('button', { name: 'Save' }).click();
  await expect(main).toContainText(
    'Judged as multiple-voltage (derived: basic): A second output sits behind the flap.',
  );
  await expect(main).toContainText('≥ 84.65 %');
  // The class is no lock: the loading can still be changed, and keeps its reason.
  await page.getByRole('button', { name: 'Change the loading' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('C1 behind the flap');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await expect(main).toContainText('A second output sits behind the flap.');
});

test('what a complete result needs is one press away', async ({ page }) => {
  const sample = await freshSample(page, 'Two levels');
  for (const [volts, amps] of [
    [5, 3],
    [20, 2.25],
  ])
    await page.request.post(`/api/samples/${sample.id}/claims`, {
      data: {
        promise: { kind: 'port-line', port: 'C1', volts, amps },
        duration: { kind: 'unstated' },
        printed: 'label',
      },
    });
  await page.goto(EFFICIENCY(sample.id));
  await page.getByText('A complete result needs 3 more of 3 loadings').click();
  const row = page.getByRole('listitem').filter({ hasText: '2 A as US Level VI asks' });
  await row.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByLabel('Loading', { exact: true })).toContainText('C1 5 V 2 A');
  await expect(row.getByRole('button', { name: 'measure it' })).toBeVisible();
});

test('the surface shows every level and mains, as efficiency and as heat', async ({ page }) => {
  await page.goto(EFFICIENCY(await demoSample(page, DEMO.ember)));
  await page.getByRole('tab', { name: 'Surface' }).click();
  const table = page.getByRole('table', { name: 'Efficiency surface' });
  await expect(table.getByRole('row')).toHaveCount(7);
  await expect(page.getByRole('main')).toContainText(/Best 92\.\d.* at 50 % load, C1 20 V, 230 V 50 Hz/);
  const efficiency = await table.getByRole('row').nth(1).getByRole('cell').nth(6).textContent();
  await page.getByRole('button', { name: 'Loss, W' }).click();
  await expect(page.getByRole('main')).toContainText(/Most heat 4\.\d+ ± .* W at 100 % load/);
  await expect(table.getByRole('row').nth(1).getByRole('cell').nth(6)).not.toHaveText(efficiency ?? '');
});

test('two units are compared where conditions match, and what differs is said', async ({ page }) => {
  await page.goto(`${EFFICIENCY(await demoSample(page, DEMO.ember))}?view=compare`);
  const main = page.getByRole('main');
  await expect(main).toContainText('Not comparable. 100 % is 20 V 2.25 A for C1 20 V, 5 V 3 A for C1 5 V.');
  await page.getByRole('combobox', { name: /with the sample/ }).fill('0868');
  await page.getByRole('option', { name: /0868/ }).click();
  const table = page.getByRole('table', { name: 'Comparison' });
  await expect(table.getByRole('row').filter({ hasText: 'average of four' })).toContainText(/[−-]?0\.\d\d ± 0\.\d\d/);
  await expect(main).toContainText('Only Ember 45 TE-45-0117: C1 20 V was measured at 115 V 60 Hz.');
  await expect(main).toContainText('none of it is taken to cancel');
});

test('an idle record shows its bursts before it is kept, counts as a reading, and can be taken back', async ({
  page,
}) => {
  const sample = await freshSample(page, 'Bursts');
  let come: () => void = () => undefined;
  const may = new Promise<void>((resolve) => {
    come = resolve;
  });
  await page.route('**/assets/CaptureChart*.js', async (route) => {
    await may;
    await route.continue();
  });
  await page.goto(`/samples/${sample.id}/idle`);
  await page.getByRole('button', { name: 'Take in a capture' }).click();
  const dialog = page.getByRole('dialog');
  const file = (name: string, lines: readonly string[]) =>
    dialog
      .getByLabel('Capture file')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
  const lines = Array.from(
    { length: 1300 },
    (_, at) => `${(at * 0.5).toFixed(1).replace('.', ',')};${at % 40 < 2 ? '0,6' : '0,03'}`,
  );
  await file('broken.csv', ['time [s];power [W]', ...lines.slice(0, 20), '10;lots', ...lines.slice(21)]);
  await expect(dialog).toContainText('Line 22: "lots" under "power" is no number.');
  await expect(dialog.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await file('idle.csv', ['time [s];power [W]', ...lines]);
  await expect(dialog).toContainText(
    /idle\.csv: 1300 samples\. 58\.\d+ mW on average: 30 mW between 33 bursts of 600 mW, one every 20 s\./,
  );
  // The picture comes after the words, and moves nothing: a press on its way meets what it was meant for.
  const keep = dialog.getByRole('button', { name: 'Keep' });
  const before = await keep.boundingBox();
  come();
  await expect(dialog.getByRole('button', { name: 'Save as PNG' })).toBeVisible();
  expect((await keep.boundingBox())?.y).toBe(before?.y);
  await keep.click();
  await expect(dialog).toBeHidden();
  const main = page.getByRole('main');
  await expect(main).toContainText('between 33 bursts of 600 mW');
  await expect(
    main
      .getByLabel('230 V 50 Hz, nothing attached, energy')
      .or(main.getByLabel('115 V 60 Hz, nothing attached, energy'))
      .first(),
  ).toHaveValue(/\d J/);
  await main.getByRole('button', { name: 'Show' }).click();
  await expect(main.getByRole('img', { name: /idle power over time/ })).toBeVisible();
  await main.getByRole('button', { name: 'Take back' }).click();
  await expect(main).toContainText('None yet. A record of idle power shows its bursts');
});

test('pictures that come late move nothing that stands there', async ({ page }) => {
  await watchShifts(page);
  let come: () => void = () => undefined;
  await page.route(/\/assets\/[A-Za-z]+(Chart|Bars|Map)-/, async (route) => {
    await may;
    await route.continue();
  });
  let may: Promise<void>;
  for (const [serial, station] of [
    [DEMO.trio, 'heat'],
    [DEMO.monolith, 'ripple'],
    [DEMO.monolith, 'read-out'],
    [DEMO.quad, 'proof'],
  ] as const) {
    may = new Promise((resolve) => {
      come = resolve;
    });
    await page.goto(`/samples/${await demoSample(page, serial)}/${station}`);
    const waiting = page.getByRole('main').getByRole('status', { name: /^Loading the (chart|soak|map)/ });
    await expect(waiting.first(), station).toBeAttached();
    await expect(page.getByRole('navigation', { name: 'Spine' }).getByRole('link', { name: /^Verdict/ })).toBeVisible();
    come();
    await expect(page.getByRole('main').getByRole('button', { name: 'Save as PNG' }).first()).toBeVisible();
    await expect(waiting).toHaveCount(0);
    expect(await whatMoved(page), station).toEqual([]);
  }
});

test('a trace that cannot be had keeps its room, says why, and is asked for again', async ({ page }) => {
  let lost = true;
  const detail = 'Its samples cannot be read just now.';
  const problem = { type: 'about:blank', title: 'Conflict', status: 409, detail };
  await page.route(/\/captures\/[^/]+\/trace\?/, (route) =>
    lost ? route.fulfill({ status: 409, json: problem }) : route.continue(),
  );
  await watchShifts(page);
  await page.goto(`/samples/${await demoSample(page, DEMO.monolith)}/ripple`);
  const main = page.getByRole('main');
  await expect(main.getByText(`Could not load the trace. ${detail}`)).toBeVisible();
  await expect(main.getByRole('table').first()).toBeVisible();
  lost = false;
  await main.getByRole('button', { name: 'Try again' }).click();
  await expect(main.getByRole('button', { name: 'Save as PNG' })).toHaveCount(2);
  expect(await whatMoved(page)).toEqual([]);
  // Of a stretch only its picture is lost: the way back stays.
  lost = true;
  await main.getByRole('button', { name: 'Closer' }).click();
  await expect(main.getByText(`Could not load the stretch. ${detail}`)).toBeVisible();
  await main.getByRole('button', { name: 'All of it' }).click();
  await expect(main.getByRole('img', { name: /by frequency/ })).toBeVisible();
  await expect(main.getByRole('button', { name: 'Save as PNG' })).toHaveCount(2);
});

test('where correction wakes up is told, and a room of chargers in volt-amperes', async ({ page }) => {
  await page.goto(`${EFFICIENCY(await demoSample(page, DEMO.monolith))}?view=mains`);
  const main = page.getByRole('main');
  await expect(main).toContainText('Correction wakes up between 50 % and 75 % load');
  await expect(main).toContainText(/A peak, over within/);
  const room = page.getByRole('region', { name: 'A room of them' });
  await room.getByLabel('Chargers').fill('many');
  await expect(room).toContainText('Give numbers.');
  await room.getByLabel('Chargers').fill('31');
  await expect(room).toContainText(/\d+ W, yet \d+ VA and \d+\.\d A: \d+ % of 16 A\./);
  await expect(room).toContainText('follows local codes');
  await main.getByRole('button', { name: 'Show' }).nth(2).click();
  await expect(main.getByRole('img', { name: /Harmonics of the mains current: third \d+ %/ })).toBeVisible();
});

test('a car charger is read from the lowest supply to the highest, without a power factor', async ({ page }) => {
  await page.goto(EFFICIENCY(await demoSample(page, DEMO.shuttle)));
  await page.getByRole('tab', { name: 'Supply' }).click();
  const main = page.getByRole('main');
  await expect(main.getByRole('columnheader', { name: 'PF' })).toHaveCount(0);
  await expect(main).toContainText('Output goes at 9.3 V and comes back at 10.7 V.');
  await expect(main).toContainText('Output gone: it fell from 20.02 V to 0 V and came back.');
  await main.getByRole('button', { name: '24 V vehicle' }).click();
  const input = main.getByLabel('32 V DC, 100 %, input watts');
  await input.fill('65.2');
  await input.press('Enter');
  for (const [name, typed] of [
    ['C1 volts', '20.02'],
    ['C1 amps', '3'],
  ]) {
    await main.getByLabel(`32 V DC, 100 %, ${name}`).fill(typed ?? '');
    await main.getByLabel(`32 V DC, 100 %, ${name}`).press('Enter');
  }
  await expect(main).toContainText(/92\.1\d ± 0\.\d+ %/);
  await follow(page, `/samples/${await demoSample(page, DEMO.shuttle)}/idle`);
  await expect(page.getByRole('region', { name: 'In use' })).toContainText(/\d+ mA: down to 50 % in \d+ days/);
});

test('the sources of an uncertainty are listed for average, point and idle, with what would help', async ({ page }) => {
  await page.goto(EFFICIENCY(await demoSample(page, DEMO.ember)));
  await page.getByText('Where the uncertainty comes from').click();
  const main = page.getByRole('main');
  await expect(main).toContainText('Average, 115 V 60 Hz');
  await expect(main).toContainText(
    /U 0\.\d\d percentage points\. A meter twice as good for input watts would make it \d+ % smaller\./,
  );
  await follow(page, `/samples/${await demoSample(page, DEMO.ember)}/idle`);
  await page.getByText('Where the uncertainty comes from').click();
  await expect(main).toContainText(/U \d\.\d+ mW\. A meter twice as good for input watts/);
});
