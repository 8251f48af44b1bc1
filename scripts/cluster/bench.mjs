// A bench that is loaded the whole time: a run with its load on, looked after by whichever copy, and someone who has it go on.
import { createConnection } from 'node:net';
import { ask, askAny } from './copies.mjs';

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const LOOK = 250;
/** How long a load may be on without anyone who says that it is theirs: its own watchdog has switched it off by then, ms. */
const ORPHANED = 15_000;
const HOURS = 36_000;

/** What an instrument answers to one line; null where it does not. */
const lineTo = (port, line) =>
  new Promise((resolve) => {
    const socket = createConnection({ host: '127.0.0.1', port }, () => socket.write(`${line}\n`));
    const end = (value) => {
      socket.destroy();
      resolve(value);
    };
    socket.setTimeout(2000, () => end(null));
    socket.once('data', (data) => end(String(data).trim()));
    socket.once('error', () => end(null));
  });

/** Begin a run that draws for hours. @returns what is known of it, and stop() */
export async function startRun(copies, loadPort) {
  const call = async (method, path, body, headers) => {
    const answer = await askAny(copies, method, path, body, { headers });
    if (answer.status >= 400) throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
    return answer.body;
  };
  const { items } = await call('GET', '/samples?q=TE-45-0117');
  const sample = await call('GET', `/samples/${items[0].id}`);
  const rig = (await call('GET', '/rigs')).items.find(({ name }) => name === 'Simulated bench');
  const sheet = await call('POST', `/samples/${sample.id}/run-sheets`, { methodId: 'local-mains', rigId: rig.id });
  const warm = sheet.steps.find(({ kind }) => kind === 'warm-up');
  const saved = await call(
    'PUT',
    `/run-sheets/${sheet.id}`,
    { title: 'Under load', rigId: rig.id, steps: [{ ...warm, title: 'Under load', dwell: HOURS }] },
    { 'If-Match': `"v${sheet.version}"` },
  );
  const run = await call('POST', `/run-sheets/${saved.id}/runs`, { person: 'Bench', tag: sample.tag, watched: false });

  const seen = { on: 0, off: 0, carriedOn: 0, longestOrphan: 0, orphaned: 0 };
  let stopping = false;
  let orphanSince = null;
  const watch = async () => {
    while (!stopping) {
      const told = await lineTo(loadPort, 'INP:ALL?');
      const states = await Promise.all(copies.map((copy) => ask(copy, 'GET', `/sheet-runs/${run.id}`)));
      const known = states.find(({ status }) => status === 200)?.body;
      const on = told !== null && Number(told) > 0;
      if (on) seen.on += 1;
      else seen.off += 1;
      const owned = known?.state === 'running' || known?.state === 'waiting';
      if (on && !owned) {
        orphanSince ??= Date.now();
        const lasted = Date.now() - orphanSince;
        seen.longestOrphan = Math.max(seen.longestOrphan, lasted);
        if (lasted > ORPHANED) seen.orphaned += 1;
      } else orphanSince = null;
      if (known?.state === 'interrupted' || known?.state === 'held') {
        seen.carriedOn += 1;
        await askAny(
          copies,
          'POST',
          `/sheet-runs/${run.id}/asks`,
          { ask: { kind: 'go on', person: 'Bench' } },
          { until: Date.now() + 3000 },
        );
      }
      await pause(LOOK);
    }
  };
  const going = watch();
  return {
    seen,
    isOn: async () => Number((await lineTo(loadPort, 'INP:ALL?')) ?? 0) > 0,
    state: async () => (await askAny(copies, 'GET', `/sheet-runs/${run.id}`)).body,
    loadsOff: () => askAny(copies, 'POST', '/loads-off'),
    stop: async () => {
      stopping = true;
      await going;
    },
  };
}
