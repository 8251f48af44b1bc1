// Cables as runs: the marker and the drop read by instruments, a person plugging and bending in between.
import { CABLES, named } from '@lastmark/bench/sim';
import type { Sample, SampleDossier, SheetRun, StoredRig, StoredSheet } from '@lastmark/contract';
import { ofKind, type SheetStep } from '@lastmark/core/plan';
import { COPPER_PER_KELVIN } from '@lastmark/core/resistance';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { SIMULATED_DESK } from '../src/demo/simulated.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
let cable: Sample;

const FACTS = {
  form: 'cable',
  length: 1,
  ends: ['C plug', 'C plug'],
  braid: false,
  strainRelief: 'short',
  stiffness: null,
  pack: 1,
} as const;

beforeAll(async () => {
  harness = await startHarness('line_run', { liveEvery: 25 });
  bench = await startRig(harness, 30);
});
afterEach(() => bench.release());
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

const lay = async (name: string) => {
  const truth = named(CABLES, name);
  if (!truth) throw new Error(`no ${name}`);
  bench.rack.bench.lay(truth);
  cable = await bench.make.sample({ model: { kind: 'cable', ports: [], model: name, cable: FACTS as never } });
  return truth;
};
const sheet = (methodId: string, rigId = bench.rig.id) =>
  bench.call<StoredSheet>('post', `/samples/${cable.id}/run-sheets`, { methodId, rigId });
const dossier = () => bench.call<SampleDossier>('get', `/samples/${cable.id}/dossier`);
const goOn = async (id: string, says: RegExp, done: () => void = () => undefined) => {
  await bench.through(id, (run) => run.state === 'waiting' && says.test(run.says), String(says));
  done();
  await bench.ask(id, { kind: 'go on', person: 'Warden' });
  await bench.through(id, (run) => run.state !== 'waiting' || !says.test(run.says), 'gone on');
};
const toEnd = async (id: string): Promise<SheetRun> => {
  const run = await bench.toItsEnd(id, 'the cable');
  expect(run.says, JSON.stringify(run.outcomes)).toMatch(/^(\d+) of \1 steps done\.$/);
  return run;
};

it('reads the marker, and the drop in three pluggings, up to what it may carry', async () => {
  const truth = await lay('60 W, 1 m');
  const made = await sheet('line');
  expect(ofKind(made.steps, 'resistance')[0]).toMatchObject({ currents: [0, 1, 2, 3], outputs: [{ port: 'near' }] });
  const { id } = await bench.start(made.id, { tag: cable.tag });
  for (let plugging = 0; plugging < 2; plugging += 1)
    await goOn(id, /Pull both plugs and put them in again/, () => bench.rack.bench.laid.plug());
  const run = await toEnd(id);
  expect(Object.values(run.outcomes).map(({ says }) => says)).toContain('Its marker says 3 A.');
  const { cableRuns, readOuts } = await dossier();
  expect(readOuts).toMatchObject([{ port: 'near', words: [], cableWords: truth.marker }]);
  expect(cableRuns).toHaveLength(3);
  for (const one of cableRuns) {
    if (one.kind !== 'resistance') throw new Error('not a series');
    expect(one).toMatchObject({ how: 'two meters', side: 'loop', bends: 0, rigId: bench.rig.id });
    expect(one.accuracy?.near).not.toBeNull();
    const [none, , , most] = one.steps;
    expect([none?.amps, most?.amps].map((amps) => Math.round((amps ?? Number.NaN) * 100) / 100)).toEqual([0, 3]);
    const room = bench.rack.bench.laid.celsius(0, (none?.temperature ?? 0) - 273.15);
    const copper = truth.copperOhms * (1 + COPPER_PER_KELVIN * (room - 20));
    const drop = (most?.near ?? 0) - (most?.far ?? 0);
    // Two meters within 2 mV and 0.02 % of their reading, 5 mV and 0.04 %; the contacts of a plugging within a few per cent.
    expect(Math.abs(drop - 3 * (copper + truth.contactOhms))).toBeLessThan(0.012);
  }
});

it('is bent to a look, read again, and keeps what was seen', async () => {
  await lay('worn by bending, 1 m');
  const made = await sheet('bends');
  const bends = ofKind(made.steps, 'bend');
  expect(bends.map(({ count }) => count)).toEqual([2000, 4000, 6000, 8000, 10_000]);
  const [first] = ofKind(made.steps, 'resistance');
  const [, second] = bends;
  if (!first || !second) throw new Error('no steps');
  const short = (step: SheetStep) => ({ ...step, attended: false });
  const steps = [short(first), short(second), short({ ...first, id: 'after' })];
  await request(harness.app)
    .put(`/api/run-sheets/${made.id}`)
    .set('If-Match', '"v1"')
    .send({ title: made.title, rigId: bench.rig.id, steps })
    .expect(200);
  const { id } = await bench.start(made.id, { tag: cable.tag });
  await goOn(id, /^Unplug both ends\. 4000 bends more, to 4000 altogether: 90° to each side, over 15 mm/, () =>
    bench.rack.bench.laid.bend(4000),
  );
  await toEnd(id);
  const { cableRuns } = await dossier();
  expect(cableRuns.map(({ kind, bends: had }) => [kind, had])).toEqual([
    ['resistance', 0],
    ['bend', 0],
    ['resistance', 4000],
  ]);
  expect(cableRuns[1]).toMatchObject({ count: 4000, fault: 'none', charging: 'not tried', rate: 30 });
  // Its contacts wear by 8 mΩ in a thousand bends from 2000 on.
  const top = (at: number) => {
    const run = cableRuns[at];
    const step = run?.kind === 'resistance' ? run.steps.at(-1) : undefined;
    return ((step?.near ?? 0) - (step?.far ?? 0)) / (step?.amps ?? 1);
  };
  expect(Math.abs(top(2) - top(0) - 0.016)).toBeLessThan(0.003);
});

it('is refused where a rig reads at one end only, or a method is for chargers', async () => {
  await lay('60 W, 1 m');
  const post = (methodId: string, rigId: string) =>
    request(harness.app).post(`/api/samples/${cable.id}/run-sheets`).send({ methodId, rigId });
  const { items } = await bench.call<{ items: StoredRig[] }>('get', '/rigs');
  const desk = items.find(({ name }) => name === SIMULATED_DESK);
  const noLoad = await post('line', desk?.id ?? '');
  expect([noLoad.status, noLoad.body.detail]).toEqual([422, expect.stringContaining('no load that runs by itself')]);
  const { id: _id, version: _version, ...rest } = bench.rig as StoredRig & { version?: number };
  const one = await bench.make.post<{ id: string }>('/rigs', {
    ...rest,
    name: 'One meter',
    meters: { ...bench.rig.meters, loadEnd: null },
  });
  const oneEnd = await post('line', one.id);
  expect([oneEnd.status, oneEnd.body.detail]).toEqual([422, expect.stringContaining('does not read at both ends')]);
  const wrong = await post('local-mains', bench.rig.id);
  expect([wrong.status, wrong.body.detail]).toEqual([
    422,
    'This method is not for a cable. Choose Resistance, three pluggings, Bends with looks between.',
  ]);
});
