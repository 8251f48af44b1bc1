// Who sees which samples: the lab's own, collections under an embargo, and guests.
import type { Collection, Me, News, Sample, StoredPerson } from '@lastmark/contract';
import { ROUTES, type Route } from '@lastmark/contract';
import { EVERYTHING } from '@lastmark/core/compare';
import { eq } from 'drizzle-orm';
import type { Agent } from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { collections, figures, logEntries, samples } from '../src/db/schema.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';
import { browserAt, call, firstPerson, somebodyNew } from '../testing/people.ts';

const LATER = '2999-01-01T00:00:00.000Z';
let harness: Harness;
let ada: Agent;
let eno: { readonly agent: Agent; readonly me: Me };
let ivo: { readonly agent: Agent; readonly me: Me };
let gus: { readonly agent: Agent; readonly me: Me };
/** Of the lab, under an embargo, and of the guest. */
let own: Sample;
let kept: Sample;
let lent: Sample;
let embargo: Collection;
let guests: Collection;

const make = async (name: string, part: object) =>
  (await call(ada, 'post', '/collections', { name, embargo: null, people: [], ...part }).expect(201))
    .body as Collection;
const take = async (agent: Agent, model: string, collectionId: string | null) =>
  (await call(agent, 'post', '/samples', { ...aSample({ model: { model } }), collectionId }).expect(201))
    .body as Sample;

beforeAll(async () => {
  harness = await startHarness('collections', { people: true });
  ada = await firstPerson(harness);
  eno = await somebodyNew(harness, ada, 'Eno', 'engineer');
  ivo = await somebodyNew(harness, ada, 'Ivo', 'engineer');
  gus = await somebodyNew(harness, ada, 'Gus', 'engineer', true);
  embargo = await make('Spring round', { embargo: LATER, people: [ivo.me.id] });
  guests = await make('With the ferry', { people: [gus.me.id] });
  own = await take(eno.agent, 'Open 65', null);
  kept = await take(ivo.agent, 'Hidden 100', embargo.id);
  lent = await take(ada, 'Lent 30', guests.id);
});
afterAll(() => harness.stop());

const models = async (agent: Agent) =>
  ((await call(agent, 'get', '/samples?size=50').expect(200)).body.items as { model: string }[])
    .map(({ model }) => model)
    .sort();
const mentions = async (agent: Agent, path: string, text: string) =>
  JSON.stringify((await call(agent, 'get', path).expect(200)).body).includes(text);

