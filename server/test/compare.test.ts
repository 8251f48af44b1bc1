// Comparisons over the API: sets by rule with who fell out, one condition for all, and how the shelf is filed and found.
import type { SampleInput, SetAnswer, StoredComparison } from '@lastmark/contract';
import { EVERYTHING } from '@lastmark/core/compare';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { workOutFigures } from '../src/shelf/figures.ts';
import { aPoint, EU, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('compare');
  make = makers(harness);
});
afterAll(() => harness.stop());

const workOut = async () => {
  while (await workOutFigures(harness.db, 100));
};
const ALL = { ...EVERYTHING, oneUnit: false };
const look = async (rule: object, measures: readonly object[] = []) => {
  const { status, body } = await request(harness.app).post('/api/comparison-set').send({ rule, measures });
  expect([status, body.detail]).toEqual([201, undefined]);
  return body as SetAnswer;
};
const shelf = async (query: string) =>
  (await request(harness.app).get(`/api/samples?size=50&${query}`)).body as {
    items: { id: string; labels: string[]; archived: boolean }[];
    total: number;
  };
const charger = (model: string, part: Partial<SampleInput['model']> = {}) => make.sample({ model: { model, ...part } });
/** Idle as a meter reads it at 230 V, and at 115 V where that is given. */
async function idle(sampleId: string, at230: string, at115?: string): Promise<void> {
  const rig = await make.rig();
  for (const [mains, watts] of [
    [EU, at230],
    [{ kind: 'ac', volts: 115, hertz: 60 }, at115],
  ] as const)
    if (watts !== undefined) {
      const point = aPoint(newId(), rig.id, { watts }, { setupId: null, load: 0, mains });
      const { status, body } = await request(harness.app)
        .post(`/api/samples/${sampleId}/readings`)
        .send({ points: [point] });
      expect([status, body.detail]).toEqual([201, undefined]);
    }
}

it('a set says who stands in it, who fell out and why, and takes the condition most share', async () => {
  const [one, two, three] = [
    await charger('Ember 45'),
    await charger('Ember 65'),
    await charger('Quad', { kind: 'desktop' }),
  ];
  await idle(one.id, '42 mW', '38 mW');
  await idle(two.id, '61 mW');
  await idle(three.id, '0.19 W', '0.17 W');
  await workOut();
  const told = await look({ ...ALL, kinds: ['wall'] }, [
    { measure: 'idle', condition: null },
    { measure: 'mass', condition: null },
  ]);
  expect(told.members.map(({ model }) => model)).toEqual(['Ember 45', 'Ember 65']);
  expect(told.out).toEqual([
    { id: three.id, title: expect.stringContaining('Quad'), reason: 'desktop, and the set takes wall' },
  ]);
  expect(told.conditions[0]).toEqual({
    measure: 'idle',
    shared: [
      { condition: '230 V 50 Hz', count: 2 },
      { condition: '115 V 60 Hz', count: 1 },
    ],
  });
  const [idles, mass] = told.columns;
  expect(idles).toMatchObject({ condition: '230 V 50 Hz', of: [0, 1], value: [0.042, 0.061] });
  expect(idles?.u[0]).toBeGreaterThan(0);
  // One rig each: their meters are not the same.
  expect(new Set(idles?.meters).size).toBe(2);
  expect(mass).toMatchObject({ condition: 'with plug', value: [0.083, 0.083] });
  const other = await look(ALL, [{ measure: 'idle', condition: '115 V 60 Hz' }]);
  expect(other.columns[0]?.value).toEqual([0.038, 0.17]);
  expect((await look(ALL, [{ measure: 'ripple', condition: null }])).columns).toEqual([]);
});

it('a comparison is kept with who stood in it, changed by one at a time, and its formulas are held to their units', async () => {
  const body = {
    title: 'Wall chargers of the huts',
    note: '',
    rule: { ...ALL, kinds: ['wall'] },
    measures: [
      { measure: 'idle', condition: '230 V 50 Hz' },
      { measure: 'own-idle-per-watt', condition: null },
    ],
    own: [{ id: 'own-idle-per-watt', title: 'Idle per watt', formula: 'idle / watts', better: 'less' }],
    weights: [{ measure: 'idle', weight: 2 }],
  };
  const made = await request(harness.app).post('/api/comparisons').send(body);
  expect(made.status).toBe(201);
  const stored = made.body as StoredComparison;
  expect(stored).toMatchObject({ ...body, version: 1 });
  const before = stored.members.length;
  const added = await charger('Ember 30');
  await workOut();
  expect((await look(body.rule)).members.length).toBe(before + 1);
  expect((await request(harness.app).get(`/api/comparisons/${stored.id}`)).body.members).not.toContain(added.id);
  const at = `/api/comparisons/${stored.id}`;
  const changed = await request(harness.app)
    .put(at)
    .set('If-Match', '"v1"')
    .send({ ...body, note: 'seen' });
  expect([changed.status, changed.body.members.includes(added.id), changed.body.version]).toEqual([200, true, 2]);
  expect((await request(harness.app).put(at).set('If-Match', '"v1"').send(body)).status).toBe(412);
  const wrong = async (part: object) =>
    (
      await request(harness.app)
        .post('/api/comparisons')
        .send({ ...body, ...part })
    ).body.errors?.[0];
  expect(await wrong({ own: [{ ...body.own[0], formula: 'idle + mass' }] })).toEqual({
    path: 'own[0].formula',
    message: expect.stringContaining('units do not fit'),
  });
  expect(await wrong({ own: [] })).toMatchObject({ path: 'measures[1].measure' });
  expect(await wrong({ measures: [{ measure: 'stars', condition: null }] })).toMatchObject({
    path: 'measures[0].measure',
  });
  expect((await request(harness.app).get('/api/comparisons')).body.items).toHaveLength(1);
  expect((await request(harness.app).delete(at).set('If-Match', '"v2"')).status).toBe(204);
  expect((await request(harness.app).get(at)).status).toBe(404);
});

