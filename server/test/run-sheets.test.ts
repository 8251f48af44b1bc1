import { idleMean } from '@lastmark/bench/sim';
import type { RunTrace, SampleDossier, SheetRun, StoredInstrument } from '@lastmark/contract';
import { ofKind, type PointStep, type SheetStep } from '@lastmark/core/plan';
import { infoOf } from '@lastmark/core/read-out';
import { judgeSample } from '@lastmark/core/verdict';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { runParts } from '../src/db/schema.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { fullPoint, startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
beforeAll(async () => {
  harness = await startHarness('run_sheets', { liveEvery: 25 });
  bench = await startRig(harness, 600);
  const line = (volts: number, amps: number) => ({ kind: 'port-line', port: 'C1', volts, amps });
  for (const promise of [
    line(5, 3),
    line(9, 3),
    line(20, 2.25),
    { kind: 'total', watts: 45 },
    { kind: 'idle', watts: 0.075, mains: null },
  ])
    await bench.make.claim(bench.sample.id, promise);
});
afterEach(() => bench.release());
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

const dossier = () => bench.call<SampleDossier>('get', `/samples/${bench.sample.id}/dossier`);
const over = ({ state }: SheetRun) => state === 'done' || state === 'stopped';
/** One long load point at 20 V, so that there is time to interfere. */
const soak = (steps: readonly SheetStep[], part: Partial<PointStep> = {}): SheetStep[] => [
  fullPoint(steps, { id: 'soak', ...part }),
];
const stop = async (id: string) => {
  await bench.ask(id, { kind: 'stop', reason: '' });
  return bench.through(id, over, 'stopped');
};
/** True when the load of the simulated charger draws. */
const draws = () => bench.rack.bench.isOn('C1');

describe('a whole sheet', () => {
  it('runs by itself from the rig check to proven claims, and finds what is true', async () => {
    // Soaks wait for someone to stay with them; nobody does here.
    const sheet = await bench.sheet((made) =>
      made.filter((step) => step.kind !== 'capture' || step.capture !== 'soak'),
    );
    const { id } = await bench.start(sheet.id);
    const run = await bench.toItsEnd(id, 'the whole sheet');
    expect(run.state, run.says).toBe('done');
    expect(Object.values(run.outcomes).filter(({ state }) => state !== 'done')).toEqual([]);
    expect(run.says).toBe(`${sheet.steps.length} of ${sheet.steps.length} steps done.`);
    const found = await dossier();
    const verdict = judgeSample(toJudge(found));
    expect(verdict.claims.map(({ state }) => state)).toEqual(['proven', 'proven', 'proven', 'proven', 'proven']);
    // Against the truth that no wire tells: idle, and what the read-out saw.
    const truth = bench.rack.bench.charger;
    const [idle] = verdict.results.idle.draws;
    expect(Math.abs((idle?.watts.value ?? 0) - idleMean(truth.idle))).toBeLessThan(0.002);
    expect(found.readOuts[0]?.words).toHaveLength(truth.ports[0]?.offers.length ?? 0);
    // Readings are means of several looks, each by the instrument of the rig.
    const loaded = found.points.find(({ load, setupId }) => load === 1 && setupId !== null);
    expect(loaded?.readings.every(({ count, instrumentId }) => count >= 2 && instrumentId !== null)).toBe(true);
    // Everything off, everything free.
    expect(draws()).toBe(false);
    expect(bench.rack.bench.supply.on).toBe(false);
    expect((await bench.call<{ items: unknown[] }>('get', '/leases')).items).toEqual([]);
  });

  it('keeps everything the instruments told, committed while it goes on', async () => {
    const sheet = await bench.sheet((steps) => soak(steps));
    const { id } = await bench.start(sheet.id);
    await bench.drawing(id);
    const part = (before = '') =>
      bench.call<RunTrace>('get', `/sheet-runs/${id}/trace?step=soak${before && `&before=${before}`}`);
    const trace = async () => (await part()).items;
    await expect.poll(async () => (await trace()).length).toBeGreaterThan(20);
    const now = Date.now();
    await expect.poll(async () => (await trace()).at(-1)?.at).toBeGreaterThan(now);
    expect(draws()).toBe(true);
    await stop(id);
    // However long it was, it is told in parts, the newest first.
    const told = await trace();
    const much = Array.from({ length: 1200 }, (_, at) => ({
      id: newId(),
      runId: id,
      stepId: 'soak',
      body: [{ at, instrumentId: 'x', values: [at] }],
    }));
    await harness.db.insert(runParts).values(much);
    const all: RunTrace['items'] = [];
    const sizes: number[] = [];
    for (let before: string | null = ''; before !== null; ) {
      const one: RunTrace = await part(before);
      all.unshift(...one.items);
      sizes.push(one.items.length);
      before = one.before;
    }
    expect(sizes.slice(0, 2)).toEqual([500, 500]);
    expect(all.slice(0, told.length)).toEqual(told);
    expect(all.slice(told.length).map(({ at }) => at)).toEqual(much.map((_, at) => at));
  });
});

