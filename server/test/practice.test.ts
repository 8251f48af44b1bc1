// Drills over HTTP: a world of their own, measured in with the same operations, judged against what was hidden.

import { drawDrill } from '@lastmark/bench/sim';
import type { DrillNow, DrillState, SheetRun, StoredInstrument, StoredRig, StoredSheet } from '@lastmark/contract';
import { drillLevel } from '@lastmark/core/drill';
import type { SheetStep } from '@lastmark/core/plan';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('practice');
});
afterAll(() => harness.stop());

const post = async <T = DrillState>(path: string, body: object, status = 201): Promise<T> => {
  const answer = await request(harness.app).post(path).send(body);
  expect([answer.status, status === 201 ? answer.body.detail : null]).toEqual([
    status,
    status === 201 ? undefined : null,
  ]);
  return answer.body as T;
};
const get = async <T>(path: string): Promise<T> => (await request(harness.app).get(path)).body as T;
const begin = (levelId: string, seed: number) => post('/api/drills', { person: 'Ines', levelId, seed });
const leave = async ({ id }: Pick<DrillState, 'id'>) =>
  expect((await request(harness.app).delete(`/api/drills/${id}`)).status).toBe(204);

/** Whatever a test left behind costs no other. */
afterEach(async () => {
  const { drill } = await get<DrillNow>('/api/drills/now');
  if (drill) await leave(drill);
});

/** Run some steps of the usual sheet of a sample to their end, as somebody does in practice. */
async function run(sampleId: string, wanted: (step: SheetStep) => boolean): Promise<SheetRun> {
  const { items: rigs } = await get<{ items: StoredRig[] }>('/practice/api/rigs');
  const rig = rigs.find(({ drives }) => drives?.load);
  const sheet = await post<StoredSheet>(`/practice/api/samples/${sampleId}/run-sheets`, {
    methodId: 'local-mains',
    rigId: rig?.id,
  });
  const changed = await request(harness.app)
    .put(`/practice/api/run-sheets/${sheet.id}`)
    .set('If-Match', '"v1"')
    .send({ title: sheet.title, rigId: sheet.rigId, steps: sheet.steps.filter(wanted), conditions: [] });
  expect(changed.status, JSON.stringify(changed.body)).toBe(200);
  const started = await post<SheetRun>(`/practice/api/run-sheets/${sheet.id}/runs`, {
    person: 'Ines',
    tag: sampleId.slice(-6),
    watched: true,
  });
  await expect
    .poll(async () => (await get<SheetRun>(`/practice/api/sheet-runs/${started.id}`)).state, { timeout: 200_000 })
    .not.toMatch(/running|waiting/);
  return get<SheetRun>(`/practice/api/sheet-runs/${started.id}`);
}

