// A listing of 100 000 words: decoded in one worker task while the page goes on drawing.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM } from '../lib/chromium.mjs';
import { median, spread } from './figures.mjs';

const WORDS = 100_000;
const TURNS = 5;

/** Words of every kind, the same each time. */
function listing() {
  let state = 12_345;
  const next = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state;
  };
  return Array.from({ length: WORDS }, () => next().toString(16).toUpperCase().padStart(8, '0')).join('\n');
}

/**
 * In the page: times between frames from now until the list has stood for half a second. Nothing asks the page meanwhile,
 * since asking takes frames too.
 */
const recordFrames = () => {
  window.recorded = new Promise((resolve) => {
    const gaps = [];
    const start = performance.now();
    let last = start;
    let shown = 0;
    const tick = (now) => {
      gaps.push(now - last);
      last = now;
      if (!shown && document.querySelector('[aria-label="Offers as decoded"] button')) shown = now;
      if (shown && now - shown > 500) resolve({ longest: Math.max(...gaps.slice(1)), took: shown - start });
      else requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
};

export async function measureDecode(url) {
  const folder = mkdtempSync(join(tmpdir(), 'lastmark-words-'));
  const file = join(folder, 'words.txt');
  writeFileSync(file, listing());
  const browser = await chromium.launch(CHROMIUM);
  const longest = [];
  const times = [];
  try {
    for (let turn = 0; turn < TURNS; turn += 1) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      const { items } = await (await page.request.get(`${url}/api/samples?q=OB-18-0092`)).json();
      await page.goto(`${url}/samples/${items[0].id}/read-out`);
      await page.getByRole('button', { name: 'Enter a read-out' }).click();
      await page.getByLabel('What the analyser shows').waitFor();
      await page.waitForTimeout(500);
      await page.evaluate(recordFrames);
      await page.getByLabel('File of words').setInputFiles(file);
      const { longest: gap, took } = await page.evaluate(() => window.recorded);
      await page.getByText('100,000 positions').waitFor();
      longest.push(gap);
      times.push(took);
      await page.close();
    }
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
  console.log(`decoding ${WORDS.toLocaleString('en')} words in a worker, ${TURNS} turns`);
  console.log(`  file chosen to list shown  median ${median(times).toFixed(0)} ms (${spread(times)})`);
  console.log(
    `  longest frame              median ${median(longest).toFixed(0)} ms (${spread(longest)}), goal ≤ 50 ms`,
  );
}
