// Comparison over a shelf of ten thousand: the set with its values, the scatter on the screen, a range that is moved, and how often
// leads and bad units are called that are none.
import { chromium } from '@playwright/test';
import { createConnection } from 'mysql2/promise';
import { CHROMIUM } from '../lib/chromium.mjs';
import { withEntry } from './entry.mjs';
import { median, quantile, timed } from './figures.mjs';
import { fillShelf, idOf, waitingIn } from './shelf.mjs';

const SAMPLES = 10_000;
const REQUESTS = 20;
const MEASURES = [
  ['mass-per-watt', 'with plug', 0.002, 0],
  ['price-per-watt', 'EUR, paid', 0.6, 0],
  ['idle', '230 V 50 Hz', 0.07, 0.001],
  ['average-efficiency', 'four points, 230 V 50 Hz', 0.9, 0.0015],
  ['full-load-loss', '230 V 50 Hz', 6, 0.1],
  ['proven-share', 'of those decided', 0.8, 0],
];

/** Values of every measure for every sample, by a formula rather than by readings. */
async function fillMeasures(databaseUrl) {
  const db = await createConnection({ uri: databaseUrl.replace(/^mariadb:/, 'mysql:'), timezone: 'Z' });
  for (let from = 0; from < SAMPLES; from += 500) {
    const rows = Array.from({ length: 500 }, (_, index) => from + index).flatMap((n) =>
      MEASURES.map(([measure, condition, middle, u], at) => [
        idOf('S', n),
        measure,
        condition,
        middle * (1 + 0.3 * Math.sin(n * (at + 1.37))),
        u,
        u * 0.7,
        u === 0 ? '' : `meter-${n % 5}`,
        null,
        false,
      ]),
    );
    await db.query(
      'REPLACE INTO measures (sample_id, measure, condition_words, value, u, common, meters, `at`, below) VALUES ?',
      [rows],
    );
  }
  await db.end();
}

const TURNS = 7;
const KEPT = 'Everything there is';
const MOVED_SECONDS = 3;

/** A comparison of everything, kept as people keep one. @returns its id */
async function keepAll(url, rule) {
  const answer = await fetch(`${url}/api/comparisons`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      title: KEPT,
      note: '',
      rule,
      measures: MEASURES.map(([measure]) => ({ measure, condition: null })),
      own: [],
      weights: [],
    }),
  });
  return (await answer.json()).id;
}

/** Frames a second while a field is moved, another value every frame. */
const framesOf = (field, values) =>
  field.evaluate(
    (input, { most, seconds }) =>
      new Promise((resolve) => {
        const { set } = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value');
        let count = 0;
        const start = performance.now();
        const step = () => {
          set.call(input, String(60 + (count % most)));
          for (const kind of ['input', 'change']) input.dispatchEvent(new Event(kind, { bubbles: true }));
          count += 1;
          if (performance.now() - start < seconds * 1000) requestAnimationFrame(step);
          else resolve(count / seconds);
        };
        requestAnimationFrame(step);
      }),
    { most: values, seconds: MOVED_SECONDS },
  );

async function measureScreen(url, id) {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    const painted = { link: [], address: [] };
    const open = async (way) => {
      await page.goto(`${url}/compare`);
      const link = page.getByRole('link', { name: KEPT });
      await link.waitFor();
      await page.waitForLoadState('networkidle');
      const begun = performance.now();
      if (way === 'link') await link.click();
      else await page.goto(`${url}/compare/${id}`);
      // Points are on the canvas, not only a place for them.
      await page.waitForFunction(
        () => {
          const canvas = document.querySelector('canvas');
          if (!canvas || canvas.width < 400) return false;
          return canvas
            .getContext('2d')
            .getImageData(200, 100, 300, 200)
            .data.some((one) => one > 0);
        },
        null,
        { polling: 'raf' },
      );
      const took = performance.now() - begun;
      await page.waitForLoadState('networkidle');
      return took;
    };
    // The first brings the program.
    await open('address');
    for (let turn = 0; turn < TURNS; turn += 1)
      for (const way of ['link', 'address']) painted[way].push(await open(way));
    await page.getByLabel('Hold to a range').click();
    await page.getByRole('option', { name: /^Idle/ }).click();
    const slider = page.getByRole('slider').last();
    const picture = await framesOf(slider, 300);
    const held = await page.getByText(/^\d+ of \d{4,} samples$/).textContent();
    await page.getByRole('button', { name: 'Table', exact: true }).click();
    const table = await framesOf(page.getByLabel('Idle to'), 30);
    return { painted, picture, table, held };
  } finally {
    await browser.close();
  }
}

/** @param stage a server of its own; left alone with what is put in. */
export async function measureCompare(stage, { filled = false } = {}) {
  if (!filled) await (await fillShelf(stage.url, stage.databaseUrl)).end();
  // What is put in here stands for samples that were measured: their own figures come first.
  const db = await createConnection({ uri: stage.databaseUrl.replace(/^mariadb:/, 'mysql:'), timezone: 'Z' });
  while ((await waitingIn(db)) > 0) await new Promise((resolve) => setTimeout(resolve, 500));
  await db.end();
  await fillMeasures(stage.databaseUrl);
  const rule = await withEntry('compare.entry.ts', ({ everything }) => everything);
  const times = [];
  let members = 0;
  for (let turn = 0; turn < REQUESTS; turn += 1)
    times.push(
      await timed(async () => {
        const answer = await fetch(`${stage.url}/api/comparison-set`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ rule, measures: MEASURES.map(([measure]) => ({ measure, condition: null })) }),
        });
        members = (await answer.json()).members.length;
      }),
    );
  console.log(`comparison of ${members} samples`);
  console.log(
    `  set with six measures   p50 ${median(times).toFixed(0)} ms, p95 ${quantile(times, 0.95).toFixed(0)} ms`,
  );
  const { painted, picture, table, held } = await measureScreen(stage.url, await keepAll(stage.url, rule));
  for (const [way, times] of Object.entries(painted))
    console.log(
      `  scatter, from its ${way.padEnd(8)} to its points: median ${median(times).toFixed(0)} ms (${Math.min(...times).toFixed(0)}–${Math.max(...times).toFixed(0)}), goal ≤ 1000 ms`,
    );
  console.log(
    `  a range that is moved   ${picture.toFixed(0)} frames a second in the picture (at last ${held}), ${table.toFixed(0)} in the table, goal ≥ 30`,
  );
}

export async function measureCompareTruth() {
  await withEntry('compare.entry.ts', ({ leads, falselyOdd, stability }) => tell(leads, falselyOdd, stability));
}

function tell(leads, falselyOdd, stability) {
  const { called, wrong, equalCalled } = leads(1000);
  console.log('comparison, truth of 1000 seeded shelves of six (half of them all alike)');
  console.log(
    `  leads called ${called}; another was truly first in ${wrong}; called among alike ${equalCalled} of 500`,
  );
  console.log(`  lots of six good units with one called bad: ${falselyOdd(1000)} of 1000`);
  const times = [stability(), stability(), stability()];
  console.log(`  stability of 200 samples, 10 000 draws: ${median(times).toFixed(0)} ms, goal ≤ 1000 ms`);
}
