// Runs: how old the numbers on screen are, how many are stored, and what ten hours do to the memory.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { chromium } from '@playwright/test';
import { build } from 'vite';
import { CHROMIUM } from '../lib/chromium.mjs';
import { ROOT } from '../lib/paths.mjs';
import { median, quantile, spread } from './figures.mjs';
import { scpiLine } from './scpi-line.mjs';

const LOOK_SECONDS = 30;
const SOAK_SECONDS = 36_000;
const SOAK_SPEED = 600;

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const megabytes = (bytes) => `${(bytes / 2 ** 20).toFixed(0)} MiB`;

/** From the question to an instrument to the number on screen: eight instruments, ten times a second each. */
export async function measureLive(url) {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage();
    await page.goto(`${url}/rules`);
    await page.locator('[data-newest]').waitFor();
    await pause(3000);
    const { ages, events, instruments } = await page.evaluate(async (seconds) => {
      const waiting = [];
      const found = [];
      const names = new Set();
      let count = 0;
      const source = new EventSource('/api/live');
      source.onmessage = ({ data }) => {
        const { at, name } = JSON.parse(data);
        names.add(name);
        count += 1;
        waiting.push(at);
      };
      const line = document.querySelector('[data-newest]');
      const watch = new MutationObserver(() => {
        // On screen with the frame that follows.
        const drawn = line.getAttribute('data-newest');
        requestAnimationFrame(() => {
          const now = Date.now();
          while (waiting.length > 0 && waiting[0] <= drawn) found.push(now - Date.parse(waiting.shift()));
        });
      });
      watch.observe(line, { attributes: true });
      await new Promise((resolve) => setTimeout(resolve, seconds * 1000));
      source.close();
      watch.disconnect();
      return { ages: found, events: count, instruments: names.size };
    }, LOOK_SECONDS);
    console.log(
      `live numbers, ${instruments} instruments, ${(events / LOOK_SECONDS / instruments).toFixed(1)} times a second each`,
    );
    console.log(
      `  instrument to screen    p50 ${quantile(ages, 0.5)} ms, p95 ${quantile(ages, 0.95)} ms (${spread(ages)}), goal p95 ≤ 150 ms`,
    );
  } finally {
    await browser.close();
  }
}

const rss = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) * 1024;

/** Ten hours at full load on the simulated bench, its clock running fast: what is stored, how soon, and the memory. */
export async function measureSoak({ url, serverPid }) {
  const call = async (method, path, body, headers = {}) => {
    const answer = await fetch(`${url}/api${path}`, {
      method,
      headers: { 'Content-Type': 'application/json', ...headers },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  const { items } = await call('GET', '/samples?q=TE-45-0117');
  const sample = await call('GET', `/samples/${items[0].id}`);
  const rig = (await call('GET', '/rigs')).items.find(({ name }) => name === 'Simulated bench');
  const sheet = await call('POST', `/samples/${sample.id}/run-sheets`, { methodId: 'local-mains', rigId: rig.id });
  const warm = sheet.steps.find(({ kind }) => kind === 'warm-up');
  const steps = [{ ...warm, title: 'Ten hours', dwell: SOAK_SECONDS }];
  const saved = await call(
    'PUT',
    `/run-sheets/${sheet.id}`,
    { title: 'Soak', rigId: rig.id, steps },
    { 'If-Match': `"v${sheet.version}"` },
  );
  // The demo's own button sets the clock; here the sheet is another one.
  await scpiLine(5460, `BENC:SPE ${SOAK_SPEED}`);
  const run = await call('POST', `/run-sheets/${saved.id}/runs`, { person: 'Bench', tag: sample.tag, watched: false });
  const begun = performance.now();
  const sizes = [];
  const ages = [];
  let state = run.state;
  while (state === 'running') {
    await pause(1000);
    ({ state } = await call('GET', `/sheet-runs/${run.id}`));
    sizes.push(rss(serverPid));
    if (sizes.length % 10 === 0 && state === 'running') {
      const { items: told } = await call('GET', `/sheet-runs/${run.id}/trace?step=${warm.id}`);
      ages.push(Date.now() - told.at(-1).at);
    }
  }
  const seconds = (performance.now() - begun) / 1000;
  const told = [];
  for (let before = ''; before !== null; ) {
    const part = await call('GET', `/sheet-runs/${run.id}/trace?step=${warm.id}${before && `&before=${before}`}`);
    told.push(...part.items);
    before = part.before;
  }
  const numbers = told.reduce((sum, { values }) => sum + values.length, 0);
  console.log(`soak, 10 h of the bench's clock at ×${SOAK_SPEED}, ${seconds.toFixed(0)} s: ${state}`);
  console.log(
    `  stored                  ${(told.length / seconds).toFixed(0)} looks, ${(numbers / seconds).toFixed(0)} readings a second`,
  );
  console.log(`  taken to committed      median ${median(ages)} ms, longest ${Math.max(...ages)} ms, goal ≤ 1000 ms`);
  const half = Math.floor(sizes.length / 2);
  console.log(
    `  memory of the server    ${megabytes(sizes[0])} at first, ${megabytes(median(sizes.slice(half)))} in the second half, ${megabytes(Math.max(...sizes))} at most`,
  );
}

/** Only what is still needed is in the heap then. */
function collected() {
  setFlagsFromString('--expose-gc');
  runInNewContext('gc')();
}

/** What a run remembers of ten hours at ten looks a second of four instruments. */
export async function measureLooks() {
  const folder = mkdtempSync(join(ROOT, 'node_modules', '.measure-'));
  try {
    await build({
      configFile: false,
      logLevel: 'error',
      root: ROOT,
      build: { ssr: 'scripts/measure/looks.entry.ts', outDir: folder, target: 'node20' },
      ssr: { noExternal: true },
    });
    const { Looks } = await import(join(folder, 'looks.entry.js'));
    const own = [
      ['a', 'power analyser', 5],
      ['l', 'DC load', 3],
      ['m', 'bench multimeter', 2],
      ['t', 'thermometer', 8],
    ].map(([id, kind, count]) => ({ id, class: kind, address: 'x:1', name: id, count }));
    const rig = {
      meters: { mains: 'a', outputVolts: 'm', outputAmps: 'l', loadEnd: 'l' },
      outputPlace: 'port',
      drives: { source: null, load: 'l', thermometer: 't', analyser: null },
    };
    let now = 0;
    const looks = new Looks(rig, own, ['C1'], () => now);
    collected();
    const before = process.memoryUsage().heapUsed;
    const begun = performance.now();
    let told = 0;
    for (let turn = 0; turn < 360_000; turn += 1) {
      now += 100;
      for (const { id, class: kind, count } of own) {
        looks.take({
          instrumentId: id,
          class: kind,
          problem: null,
          values: Array.from({ length: count }, () => now / 1000),
        });
        told += 1;
      }
    }
    collected();
    const after = process.memoryUsage().heapUsed;
    if (!(looks.seconds > 35_000)) throw new Error('The looks were not taken.');
    const each = ((performance.now() - begun) * 1000) / told;
    console.log(`looks of a run, 10 h at 10 a second of ${own.length} instruments, ${told} looks`);
    console.log(`  remembered              ${megabytes(after - before)} of heap, ${each.toFixed(1)} µs a look`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
