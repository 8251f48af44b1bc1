// The server under a large shelf: the list of samples, and a long meter file through the whole path.

import { median, quantile, spread, timed } from './figures.mjs';
import { formOf } from './form.mjs';

const SAMPLES = 2000;
const REQUESTS = 300;
const IMPORTS = 3;

async function send(url, body) {
  const answer = await fetch(url, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (answer.status !== 201) throw new Error(`${url}: ${answer.status} ${await answer.text()}`);
  return answer.json();
}

/** A shelf of copies of a demo model with a number each, a claim on every one. */
async function fillShelf(url) {
  const { items } = await (await fetch(`${url}/api/samples?size=1`)).json();
  const { model, unit } = await (await fetch(`${url}/api/samples/${items[0].id}`)).json();
  for (let from = 0; from < SAMPLES; from += 8) {
    const batch = Array.from({ length: Math.min(8, SAMPLES - from) }, async (_, index) => {
      const number = from + index;
      const sample = await send(`${url}/api/samples`, {
        model: { ...model, model: `Bench ${number}` },
        unit: { ...unit, serial: `B-${number}` },
      });
      await send(`${url}/api/samples/${sample.id}/claims`, {
        promise: { kind: 'total', watts: 45 },
        duration: { kind: 'unstated' },
        printed: 'label',
      });
    });
    await Promise.all(batch);
  }
}

export async function measureList(url) {
  const seconds = (await timed(() => fillShelf(url))) / 1000;
  const ask = async (query) => {
    const answer = await fetch(`${url}/api/samples?${query}`);
    const { items } = await answer.json();
    if (answer.status !== 200 || items.length === 0) throw new Error(`${query}: ${answer.status}`);
  };
  const first = [];
  for (let page = 1; page <= SAMPLES / 50; page += 1) first.push(await timed(() => ask(`page=${page}&size=50`)));
  const later = [];
  const searched = [];
  for (let turn = 0; turn < REQUESTS; turn += 1) {
    later.push(await timed(() => ask(`page=${(turn % (SAMPLES / 50)) + 1}&size=50`)));
    searched.push(await timed(() => ask(`q=bench+${turn}&size=50`)));
  }
  const line = (name, values) =>
    console.log(
      `  ${name.padEnd(30)} p50 ${median(values).toFixed(1)} ms, p95 ${quantile(values, 0.95).toFixed(1)} ms`,
    );
  console.log(`list of ${SAMPLES} samples (filled in ${seconds.toFixed(0)} s), pages of 50, ${REQUESTS} requests`);
  line('page, figures worked out', first);
  line('page', later);
  line('search', searched);
}

async function sendFile(url, body) {
  const answer = await fetch(url, { method: 'POST', body });
  if (answer.status !== 201) throw new Error(`${answer.status} ${await answer.text()}`);
}

export async function measureImport(url, { text, plan, libraryMedian }) {
  const { items } = await (await fetch(`${url}/api/samples?q=TE-45-0868`)).json();
  const { sample, setups } = await (await fetch(`${url}/api/samples/${items[0].id}/dossier`)).json();
  const input = {
    fileName: 'long.csv',
    plan,
    setupId: setups[0].id,
    wholeFileMains: null,
    keepGood: false,
    takenAt: '2026-03-02T09:00:00.000Z',
  };
  const whole = [];
  const other = [];
  for (let turn = 0; turn < IMPORTS; turn += 1) {
    let running = true;
    const import_ = timed(() => sendFile(`${url}/api/samples/${sample.id}/imports`, formOf(input, text))).finally(
      () => {
        running = false;
      },
    );
    while (running) other.push(await timed(() => fetch(`${url}/api/health`).then((answer) => answer.json())));
    whole.push(await import_);
  }
  console.log(`the same file over the API: sent, read, stored with the file itself (${IMPORTS} times)`);
  console.log(
    `  whole path              median ${median(whole).toFixed(0)} ms (${spread(whole)}), ${(median(whole) / libraryMedian).toFixed(2)} × the library alone`,
  );
  console.log(
    `  other requests meanwhile  p50 ${median(other).toFixed(0)} ms, longest ${Math.max(...other).toFixed(0)} ms`,
  );
}