it('samples are labelled and archived many at once, and put back as they were', async () => {
  const [one, two] = [await charger('Filed one'), await charger('Filed two')];
  const file = (filings: readonly object[]) => request(harness.app).post('/api/filings').send({ filings });
  const { status, body } = await file([
    { id: one.id, labels: ['upper huts', 'upper huts'], archived: false },
    { id: two.id, labels: [], archived: true },
  ]);
  expect([status, body.before]).toEqual([
    201,
    [
      { id: one.id, labels: [], archived: false },
      { id: two.id, labels: [], archived: false },
    ],
  ]);
  expect((await shelf('label=upper%20huts')).items.map(({ id, labels }) => [id, labels])).toEqual([
    [one.id, ['upper huts']],
  ]);
  expect((await shelf('q=Filed')).items.map(({ id }) => id)).toEqual([one.id]);
  expect((await shelf('archived=true')).items.map(({ id }) => id)).toEqual([two.id]);
  await workOut();
  expect((await look(ALL)).out).toContainEqual({ id: two.id, title: expect.any(String), reason: 'archived' });
  await file(body.before);
  expect((await shelf('q=Filed')).total).toBe(2);
  const nobody = await file([
    { id: one.id, labels: ['x'], archived: false },
    { id: newId(), labels: [], archived: false },
  ]);
  expect([nobody.status, nobody.body.errors[0].path]).toEqual([422, 'filings[1].id']);
  expect((await shelf('label=x')).total).toBe(0);
});

it('a sample is found by its notes, promises, labels and own words', async () => {
  const { id } = await make.sample({ model: { model: 'Sought' }, unit: { notes: 'Buzzes quietly at night.' } });
  await make.post(`/samples/${id}/claims`, {
    promise: { kind: 'wording', text: 'Moonlight charging' },
    duration: { kind: 'unstated' },
    printed: 'box, back',
  });
  await request(harness.app)
    .put(`/api/samples/${id}/conclusion`)
    .set('If-Match', '"v0"')
    .send({
      lines: [{ kind: 'own', id: newId(), text: { en: 'Fit for the larch cabin.', de: 'Gut für die Lärchenhütte.' } }],
    });
  await request(harness.app)
    .post('/api/filings')
    .send({ filings: [{ id, labels: ['quarantine'], archived: false }] });
  await workOut();
  for (const words of ['buzzes', 'buzz night', 'moonlight', 'larch', 'lärchenhütte', 'quarantine', 'sought buzzes'])
    expect([words, (await shelf(`q=${encodeURIComponent(words)}`)).items.map((one) => one.id)]).toEqual([words, [id]]);
  for (const words of ['buzzes sunlight', '+-*"()@~<>', 'moonlight" OR "1'])
    expect([words, (await shelf(`q=${encodeURIComponent(words)}`)).total]).toEqual([words, 0]);
});

it('is away with the demo and does not fail where nothing is', async () => {
  const none = await look({ kind: 'picked', picks: [{ id: newId(), reason: 'gone by now' }] }, [
    { measure: 'idle', condition: null },
  ]);
  expect([none.members, none.columns, none.pending]).toEqual([[], [], false]);
  const refused = await request(harness.app)
    .post('/api/comparison-set')
    .send({ rule: { kind: 'all' }, measures: [] });
  expect(refused.status).toBe(422);
});

it('a search is kept by its title, and goes again', async () => {
  const search = { title: 'Buzzing ones', query: 'q=buzz&kind=wall' };
  const made = await request(harness.app).post('/api/searches').send(search);
  expect([made.status, made.body]).toEqual([201, { ...search, id: expect.any(String) }]);
  expect((await request(harness.app).get('/api/searches')).body.items).toEqual([made.body]);
  expect((await request(harness.app).delete(`/api/searches/${made.body.id}`)).status).toBe(204);
  expect((await request(harness.app).delete(`/api/searches/${made.body.id}`)).status).toBe(404);
  expect((await request(harness.app).post('/api/searches').send({ title: '', query: 'q=a' })).status).toBe(422);
});