describe('a run does what it is asked', () => {
  it('holds with loads off, goes on at the same step, is skipped with its reason', async () => {
    const sheet = await bench.sheet((steps) => soak(steps));
    const { id } = await bench.start(sheet.id);
    await bench.drawing(id);
    await bench.ask(id, { kind: 'hold' });
    await bench.heldFor(id, /^On hold: loads are off\.$/);
    expect(draws()).toBe(false);
    await bench.ask(id, { kind: 'note', text: 'Smells of nothing.' });
    await bench.ask(id, { kind: 'go on', person: 'Warden' });
    await bench.drawing(id);
    await bench.ask(id, { kind: 'skip', reason: 'Seen enough.' });
    const run = await bench.through(id, over, 'skipped');
    expect(run.state).toBe('done');
    expect(run.outcomes.soak).toMatchObject({ state: 'skipped', says: 'Seen enough.' });
    expect(run.notes.map(({ text }) => text)).toEqual(['Smells of nothing.']);
  });

  it('records a settling point by hand, and says so', async () => {
    const settle = { fraction: 0.0001, over: 3600, average: 14_400 };
    const sheet = await bench.sheet((steps) => soak(steps, { dwell: 1, settle, station: 'efficiency' }));
    const { id } = await bench.start(sheet.id);
    await bench.through(id, ({ progress }) => progress?.doing.startsWith('Settling: drift') ?? false, 'settling');
    await bench.ask(id, { kind: 'record', readings: [], device: null });
    const run = await bench.through(id, over, 'recorded');
    expect(run.outcomes.soak?.says).toContain('recorded by hand before it settled');
  });

  it('stops for good, with everything off; then nothing more can be asked', async () => {
    const sheet = await bench.sheet((steps) => soak(steps));
    const { id } = await bench.start(sheet.id);
    await bench.drawing(id);
    await bench.ask(id, { kind: 'stop', reason: 'Wrong cable.' });
    const run = await bench.through(id, over, 'stopped');
    expect(run).toMatchObject({ state: 'stopped', says: 'Stopped: Wrong cable.' });
    await expect.poll(() => bench.rack.bench.supply.on).toBe(false);
    await expect(bench.ask(id, { kind: 'repeat' })).rejects.toThrow('This run is over.');
  });

  it('a level that is not offered ends the step, not the sheet', async () => {
    const sheet = await bench.sheet((steps) => [
      ...soak(steps, { id: 'twelve', dwell: 1, outputs: [{ port: 'C1', volts: 12, amps: 1 }] }),
      ...soak(steps, { dwell: 1 }),
    ]);
    const { id } = await bench.start(sheet.id);
    const run = await bench.through(id, over, 'both steps');
    expect(run.outcomes.twelve).toMatchObject({ state: 'failed', says: 'C1 does not offer fixed 12 V now.' });
    expect(run.outcomes.soak?.state).toBe('done');
    expect(run.says).toBe('1 of 2 steps done, 1 could not be done.');
  });
});