describe('an embargo', () => {
  it('shows its samples to those who are named, and to admins', async () => {
    expect(await models(ivo.agent)).toEqual(['Hidden 100', 'Lent 30', 'Open 65']);
    expect(await models(ada)).toEqual(['Hidden 100', 'Lent 30', 'Open 65']);
    expect(await models(eno.agent)).toEqual(['Lent 30', 'Open 65']);
    expect((await call(eno.agent, 'get', '/samples?q=hidden')).body).toMatchObject({ total: 0, items: [] });
  });

  it('is whole: nothing that names the sample is there for the others', async () => {
    for (const [name, { method, path }] of Object.entries(ROUTES) as [string, Route][]) {
      if (!path.includes('{sampleId}')) continue;
      const at = path.replace('{sampleId}', kept.id).replace(/\{\w+\}/g, own.id);
      const answer = await eno.agent[method](`/api${at}`).set('If-Match', '"m1-u1"').send({});
      // What it wants is looked at before whose it is; nothing of the sample is told by either.
      expect(
        method === 'get' && !/is missing$/.test(answer.body.detail) ? [404] : [404, 422, 400],
        `${name}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 200)}`,
      ).toContain(answer.status);
      expect(JSON.stringify(answer.body)).not.toContain('Hidden');
    }
    for (const path of ['', '/dossier', '/readings', '/verdict', '/remarks', '/export.json', '/sheet.html'])
      expect((await call(eno.agent, 'get', `/samples/${kept.id}${path}`)).status, path).toBe(404);
  });

  it('holds for lists that span samples', async () => {
    await call(ivo.agent, 'put', `/samples/${kept.id}/collection`, { collectionId: embargo.id }).expect(200);
    const remark = {
      about: 'sample',
      aboutId: kept.id,
      kind: 'question',
      text: 'Why so warm?',
      mentions: [],
      answers: null,
    };
    await call(ivo.agent, 'post', `/samples/${kept.id}/remarks`, { remark })
      .set('Idempotency-Key', 'warm-1')
      .expect(201);
    await call(ivo.agent, 'post', '/trials', {
      trial: {
        kind: 'blocks',
        question: 'Is the hidden one quieter?',
        factor: 'charger',
        arms: [
          { name: 'One', sampleId: kept.id },
          { name: 'Two', sampleId: own.id },
        ],
        measure: { name: 'time', quantity: 'duration', better: 'lower' },
        held: [],
        blocks: 2,
        seed: 5,
        matters: null,
        expected: null,
        blind: false,
      },
    }).expect(201);
    const promised = await call(ivo.agent, 'post', `/samples/${kept.id}/claims`, {
      promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 4.5 },
      duration: { kind: 'unstated' },
      printed: 'Hidden promise 90 W',
    }).expect(201);
    await ivo.agent
      .put(`/api/claims/${promised.body.id}`)
      .set('If-Match', promised.headers.etag ?? '')
      .send({
        promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 5 },
        duration: { kind: 'unstated' },
        printed: 'Hidden promise 100 W',
      })
      .expect(200);
    await call(ivo.agent, 'post', '/filings', {
      filings: [{ id: kept.id, labels: ['hush'], archived: false }],
    }).expect(201);
    expect((await call(eno.agent, 'get', `/log?thing=${promised.body.id}`)).status).toBe(404);
    // What is not to be seen is not put back either, by whoever knows of the entry.
    const [changedIt] = await harness.db.select().from(logEntries).where(eq(logEntries.operation, 'updateClaim'));
    expect((await call(eno.agent, 'post', `/log/${changedIt?.id}/undo`)).status).toBe(404);
    for (const [path, text] of [
      ['/log', 'Hidden promise'],
      ['/remarks/open', 'Why so warm'],
      ['/log', 'Hidden'],
      ['/log', kept.id],
      ['/today', kept.id],
      ['/collections', 'Spring round'],
      ['/trials', 'hidden one'],
      [`/trials?sampleId=${own.id}`, 'hidden one'],
    ] as const) {
      expect(await mentions(eno.agent, path, text), `${path} for another`).toBe(false);
      if (path !== '/today') expect(await mentions(ivo.agent, path, text), `${path} for one who is named`).toBe(true);
    }
    for (const query of [`sample=${kept.id}`, `thing=${kept.id}`])
      expect((await call(eno.agent, 'get', `/log?${query}`)).status, query).toBe(404);
    const found = async (agent: Agent) => (await call(agent, 'get', '/log?q=hush').expect(200)).body.items.length;
    expect([await found(eno.agent), await found(ivo.agent)]).toEqual([0, 1]);
    const inSet = async (agent: Agent) =>
      JSON.stringify(
        (await call(agent, 'post', '/comparison-set', { rule: EVERYTHING, measures: [] }).expect(201)).body,
      );
    expect(await inSet(eno.agent)).not.toContain('Hidden');
    expect(await inSet(ivo.agent)).toContain('Hidden');
  });

  it('has neither ids in what is sent reach past it, nor units of the same model', async () => {
    const twin = (await call(ivo.agent, 'post', `/samples/${kept.id}/units`, { unit: aSample().unit }).expect(201))
      .body as Sample;
    expect(twin.collectionId).toBe(embargo.id);
    const file = await call(eno.agent, 'post', '/filings', {
      filings: [{ id: kept.id, labels: ['mine'], archived: true }],
    });
    expect([file.status, file.body.detail]).toEqual([404, expect.stringContaining('no such sample')]);
    const [row] = await harness.db.select().from(samples).where(eq(samples.id, kept.id));
    expect(row?.archived).toBe(false);
    // One of the lab beside one under the embargo: whoever sees the one is not told of the other.
    await call(ivo.agent, 'put', `/samples/${twin.id}/collection`, { collectionId: null }).expect(200);
    const seenBy = async (agent: Agent) =>
      ((await call(agent, 'get', `/samples/${twin.id}`).expect(200)).body as Sample).units.map(({ id }) => id);
    expect(await seenBy(eno.agent)).toEqual([twin.id]);
    expect((await seenBy(ivo.agent)).sort()).toEqual([kept.id, twin.id].sort());
    await call(ivo.agent, 'put', `/samples/${twin.id}/collection`, { collectionId: embargo.id }).expect(200);
  });

  it('is worked out all the same, for those who see it', async () => {
    harness.working.figures.nudge();
    harness.working.figures.watch();
    await expect
      .poll(async () => (await harness.db.select().from(figures).where(eq(figures.sampleId, kept.id)))[0]?.form ?? 0)
      .toBeGreaterThan(0);
  });

  it('ends at its moment, by itself', async () => {
    await harness.db
      .update(collections)
      .set({ embargo: new Date(Date.now() - 1000) })
      .where(eq(collections.id, embargo.id));
    expect(await models(eno.agent)).toContain('Hidden 100');
    await harness.db
      .update(collections)
      .set({ embargo: new Date(LATER) })
      .where(eq(collections.id, embargo.id));
    expect(await models(eno.agent)).not.toContain('Hidden 100');
  });
});

