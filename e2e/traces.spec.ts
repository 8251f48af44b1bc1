// Ripple and heat: records taken in from files of other dialects, read off by eye, zoomed, judged and taken back.
import { expect, freshSample, test } from './bench.ts';

/** A scope's file: an index, its interval above, millivolts and decimal commas. */
const rippleFile = (): Buffer => {
  const rows = Array.from({ length: 100_000 }, (_, at) => {
    const t = at * 2e-6;
    const value = 12 * Math.sin(2 * Math.PI * 100 * t) + 4 * Math.sin(2 * Math.PI * 90e3 * t);
    return `${at};${value.toFixed(4).replace('.', ',')}`;
  });
  return Buffer.from(`Sample Interval;2,0E-6;s\nBandwidth;20 MHz\n\nIndex;CH1\n;mV\n${rows.join('\n')}\n`);
};

/** An hour of a logger that throttles at forty minutes. */
const soakFile = (): Buffer => {
  let celsius = 24;
  const rows = Array.from({ length: 361 }, (_, at) => {
    const watts = at < 240 ? 45 : 36;
    const row = `${at * 10},${celsius.toFixed(2)},24.0,${watts},20.0`;
    celsius += ((24 + watts * 0.8 - celsius) / 700) * 10;
    return row;
  });
  return Buffer.from(`time [s],front [°C],ambient [°C],output [W],volts [V]\n${rows.join('\n')}\n`);
};

