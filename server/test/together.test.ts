// Several at once: one row begun twice, and what others do shown to each.
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { firstCode } from '../src/people/invitations.ts';
import { aPoint, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let ada: request.Agent;
let brook: request.Agent;
const PASSWORD = 'hut on the ridge';

beforeAll(async () => {
  harness = await startHarness('together', { people: true });
  ada = request.agent(harness.app);
  const secret = await firstCode(harness.db);
  await ada.post('/api/join').send({ secret, signIn: 'ada', name: 'Ada Marrow', password: PASSWORD }).expect(201);
  const { path } = (await ada.post('/api/invitations').send({ role: 'engineer', note: '' })).body as { path: string };
  brook = request.agent(harness.app);
  await brook
    .post('/api/join')
    .send({ secret: path.split('#')[1], signIn: 'brook', name: 'Brook Tarn', password: PASSWORD })
    .expect(201);
});
afterAll(() => harness.stop());

async function aRow() {
  const own = makers(harness, ada);
  const sample = await own.sample();
  const rig = await own.rig();
  const setup = await own.setup(sample.id, rig.id);
  const send = (agent: request.Agent, typed: Parameters<typeof aPoint>[2], part: object = {}) =>
    agent
      .post(`/api/samples/${sample.id}/readings`)
      .send({ points: [aPoint(setup.id, rig.id, typed, { seen: [], ...part })] });
  const points = async () => (await ada.get(`/api/samples/${sample.id}/dossier`)).body.points as { id: string }[];
  return { sample, setup, rig, send, points };
}

describe('a row two begin at once', () => {
  it('is one run: the second is told whose it is, and nothing of theirs is kept', async () => {
    const { send, points } = await aRow();
    const both = await Promise.all([send(ada, { watts: '70.1' }), send(brook, { volts: '20.02' })]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
    const refused = both.find(({ status }) => status === 409);
    const winner = both[0]?.status === 201 ? 'Ada Marrow' : 'Brook Tarn';
    expect(refused?.body.detail).toBe(
      `${winner} began this row a moment ago. It is shown now: Enter once more adds yours to it, or corrects what stands there.`,
    );
    expect(await points()).toHaveLength(1);
  });

  it('may be run again by whoever has seen what is there, and under other conditions by anybody', async () => {
    const { send, points } = await aRow();
    await send(ada, { watts: '70.1' }).expect(201);
    const [first] = await points();
    await send(brook, { watts: '70.2' }, { seen: [first?.id] }).expect(201);
    await send(ada, { watts: '35.1' }, { load: 0.5 }).expect(201);
    await send(ada, { watts: '70.9' }, { mains: { kind: 'ac', volts: 115, hertz: 60 } }).expect(201);
    // Sent again after a lost answer it is the same point.
    const id = newId();
    const again = {
      id,
      load: 0.25,
      readings: [{ id: newId(), quantity: 'power', place: 'mains', port: null, typed: '18' }],
    };
    await send(ada, {}, again).expect(201);
    await send(ada, {}, again).expect(201);
    // A script that says nothing of it is not asked.
    await send(ada, { watts: '70.3' }, { seen: undefined }).expect(201);
    expect(await points()).toHaveLength(6);
  });

  it('is one run however many begin it', async () => {
    const { send, points } = await aRow();
    const all = await Promise.all(
      Array.from({ length: 8 }, (_, turn) => send(turn % 2 ? ada : brook, { watts: `70.${turn}` })),
    );
    expect(all.filter(({ status }) => status === 201)).toHaveLength(1);
    expect(all.filter(({ status }) => status === 409)).toHaveLength(7);
    expect(await points()).toHaveLength(1);
  });
});
