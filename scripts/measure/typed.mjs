// A reading typed into a sample with ten thousand of them: from the key to the judged figure on screen, at a slowed-down
// processor; and how long judging alone takes.
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { build } from 'vite';
import { CHROMIUM } from '../lib/chromium.mjs';
import { ROOT } from '../lib/paths.mjs';
import { median, spread } from './figures.mjs';

const SLOW_DOWN = 4;
const TURNS = 9;
const SIZE = { readings: 10_000, runs: 200, captures: 50 };

async function bundle(folder) {
  await build({
    configFile: false,
    logLevel: 'error',
    root: ROOT,
    build: { ssr: 'scripts/measure/judge.entry.ts', outDir: folder, target: 'node20' },
    ssr: { noExternal: true },
  });
  return import(join(folder, 'judge.entry.js'));
}

function measureJudge({ busySample, withOneMore, createJudge }) {
  const judge = createJudge();
  let dossier = busySample(SIZE.readings, SIZE.runs, SIZE.captures);
  const cold = performance.now();
  judge(dossier);
  const first = performance.now() - cold;
  const one = [];
  for (let turn = 0; turn < 30; turn += 1) {
    dossier = withOneMore(dossier);
    const begun = performance.now();
    judge(dossier);
    one.push(performance.now() - begun);
  }
  console.log(
    `judging ${SIZE.readings} readings, ${SIZE.runs} runs, ${SIZE.captures} captures: first ${first.toFixed(0)} ms; one reading more, median ${median(one.slice(10)).toFixed(1)} ms (${spread(one.slice(10), 1)})`,
  );
  return dossier;
}

/** A real sample's dossier with the busy one's evidence. */
function dressed(real, busy) {
  const [rig] = real.rigs;
  const [instrument] = real.instruments;
  const versioned = (list) => list.map((one) => ({ version: 1, ...one }));
  return {
    ...real,
    ...busy,
    sample: { ...real.sample, model: { ...real.sample.model, ports: busy.sample.ports, kind: 'wall' } },
    claims: versioned(busy.claims),
    setups: versioned(busy.setups),
    rigs: busy.rigs.map((one) => ({ ...rig, ...one })),
    instruments: busy.instruments.map((one) => ({ ...instrument, ...one })),
    profile: { ...real.profile, ...busy.profile },
    limitSets: real.limitSets,
  };
}

/** Stands in for the server in the page: a reading is taken at once, and it is noted when. */
function answerReadings() {
  const real = window.fetch;
  window.fetch = async (url, options) => {
    if (options?.method !== 'POST' || !String(url).includes('/readings')) return real(url, options);
    const [input] = JSON.parse(options.body).points;
    const [reading] = input.readings;
    const point = window.lastPoints.get(input.id);
    const stored = {
      ...reading,
      value: Number(reading.typed),
      u: 0.003,
      count: 1,
      spread: 0,
      instrumentId: 'meter',
      takenAt: input.takenAt,
      source: 'keypad',
    };
    const points = [{ ...point, readings: [...point.readings, stored] }];
    window.lastPoints.set(input.id, points[0]);
    return new Proxy(new Response(JSON.stringify({ points }), { status: 201 }), {
      get: (response, name) =>
        name === 'json'
          ? async () => {
              window.answeredAt = performance.now();
              return { points };
            }
          : Reflect.get(response, name, response),
    });
  };
}

/** Type a value into a cell as a person would. @returns ms from the answer to the painted figure, and from Enter */
async function typeOne([cell, value]) {
  const input = document.querySelectorAll('input[data-entry]')[cell];
  const main = document.querySelector('main');
  input.focus();
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, value);
  input.dispatchEvent(new Event('input', { bubbles: true }));
  const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
  await frame();
  await frame();
  const before = main.querySelector('[data-entry-area]').textContent;
  window.answeredAt = null;
  const pressed = performance.now();
  input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  for (;;) {
    await frame();
    if (window.answeredAt !== null && main.querySelector('[data-entry-area]').textContent !== before) break;
    if (performance.now() - pressed > 20_000) throw new Error('Nothing changed on screen.');
  }
  return { after: performance.now() - window.answeredAt, whole: performance.now() - pressed };
}

export async function measureTyped({ url }) {
  const folder = mkdtempSync(join(ROOT, 'node_modules', '.measure-'));
  const browser = await chromium.launch(CHROMIUM);
  try {
    const core = await bundle(folder);
    measureJudge(core);
    const { items } = await (await fetch(`${url}/api/samples?q=TE-45-0868`)).json();
    const real = await (await fetch(`${url}/api/samples/${items[0].id}/dossier`)).json();
    const dossier = dressed(real, core.busySample(SIZE.readings, SIZE.runs, SIZE.captures));
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript(answerReadings);
    await page.route('**/dossier*', (route) => route.fulfill({ json: dossier }));
    await page.goto(`${url}/samples/${items[0].id}/efficiency`);
    await page.locator('input[data-entry]').first().waitFor();
    await page.evaluate((points) => {
      window.lastPoints = new Map(points.map((point) => [point.id, point]));
    }, dossier.points);
    await (await page.context().newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
    const shown = [];
    for (let turn = 0; turn < TURNS; turn += 1) shown.push(await page.evaluate(typeOne, [0, String(16 + turn / 10)]));
    const part = (name) =>
      `median ${median(shown.map((one) => one[name])).toFixed(0)} ms (${spread(shown.map((one) => one[name]))})`;
    console.log(
      `  typed at ${SLOW_DOWN}× slow-down: from the answer to the judged figure on screen ${part('after')}, from Enter ${part('whole')}`,
    );
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
