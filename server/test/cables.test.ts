// What is done with things that sit in the line, over the API: kept once, accepted with the accuracies of its meters, judged.
import type { HeldBackCharger, SampleVerdict, StoredCableRun, UnitFate } from '@lastmark/contract';
import { markerReadOut } from '@lastmark/core/marker';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let rigId: string;
let analyserId: string;

const CABLE = {
  form: 'cable',
  length: 1,
  ends: ['C plug', 'C plug'],
  braid: false,
  strainRelief: 'short',
  stiffness: { how: 'droop', over: 0.2, droop: 0.06 },
  pack: 2,
} as const;

beforeAll(async () => {
  harness = await startHarness('cables');
  make = makers(harness);
  rigId = (await make.rig()).id;
  analyserId = (
    await make.post<{ id: string }>('/instruments', {
      name: 'Analyser',
      class: 'PD analyser',
      firmware: '1',
      calibrationDue: null,
      address: null,
      profileId: null,
      sees: { supplies: ['fixed', 'pps'], signals: ['dcp'] },
      specs: {},
    })
  ).id;
});
afterAll(() => harness.stop());

const cable = (part: object = {}) =>
  make.sample({ model: { kind: 'cable', ports: [], model: 'Tether', cable: { ...CABLE, ...part } as never } });

const head = (part: object = {}) => ({
  id: newId(),
  takenAt: '2026-02-09T10:00:00.000Z',
  bends: 0,
  note: '',
  supersedes: null,
  withdrawn: false,
  ...part,
});
const series = (ohms: number, part: object = {}) => ({
  ...head(),
  kind: 'resistance',
  rigId,
  how: 'four wires',
  side: 'loop',
  steps: [0, 1, 2, 3].map((amps) => ({
    amps,
    near: null,
    far: null,
    drop: amps * ohms + 0.0001 * (amps % 2),
    temperature: 296.15,
  })),
  ...part,
});
const look = (count: number, part: object = {}) => ({
  ...head(),
  kind: 'bend',
  count,
  angle: 90,
  radius: 0.015,
  tension: 5,
  rate: 30,
  fault: 'none',
  charging: 'as before',
  wiggle: null,
  ...part,
});
const copy = (part: object = {}) => ({
  ...head(),
  kind: 'copy',
  mix: 'one file of 2 GB',
  direction: 'to the device',
  bytes: 2e9,
  seconds: 50,
  host: 'laptop',
  link: null,
  hostLink: null,
  errors: 0,
  fellBack: false,
  ...part,
});
const send = (sampleId: string, run: object) =>
  request(harness.app).post(`/api/samples/${sampleId}/cable-runs`).send({ run });
const verdictOf = async (sampleId: string): Promise<SampleVerdict> =>
  (await request(harness.app).get(`/api/samples/${sampleId}/verdict`)).body;

it('a cable is taken in with its ends, and comes back as it was', async () => {
  const { id, model } = await cable();
  expect(model.cable).toEqual(CABLE);
  const again = (await request(harness.app).get(`/api/samples/${id}`)).body;
  expect(again.model.cable).toEqual(CABLE);
  const wrong = await request(harness.app)
    .post('/api/samples')
    .send({ model: { ...model, cable: { ...CABLE, ends: ['C plug'] } }, unit: again.unit });
  expect(wrong.status).toBe(422);
  expect(wrong.body.errors[0].message).toContain('two ends');
});

it('a series of drops is accepted with what its meters state, once, and judged', async () => {
  const { id } = await cable();
  await make.claim(id, { kind: 'cable-rating', amps: 3, volts: 20 });
  const run = series(0.15);
  const first = await send(id, run);
  expect(first.status).toBe(201);
  expect((first.body as StoredCableRun & { kind: 'resistance' }).accuracy).toMatchObject({
    amps: { readingPercent: 0.1 },
    near: null,
    far: { readingPercent: 0.05 },
  });
  expect((await send(id, run)).body).toEqual(first.body);
  const { body: dossier } = await request(harness.app).get(`/api/samples/${id}/dossier`);
  expect(dossier.cableRuns).toHaveLength(1);
  const { claims, stations } = await verdictOf(id);
  expect(claims[0]?.state).toBe('advertised only');
  expect(stations.find((one) => one.id === 'resistance')?.says[0]).toMatch(
    /^150(\.\d+)? ± [\d.]+ mΩ there and back, like 2\d AWG/,
  );
});

