// How late the server's main thread is while fifty samples are judged, a long file is taken in and a capture is kept, all
// at once; and how long Loads off takes meanwhile.
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from '../lib/paths.mjs';
import { startStage } from '../lib/stage.mjs';
import { captureBody } from './captures.mjs';
import { quantile } from './figures.mjs';
import { formOf } from './form.mjs';

const JUDGED = 50;
const AT_ONCE = 5;

/** What the server's watch has to tell. */
async function told(pid, file) {
  rmSync(file, { force: true });
  process.kill(pid, 'SIGUSR2');
  while (!existsSync(file)) await new Promise((resolve) => setTimeout(resolve, 20));
  await new Promise((resolve) => setTimeout(resolve, 50));
  return JSON.parse(readFileSync(file, 'utf8'));
}

/** @param meter the long meter file and the plan it is read by */
export async function measureLoop({ text, plan }) {
  const folder = mkdtempSync(join(tmpdir(), 'lastmark-loop-'));
  const file = join(folder, 'loop.json');
  const watch = join(ROOT, 'scripts', 'measure', 'loop-watch.mjs');
  const stage = await startStage({ env: { LASTMARK_LOOP: file, NODE_OPTIONS: `--import=${watch}` } });
  try {
    const get = async (path) => (await fetch(`${stage.url}/api${path}`)).json();
    const { items } = await get('/samples');
    const { sample, setups, rigs } = await get(
      `/samples/${items.find(({ serial }) => serial === 'TE-45-0868').id}/dossier`,
    );
    const post = async (path, body) => {
      const answer = await fetch(`${stage.url}/api${path}`, { method: 'POST', body });
      if (answer.status !== 201) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
    };
    const input = {
      fileName: 'long.csv',
      plan,
      setupId: setups[0].id,
      wholeFileMains: null,
      keepGood: false,
      takenAt: '2026-03-02T09:00:00.000Z',
    };
    // Made before: what keeps this process busy is no lateness of the server.
    const [meterFile, capture] = [formOf(input, text), captureBody(rigs[0].id)];
    await told(stage.serverPid, file);
    let busy = true;
    const presses = [];
    const pressing = (async () => {
      while (busy) {
        const begun = performance.now();
        await fetch(`${stage.url}/api/loads-off`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: '{}',
        });
        presses.push(performance.now() - begun);
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
    })();
    const judging = (async () => {
      for (let from = 0; from < JUDGED; from += AT_ONCE)
        await Promise.all(
          Array.from({ length: AT_ONCE }, async (_, index) => {
            const answer = await fetch(
              `${stage.url}/api/samples/${items[(from + index) % items.length].id}/export.json`,
            );
            await answer.arrayBuffer();
            if (!answer.ok) throw new Error(`${answer.status}`);
          }),
        );
    })();
    await Promise.all([
      judging,
      post(`/samples/${sample.id}/imports`, meterFile),
      post(`/samples/${sample.id}/captures`, capture),
    ]);
    busy = false;
    await pressing;
    const { p50, p99, longest } = await told(stage.serverPid, file);
    console.log(
      `main thread while ${JUDGED} samples are judged, a ${(text.length / 1e6).toFixed(0)} MB file and a capture are taken in: late p50 ${p50.toFixed(1)} ms, p99 ${p99.toFixed(1)} ms, longest ${longest.toFixed(0)} ms; Loads off answered p95 ${quantile(presses, 0.95).toFixed(0)} ms, longest ${Math.max(...presses).toFixed(0)} ms (${presses.length} presses)`,
    );
  } finally {
    await stage.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
