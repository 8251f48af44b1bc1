import type { Point } from '@lastmark/core/reading';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { aPoint, EU, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let sampleId: string;
let rigId: string;
let setupId: string;
beforeAll(async () => {
  harness = await startHarness('readings');
  make = makers(harness);
  sampleId = (await make.sample()).id;
  rigId = (await make.rig()).id;
  setupId = (await make.setup(sampleId, rigId)).id;
});
afterAll(() => harness.stop());

const send = (...points: object[]) => request(harness.app).post(`/api/samples/${sampleId}/readings`).send({ points });
const count = async () => (await request(harness.app).get(`/api/samples/${sampleId}/readings`)).body.total as number;
const full = (part?: object) => aPoint(setupId, rigId, { watts: '71.62', volts: '20.043', amps: '3248 mA' }, part);

describe('a reading', () => {
  it('is parsed, given its uncertainty and instrument, and kept as typed', async () => {
    const answer = await send(full());
    expect(answer.status).toBe(201);
    const [point] = answer.body.points as Point[];
    expect(point?.readings.map(({ quantity, value, typed }) => [quantity, value, typed])).toEqual([
      ['power', 71.62, '71.62'],
      ['voltage', 20.043, '20.043'],
      ['current', 3.248, '3248 mA'],
    ]);
    expect(point?.readings[0]?.u).toBeCloseTo(0.11976, 5);
    expect(point?.readings.every(({ instrumentId }) => instrumentId !== null)).toBe(true);
  });

  it('sent twice after a lost answer counts once', async () => {
    const point = full();
    await send(point);
    const before = await count();
    const again = await send(point);
    expect(again.status).toBe(201);
    expect(await count()).toBe(before);
  });

  it('needs no id: the server makes them, and with a key what is sent twice counts once', async () => {
    const { id: _, ...point } = full({ takenAt: '2026-03-02T10:00:00.000Z' });
    const bare = { ...point, readings: point.readings.map(({ id: __, ...one }) => one) };
    const withKey = (key: string, body: object) =>
      request(harness.app)
        .post(`/api/samples/${sampleId}/readings`)
        .set('Idempotency-Key', key)
        .send({ points: [body] });
    const before = await count();
    const first = await withKey('log 7, line 12', bare);
    expect([first.status, await count()]).toEqual([201, before + 3]);
    const again = await withKey('log 7, line 12', bare);
    expect([again.status, await count()]).toEqual([201, before + 3]);
    expect(again.body.points[0].id).toBe(first.body.points[0].id);
    expect(new Set(first.body.points[0].readings.map((one: { id: string }) => one.id)).size).toBe(3);
    // Another body under the same key is no repeat.
    const [watts, ...rest] = bare.readings;
    const other = await withKey('log 7, line 12', { ...bare, readings: [{ ...watts, typed: '70' }, ...rest] });
    expect([other.status, await count()]).toEqual([409, before + 3]);
    expect((await withKey('log 7, line 13', bare)).body.points[0].id).not.toBe(first.body.points[0].id);
    expect((await send(bare)).status).toBe(201);
    expect(await count()).toBe(before + 9);
  });

  it('sent again under its key counts once whenever that is, and stands in the log once', async () => {
    // It names no moment of its own: its id must not follow from when it came.
    const remark = { about: 'sample', aboutId: sampleId, kind: 'note', text: 'Warm', mentions: [], answers: null };
    const say = () =>
      request(harness.app).post(`/api/samples/${sampleId}/remarks`).set('Idempotency-Key', 'warm').send({ remark });
    const first = await say().expect(201);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect((await say().expect(201)).body.id).toBe(first.body.id);
    const point = full();
    await send(point);
    await send(point);
    const entriesOf = async (thing: string) =>
      (await request(harness.app).get(`/api/log?thing=${thing}`).expect(200)).body.items.length;
    expect([await entriesOf(first.body.id), await entriesOf(point.readings[0]?.id ?? '')]).toEqual([1, 1]);
    // One reading more in it is no repeat.
    const more = full();
    await send({ ...more, readings: [more.readings[0]] });
    await send(more);
    expect(await entriesOf(more.readings[0]?.id ?? '')).toBe(2);
  });

  it('is corrected by a new one, the old staying', async () => {
    const point = full();
    await send(point);
    const old = point.readings[0];
    const correction = {
      id: newId(),
      quantity: 'power',
      place: 'mains',
      port: null,
      typed: '71.9',
      supersedes: old?.id,
    };
    const answer = await send({ ...point, readings: [correction] });
    expect(answer.body.points[0].readings).toHaveLength(4);
    const second = await send({ ...point, readings: [{ ...correction, id: newId(), typed: '80' }] });
    expect(second.status).toBe(409);
    expect(second.body.detail).toContain('corrected this reading meanwhile');
  });

  it('that was corrected may be told why, once', async () => {
    const point = full({ takenAt: '2026-03-02T11:00:00.000Z' });
    await send(point);
    const [old] = point.readings;
    const correction = { ...old, id: newId(), typed: '71.9', supersedes: old?.id };
    await send({ ...point, readings: [correction] });
    const say = (id: string | undefined, because: string) =>
      request(harness.app).post(`/api/samples/${sampleId}/readings/${id}/because`).send({ because });
    expect((await say(correction.id, 'the clamp was open')).body).toMatchObject({ because: 'the clamp was open' });
    expect((await say(correction.id, 'the clamp was open')).status).toBe(201);
    const other = await say(correction.id, 'no, the fuse');
    expect([other.status, other.body.detail]).toEqual([409, expect.stringContaining('the clamp was open')]);
    expect((await say(old?.id, 'x')).status).toBe(409);
    expect((await say(newId(), 'x')).status).toBe(404);
    expect((await say(correction.id, '')).status).toBe(422);
    const dossier = (await request(harness.app).get(`/api/samples/${sampleId}/dossier`)).body;
    const stored = dossier.points.flatMap(({ readings }: Point) => readings);
    expect(stored.find(({ id }: { id: string }) => id === correction.id)).toMatchObject({
      because: 'the clamp was open',
    });
    // Said with the correction it counts too.
    const again = { ...old, id: newId(), typed: '72', supersedes: correction.id, because: 'read again' };
    const answer = await send({ ...point, readings: [again] });
    expect(answer.body.points[0].readings.at(-1)).toMatchObject({ typed: '72', because: 'read again' });
  });

  it('does not stand beside another of the same thing', async () => {
    const point = full();
    await send(point);
    const beside = await send({
      ...point,
      readings: [{ id: newId(), quantity: 'power', place: 'mains', port: null, typed: '70' }],
    });
    expect(beside.status).toBe(409);
  });

  it('may say of how many samples it is the mean, how far they spread, and where it comes from', async () => {
    const point = full();
    const [first, ...rest] = point.readings;
    const of = { count: 250, spread: 0.12, source: 'script of the night bench' };
    const answer = await send({ ...point, readings: [{ ...first, ...of }, ...rest] });
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    expect(answer.body.points[0].readings[0]).toMatchObject(of);
    expect(answer.body.points[0].readings[1]).toMatchObject({ count: 1, spread: 0, source: 'keypad' });
    const one = full();
    const lone = await send({ ...one, readings: [{ ...one.readings[0], spread: 0.12 }, ...one.readings.slice(1)] });
    expect([lone.status, JSON.stringify(lone.body)]).toEqual([422, expect.stringContaining('give the count as well')]);
    const none = full();
    expect((await send({ ...none, readings: [{ ...none.readings[0], count: 0 }] })).status).toBe(422);
  });

  it('is struck out by an empty correction', async () => {
    const point = full();
    await send(point);
    const strike = {
      id: newId(),
      quantity: 'power',
      place: 'mains',
      port: null,
      typed: '',
      supersedes: point.readings[0]?.id,
    };
    const answer = await send({ ...point, readings: [strike] });
    expect(answer.status).toBe(201);
    expect(answer.body.points[0].readings.at(-1).value).toBeNull();
  });

  it('cannot be changed or deleted by any operation', async () => {
    const { body } = await request(harness.app).get('/api/openapi.json');
    const writes = Object.entries(body.paths as Record<string, object>).filter(([path]) => /readings/.test(path));
    // Listed, added to, and told why once.
    expect(writes.flatMap(([, methods]) => Object.keys(methods)).sort()).toEqual(['get', 'post', 'post']);
  });
});

describe('what cannot be true is refused, and nothing of it is kept', () => {
  const idle = (typed: string, part: object = {}) => ({
    ...aPoint(setupId, rigId, { watts: typed }),
    setupId: null,
    load: 0,
    ...part,
  });

  it.each([
    [
      'output above input',
      () => aPoint(setupId, rigId, { watts: '60', volts: '20', amps: '3.25' }),
      'is above input 60 W',
    ],
    ['a unit of something else', () => aPoint(setupId, rigId, { watts: '60 V' }), '"V" is not a unit of power'],
    ['no number', () => aPoint(setupId, rigId, { watts: 'about sixty' }), 'is not a number'],
    ['nothing', () => aPoint(setupId, rigId, { watts: '' }), 'Nothing typed'],
    ['negative watts', () => aPoint(setupId, rigId, { watts: '-5' }), 'wired backwards'],
    ['a load point without a loading', () => ({ ...full(), setupId: null }), 'belongs to a loading'],
    [
      'volts at another place than the rig senses',
      () => ({
        ...full(),
        readings: [{ id: newId(), quantity: 'voltage', place: 'load-end', port: 'C1', typed: '20' }],
      }),
      'has no meter at the load-end',
    ],
    [
      'a port the loading does not have',
      () => ({ ...full(), readings: [{ id: newId(), quantity: 'voltage', place: 'port', port: 'A1', typed: '5' }] }),
      'not an output of this loading',
    ],
    ['a rig that is gone', () => ({ ...full(), rigId: newId() }), 'rig is not on the bench'],
  ])('%s', async (_what, point, sentence) => {
    const before = await count();
    const answer = await send(point());
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain(sentence);
    expect(answer.body.errors[0].path).toMatch(/^points\[0\]/);
    expect(await count()).toBe(before);
  });

  it('no load beside amps', async () => {
    const loaded = { ...full(), load: 0 };
    expect((await send(loaded)).body.detail).toContain('No load, yet 3.248 A flows');
  });

  it('one bad point refuses the whole batch', async () => {
    const before = await count();
    expect((await send(full(), idle('0.05'), aPoint(setupId, rigId, { watts: 'x' }))).status).toBe(422);
    expect(await count()).toBe(before);
    expect((await send(idle('0.05'))).status).toBe(201);
  });

  it('a point keeps its conditions', async () => {
    const point = full();
    await send(point);
    const moved = await send({
      ...point,
      mains: { ...EU, volts: 115 },
      readings: [{ id: newId(), quantity: 'power-factor', place: 'mains', port: null, typed: '0.9' }],
    });
    expect(moved.status).toBe(409);
  });
});

describe('many hands at once', () => {
  it('lose no accepted reading and accept no contradiction', async () => {
    const point = full({ readings: [] });
    const cells = [
      { quantity: 'power', place: 'mains', port: null, typed: '71.62' },
      { quantity: 'voltage', place: 'port', port: 'C1', typed: '20.04' },
      { quantity: 'current', place: 'port', port: 'C1', typed: '3.25' },
      { quantity: 'power-factor', place: 'mains', port: null, typed: '0.93' },
    ];
    const before = await count();
    const answers = await Promise.all(cells.map((cell) => send({ ...point, readings: [{ id: newId(), ...cell }] })));
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201, 201]);
    expect(await count()).toBe(before + 4);
  });
});

it('a loading with readings keeps its outputs but may be renamed', async () => {
  const put = (body: object, version: number) =>
    request(harness.app).put(`/api/setups/${setupId}`).set('If-Match', `"v${version}"`).send(body);
  const base = {
    name: 'Renamed',
    outputs: [{ port: 'C1', volts: 20, amps: 3.25 }],
    evidence: 'load',
    purpose: 'efficiency',
    rigId,
    nameplateClass: 'basic',
    classReason: 'Its second port is for service only.',
  };
  expect((await put({ ...base, outputs: [{ port: 'C1', volts: 9, amps: 3 }] }, 1)).status).toBe(409);
  const unexplained = await put({ ...base, classReason: '' }, 1);
  expect([unexplained.status, unexplained.body.errors?.[0]?.message]).toEqual([
    422,
    expect.stringContaining('Say why'),
  ]);
  expect((await put(base, 1)).body).toMatchObject({ name: 'Renamed', nameplateClass: 'basic', version: 2 });
  expect((await request(harness.app).delete(`/api/setups/${setupId}`).set('If-Match', '"v2"')).status).toBe(409);
});