it('what cannot be is refused with a sentence, and nothing is kept', async () => {
  const { id } = await cable();
  const refused = async (run: object) => {
    const answer = await send(id, run);
    expect(answer.status).toBe(422);
    return answer.body.errors?.[0]?.message ?? answer.body.detail;
  };
  const step = { amps: 3, near: 19, far: 20, drop: null, temperature: null };
  expect(await refused(series(0.1, { how: 'two meters', steps: [step] }))).toContain('Are the two swapped?');
  expect(await refused(series(0.1, { how: 'two meters', steps: [{ ...step, near: 20, far: 19 }] }))).toContain(
    'no second meter',
  );
  expect(await refused(series(0.1, { rigId: newId() }))).toContain('not on the bench any more');
  expect(await refused(series(0.1, { steps: [] }))).toContain('one reading or more');
  expect(await refused(copy({ seconds: 0.001 }))).toContain('more than any cable carries');
  const { body } = await request(harness.app).get(`/api/samples/${id}/dossier`);
  expect(body.cableRuns).toEqual([]);
  const charger = await make.sample();
  const answer = await send(charger.id, copy());
  expect(answer.status).toBe(422);
  expect(answer.body.errors[0].message).toContain('This is a charger');
});

it('a run is corrected once, and taken back; the raw ones stay', async () => {
  const { id } = await cable();
  const wrong = series(0.9);
  await send(id, wrong);
  const right = series(0.15, { supersedes: wrong.id });
  expect((await send(id, right)).status).toBe(201);
  expect((await send(id, series(0.2, { supersedes: wrong.id }))).status).toBe(409);
  expect((await send(id, series(0.15, { supersedes: right.id, withdrawn: true }))).status).toBe(201);
  const { body } = await request(harness.app).get(`/api/samples/${id}/dossier`);
  expect(body.cableRuns).toHaveLength(3);
  expect((await verdictOf(id)).stations.find((one) => one.id === 'resistance')?.done).toBe(0);
  const gone = await request(harness.app).delete(`/api/samples/${id}`).set('If-Match', body.sample.etag);
  expect(gone.status).toBe(409);
  expect(gone.body.detail).toContain('Nothing measured is ever deleted');
});

it('a marker that does not answer is kept as read, and tells which chargers it holds back', async () => {
  const charger = await make.sample({ model: { model: 'Quad 100' } });
  await make.claim(charger.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 5 });
  const { id } = await cable();
  const readOut = (part: object) => ({
    ...markerReadOut({
      id: newId(),
      port: 'near',
      instrumentId: analyserId,
      takenAt: '2026-02-09T10:00:00.000Z',
      cableWords: [],
      source: 'no answer',
    }),
    ...part,
  });
  const heldBack = async (): Promise<HeldBackCharger[]> =>
    (await request(harness.app).get(`/api/samples/${id}/held-back`)).body.items;
  expect(await heldBack()).toEqual([]);
  const nowhere = await request(harness.app)
    .post(`/api/samples/${id}/read-outs`)
    .send(readOut({ port: 'C1' }));
  expect(nowhere.body.errors[0].message).toBe('There is no end "C1". The ends are near, far.');
  await make.post(`/samples/${id}/read-outs`, readOut({}));
  expect(await heldBack()).toMatchObject([
    { name: 'Tarnhook Quad 100', ports: [{ port: 'C1', promised: 100, through: 60 }] },
  ]);
  await make.post(`/samples/${id}/read-outs`, readOut({ port: 'far', cableWords: ['000A2640'] }));
  expect(await heldBack()).toEqual([]);
});

it('units of a model are told apart by how far they came', async () => {
  const first = await cable();
  const unit = (serial: string) =>
    make.post<{ id: string }>(`/samples/${first.id}/units`, { unit: { ...first.unit, serial } });
  const second = await unit('T-2');
  await unit('T-3');
  await send(first.id, look(2000));
  await send(first.id, look(4000, { fault: 'open', takenAt: '2026-02-09T12:00:00.000Z' }));
  await send(second.id, look(6000, { fault: 'bump' }));
  const { items } = (await request(harness.app).get(`/api/samples/${second.id}/fates`)).body as { items: UnitFate[] };
  expect(items.map(({ serial, at, failed, fault }) => [serial, at, failed, fault])).toEqual([
    ['T-1', 4000, true, 'open'],
    ['T-2', 6000, false, ''],
  ]);
  const again = await send(first.id, look(3000));
  expect(again.body.errors[0].message).toContain('It had 4000 bends already');
});

it('its sheet and its data are made like those of a charger', async () => {
  const { id } = await cable();
  await make.claim(id, { kind: 'bends', count: 8000 });
  await send(id, copy());
  const sheet = await request(harness.app).get(`/api/samples/${id}/sheet.pdf`);
  expect([sheet.status, sheet.headers['content-type']]).toEqual([200, 'application/pdf']);
  const { body } = await request(harness.app).get(`/api/samples/${id}/export.json`).buffer(true);
  expect(JSON.stringify(body)).toContain('one file of 2 GB');
});
