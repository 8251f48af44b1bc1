// Ten million samples: from file to ripple beside reading the same file line by line, in how much memory; zooms anywhere, and
// whether others wait; then what is found of synthetic records and soaks whose truth is known.
import { createReadStream, createWriteStream, statSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { startStage } from '../lib/stage.mjs';
import { withEntry } from './entry.mjs';
import { quantile } from './figures.mjs';
import { formOf } from './form.mjs';
import { drawRipple } from './ripple-truth.mjs';
import { drawSoak, soakText } from './soak-truth.mjs';
import { watchOthers } from './watcher.mjs';

const SAMPLES = 10_000_000;
const RATE = 5e6;
const CASES = 200;
const ZOOMS = 40;

/** A file of ripple as a scope writes it. */
async function writeFile(path, { seededNormal, seededRandom }) {
  const normal = seededNormal(seededRandom(7));
  const out = createWriteStream(path);
  out.write('time [s],V [V]\n');
  for (let from = 0; from < SAMPLES; from += 100_000) {
    let text = '';
    for (let at = from; at < from + 100_000; at += 1) {
      const t = at / RATE;
      const value = 0.01 * Math.sin(2 * Math.PI * 100 * t) + 0.005 * Math.sin(2 * Math.PI * 1e5 * t) + 5e-4 * normal();
      text += `${t.toFixed(9)},${value.toFixed(9)}\n`;
    }
    if (!out.write(text)) await new Promise((resolve) => out.once('drain', resolve));
  }
  await new Promise((resolve) => out.end(resolve));
}

async function lineByLine(path) {
  let sum = 0;
  const begun = performance.now();
  for await (const line of createInterface({ input: createReadStream(path) })) {
    const [time, value] = line.split(',');
    sum += Number(time) + Number(value);
  }
  return { seconds: (performance.now() - begun) / 1000, sum };
}

async function measureFile(made, folder) {
  const path = join(folder, 'ripple.csv');
  await writeFile(path, made);
  const size = statSync(path).size;
  const plain = await lineByLine(path);
  globalThis.gc?.();
  // Of what this program holds; what an earlier measurement left to the process is not its.
  const held = () => {
    const { heapUsed, arrayBuffers } = process.memoryUsage();
    return heapUsed + arrayBuffers;
  };
  const before = held();
  let most = before;
  const begun = performance.now();
  const reader = new made.TraceReader({ bytes: size });
  for await (const piece of createReadStream(path, { highWaterMark: 1 << 20 })) {
    reader.push(piece);
    most = Math.max(most, held());
  }
  const { trace } = reader.result();
  const read = (performance.now() - begun) / 1000;
  const figures = made.rippleOf(trace.channels[0].values, trace.interval, { mains: 50 });
  most = Math.max(most, held());
  const seconds = (performance.now() - begun) / 1000;
  const binary = (SAMPLES * 8) / 2 ** 20;
  console.log(
    `${SAMPLES / 1e6} million samples, ${(size / 1e6).toFixed(0)} MB of text: file to ripple ${seconds.toFixed(1)} s (read ${read.toFixed(1)} s), line by line ${plain.seconds.toFixed(1)} s: ${(seconds / plain.seconds).toFixed(2)} × (goal 3); ${((most - before) / 2 ** 20).toFixed(0)} MiB more memory, ${((most - before) / 2 ** 20 / binary).toFixed(2)} × its doubles (goal 2); lines ${figures.lines.map(({ hertz, kind }) => `${hertz.toFixed(0)} Hz ${kind}`).join(', ')}`,
  );
  return made.packTrace(trace);
}

const ID = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const newId = () => `01M8${Array.from({ length: 22 }, () => ID[Math.floor(Math.random() * 32)]).join('')}`;

async function measureServer(packed) {
  const stage = await startStage();
  try {
    const get = async (path) => (await fetch(`${stage.url}/api${path}`)).json();
    const [sample] = (await get('/samples?q=TE-45-0868')).items;
    const [rig] = (await get('/rigs')).items;
    const id = newId();
    const capture = {
      id,
      kind: 'ripple',
      mains: { kind: 'ac', volts: 230, hertz: 50 },
      setupId: null,
      load: 1,
      port: 'C1',
      attached: 'nothing',
      rigId: rig.id,
      takenAt: '2026-11-02T09:00:00.000Z',
      source: 'long.csv',
      note: '',
      supersedes: null,
      withdrawn: false,
      outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
    };
    const form = formOf({ capture, scopeId: null }, packed);
    const stopWatching = watchOthers(`${stage.url}/api/health`);
    const begun = performance.now();
    const answer = await fetch(`${stage.url}/api/samples/${sample.id}/captures`, {
      method: 'POST',
      body: form,
    });
    const kept = (performance.now() - begun) / 1000;
    const waits = await stopWatching();
    if (answer.status !== 201) throw new Error(`It answered ${answer.status}: ${await answer.text()}`);
    const length = SAMPLES / RATE;
    const zooms = [];
    for (let at = 0; at < ZOOMS; at += 1) {
      const wide = length * 10 ** (-5 * (at / (ZOOMS - 1)));
      const from = (((at * 7919) % 1000) / 1000) * (length - wide);
      const start = performance.now();
      await (await fetch(`${stage.url}/api/captures/${id}/trace?buckets=700&from=${from}&to=${from + wide}`)).json();
      zooms.push(performance.now() - start);
    }
    console.log(
      `kept by the server in ${kept.toFixed(1)} s, others waited p95 ${quantile(waits, 0.95).toFixed(0)} ms, at most ${Math.max(...waits).toFixed(0)} ms (goal 50); ${ZOOMS} zooms from all of it to 20 µs: p50 ${quantile(zooms, 0.5).toFixed(0)} ms, at most ${Math.max(...zooms).toFixed(0)} ms (goal 100)`,
    );
  } finally {
    await stage.stop();
  }
}

function measureRipple(made) {
  let wanted = 0;
  let found = 0;
  let named = 0;
  let sized = 0;
  let told = 0;
  let strange = 0;
  let peaks = 0;
  for (let seed = 1; seed <= CASES; seed += 1) {
    const { values, rate, mains, truth, resolution, peakToPeak } = drawRipple(seed, made);
    const figures = made.rippleOf(values, 1 / rate, { mains });
    if (Math.abs(figures.peakToPeak / peakToPeak - 1) < 0.02) peaks += 1;
    const near = (line, { hertz }) => Math.abs(line.hertz - hertz) < resolution;
    for (const one of truth) {
      wanted += 1;
      const hit = figures.lines.find((line) => near(line, one));
      if (!hit) continue;
      found += 1;
      if (hit.kind === one.kind) named += 1;
      if (Math.abs(hit.peakToPeak / one.peakToPeak - 1) < 0.1) sized += 1;
    }
    told += figures.lines.length;
    strange += figures.lines.filter((line) => !truth.some((one) => near(line, one))).length;
  }
  const part = (count, of) => `${((100 * count) / of).toFixed(1)} %`;
  console.log(
    `ripple of ${CASES} synthetic records: peak to peak within 2 % in ${part(peaks, CASES)}; of ${wanted} lines 10 dB or more above the noise ${part(found, wanted)} found (goal 98), ${part(named, wanted)} named as what they are, ${part(sized, wanted)} sized within 10 %; ${part(strange, told)} of the lines told are none (goal 1)`,
  );
}

function measureSoaks(made) {
  const begun = performance.now();
  let steady = 0;
  let inside = 0;
  let events = 0;
  let found = 0;
  let strange = 0;
  for (let seed = 1; seed <= 2 * CASES; seed += 1) {
    const drawn = drawSoak(seed, made);
    const { trace } = made.readTrace(soakText(drawn.columns));
    const figures = made.soakOf(trace);
    if (drawn.steady !== null) {
      steady += 1;
      const [low, high] = figures.sensors[0].steadyInterval;
      if ((low ?? Number.NEGATIVE_INFINITY) <= drawn.steady && drawn.steady <= (high ?? Number.POSITIVE_INFINITY))
        inside += 1;
    }
    const hit =
      drawn.event &&
      figures.events.find(({ kind, at }) => kind === drawn.event.kind && Math.abs(at - drawn.event.at) <= 20);
    if (drawn.event) events += 1;
    if (hit) found += 1;
    strange += figures.events.length - (hit ? 1 : 0);
  }
  console.log(
    `${2 * CASES} synthetic soaks: steady value inside its 95 % interval ${((100 * inside) / steady).toFixed(1)} % of ${steady} (goal 93 to 97); ${found} of ${events} events found within 20 s (goal 98 %), ${strange} found that were none (goal 1 %); ${((performance.now() - begun) / (2 * CASES)).toFixed(0)} ms each`,
  );
}

export async function measureTraces() {
  const packed = await withEntry('traces.entry.ts', async (made, folder) => {
    measureRipple(made);
    measureSoaks(made);
    return measureFile(made, folder);
  });
  await measureServer(packed);
}
