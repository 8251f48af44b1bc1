// Several at once: one row begun twice, and what others do shown to each.
import type { News, OpenRemark, Remark } from '@lastmark/contract';
import { sql } from 'drizzle-orm';
import type request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { aPoint, aSample, type Harness, makers, startHarness } from '../testing/harness.ts';
import { firstPerson, somebodyNew } from '../testing/people.ts';

let harness: Harness;
let ada: request.Agent;
let brook: request.Agent;

beforeAll(async () => {
  harness = await startHarness('together', { people: true });
  ada = await firstPerson(harness);
  brook = (await somebodyNew(harness, ada, 'Brook', 'engineer')).agent;
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
      .send({ points: [aPoint(setup.id, rig.id, typed, { pointsSeen: [], ...part })] });
  const points = async () => (await ada.get(`/api/samples/${sample.id}/dossier`)).body.points as { id: string }[];
  return { sample, setup, rig, send, points };
}

describe('a row two begin at once', () => {
  it('is one run: the second is told whose it is, and nothing of theirs is kept', async () => {
    const { send, points } = await aRow();
    const both = await Promise.all([send(ada, { watts: '70.1' }), send(brook, { volts: '20.02' })]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
    const refused = both.find(({ status }) => status === 409);
    const winner = both[0]?.status === 201 ? 'Ada Marrow' : 'Brook';
    expect(refused?.body.detail).toBe(
      `${winner} began this row a moment ago. It is shown now: Enter once more adds yours to it, or corrects what stands there.`,
    );
    expect(await points()).toHaveLength(1);
  });

  it('may be run again by whoever has seen what is there, and under other conditions by anybody', async () => {
    const { send, points } = await aRow();
    await send(ada, { watts: '70.1' }).expect(201);
    const [first] = await points();
    await send(brook, { watts: '70.2' }, { pointsSeen: [first?.id] }).expect(201);
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
    await send(ada, { watts: '70.3' }, { pointsSeen: undefined }).expect(201);
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

describe('news', () => {
  const ask = async (agent: request.Agent, tab: string, part: object = {}) =>
    (
      await agent
        .post('/api/news')
        .send({ tab, newest: '', sampleId: null, place: '', ...part })
        .expect(200)
    ).body as News;
  /** What a page is told until it was told something. */
  async function told(
    agent: request.Agent,
    tab: string,
    newest: string,
    sampleId: string | null = null,
  ): Promise<News> {
    let last = await ask(agent, tab, { newest, sampleId });
    await expect
      .poll(async () => {
        if (last.entries.length === 0 && !last.missed) last = await ask(agent, tab, { newest, sampleId });
        return last.entries.length > 0 || last.missed;
      })
      .toBe(true);
    return last;
  }

  it('tell what others did, once, in their name; not what a page did itself', async () => {
    const { newest } = await ask(brook, 'page-of-brook');
    const made = await ada.post('/api/samples').set('X-Request-Id', 'page-of-ada.1').send(aSample()).expect(201);
    const news = await told(brook, 'page-of-brook', newest);
    expect(news.entries).toEqual([
      { who: 'Ada Marrow', what: 'Take in a sample of a new model', sampleId: made.body.id, subject: made.body.id },
    ]);
    expect((await ask(brook, 'page-of-brook', { newest: news.newest })).entries).toEqual([]);
    // Whoever did it is told nothing, at that page; at another page of theirs they are.
    expect((await ask(ada, 'page-of-ada', { newest })).entries).toEqual([]);
    expect((await ask(ada, 'other-page-of-ada', { newest })).entries).toHaveLength(1);
  });

  it('say how often the sample at hand was changed, so that its page asks for what is new', async () => {
    const { sample, send } = await aRow();
    const points = async () => (await ask(brook, 'reading', { sampleId: sample.id })).revisions?.points ?? 0;
    const before = await points();
    await send(ada, { watts: '70.1' }).expect(201);
    expect(await points()).toBe(before + 1);
    expect((await ask(brook, 'reading', { sampleId: newId() })).revisions).toBeNull();
  });

  it('say who else is where, for as long as they are', async () => {
    const { sample } = await aRow();
    await ask(ada, 'bench-tablet', { sampleId: sample.id, place: 'Efficiency' });
    await expect
      .poll(async () => (await ask(brook, 'desk', { sampleId: sample.id, place: 'Claims' })).here)
      .toContainEqual({ personId: expect.any(String), name: 'Ada Marrow', sampleId: sample.id, place: 'Efficiency' });
    // Nobody is told of their own page.
    const { here } = await ask(brook, 'desk', { sampleId: sample.id, place: 'Claims' });
    expect(here.filter(({ place }) => place === 'Claims')).toEqual([]);
    await harness.db.execute(sql`UPDATE presence SET at = at - INTERVAL 9 SECOND WHERE tab = 'bench-tablet'`);
    await expect
      .poll(async () =>
        (await ask(brook, 'desk', { sampleId: sample.id, place: 'Claims' })).here.map(({ place }) => place),
      )
      .not.toContain('Efficiency');
  });

  it('say that everything may have changed to a page that comes from another server, or was away too long', async () => {
    for (const newest of ['00000000.5', 'nonsense', '.', '12'])
      expect((await ask(brook, 'away', { newest })).missed).toBe(true);
    const { newest } = await ask(brook, 'away');
    expect((await ask(brook, 'away', { newest })).missed).toBe(false);
  });
});

describe('remarks', () => {
  const remark = (part: object) => ({
    remark: { id: newId(), about: 'sample', kind: 'note', text: 'Runs warm.', mentions: [], answers: null, ...part },
  });

  it('are questions until they are answered, listed for everyone and for whom they name', async () => {
    const { sample } = await aRow();
    const say = (agent: request.Agent, part: object) =>
      agent.post(`/api/samples/${sample.id}/remarks`).send(remark({ aboutId: sample.id, ...part }));
    const open = async (agent: request.Agent) =>
      ((await agent.get('/api/remarks/open').expect(200)).body.items as OpenRemark[]).filter(
        ({ sampleId }) => sampleId === sample.id,
      );
    const me = (await brook.get('/api/me')).body.me as { id: string };
    const asked = (await say(ada, { kind: 'question', text: 'Which lead was it?' }).expect(201)).body as Remark;
    await say(ada, { text: 'For you.', mentions: [me.id] }).expect(201);
    await say(ada, { text: 'For nobody.' }).expect(201);
    expect((await open(brook)).map(({ text }) => text)).toEqual(['For you.', 'Which lead was it?']);
    expect((await open(ada)).map(({ text, who }) => [text, who])).toEqual([['Which lead was it?', 'Ada Marrow']]);
    await say(brook, { kind: 'answer', text: 'The short one.', answers: asked.id }).expect(201);
    expect(await open(ada)).toEqual([]);
    const all = (await ada.get(`/api/samples/${sample.id}/remarks`)).body.items as Remark[];
    expect(all.map(({ kind, who }) => [kind, who])).toEqual([
      ['question', 'Ada Marrow'],
      ['note', 'Ada Marrow'],
      ['note', 'Ada Marrow'],
      ['answer', 'Brook'],
    ]);
  });

  it('are a second pair of eyes by somebody else only', async () => {
    const { sample, send } = await aRow();
    const point = (await send(ada, { watts: '70.1' }).expect(201)).body.points[0] as { readings: { id: string }[] };
    const witness = (agent: request.Agent, part: object = {}) =>
      agent
        .post(`/api/samples/${sample.id}/remarks`)
        .send(remark({ kind: 'witness', about: 'reading', aboutId: point.readings[0]?.id, text: '', ...part }));
    const own = await witness(ada);
    expect([own.status, own.body.detail]).toEqual([409, 'This is your own. A second pair of eyes is somebody else’s.']);
    await witness(brook).expect(201);
    expect((await witness(brook, { about: 'sample', aboutId: sample.id })).status).toBe(422);
  });

  it('are about what is of the sample, answer its questions, and name who is here', async () => {
    const { sample } = await aRow();
    const other = (await aRow()).sample;
    const say = (part: object) =>
      ada.post(`/api/samples/${sample.id}/remarks`).send(remark({ aboutId: sample.id, ...part }));
    const question = (await say({ kind: 'question', text: 'Why?' })).body as Remark;
    for (const part of [
      { aboutId: other.id },
      { about: 'claim' },
      { about: 'reading' },
      { text: '  ' },
      { kind: 'answer' },
      { answers: question.id },
      { kind: 'answer', answers: newId() },
      { mentions: [newId()] },
    ])
      expect([part, (await say(part)).status]).toEqual([part, 422]);
    const elsewhere = ada
      .post(`/api/samples/${other.id}/remarks`)
      .send(remark({ aboutId: other.id, kind: 'answer', answers: question.id }));
    expect((await elsewhere).status).toBe(422);
    // Sent again after a lost answer it is there once.
    const id = newId();
    for (let turn = 0; turn < 2; turn += 1) await say({ id }).expect(201);
    expect((await say({ id, text: 'Another.' })).status).toBe(409);
    expect((await ada.get(`/api/samples/${sample.id}/remarks`)).body.items).toHaveLength(2);
  });
});
