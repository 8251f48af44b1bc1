// A capture of a million samples: how long it takes to keep and to draw, and whether the server answers meanwhile.
import { startStage } from '../lib/stage.mjs';
import { formOf } from './form.mjs';

const SAMPLES = 1_000_000;
const LOOK_MILLISECONDS = 20;

const ID = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const newId = () => `01M8${Array.from({ length: 22 }, () => ID[Math.floor(Math.random() * 32)]).join('')}`;

/** A capture of idle with so many samples, as a browser sends it. */
export function captureBody(rigId, samples = SAMPLES) {
  const lines = Array.from(
    { length: samples },
    (_, at) => `${(at * 0.001).toFixed(3)};${at % 20_000 < 500 ? 0.6 : 0.03}`,
  );
  return formOf(
    {
      capture: {
        id: newId(),
        kind: 'idle',
        mains: { kind: 'ac', volts: 230, hertz: 50 },
        setupId: null,
        load: 0,
        port: null,
        attached: 'nothing',
        rigId,
        takenAt: '2026-11-02T09:00:00.000Z',
        source: 'long.csv',
        note: '',
        supersedes: null,
        withdrawn: false,
      },
      scopeId: null,
    },
    ['time [s];power [W]', ...lines].join('\n'),
  );
}

export async function measureCaptures() {
  const stage = await startStage();
  try {
    const get = async (path) => (await fetch(`${stage.url}/api${path}`)).json();
    const [sample] = (await get('/samples?q=TE-45-0868')).items;
    const [rig] = (await get('/rigs')).items;
    const body = captureBody(rig.id);
    const waits = [];
    let busy = true;
    const watching = (async () => {
      while (busy) {
        const begun = performance.now();
        await fetch(`${stage.url}/api/health`);
        waits.push(performance.now() - begun);
        await new Promise((resolve) => setTimeout(resolve, LOOK_MILLISECONDS));
      }
    })();
    const begun = performance.now();
    const answer = await fetch(`${stage.url}/api/samples/${sample.id}/captures`, {
      method: 'POST',
      body,
    });
    const stored = await answer.json();
    const kept = performance.now() - begun;
    busy = false;
    await watching;
    if (answer.status !== 201) throw new Error(JSON.stringify(stored));
    const drawn = performance.now();
    await get(`/captures/${stored.id}/trace?buckets=800`);
    waits.sort((a, b) => a - b);
    console.log(`a capture of ${SAMPLES} samples, ${(body.get('file').size / 2 ** 20).toFixed(0)} MiB as text`);
    console.log(`  kept                     ${kept.toFixed(0)} ms, ${stored.figures.bursts} bursts found`);
    console.log(`  drawn, 800 buckets       ${(performance.now() - drawn).toFixed(0)} ms`);
    console.log(
      `  other requests meanwhile median ${waits[Math.floor(waits.length / 2)].toFixed(0)} ms, longest ${waits.at(-1).toFixed(0)} ms`,
    );
  } finally {
    await stage.stop();
  }
}