describe('a drill', () => {
  it('is measured in its own world and judged by what was hidden and what was measured', {
    timeout: 300_000,
  }, async () => {
    const real = await makers(harness).sample();
    const drill = await begin('one', 7);
    expect(drill).toMatchObject({ person: 'Ines', levelId: 'one', state: 'under way', used: { steps: 0, seconds: 0 } });
    expect(drill.budget).toBeGreaterThan(900);
    // Nothing of what hides is told while it is under way.
    expect([drill.truth, drill.result]).toEqual([null, null]);
    expect(JSON.stringify(drill)).not.toMatch(/weak|sagging|heavy|lossy/);

    // Nothing is mixed: the shelf of practice has the samples of the drill, the real one its own.
    const ids = async (base: string) =>
      (await get<{ items: { id: string }[] }>(`${base}/samples`)).items.map(({ id }) => id);
    const [part] = drill.parts;
    if (!part) throw new Error('no sample');
    expect(await ids('/practice/api')).toEqual([part.id]);
    expect(await ids('/api')).toEqual([real.id]);

    // Only what shows one kind of fault is measured; the sample goes onto the bench by itself.
    const done = await run(
      part.id,
      (step) => step.kind === 'rig' || (step.kind === 'point' && step.station === 'proof' && step.load === 1),
    );
    expect(done.state).toBe('done');
    expect(Object.values(done.outcomes)[0]?.says).toContain('Reference cable: 11');
    const now = await get<DrillNow>('/api/drills/now');
    expect(now.drill).toMatchObject({ id: drill.id, onBench: part.id });
    expect(now.drill?.used.steps).toBe(done.steps.length);
    expect(now.drill?.used.seconds).toBeGreaterThan(0);

    const verdict = { parts: [{ partId: part.id, faults: [{ id: 'lossy', basis: 'measured' }] }] };
    const ended = await post(`/api/drills/${drill.id}/verdict`, verdict);
    const { truth: told } = ended;
    const [truth] = told ?? [];
    expect(truth?.partId).toBe(part.id);
    expect(truth?.faults).toHaveLength(1);
    // Whatever hid: no loss was measured at four loads, so to call it measured is a slip.
    expect(ended.result?.passed).toBe(false);
    expect(ended.result?.slips.map(({ kind }) => kind)).toContain(
      truth?.faults[0] === 'lossy' ? 'called measured' : 'not there',
    );
    expect(ended.result?.used).toEqual(now.drill?.used);
    // What was measured can still be looked at; the drill itself is over.
    expect(await ids('/practice/api')).toEqual([part.id]);
    await post(`/api/drills/${drill.id}/verdict`, verdict, 409);
    expect((await get<DrillNow>('/api/drills/now')).drill).toBeNull();
    const { items } = await get<{ items: DrillState[] }>('/api/drills');
    expect(items[0]).toMatchObject({ id: drill.id, state: 'stated', person: 'Ines', result: ended.result });

    await leave(drill);
    expect((await request(harness.app).get('/practice/api/samples')).status).toBe(409);
    // A verdict that was stated stays.
    expect(await get<DrillState>(`/api/drills/${drill.id}`)).toMatchObject({ state: 'stated', truth: told });
  });

  it('is one at a time, and the same seed hides the same', async () => {
    const first = await begin('day', 3);
    expect(first.parts.map(({ of }) => of)).toEqual(['charger', 'charger', 'charger', 'cable', 'rig']);
    await post('/api/drills', { person: 'Odo', levelId: 'one', seed: 1 }, 409);
    const state = async (drill: DrillState) => {
      const { truth } = await post(`/api/drills/${drill.id}/verdict`, { parts: [] });
      return truth?.map(({ faults }) => faults);
    };
    const names = first.parts.map(({ name }) => name);
    const hidden = await state(first);
    const again = await begin('day', 3);
    expect(again.parts.map(({ name }) => name)).toEqual(names);
    // Who sells several ports shows on a display what they give; a cable lies between a strong charger and the load.
    const [, several, , cable] = again.parts;
    const placed = (sampleId = '') => post(`/api/drills/${again.id}/bench`, { sampleId });
    expect(await placed(several?.id)).toMatchObject({ onBench: several?.id, display: 0 });
    expect((await get<DrillNow>('/api/drills/now')).drill?.display).toBe(0);
    expect(await placed(cable?.id)).toMatchObject({ onBench: cable?.id, display: null });
    expect(await state(again)).toEqual(hidden);
    await leave(again);
  });

  it('refuses what is not of it', async () => {
    const drill = await begin('rig', 2);
    const [sample, rig] = drill.parts;
    if (!sample || !rig) throw new Error('no parts');
    const verdict = async (parts: object[]) =>
      request(harness.app).post(`/api/drills/${drill.id}/verdict`).send({ parts });
    const one = (partId: string, ...ids: string[]) => ({
      partId,
      faults: ids.map((id) => ({ id, basis: 'measured' })),
    });
    for (const [parts, says] of [
      [[one('nobody', 'lossy')], 'no part of the drill'],
      [[one(sample.id, 'worn lead')], 'cannot have this fault'],
      [[one('rig', 'worn lead', 'worn lead')], 'there twice'],
      [[one('rig'), one('rig')], 'there twice'],
    ] as const) {
      const answer = await verdict([...parts]);
      expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining(says)]);
    }
    const strange = await request(harness.app)
      .post('/api/drills')
      .send({ person: 'Ines', levelId: 'none', seed: null });
    expect(strange.status).toBe(422);
    expect((await request(harness.app).post(`/api/drills/${drill.id}/bench`).send({ sampleId: drill.id })).status).toBe(
      422,
    );
    expect((await request(harness.app).get('/api/drills/01JNOSVCHDR0LL000000000000')).status).toBe(404);
    // Inside there is no drill in a drill, nothing is exported, reported or taken in.
    const inside = (path: string) => request(harness.app).get(`/practice/api${path}`);
    expect((await inside('/drills')).status).toBe(409);
    for (const file of ['report.pdf?language=en', 'export.csv', 'export.json', 'package.zip', 'sheet.pdf'])
      expect((await inside(`/samples/${sample.id}/${file}`)).body.detail).toContain('This is practice');
    expect((await inside('/openapi.json')).status).toBe(200);
    const issued = await request(harness.app).post(`/practice/api/samples/${sample.id}/reports`).send({});
    expect([issued.status, (await inside('/no-such-address')).status]).not.toContain(201);
    expect((await inside('/no-such-address')).status).toBe(404);
    // Nor does anything in it speak to an instrument of the real bench.
    const { items: meters } = await get<{ items: StoredInstrument[] }>('/practice/api/instruments');
    const [meter] = meters;
    if (!meter) throw new Error('no instrument');
    const { id: meterId, version, ...instrument } = meter;
    const moved = (part: object) =>
      request(harness.app)
        .put(`/practice/api/instruments/${meterId}`)
        .set('If-Match', `"v${version}"`)
        .send({ ...instrument, ...part });
    expect((await moved({ address: '127.0.0.1:5301' })).body.detail).toContain('answers where it does');
    expect((await moved({ firmware: '2.0' })).status).toBe(200);
    const more = await request(harness.app)
      .post('/practice/api/instruments')
      .send({ ...instrument, address: 'serial:/dev/ttyS0' });
    expect([more.status, more.body.errors?.[0]?.path]).toEqual([422, 'address']);
    // A sample put on the bench, its meters switched off and on; Loads off reaches both benches.
    expect(await post(`/api/drills/${drill.id}/bench`, { sampleId: sample.id })).toMatchObject({ onBench: sample.id });
    expect(await post(`/api/drills/${drill.id}/restart`, {})).toMatchObject({ state: 'under way' });
    const off = await post<{ items: { sure: boolean }[] }>('/practice/api/loads-off', {});
    expect(off.items.map(({ sure }) => sure)).toEqual([true]);
    await leave(drill);
    expect(await get<DrillState>(`/api/drills/${drill.id}`)).toMatchObject({
      state: 'left',
      truth: null,
      result: null,
    });
  });

  it.each([
    ['worn lead', /^The rig does not prove itself\. Reference cable: 2[34]\d/],
    ['meter out of calibration', /^The rig does not prove itself\. Reference cable: 2/],
    ['frozen meter', /tells the same moment again and again/],
  ])('with a %s is stopped by the rig check, and stating it is right', { timeout: 300_000 }, async (fault, says) => {
    const level = drillLevel('rig');
    const seed = Array.from({ length: 40 }, (_one, at) => at).find(
      (at) => level && drawDrill(level, at).rig[0] === fault,
    );
    const drill = await begin('rig', seed ?? -1);
    const [part] = drill.parts;
    const done = await run(part?.id ?? '', ({ kind }) => kind === 'rig' || kind === 'point');
    expect(done.state).toBe('held');
    expect(done.says).toMatch(says);
    const { result } = await post(`/api/drills/${drill.id}/verdict`, {
      parts: [{ partId: 'rig', faults: [{ id: fault, basis: 'measured' }] }],
    });
    expect(result?.slips.filter(({ partId }) => partId === 'rig' || partId === null)).toEqual([]);
    expect(result?.found).toBe(1);
    await leave(drill);
  });

  it('goes on after the server was started anew', async () => {
    const drill = await begin('one', 11);
    const [part] = drill.parts;
    await harness.practice.close();
    // Asked again, its world is opened on what was there.
    const { drill: again } = await get<DrillNow>('/api/drills/now');
    expect(again).toMatchObject({ id: drill.id, parts: drill.parts, state: 'under way' });
    expect(await get(`/practice/api/samples/${part?.id}`)).toMatchObject({ id: part?.id });
    const rigs = await get<{ items: StoredRig[] }>('/practice/api/rigs');
    expect(rigs.items).toHaveLength(2);
    expect(await post(`/api/drills/${drill.id}/bench`, { sampleId: part?.id })).toMatchObject({ onBench: part?.id });
    await leave(drill);
  });
});