describe('a page that is open', () => {
  const news = async (agent: Agent, tab: string, newest: string) =>
    (await call(agent, 'post', '/news', { tab, newest, sampleId: null, place: '' }).expect(200)).body as News;

  it('is told that it may see less or more now, and of nothing it does not see', async () => {
    const before = await news(eno.agent, 'page-of-eno', '');
    const secret = await take(ada, 'Whispered 20', embargo.id);
    await call(ada, 'put', `/samples/${own.id}/collection`, { collectionId: embargo.id }).expect(200);
    await expect.poll(async () => (await news(eno.agent, 'page-of-eno', before.newest)).missed).toBe(true);
    const told = await news(eno.agent, 'page-of-eno', before.newest);
    expect(told.entries.filter(({ sampleId }) => sampleId === own.id || sampleId === secret.id)).toEqual([]);
    expect((await news(eno.agent, 'page-of-eno', told.newest)).missed).toBe(false);
    await call(ada, 'put', `/samples/${own.id}/collection`, { collectionId: null }).expect(200);
    await expect.poll(async () => (await news(eno.agent, 'page-of-eno', told.newest)).missed).toBe(true);
    await call(ada, 'delete', `/samples/${secret.id}`).set('If-Match', '"m1-u1"').expect(204);
  });
});