describe('who and what', () => {
  it('the tag is checked: a wrong sample on the bench is named, a scanned label counts', async () => {
    const sheet = await bench.sheet((steps) => soak(steps, { dwell: 1 }));
    const other = await bench.make.sample({ model: { model: 'Trio 75' }, unit: { serial: 'PT-1' } });
    await expect(bench.start(sheet.id, { tag: other.tag })).rejects.toThrow('Trio 75, serial PT-1: the wrong sample');
    await expect(bench.start(sheet.id, { tag: 'ZZZZZZ' })).rejects.toThrow('No sample has the tag "ZZZZZZ"');
    const { id } = await bench.start(sheet.id, { tag: `lastmark:${bench.sample.tag.toLowerCase()}` });
    await bench.through(id, over, 'the scanned run');
  });

  it('one run owns its instruments: a second is told who has them, and nothing of theirs reaches them, not even a question', async () => {
    const sheet = await bench.sheet((steps) => soak(steps));
    const { id } = await bench.start(sheet.id);
    await bench.drawing(id);
    await expect(bench.start(sheet.id, { person: 'Second' })).rejects.toThrow(
      /belongs to Warden's run "Ember 45 T-1: Local single mains"/,
    );
    const load = bench.rig.drives?.load;
    const command = (text: string) =>
      request(harness.app).post(`/api/instruments/${load}/commands`).send({ command: text });
    const refused = await command('CURR 5');
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining("belongs to Warden's run")]);
    // In whatever form it is written: a question beside it, in a text, or behind a space makes no difference.
    for (const line of [
      'CURR?',
      '*IDN?',
      'MEAS:CURR?;CURR 1.0',
      'INP OFF;*IDN?',
      '*IDN?;INP OFF',
      ':INP OFF;:MEAS:VOLT?',
      'CURR 5,"?"',
      'INP OFF ?',
      'SYST:ERR?',
      '*TST?',
    ]) {
      const answer = await command(line);
      expect([line, answer.status === 409 || answer.status === 422]).toEqual([line, true]);
    }
    for (const line of ['CURR 5\u2028', 'CURR 5\u0000', 'CURR 5\r']) expect((await command(line)).status).toBe(422);
    // Nor by another door: its address, its scope, another charger under it.
    const { items } = await bench.call<{ items: StoredInstrument[] }>('get', '/instruments');
    const own = items.find((one) => one.id === load) as StoredInstrument;
    const { id: _id, version, ...body } = own;
    const moved = await request(harness.app)
      .put(`/api/instruments/${load}`)
      .set('If-Match', `"v${version}"`)
      .send({ ...body, address: '127.0.0.1:9' });
    expect([moved.status, moved.body.detail]).toEqual([409, expect.stringContaining('change how it is reached')]);
    expect(draws()).toBe(true);
    expect((await bench.call<SheetRun>('get', `/sheet-runs/${id}`)).state).toBe('running');
    await stop(id);
    expect((await command('CURR 1')).status).toBe(201);
  });

  it('a label carries the tag', async () => {
    const answer = await request(harness.app).get(`/api/samples/${bench.sample.id}/label.pdf`);
    expect(answer.headers['content-type']).toBe('application/pdf');
    expect(answer.body.length).toBeGreaterThan(1000);
  });

  it.each([
    ['a method for another kind', { methodId: 'car' }, 'not for a wall charger'],
    ['a method nobody knows', { methodId: 'moonlight' }, 'Choose Regulatory pair'],
  ])('%s makes no sheet', async (_what, part, sentence) => {
    await expect(
      bench.call('post', `/samples/${bench.sample.id}/run-sheets`, { rigId: bench.rig.id, ...part }),
    ).rejects.toThrow(sentence);
  });

  it('a rig without a load of its own runs only what is typed', async () => {
    const plain = await bench.make.rig();
    const make = (methodId: string) =>
      bench.call('post', `/samples/${bench.sample.id}/run-sheets`, { rigId: plain.id, methodId });
    await expect(make('local-mains')).rejects.toThrow('has no load that runs by itself');
    await expect(make('desk')).resolves.toMatchObject({ methodId: 'desk' });
  });

  it('a sheet that ran stays; one that never ran can go', async () => {
    const sheet = await bench.sheet();
    const gone = await request(harness.app).delete(`/api/run-sheets/${sheet.id}`).set('If-Match', '"v1"');
    expect(gone.status).toBe(204);
    const ran = await bench.sheet((steps) => soak(steps, { dwell: 1 }));
    const { id } = await bench.start(ran.id);
    await bench.through(id, over, 'the run');
    const stays = await request(harness.app).delete(`/api/run-sheets/${ran.id}`).set('If-Match', '"v2"');
    expect([stays.status, stays.body.detail]).toEqual([409, expect.stringContaining('This sheet ran')]);
  });
});

