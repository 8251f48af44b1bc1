// A long meter file through the whole path.

import { median, spread, timed } from './figures.mjs';
import { formOf } from './form.mjs';

const IMPORTS = 3;

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
    // The same file each turn.
    again: true,
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