describe('a guest', () => {
  it('sees what they are named for and nothing else', async () => {
    expect(await models(gus.agent)).toEqual(['Lent 30']);
    expect((await call(gus.agent, 'get', `/samples/${own.id}`)).status).toBe(404);
    expect((await call(gus.agent, 'get', `/samples/${lent.id}`)).status).toBe(200);
    for (const text of ['Open 65', own.id, 'Hidden', kept.id])
      for (const path of ['/log', '/today', '/remarks/open', '/trials', '/reports', '/run-sheets', '/device-evidence'])
        expect(await mentions(gus.agent, path, text), `${path}: ${text}`).toBe(false);
    const news = await call(gus.agent, 'post', '/news', { tab: 'guest-page', newest: '', sampleId: own.id, place: '' });
    expect(news.status).toBe(404);
  });

  it('knows the lab, and guests of the same collections: not that another maker has something here', async () => {
    const zoe = await somebodyNew(harness, ada, 'Zoe', 'reader', true);
    await make('Of another maker', { people: [zoe.me.id] });
    const amy = await somebodyNew(harness, ada, 'Amy', 'reader', true);
    const [version] = ((await call(ada, 'get', '/collections')).body.items as Collection[]).filter(
      ({ id }) => id === guests.id,
    );
    await ada
      .put(`/api/collections/${guests.id}`)
      .set('If-Match', `"v${version?.version}"`)
      .send({ name: guests.name, embargo: null, people: [gus.me.id, amy.me.id] })
      .expect(200);
    const names = async (agent: Agent) =>
      ((await call(agent, 'get', '/people/names')).body.items as { name: string }[]).map(({ name }) => name);
    expect(await names(gus.agent)).toEqual(['Ada Marrow', 'Amy', 'Eno', 'Gus', 'Ivo']);
    expect(await names(zoe.agent)).toEqual(['Ada Marrow', 'Eno', 'Ivo', 'Zoe']);
    expect(await names(eno.agent)).toEqual(['Ada Marrow', 'Amy', 'Eno', 'Gus', 'Ivo', 'Zoe']);
    const remark = { about: 'sample', aboutId: lent.id, kind: 'note', text: 'Look at this.', answers: null };
    const say = (mentions: string[]) =>
      call(gus.agent, 'post', `/samples/${lent.id}/remarks`, { remark: { id: newId(), ...remark, mentions } });
    expect(JSON.stringify((await say([zoe.me.id])).body)).toContain('Somebody named is not here.');
    expect((await say([amy.me.id])).status).toBe(201);
    // Whatever can be asked for without naming something.
    const asked = Object.entries(ROUTES as Readonly<Record<string, Route>>).filter(
      ([name, { method, path }]) => method === 'get' && !path.includes('{') && !['live', 'openapi'].includes(name),
    );
    expect(asked.length).toBeGreaterThan(20);
    for (const [name, { path }] of asked) {
      const { text = '', body } = await gus.agent.get(`/api${path}`);
      const said = text + JSON.stringify(body);
      for (const secret of ['Zoe', zoe.me.id, 'Of another maker', 'Open 65', own.id, 'Hidden 100', kept.id])
        expect(said.includes(secret), `${name} tells ${secret}`).toBe(false);
    }
  });

  it('writes on those samples, takes in among them, and keeps nothing of the lab', async () => {
    const claim = {
      promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 1.5 },
      duration: { kind: 'unstated' },
      printed: '30 W',
    };
    const on = await call(gus.agent, 'post', `/samples/${lent.id}/claims`, claim);
    expect(on.status, JSON.stringify(on.body)).toBe(201);
    expect((await call(gus.agent, 'post', `/samples/${own.id}/claims`, claim)).status).toBe(404);
    const photo = (owner: Sample) =>
      gus.agent
        .post('/api/attachments')
        .query({ owner: 'sample', ownerId: owner.id, name: 'label.txt' })
        .set('Content-Type', 'application/octet-stream')
        .send(Buffer.from('12 V'));
    expect([(await photo(lent)).status, (await photo(own)).status, (await photo(kept)).status]).toEqual([
      201, 404, 404,
    ]);
    const file = (sample: Sample) =>
      call(gus.agent, 'post', '/filings', { filings: [{ id: sample.id, labels: ['mine'], archived: false }] });
    expect([(await file(lent)).status, (await file(own)).status]).toEqual([201, 404]);
    const day = { from: 0, setUp: 0, people: [], sheets: [], pins: [] };
    expect([403, 422]).toContain(
      (await gus.agent.put('/api/bench-days/2026-12-01').set('If-Match', '"v0"').send(day)).status,
    );
    const mine = { ...aSample({ model: { model: 'Guest 20' } }), collectionId: guests.id };
    expect((await call(gus.agent, 'post', '/samples', mine)).status).toBe(201);
    const refused = await call(gus.agent, 'post', '/samples', aSample());
    expect([refused.status, refused.body.detail]).toEqual([
      403,
      'Guests put samples into the collections they are named for.',
    ]);
    expect((await call(gus.agent, 'post', '/samples', { ...mine, collectionId: embargo.id })).status).toBe(422);
    for (const [path, body] of [
      ['/devices', { facts: {} }],
      ['/searches', { name: 'x', query: {} }],
    ] as const)
      expect([403, 422], path).toContain((await call(gus.agent, 'post', path, body)).status);
    expect((await call(gus.agent, 'post', '/loads-off')).status).toBe(201);
  });

  it('and everyone else finds what is in one collection, as far as they see it', async () => {
    const inside = async (agent: Agent, id: string) =>
      ((await call(agent, 'get', `/samples?collection=${id}`).expect(200)).body.items as { model: string }[])
        .map(({ model }) => model)
        .sort();
    expect(await inside(ada, guests.id)).toEqual(['Guest 20', 'Lent 30']);
    expect(await inside(gus.agent, guests.id)).toEqual(['Guest 20', 'Lent 30']);
    expect([await inside(ivo.agent, embargo.id), await inside(eno.agent, embargo.id)]).toEqual([
      ['Hidden 100', 'Hidden 100'],
      [],
    ]);
    expect(await inside(gus.agent, embargo.id)).toEqual([]);
    expect((await call(ada, 'get', '/samples?collection=spring')).status).toBe(422);
  });

  it('is a reader or an engineer', async () => {
    expect((await call(ada, 'post', '/invitations', { role: 'admin', note: '', guest: true })).status).toBe(422);
    const [row] = ((await call(ada, 'get', '/people')).body.items as StoredPerson[]).filter(
      ({ id }) => id === gus.me.id,
    );
    const change = (part: object) =>
      ada
        .put(`/api/people/${gus.me.id}`)
        .set('If-Match', `"v${row?.version}"`)
        .send({ name: 'Gus', role: 'engineer', disabled: false, ...part });
    expect((await change({ role: 'keeper' })).status).toBe(422);
    // Left out, it stays as it is.
    expect((await change({})).body.guest).toBe(true);
  });

  it('sees through a token what they see', async () => {
    const { token } = (
      await call(gus.agent, 'post', '/me/tokens', { name: 'script', role: 'reader', days: 1 }).expect(201)
    ).body as { token: string };
    const answer = await browserAt(harness).get('/api/samples').set('Authorization', `Bearer ${token}`);
    expect(answer.body.items.map(({ model }: { model: string }) => model).sort()).toEqual(['Guest 20', 'Lent 30']);
  });
});