test('ripple comes from a scope’s file, settles a claim, and is zoomed down to its switching', async ({ page }) => {
  const sample = await freshSample(page, 'Ripple by file');
  const claim = await page.request.post(`/api/samples/${sample.id}/claims`, {
    data: { promise: { kind: 'ripple', volts: 0.02, mains: null }, duration: { kind: 'unstated' }, printed: 'box' },
  });
  expect(claim.status(), await claim.text()).toBe(201);
  await page.goto(`/samples/${sample.id}/ripple`);
  const main = page.getByRole('main');
  await main.getByRole('button', { name: 'Take in a record' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Levels and loads').fill('C1 20 V 2,25 A');
  await dialog.getByLabel('Supply').click();
  await page.getByRole('option', { name: '230 V 50 Hz' }).click();
  await dialog
    .getByLabel('File of ripple of an output')
    .setInputFiles({ name: 'scope.csv', mimeType: 'text/csv', buffer: rippleFile() });
  await expect(dialog.getByText(/100000 samples.*strongest 24 mV at 100 Hz, mains/)).toBeVisible();
  await expect(dialog.getByText(/peak to peak may be understated/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(main.getByText(/^32\.0 mV peak to peak/)).toBeVisible();
  await expect(main.getByRole('img', { name: /100 Hz, mains, 24\.0 mV; 90 kHz, switching, 8\.00 mV/ })).toBeVisible();
  const view = main.getByRole('group', { name: /arrows move, plus and minus zoom/ });
  await view.focus();
  for (let at = 0; at < 5; at += 1) await page.keyboard.press('+');
  // From 200 ms to 195 µs: the mains are gone, the switching is left.
  await expect(main.getByRole('img', { name: /by frequency\. 90 kHz, switching/ })).toBeVisible();
  // Of a few samples there is no spectrum, and no trying again helps.
  await page.keyboard.press('+');
  await expect(main.getByText('Fewer than 64 samples: no spectrum can be made of them. Go wider.')).toBeVisible();
  await expect(main.getByRole('button', { name: 'Try again' })).toHaveCount(0);
  await page.keyboard.press('0');
  await expect(main.getByRole('button', { name: 'All of it' })).toBeDisabled();
  // With the pointer: dragged over a tenth, then back out with the wheel.
  const picture = view.locator('canvas').first();
  const { x, y, width } = (await picture.boundingBox()) ?? { x: 0, y: 0, width: 0 };
  await page.mouse.move(x + width * 0.5, y + 80);
  await page.mouse.down();
  await page.mouse.move(x + width * 0.55, y + 90);
  await page.mouse.move(x + width * 0.6, y + 80);
  await page.mouse.up();
  await expect(main.getByRole('button', { name: 'All of it' })).toBeEnabled();
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, 4000);
  await page.mouse.wheel(0, 4000);
  await page.keyboard.up('Control');
  // Turns that come between two pictures count each: two closer and two wider end where they began.
  await expect(main.getByRole('button', { name: 'All of it' })).toBeDisabled();
  await picture.evaluate(
    (canvas, clientX) => {
      for (const deltaY of [-400, -400, 400, 400])
        canvas.dispatchEvent(
          new WheelEvent('wheel', { bubbles: true, cancelable: true, ctrlKey: true, clientX, deltaY }),
        );
    },
    x + width * 0.5,
  );
  await expect(main.getByRole('button', { name: 'All of it' })).toBeDisabled();
  // A record of another sample beside it: there is none but of the demo.
  await main.getByLabel('Beside it').click();
  await page.getByRole('option', { name: 'a record of another sample' }).click();
  await main.getByLabel('Sample', { exact: true }).fill('Monolith');
  await page.getByRole('option', { name: /Monolith 180/ }).click();
  await main.getByLabel('Its record').click();
  await page.getByRole('option', { name: /C1 20 V 5 A, 230 V/ }).click();
  await expect(main.getByText(/by frequency; dashed: Ossory Bay Monolith 180.*C1 20 V 5 A/)).toBeVisible();
  await page.goto(`/samples/${sample.id}/verdict`);
  await expect(main.getByRole('list', { name: 'Sentences' })).toContainText(
    'Ripple below 20 mV cannot be decided: 31.98 ± ? mV against at most 20 mV',
  );
});

test('of several channels of a scope only the one that counts is kept', async ({ page }) => {
  const rows = Array.from({ length: 5000 }, (_, at) => {
    const t = at * 2e-5;
    return `${t.toFixed(6)},${(325 * Math.sin(2 * Math.PI * 50 * t)).toFixed(1)},${(20 * Math.sin(2 * Math.PI * 100 * t)).toFixed(3)}`;
  });
  const sample = await freshSample(page, 'Ripple on the second channel');
  await page.goto(`/samples/${sample.id}/ripple`);
  const main = page.getByRole('main');
  await main.getByRole('button', { name: 'Take in a record' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Levels and loads').fill('C1 20 V 2.25 A');
  await dialog.getByLabel('File of ripple of an output').setInputFiles({
    name: 'two.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`Time [s],CH1 [V],CH2 [mV]\n${rows.join('\n')}\n`),
  });
  await expect(dialog.getByText('Several columns of volts: “CH1” is used, not “CH2”.')).toBeVisible();
  await dialog.getByLabel('Columns read').click();
  await page.getByRole('option', { name: 'CH1' }).click();
  await page.getByRole('option', { name: 'CH2' }).click();
  await page.keyboard.press('Escape');
  await expect(dialog.getByText('No column is left: choose one.')).toBeVisible();
  await dialog.getByLabel('Columns read').click();
  await page.getByRole('option', { name: 'CH2' }).click();
  await page.keyboard.press('Escape');
  await expect(dialog.getByText(/5000 samples.*strongest 40 mV at 100 Hz/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(main.getByText(/^40\.0 mV peak to peak/)).toBeVisible();
});

test('ripple read off by eye claims its peak to peak only; what is wrong is said, and nothing typed is lost', async ({
  page,
}) => {
  const sample = await freshSample(page, 'Ripple by eye');
  await page.goto(`/samples/${sample.id}/ripple`);
  const main = page.getByRole('main');
  await main.getByRole('button', { name: 'Take in a record' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Levels and loads').fill('C7 20 V');
  await dialog.getByLabel('Or by eye, with mV').fill('45 mV');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog.getByText('There is no port “C7”. Its ports are C1.').first()).toBeVisible();
  await expect(dialog.getByLabel('Or by eye, with mV')).toHaveValue('45 mV');
  await dialog.getByLabel('Levels and loads').fill('C1 20 V');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  const row = main.getByRole('row', { name: /C1 20 V no load/ });
  await expect(row).toContainText('45.0');
  await row.getByRole('button', { name: /^Take back/ }).click();
  await expect(row).toHaveCount(0);

  // Binary samples ask for their description, and are read once it is there.
  await main.getByRole('button', { name: 'Take in a record' }).first().click();
  await dialog.getByLabel('Levels and loads').fill('C1 20 V');
  await dialog.getByLabel('Supply').click();
  await page.getByRole('option', { name: '230 V 50 Hz' }).click();
  const samples = Int16Array.from({ length: 40_000 }, (_, at) => 1500 * Math.sin((2 * Math.PI * at) / 1000));
  const files = dialog.getByLabel('File of ripple of an output');
  await files.setInputFiles({ name: 'ripple.bin', mimeType: '', buffer: Buffer.from(samples.buffer) });
  await expect(dialog.getByText(/Binary samples need the JSON that describes them/)).toBeVisible();
  const description = { format: 'int16', rate: 100_000, channels: [{ name: 'C1', unit: 'mV', scale: 0.01 }] };
  await files.setInputFiles({
    name: 'ripple.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(description)),
  });
  await expect(dialog.getByText(/40000 samples.*strongest (29\.\d+|30) mV at 100 Hz, mains/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(main.getByText(/^30\.0 mV peak to peak/)).toBeVisible();
});

test('a soak from a log says where it leads and when output gave less; three typed readings are a beginning', async ({
  page,
}) => {
  const sample = await freshSample(page, 'Soak by log');
  await page.goto(`/samples/${sample.id}/heat`);
  const main = page.getByRole('main');
  await main.getByRole('button', { name: 'Take in a soak' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Loads').fill('C1 20 V 2.25 A');
  await dialog.getByLabel('Log of a soak').setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: soakFile() });
  await expect(dialog.getByText(/361 samples/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  // 24 + 45 × 0.8 = 60 °C by the log's own law.
  await expect(main.getByText(/^front leads to (59\.9|60\.0|60\.1) °C/)).toBeVisible();
  await expect(main.getByText(/Output gives less after 40\.0 min: 45\.0 to 36\.0 W/).first()).toBeVisible();
  await expect(main.getByRole('row', { name: /^front/ })).toBeVisible();
  const matrix = Array.from({ length: 8 }, (_, y) =>
    Array.from({ length: 10 }, (__, x) => (x === 4 && y === 3 ? '45' : '23')).join(';'),
  ).join('\n');
  await main
    .getByLabel('Matrix of a thermal image')
    .setInputFiles({ name: 'front.csv', mimeType: 'text/csv', buffer: Buffer.from(matrix) });
  await expect(main.getByRole('img', { name: 'front.csv: from 23.0 to 45.0 °C' })).toBeVisible();
  await main.getByLabel('Emissivity, camera set to 1').fill('0,9');
  await expect(main.getByText('47.2 °C', { exact: true })).toBeVisible();
  await main.getByRole('button', { name: 'Keep with the sample' }).click();
  await expect(main.getByRole('button', { name: 'front.csv' })).toBeVisible();

  await main.getByRole('button', { name: 'Take in a soak' }).first().click();
  await dialog.getByLabel('Loads').fill('C1 9 V 2 A');
  await dialog
    .getByLabel('Or readings, line by line')
    .fill('time [min]; front [°C]; ambient [°C]\n0; 24,6; 24,6\n20; 51,5; 24,6\n40; 60,9; 24,7\n');
  await dialog.getByLabel('Note').focus();
  await expect(dialog.getByText(/3 samples/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await main.getByLabel('Soak', { exact: true }).click();
  await page.getByRole('option', { name: /C1 9 V 2 A/ }).click();
  await expect(main.getByText(/^front 60\.9 °C at the end/)).toBeVisible();
});
