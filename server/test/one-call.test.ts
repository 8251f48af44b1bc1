// Several points in one call: each is held against what stands, those before it in the same call among it; all or none.
import type { Point } from '@lastmark/core/reading';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { aPoint, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let sampleId: string;
let rigId: string;
let setupId: string;
beforeAll(async () => {
  harness = await startHarness('one_call');
  const make = makers(harness);
  sampleId = (await make.sample()).id;
  rigId = (await make.rig()).id;
  setupId = (await make.setup(sampleId, rigId)).id;
});
afterAll(() => harness.stop());

const send = (...points: object[]) => request(harness.app).post(`/api/samples/${sampleId}/readings`).send({ points });
const count = async () => (await request(harness.app).get(`/api/samples/${sampleId}/readings`)).body.total as number;
const watts = (typed: string, part: object = {}) => aPoint(setupId, rigId, { watts: typed }, part);

it('comes back in the order it was sent, each point with its own readings', async () => {
  const made = Array.from({ length: 40 }, (_, index) => watts(`${60 + index}`, { load: 1 }));
  const shuffled = made.map((point, index) => made[(index * 7) % made.length] ?? point);
  const answer = await send(...shuffled);
  expect(answer.status).toBe(201);
  expect(
    (answer.body.points as Point[]).map(({ id, readings }) => [id, ...readings.map(({ typed }) => typed)]),
  ).toEqual(shuffled.map(({ id, readings }) => [id, ...readings.map(({ typed }) => typed)]));
  // The same once more is the same: nothing is added.
  const before = await count();
  expect((await send(...made)).status).toBe(201);
  expect(await count()).toBe(before);
});

it('a point named twice takes the readings of both, and one that is there already stays', async () => {
  const first = watts('70.1');
  const { readings: volts } = aPoint(setupId, rigId, { volts: '20.01' });
  const before = await count();
  const answer = await send(first, { ...first, readings: [...first.readings, ...volts] });
  expect(answer.status).toBe(201);
  expect(await count()).toBe(before + 2);
  const told = (answer.body.points as Point[]).map(({ readings }) => readings.map(({ typed }) => typed));
  expect(told).toEqual([
    ['70.1', '20.01'],
    ['70.1', '20.01'],
  ]);
});

it('a correction may follow what it corrects', async () => {
  const first = watts('70.1');
  const [reading] = first.readings;
  const corrected = { ...first, readings: [{ ...reading, id: newId(), typed: '70.2', supersedes: reading?.id }] };
  const answer = await send(first, corrected);
  expect(answer.status).toBe(201);
  expect((answer.body.points[1] as Point).readings.map(({ typed, supersedes }) => [typed, supersedes])).toEqual([
    ['70.1', null],
    ['70.2', reading?.id],
  ]);
});

it.each<[string, (first: ReturnType<typeof watts>) => object, number, RegExp]>([
  [
    'another value beside one before it',
    (first) => ({ ...watts('70.9'), id: first.id }),
    409,
    /There is a reading here already/,
  ],
  [
    'the same reading with another text',
    (first) => ({ ...first, readings: first.readings.map((one) => ({ ...one, typed: '71' })) }),
    409,
    /Another reading has this id/,
  ],
  [
    'other conditions under the same id',
    (first) => ({ ...aPoint(setupId, rigId, { volts: '20' }, { load: 0.5 }), id: first.id }),
    409,
    /under other conditions/,
  ],
  [
    'a row that was just begun in the same call',
    () => watts('70.3', { pointsSeen: [] }),
    409,
    /began this row a moment ago/,
  ],
  ['what cannot be read', () => watts('seventy'), 422, /./],
])('%s is refused, and nothing of the call stays', async (_what, second, status, says) => {
  const first = watts('70.1', { mains: { kind: 'ac', volts: 240, hertz: 50 } });
  const other = { ...second(first), mains: first.mains };
  const before = await count();
  const answer = await send(first, other);
  expect([answer.status, await count()], JSON.stringify(answer.body)).toEqual([status, before]);
  expect(answer.body.detail ?? JSON.stringify(answer.body)).toMatch(says);
});