describe('a collection', () => {
  it('is made, changed and removed by admins only, and not while samples are in it', async () => {
    expect((await call(eno.agent, 'post', '/collections', { name: 'x', embargo: null, people: [] })).status).toBe(403);
    const made = await make('For a day', { embargo: '2030-05-01T09:00Z' });
    expect(made).toMatchObject({ embargo: '2030-05-01T09:00:00.000Z', closed: true, samples: 0, version: 1 });
    const change = (seen: number, part: object) =>
      ada
        .put(`/api/collections/${made.id}`)
        .set('If-Match', `"v${seen}"`)
        .send({ name: 'For two days', embargo: null, people: [eno.me.id], ...part });
    expect((await change(1, {})).body).toMatchObject({ closed: false, people: [eno.me.id], version: 2 });
    expect((await change(1, {})).status).toBe(412);
    expect((await change(2, { people: [own.id] })).body.detail).toContain('not here any more');
    for (const wrong of ['tomorrow', '2030-13-01T09:00Z', '2030-05-01', '2030-05-01T09:00+02:00'])
      expect((await change(2, { embargo: wrong })).status, wrong).toBe(422);
    const remove = (id: string, seen: number) => ada.delete(`/api/collections/${id}`).set('If-Match', `"v${seen}"`);
    expect((await remove(embargo.id, embargo.version)).status).toBe(409);
    expect((await remove(made.id, 2)).status).toBe(204);
  });

  it('forgets whoever is forgotten', async () => {
    const tmp = await somebodyNew(harness, ada, 'Tam', 'reader', true);
    const made = await make('Of Tam', { people: [tmp.me.id] });
    const [row] = ((await call(ada, 'get', '/people')).body.items as StoredPerson[]).filter(
      ({ id }) => id === tmp.me.id,
    );
    await ada.delete(`/api/people/${tmp.me.id}`).set('If-Match', `"v${row?.version}"`).expect(204);
    const all = (await call(ada, 'get', '/collections')).body.items as Collection[];
    expect(all.find(({ id }) => id === made.id)?.people).toEqual([]);
  });
});

describe('a machine of one person', () => {
  it('knows no embargo', async () => {
    const alone = await startHarness('collections_alone');
    try {
      await alone.db.insert(collections).values({ id: embargo.id, name: 'x', embargo: new Date(LATER) });
      const { default: request } = await import('supertest');
      const made = await request(alone.app)
        .post('/api/samples')
        .send({ ...aSample(), collectionId: embargo.id });
      expect(made.status).toBe(201);
      expect((await request(alone.app).get(`/api/samples/${made.body.id}`)).status).toBe(200);
    } finally {
      await alone.stop();
    }
  });
});
