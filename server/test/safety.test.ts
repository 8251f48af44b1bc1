// The safety look over the API: kept once, with who measured; refused in words; judged by the limits chosen at Rules.
import type { SampleDossier, StoredProfile } from '@lastmark/contract';
import type { SafetyCheck } from '@lastmark/core/safety';
import { judgeSample } from '@lastmark/core/verdict';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let meterId: string;

beforeAll(async () => {
  harness = await startHarness('safety');
  make = makers(harness);
  const input = {
    name: 'Leakage meter',
    class: 'bench multimeter',
    firmware: '',
    calibrationDue: '2027-01-31',
    address: null,
    profileId: null,
    sees: null,
    specs: {
      current: {
        readingPercent: 2,
        rangePercent: 0,
        range: 0,
        offset: 2e-6,
        resolution: 0,
        floor: 0,
        coverage: 'not stated',
      },
    },
  };
  meterId = (await make.post<{ id: string }>('/instruments', input)).id;
});
afterAll(() => harness.stop());

const touch = (part: object = {}) => ({
  id: newId(),
  kind: 'touch',
  takenAt: '2026-03-02T10:00:00.000Z',
  note: '',
  supersedes: null as string | null,
  withdrawn: false,
  by: { person: 'Workshop electrician', standing: 'licensed' },
  instrumentId: null as string | null,
  accuracy: null,
  amps: 62e-6,
  form: 'rms',
  network: 'perception',
  mains: { kind: 'ac', volts: 230, hertz: 50 },
  polarity: 'as plugged in',
  earth: 'none',
  from: 'shell of C1',
  loaded: false,
  ...part,
});
const add = (sampleId: string, check: object) =>
  request(harness.app).post(`/api/samples/${sampleId}/checks`).send({ check });
const safetyOf = async (sampleId: string) => {
  const { body } = await request(harness.app).get(`/api/samples/${sampleId}/dossier`);
  return judgeSample(toJudge(body as SampleDossier)).results.safety;
};

it('a check is kept once, with the accuracy its meter has at Bench, and judged', async () => {
  const { id } = await make.sample();
  const check = touch({ instrumentId: meterId });
  const first = await add(id, check);
  expect(first.status).toBe(201);
  expect((first.body as SafetyCheck & { accuracy: object }).accuracy).toMatchObject({
    readingPercent: 2,
    offset: 2e-6,
  });
  expect((await add(id, check)).body).toEqual(first.body);
  const safety = await safetyOf(id);
  expect(safety.touch).toHaveLength(1);
  expect(safety.touch[0]?.judged.map(({ title, state }) => [title, state])).toEqual([
    ['Computing equipment, rms', 'proven'],
  ]);
});

it('without somebody named, or with a meter that is gone, nothing is kept', async () => {
  const { id } = await make.sample();
  const nobody = await add(id, touch({ by: { person: '', standing: 'licensed' } }));
  expect(nobody.status).toBe(422);
  expect(nobody.body.errors[0]).toEqual({ path: 'check.by.person', message: 'Person is empty' });
  const amateur = await add(id, touch({ by: { person: 'Somebody', standing: 'curious' } }));
  expect(amateur.body.errors[0].message).toContain('licensed, trained under a licensed person');
  const gone = await add(id, touch({ instrumentId: newId() }));
  expect([gone.status, gone.body.errors[0].path]).toEqual([422, 'check.instrumentId']);
  expect((await safetyOf(id)).touch).toEqual([]);
});

it('what cannot be so is refused in a sentence', async () => {
  const { id } = await make.sample();
  const open = await add(id, touch({ earth: 'open' }));
  expect([open.status, open.body.detail]).toEqual([422, expect.stringContaining('Its plug has no earth')]);
  const amperes = await add(id, touch({ amps: 62 }));
  expect([amperes.status, amperes.body.errors[0].message]).toEqual([422, 'Current must be at most 0.1 A']);
});

it('is corrected and taken back without losing what stood', async () => {
  const { id } = await make.sample();
  const first = touch();
  await add(id, first);
  const corrected = touch({ amps: 71e-6, supersedes: first.id });
  expect((await add(id, corrected)).status).toBe(201);
  // Somebody else corrects the same one.
  expect((await add(id, touch({ supersedes: first.id }))).status).toBe(409);
  const mark = {
    ...touch(),
    kind: 'mark',
    mark: 'safety listing',
    printed: 'label',
    ambient: null,
    supersedes: corrected.id,
  };
  for (const key of [
    'by',
    'instrumentId',
    'accuracy',
    'amps',
    'form',
    'network',
    'mains',
    'polarity',
    'earth',
    'from',
    'loaded',
  ])
    delete (mark as Record<string, unknown>)[key];
  const other = await add(id, mark);
  expect([other.status, other.body.errors[0].message]).toEqual([
    422,
    'It corrects one of another kind: touch current.',
  ]);
  expect((await add(id, { ...corrected, id: newId(), supersedes: corrected.id, withdrawn: true })).status).toBe(201);
  expect((await safetyOf(id)).touch).toEqual([]);
  const { body } = await request(harness.app).get(`/api/samples/${id}/dossier`);
  expect(body.checks).toHaveLength(3);
  const etag = body.sample.etag as string;
  const removed = await request(harness.app).delete(`/api/samples/${id}`).set('If-Match', etag);
  expect([removed.status, removed.body.detail]).toEqual([409, expect.stringContaining('Safety checks were done on')]);
});

it('is judged anew once other limits are chosen at Rules', async () => {
  const { id } = await make.sample();
  await add(id, touch({ amps: 300e-6, instrumentId: meterId }));
  const { body: profile, headers } = await request(harness.app).get('/api/profile');
  const { version: _, ...rest } = profile as StoredProfile;
  const saved = await request(harness.app)
    .put('/api/profile')
    .set('If-Match', String(headers.etag))
    .send({ ...rest, safety: { setIds: ['iec-62368-1', 'iec-60335-1'], touch: 0.0001 } });
  expect(saved.status).toBe(200);
  expect((await safetyOf(id)).touch[0]?.judged.map(({ title, state }) => [title, state])).toEqual([
    ['Computing equipment, rms', 'proven'],
    ['Household appliances, rms', 'short'],
    ['Your own limit, rms', 'short'],
  ]);
});
