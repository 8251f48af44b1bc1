// A load that is only a load: plugs and trigger are a person's, and the run asks for each and looks before it draws.
import type { InstrumentProfileInput, SampleDossier, SheetRun, StoredInstrument, StoredRig } from '@lastmark/contract';
import { BUILT_IN } from '@lastmark/core/instrument';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { type Harness, startHarness } from '../testing/harness.ts';
import { fullPoint, startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
beforeAll(async () => {
  harness = await startHarness('roles_apart', { liveEvery: 25 });
  bench = await startRig(harness, 60);
  await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
});
afterEach(() => bench.release());
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

const PLAIN = ['amps', 'on', 'off', 'isOn', 'all'];

/** The rig's load with only what a load does by itself, and no analyser in the line. */
async function plainLoad(): Promise<void> {
  const full = BUILT_IN.find((one) => one.class === 'DC load');
  const body: InstrumentProfileInput = {
    title: 'Plain load',
    class: 'DC load',
    commands: PLAIN.map((action) => ({ action, command: full?.commands[action] ?? '' })),
  };
  const profile = await bench.make.post<{ id: string }>('/instrument-profiles', body);
  const { items } = await bench.call<{ items: StoredInstrument[] }>('get', '/instruments');
  const { id, version, ...load } = items.find((one) => one.id === bench.rig.drives?.load) as StoredInstrument;
  await request(harness.app)
    .put(`/api/instruments/${id}`)
    .set('If-Match', `"v${version}"`)
    .send({ ...load, profileId: profile.id })
    .expect(200);
  const { items: rigs } = await bench.call<{ items: StoredRig[] }>('get', '/rigs');
  const { id: rigId, version: rigVersion, ...rig } = rigs.find((one) => one.id === bench.rig.id) as StoredRig;
  await request(harness.app)
    .put(`/api/rigs/${rigId}`)
    .set('If-Match', `"v${rigVersion}"`)
    .send({ ...rig, drives: { ...rig.drives, analyser: null } })
    .expect(200);
}

it('asks for the plug and the trigger, sees a wrong level before it draws, and measures by itself then', async () => {
  await plainLoad();
  const { bench: sim } = bench.rack;
  const sheet = await bench.sheet((steps) => [fullPoint(steps, { id: 'point', dwell: 5, attended: false })]);
  const { id } = await bench.start(sheet.id);
  const asks = (says: RegExp) =>
    bench.through(id, (run: SheetRun) => run.state === 'waiting' && says.test(run.says), String(says));
  const goOn = () => bench.ask(id, { kind: 'go on', person: 'Warden' });

  await asks(/^Plug the load into C1\. Then go on\.$/);
  sim.plug('C1', true);
  await goOn();
  await asks(/^Set the trigger at C1 to 20 V, then go on\.$/);
  sim.request('C1', 2, null);
  await goOn();
  await asks(/^C1 stands at 9 V, not at 20 V\. Set the trigger, then go on\.$/);
  expect(sim.isOn('C1')).toBe(false);
  const words = sim.words('C1').length;
  for (let position = 1; position <= words; position += 1) {
    sim.request('C1', position, null);
    if (Math.abs(sim.port('C1').volts - 20) < 0.5) break;
  }
  await goOn();
  const run = await bench.toItsEnd(id, 'the point');
  expect(run.says, JSON.stringify(run.outcomes)).toBe('1 of 1 steps done.');
  const { points } = await bench.call<SampleDossier>('get', `/samples/${bench.sample.id}/dossier`);
  const point = points.find((one) => one.id === run.outcomes.point?.madeIds[0]);
  const amps = point?.readings.find(({ quantity }) => quantity === 'current');
  expect(amps?.value).toBeCloseTo(2.25, 2);
});
