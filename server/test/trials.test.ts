// Trials over the API: planned, run in the drawn order, blind as long as nobody may know, and never changed once they ran.
import type { StoredTrial, TrialRow } from '@lastmark/contract';
import { type BlockTrial, trialOrder } from '@lastmark/core/trial';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { etagOf } from '../src/http/versions.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;

beforeAll(async () => {
  harness = await startHarness('trials');
  make = makers(harness);
});
afterAll(() => harness.stop());

const blocks = (part: Partial<BlockTrial> = {}): BlockTrial => ({
  kind: 'blocks',
  question: 'Is braid quicker?',
  factor: 'cable',
  arms: [
    { name: 'plain', sampleId: null },
    { name: 'braid', sampleId: null },
  ],
  measure: { name: 'time', quantity: 'duration', better: 'lower' },
  held: [{ name: 'port', value: 'C1' }],
  blocks: 2,
  seed: 5,
  matters: null,
  expected: null,
  blind: false,
  ...part,
});
const plan = (trial: object) => make.post<StoredTrial>('/trials', { trial });
const run = (slot: { block: number; cell: readonly number[] }, part: object = {}) => ({
  id: newId(),
  ...slot,
  value: 1500,
  held: [{ name: 'port', value: 'C1' }],
  note: '',
  takenAt: '2026-02-10T10:00:00.000Z',
  supersedes: null,
  withdrawn: false,
  ...part,
});
const send = (id: string, body: object) => request(harness.app).post(`/api/trials/${id}/runs`).send({ run: body });
const tagOf = ({ version }: StoredTrial) => etagOf(version);

it('is planned, run once a place, and listed with the samples it compares', async () => {
  const sample = await make.sample();
  const trial = blocks({
    arms: [
      { name: 'plain', sampleId: sample.id },
      { name: 'braid', sampleId: null },
    ],
  });
  const stored = await plan(trial);
  expect(stored).toMatchObject({ trial, runs: [], letters: [0, 1], version: 1 });
  const [first, second] = trialOrder(stored.trial);
  const one = run(first as never);
  const answer = await send(stored.id, one);
  expect([answer.status, answer.body.runs.length]).toEqual([201, 1]);
  expect((await send(stored.id, one)).body.runs).toHaveLength(1);
  expect((await send(stored.id, run(first as never))).body.errors[0].message).toContain('there already');
  const other = await send(stored.id, run(second as never, { held: [{ name: 'port', value: 'C2' }] }));
  expect(other.status).toBe(422);
  expect(other.body.errors[0].message).toMatch(/“port” was C2.*holds it at C1/);
  const { items } = (await request(harness.app).get(`/api/trials?sampleId=${sample.id}`)).body as { items: TrialRow[] };
  expect(items).toMatchObject([{ id: stored.id, done: 1, planned: 4, words: 'cable: plain or braid' }]);
  const kept = await request(harness.app).delete(`/api/samples/${sample.id}`).set('If-Match', sample.etag);
  expect([kept.status, kept.body.detail]).toEqual([409, expect.stringContaining('A trial is made with this sample')]);
});

it('stays as it was once it ran; before it may be changed and removed, by whoever saw the newest', async () => {
  const stored = await plan(blocks());
  const put = (version: string, trial: BlockTrial) =>
    request(harness.app).put(`/api/trials/${stored.id}`).set('If-Match', version).send({ trial });
  const changed = await put(tagOf(stored), blocks({ blocks: 3 }));
  expect(changed.body).toMatchObject({ version: 2, trial: { blocks: 3 } });
  expect((await put(tagOf(stored), blocks())).status).toBe(412);
  const [slot] = trialOrder(changed.body.trial);
  await send(stored.id, run(slot as never));
  const late = await put(tagOf(changed.body), blocks());
  expect([late.status, late.body.detail]).toEqual([409, expect.stringContaining('Plan another')]);
  expect((await request(harness.app).delete(`/api/trials/${stored.id}`).set('If-Match', etagOf(2))).status).toBe(409);
  const fresh = await plan(blocks());
  expect((await request(harness.app).delete(`/api/trials/${fresh.id}`).set('If-Match', tagOf(fresh))).status).toBe(204);
  expect((await request(harness.app).get(`/api/trials/${fresh.id}`)).status).toBe(404);
});

it('tells no letters while it is blind; the key is kept as opened; opened to all it takes no more runs', async () => {
  const stored = await plan(blocks({ blind: true }));
  expect(stored.letters).toBeNull();
  const [first, second] = trialOrder(stored.trial);
  await send(stored.id, run(first as never));
  const key = await request(harness.app).post(`/api/trials/${stored.id}/key`);
  expect([...key.body.letters].sort()).toEqual([0, 1]);
  const before = (await request(harness.app).get(`/api/trials/${stored.id}`)).body as StoredTrial;
  expect([before.letters, before.keyOpenedAt]).toEqual([null, expect.any(String)]);
  const open = await request(harness.app).post(`/api/trials/${stored.id}/reveal`);
  expect(open.body.letters).toEqual(key.body.letters);
  const late = await send(stored.id, run(second as never));
  expect([late.status, late.body.errors[0].message]).toEqual([422, expect.stringContaining('not blind any more')]);
});

it('draws letters in both ways', async () => {
  const seen = new Set<string>();
  for (let turn = 0; turn < 40 && seen.size < 2; turn += 1) {
    const { id } = await plan(blocks({ blind: true }));
    seen.add(String((await request(harness.app).post(`/api/trials/${id}/key`)).body.letters));
  }
  expect(seen.size).toBe(2);
});

it('of nonsense is refused with what is wrong', async () => {
  const refusal = async (trial: object) => {
    const answer = await request(harness.app).post('/api/trials').send({ trial });
    expect(answer.status).toBe(422);
    return answer.body.errors[0].message as string;
  };
  expect(await refusal(blocks({ arms: [{ name: 'one', sampleId: null }] }))).toContain('Two or more are compared');
  expect(
    await refusal(
      blocks({
        arms: [
          { name: 'a', sampleId: null },
          { name: 'A', sampleId: null },
        ],
      }),
    ),
  ).toContain('same name');
  expect(
    await refusal(
      blocks({
        arms: [
          { name: 'a', sampleId: newId() },
          { name: 'b', sampleId: null },
        ],
      }),
    ),
  ).toContain('not on the shelf');
  expect(await refusal({ ...blocks(), blocks: 0 })).toContain('at least 1');
  const arms = Array.from({ length: 12 }, (_, at) => ({ name: `${at}`, sampleId: null }));
  const { factor: _f, arms: _a, matters: _m, expected: _e, blind: _b, ...head } = blocks({ blocks: 40 });
  const table = {
    ...head,
    kind: 'matrix',
    factors: [
      { name: 'x', levels: arms },
      { name: 'y', levels: arms },
    ],
  };
  expect(await refusal(table)).toContain('2000 at most');
});

it('a table is planned and run like pairs', async () => {
  const { factor: _f, arms, matters: _m, expected: _e, blind: _b, ...head } = blocks({ blocks: 1 });
  const stored = await plan({
    ...head,
    kind: 'matrix',
    factors: [
      { name: 'cable', levels: arms },
      {
        name: 'port',
        levels: [
          { name: 'C1', sampleId: null },
          { name: 'C2', sampleId: null },
        ],
      },
    ],
  });
  for (const slot of trialOrder(stored.trial))
    expect((await send(stored.id, run(slot, { held: stored.trial.held }))).status).toBe(201);
  const { body } = await request(harness.app).get(`/api/trials/${stored.id}`);
  expect(body.runs).toHaveLength(4);
});