describe('a sweep of combinations', () => {
  it('plugs in one after the other, sees what drops out, and loads what each offers', async () => {
    const { truth, sample } = await bench.play('Quad 130');
    // Looks as close together as at a real bench.
    bench.rack.clock.speed = 4;
    const made = await bench.call<{ id: string; title: string; steps: SheetStep[] }>(
      'post',
      `/samples/${sample.id}/run-sheets`,
      {
        methodId: 'local-mains',
        rigId: bench.rig.id,
      },
    );
    const sweep = ofKind(made.steps, 'split');
    expect(sweep).toHaveLength(15);
    const steps = sweep.filter(({ order }) => order.join() === 'C1,C2');
    await request(harness.app)
      .put(`/api/run-sheets/${made.id}`)
      .set('If-Match', '"v1"')
      .send({ title: made.title, rigId: bench.rig.id, steps })
      .expect(200);
    const { id } = await bench.start(made.id, { tag: sample.tag });
    const run = await bench.toItsEnd(id, 'the combination');
    expect(run.state, run.says).toBe('done');
    const found = await bench.call<SampleDossier>('get', `/samples/${sample.id}/dossier`);
    const [split, soft] = found.runs;
    if (split?.kind !== 'split' || soft?.kind !== 'split') throw new Error(JSON.stringify(run.outcomes));
    const watts = split.shares.map(({ volts, amps }) => (volts ?? 0) * (amps ?? 0));
    expect(watts[0]).toBeCloseTo(60, -0.5);
    expect(watts[1]).toBeCloseTo(45, -0.5);
    expect(split.drops[0]).toMatchObject({ port: 'C1', cause: 'C2', dropped: true, back: 'same level' });
    // As far off as it says, by how often this machine had time to look.
    const { seconds, offBy } = split.drops[0] ?? {};
    expect(offBy).toBeGreaterThan(0);
    expect(Math.abs((seconds ?? 0) - truth.gap)).toBeLessThanOrEqual((offBy ?? 0) + 0.05);
    expect(split.drops[1]).toMatchObject({ port: 'C1', cause: 'C2', how: 'unplugged', dropped: true });
    // The other port gets no more while this one draws little: shares are fixed, which is true.
    expect(soft.shares.map(({ light }) => light)).toEqual([false, true]);
    expect(judgeSample(toJudge(found)).results.splits.rule.demand).toBe('fixed');
    expect(found.readOuts.map(({ port, occupied }) => `${port} with ${occupied.join()}`)).toEqual([
      'C1 with C2',
      'C2 with C1',
    ]);
    // What each states it has left of what it is built for.
    expect(found.readOuts.map((one) => infoOf(one))).toMatchObject([
      { maximum: 100, present: 60, reported: 60 },
      { maximum: 65, present: 45, reported: 45 },
    ]);
  });
});

describe('typed at the keypad', () => {
  it('a sheet waits for what the meters show, refuses what cannot be, and keeps the rest', async () => {
    const plain = await bench.make.rig();
    const made = await bench.call<{ id: string; title: string; steps: SheetStep[] }>(
      'post',
      `/samples/${bench.sample.id}/run-sheets`,
      { rigId: plain.id, methodId: 'desk' },
    );
    const steps = made.steps
      .filter((step) => step.kind === 'rig' || (step.kind === 'point' && step.load === 1))
      .slice(0, 2);
    await request(harness.app)
      .put(`/api/run-sheets/${made.id}`)
      .set('If-Match', '"v1"')
      .send({ title: made.title, rigId: plain.id, steps })
      .expect(200);
    const { id } = await bench.start(made.id);
    await bench.through(id, ({ state, says }) => state === 'waiting' && says.includes('then go on'), 'the rig by hand');
    await bench.ask(id, { kind: 'go on', person: 'Warden' });
    await bench.through(id, ({ state, says }) => state === 'waiting' && says.startsWith('Type'), 'the point');
    const readings = (watts: string) => [
      { quantity: 'voltage', place: 'port', port: 'C1', typed: '5.01' },
      { quantity: 'current', place: 'port', port: 'C1', typed: '3,00 A' },
      { quantity: 'power', place: 'mains', port: null, typed: watts },
    ];
    await bench.ask(id, { kind: 'record', readings: readings('1.7'), device: null });
    await bench.through(id, ({ says }) => says.includes('is above input'), 'the refusal');
    await bench.ask(id, { kind: 'record', readings: readings('17.1'), device: null });
    const run = await bench.through(id, over, 'the keypad run');
    expect(Object.values(run.outcomes).map(({ state }) => state)).toEqual(['done', 'done']);
    const [pointId] = run.outcomes[steps[1]?.id ?? '']?.madeIds ?? [];
    const point = (await dossier()).points.find((one) => one.id === pointId);
    expect(point?.readings.map(({ value }) => value)).toEqual([5.01, 3, 17.1]);
  });
});
