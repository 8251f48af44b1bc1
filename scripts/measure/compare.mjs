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

async function measureScreen(url) {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await page.goto(`${url}/compare`);
    await page.getByRole('heading', { name: 'Compare' }).waitFor();
    const begun = performance.now();
    await page.goto(`${url}/compare/new?view=Picture`);
    await page.getByText(/against .*: \d{4,} samples/).waitFor({ timeout: 60_000 });
    const painted = performance.now() - begun;
    await page.getByRole('button', { name: 'Cancel' }).click();
    await page.getByRole('button', { name: 'Table', exact: true }).click();
    const field = page.getByLabel('Idle to');
    await field.waitFor();
    // Frames while a range is moved, a value a frame.
    await field.focus();
    const frames = await page.evaluate(
      () =>
        new Promise((resolve) => {
          const input = document.activeElement;
          const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
          let count = 0;
          const start = performance.now();
          const step = () => {
            set.call(input, String(60 + (count % 30)));
            input.dispatchEvent(new Event('input', { bubbles: true }));
            count += 1;
            if (performance.now() - start < 3000) requestAnimationFrame(step);
            else resolve(count / 3);
          };
          requestAnimationFrame(step);
        }),
    );
    return { painted, frames };
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
  const { painted, frames } = await measureScreen(stage.url);
  console.log(`  scatter on the screen   ${painted.toFixed(0)} ms from the address, goal ≤ 1000 ms`);
  console.log(`  a range that is moved   ${frames.toFixed(0)} frames a second, goal ≥ 30`);
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
