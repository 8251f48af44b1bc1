// The log: every write with who did it, in the transaction that did it; found again; chained; undone where it can be.
import { type LogPage, type LogRow, ROUTES, type Route } from '@lastmark/contract';
import { eq, sql } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { logEntries, logSeals, logThings, readings, samples } from '../src/db/schema.ts';
import { checkChain, sealSome } from '../src/log/chain.ts';
import { keptOf, plainDeed, thingsIn, writeEntry } from '../src/log/write.ts';
import { inDeed, MACHINE } from '../src/who/who.ts';
import { aPoint, aSample, type Harness, makers, startHarness } from '../testing/harness.ts';
import { firstPerson, PASSWORD, somebodyNew } from '../testing/people.ts';

let harness: Harness;
let ada: request.Agent;

beforeAll(async () => {
  harness = await startHarness('log', { people: true });
  ada = await firstPerson(harness);
});
afterAll(() => harness.stop());

const log = async (query = '', agent = ada): Promise<LogRow[]> =>
  ((await agent.get(`/api/log${query}`).expect(200)).body as LogPage).items;

const somebody = async (name: string, role: string) => (await somebodyNew(harness, ada, name, role)).agent;

describe('what is written down', () => {
  it('is who did what to which sample, with what it changed, in words', async () => {
    const made = (await ada.post('/api/samples').send(aSample()).expect(201)).body;
    const [taken] = await log(`?sample=${made.id}`);
    expect(taken).toMatchObject({
      who: 'Ada Marrow',
      what: 'Take in a sample of a new model',
      operation: 'createSample',
    });
    expect(taken?.changes).toContainEqual({ field: 'Maker', was: null, is: 'Tarnhook' });
    const { model, unit } = aSample();
    await ada
      .put(`/api/samples/${made.id}`)
      .set('If-Match', made.etag)
      .send({ model: { ...model, mass: 0.085 }, unit: { ...unit, notes: 'lent by a warden' } })
      .expect(200);
    const [changed] = await log(`?sample=${made.id}`);
    expect(changed).toMatchObject({ operation: 'updateSample', unknownBefore: false, canUndo: true });
    expect(changed?.changes).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ field: 'Mass', is: '85 g' }),
        expect.objectContaining({ field: 'Notes', is: 'lent by a warden' }),
      ]),
    );
    expect(changed?.changes).toHaveLength(2);
  });

  it('is in the transaction of the write: what is refused or taken back is in no log', async () => {
    const before = await log();
    await ada
      .post('/api/samples')
      .send({ ...aSample(), model: { nothing: true } })
      .expect(422);
    await ada.delete('/api/samples/01JZZZZZZZZZZZZZZZZZZZZZZZ').set('If-Match', '"m1-u1"').expect(404);
    // Written before the commit, it goes with what is rolled back at the commit.
    const deed = plainDeed(MACHINE, 'updateProfile');
    const failed = inDeed(deed, writeEntry, () =>
      harness.db.transaction(async (tx) => {
        await writeEntry(tx, deed);
        throw new Error('not to be');
      }),
    );
    await expect(failed).rejects.toThrow('not to be');
    expect(await log()).toEqual(before);
    await inDeed(deed, writeEntry, () =>
      harness.db.transaction(async (tx) => tx.update(samples).set({ kind: 'wall' })),
    );
    expect((await log()).map(({ id }) => id)).toEqual([deed.id, ...before.map(({ id }) => id)]);
  });

  it('is there once for what was done on another thread, and found by the sample it was attached to', async () => {
    const agent = await somebody('Wil', 'engineer');
    const sample = (await agent.post('/api/samples').send(aSample()).expect(201)).body;
    const { status, body } = await makers(harness, agent).attach(
      'sample',
      sample.id,
      'note.txt',
      Buffer.from('a plain note'),
    );
    expect(status).toBe(201);
    const attached = (await log(`?thing=${sample.id}`)).filter(({ operation }) => operation === 'addAttachment');
    expect(attached.map(({ who, changes }) => [who, changes[0]?.is])).toEqual([['Wil', expect.any(String)]]);
    await agent.delete(`/api/attachments/${body.id}`).expect(204);
    expect((await log(`?sample=${sample.id}`)).map(({ operation }) => operation)).toEqual([
      'deleteAttachment',
      'createSample',
    ]);
  });

  it('of a sample holds what was done to its loadings, sheets and claims, what is gone included', async () => {
    const own = makers(harness, ada);
    const sample = await own.sample();
    const rig = await own.rig();
    const setup = await own.setup(sample.id, rig.id);
    const claim = await own.claim(sample.id, { kind: 'total', watts: 45 });
    const { id, version, ...loading } = setup;
    await ada
      .put(`/api/setups/${id}`)
      .set('If-Match', `"v${version}"`)
      .send({ ...loading, name: 'C1 full' })
      .expect(200);
    await ada
      .delete(`/api/setups/${id}`)
      .set('If-Match', `"v${version + 1}"`)
      .expect(204);
    await ada.delete(`/api/claims/${claim.id}`).set('If-Match', `"v${claim.version}"`).expect(204);
    expect((await log(`?sample=${sample.id}`)).map(({ operation }) => operation)).toEqual([
      'deleteClaim',
      'deleteSetup',
      'updateSetup',
      'createClaim',
      'createSetup',
      'createSample',
    ]);
  });

  it('names the author of every reading, and is found by the reading, by what it corrected, and by the person', async () => {
    const own = makers(harness, ada);
    const sample = await own.sample();
    const rig = await own.rig();
    const setup = await own.setup(sample.id, rig.id);
    const engineer = await somebody('Eva', 'engineer');
    const point = aPoint(setup.id, rig.id, { watts: '70.1', volts: '20.02', amps: '3.25' });
    await engineer
      .post(`/api/samples/${sample.id}/readings`)
      .send({ points: [point] })
      .expect(201);
    const [first] = point.readings;
    const rows = await harness.db.select().from(readings).where(eq(readings.pointId, point.id));
    const me = (await engineer.get('/api/me')).body.me;
    expect(rows.map(({ author }) => author)).toEqual(rows.map(() => me.id));
    const found = await log(`?thing=${first?.id}`);
    expect(found.map(({ operation, who }) => [operation, who])).toEqual([['addReadings', 'Eva']]);
    // A correction by somebody else: asked of either, both are told.
    const correction = { ...first, id: newId(), typed: '70.2', supersedes: first?.id };
    await ada
      .post(`/api/samples/${sample.id}/readings`)
      .send({ points: [{ ...point, readings: [correction] }] })
      .expect(201);
    for (const thing of [first?.id, correction.id])
      expect((await log(`?thing=${thing}`)).map(({ who }) => who)).toEqual(['Ada Marrow', 'Eva']);
    expect((await log(`?person=${me.id}`)).map(({ operation }) => operation)).toEqual(['addReadings', 'join']);
    // Whoever is not an admin is not told how others come in.
    expect((await log(`?person=${me.id}`, engineer)).map(({ operation }) => operation)).toEqual(['addReadings']);
  });

  it('tells who came, went, and was not let in; never a password', async () => {
    const agent = request.agent(harness.app);
    const tries = async (signIn: string, password: string) =>
      (await agent.post('/api/sign-in').send({ signIn, password, code: '' })).status;
    expect(await tries('ada@fernwall', 'a wrong password')).toBe(403);
    expect(await tries('hut-on-the-ridge', PASSWORD)).toBe(403);
    expect(await tries('ada@fernwall', PASSWORD)).toBe(200);
    await agent.post('/api/sign-out').expect(204);
    expect((await log('?size=4')).map(({ operation, who }) => [operation, who])).toEqual([
      ['signOut', 'Ada Marrow'],
      ['signIn', 'Ada Marrow'],
      // A name nobody has may be a password in the wrong field: it is not kept.
      ['signInRefused', 'An unknown name'],
      ['signInRefused', 'Ada Marrow'],
    ]);
    const all = await harness.db.select().from(logEntries);
    expect(JSON.stringify(all)).not.toMatch(/hut on the ridge|hut-on-the-ridge|a wrong password/);
  });

  it('holds commands to instruments and Loads off, whoever sent them', async () => {
    const reader = await somebody('Ron', 'reader');
    await reader.post('/api/loads-off').expect(201);
    await expect
      .poll(async () => (await log('?size=1'))[0])
      .toMatchObject({
        operation: 'loadsOff',
        who: 'Ron',
        what: 'Switch every load off, ahead of anything that waits',
      });
  });

  it('is found by words: of what was done, of who did it, and of what was sent', async () => {
    const own = aSample({ unit: { notes: 'found under 100% of the snow_drift' } });
    await ada.post('/api/samples').send(own).expect(201);
    expect((await log('?q=take in a sample')).length).toBeGreaterThan(2);
    expect(await log(`?q=${encodeURIComponent('100% of the snow_drift')}`)).toHaveLength(1);
    expect(await log(`?q=${encodeURIComponent('100%of')}`)).toHaveLength(0);
    expect(new Set((await log('?q=Eva')).map(({ who }) => who))).toEqual(new Set(['Eva']));
  });

  it('is read page by page, none twice and none left out', async () => {
    const all = await log('?size=200');
    const paged: LogRow[] = [];
    for (let before: string | null = ''; before !== null; ) {
      const page = (await ada.get(`/api/log?size=3${before ? `&before=${before}` : ''}`).expect(200)).body as LogPage;
      paged.push(...page.items);
      before = page.next;
    }
    expect(paged.map(({ id }) => id)).toEqual(all.map(({ id }) => id));
    for (const query of ['?size=0', '?size=201', '?before=x', '?sample=x', '?nothing=1'])
      expect((await ada.get(`/api/log${query}`)).status).toBe(422);
  });

  it('keeps no secret, and of what is long its beginning', () => {
    expect(keptOf({ name: 'x', password: 'secret', inner: { code: '123456', token: 't' } })).toEqual({
      body: '{"name":"x","inner":{}}',
      whole: true,
    });
    const { body, whole } = keptOf({ list: Array.from({ length: 100 }, (_, at) => at), text: 'y'.repeat(5000) });
    expect(whole).toBe(false);
    expect(body?.length).toBeLessThan(2500);
    expect(keptOf(undefined)).toEqual({ body: null, whole: true });
    expect(thingsIn({ a: ['01JZZZZZZZZZZZZZZZZZZZZZZZ', { b: '01JZZZZZZZZZZZZZZZZZZZZZZZ' }], c: 'x' })).toEqual([
      '01JZZZZZZZZZZZZZZZZZZZZZZZ',
    ]);
  });

  it('has a word for every operation that writes', () => {
    const nameless = (Object.entries(ROUTES) as [string, Route][]).filter(
      ([name, { method, summary }]) => method !== 'get' && (summary.length < 5 || name.length > 40),
    );
    expect(nameless).toEqual([]);
  });
});

describe('undoing', () => {
  it('puts back what was there, as an entry of its own that can be undone too', async () => {
    const made = (await ada.post('/api/samples').send(aSample()).expect(201)).body;
    const change = async (notes: string) => {
      const { etag } = (await ada.get(`/api/samples/${made.id}`)).body;
      const { model, unit } = aSample();
      await ada
        .put(`/api/samples/${made.id}`)
        .set('If-Match', etag)
        .send({ model, unit: { ...unit, notes } })
        .expect(200);
    };
    const notes = async () => (await ada.get(`/api/samples/${made.id}`)).body.unit.notes;
    const original = await notes();
    await change('first');
    await change('second');
    const [second, first] = await log(`?sample=${made.id}`);
    expect([second?.canUndo, first?.canUndo]).toEqual([true, false]);
    const late = await ada.post(`/api/log/${first?.id}/undo`);
    expect([late.status, late.body.detail]).toEqual([
      409,
      'It was changed again since. Look at what is there now, and change that.',
    ]);
    const undone = (await ada.post(`/api/log/${second?.id}/undo`).expect(201)).body as LogRow;
    expect(await notes()).toBe('first');
    expect(undone).toMatchObject({ undoes: second?.id, operation: 'updateSample', who: 'Ada Marrow' });
    expect(undone.changes).toEqual([{ field: 'Notes', was: 'second', is: 'first' }]);
    await ada.post(`/api/log/${undone.id}/undo`).expect(201);
    expect(await notes()).toBe('second');
    expect(original).not.toBe('second');
    // Twice at once: one of them does it.
    const [latest] = await log(`?sample=${made.id}`);
    const both = await Promise.all([1, 2].map(() => ada.post(`/api/log/${latest?.id}/undo`)));
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
  });

  it('is for whoever may change it, and not for what stays', async () => {
    const reader = await somebody('Rob', 'reader');
    const engineer = await somebody('Eli', 'engineer');
    const profile = (await ada.get('/api/profile')).body;
    const { version: _, ...choices } = profile;
    for (const tariff of [0.31, 0.32]) {
      const now = (await ada.get('/api/profile')).body;
      const answer = await ada
        .put('/api/profile')
        .set('If-Match', `"v${now.version}"`)
        .send({ ...choices, tariff });
      expect([answer.status, answer.body.detail]).toEqual([200, undefined]);
    }
    const [entry] = await log('?q=Change the choices of method');
    expect(entry?.changes).toEqual([expect.objectContaining({ field: 'Price of a kWh' })]);
    for (const agent of [reader, engineer]) expect((await agent.post(`/api/log/${entry?.id}/undo`)).status).toBe(403);
    await ada.post(`/api/log/${entry?.id}/undo`).expect(201);
    expect((await ada.get('/api/profile')).body.tariff).toBe(0.31);
    const [taken] = await log('?q=Take in a sample');
    expect((await ada.post(`/api/log/${taken?.id}/undo`)).status).toBe(409);
    expect((await ada.post('/api/log/01JZZZZZZZZZZZZZZZZZZZZZZZ/undo')).status).toBe(404);
  });
});

describe('what is done to people', () => {
  it('is told without their names, and cannot be put back by halves', async () => {
    await somebody('Namely', 'reader');
    const { items } = (await ada.get('/api/people')).body as { items: { id: string; name: string; version: number }[] };
    const one = items.find(({ name }) => name === 'Namely');
    for (const role of ['engineer', 'keeper'])
      await ada
        .put(`/api/people/${one?.id}`)
        .set('If-Match', `"v${role === 'engineer' ? one?.version : (one?.version ?? 0) + 1}"`)
        .send({ name: 'Namely', role, disabled: false })
        .expect(200);
    const [entry] = await log('?q=Change name or role');
    expect(entry?.changes).toEqual([{ field: 'What they may do', was: 'engineer', is: 'keeper' }]);
    expect(entry?.canUndo).toBe(false);
    expect((await ada.post(`/api/log/${entry?.id}/undo`)).status).toBe(409);
    const all = await harness.db.select().from(logEntries);
    expect(JSON.stringify(all)).not.toContain('Namely');
  });
});

describe('the chain', () => {
  const sealAll = async () => {
    while ((await sealSome(harness.db)) > 0);
  };

  it('holds every entry, and says so', async () => {
    await sealAll();
    const { sealed, waiting, wrong, head } = (await ada.get('/api/log/check').expect(200)).body;
    const entries = await harness.db.select().from(logEntries);
    expect([sealed, waiting, wrong]).toEqual([entries.length, 0, []]);
    expect(head).toMatch(/^[0-9a-f]{64}$/);
    expect((await log('?size=5')).every((one) => one.sealed)).toBe(true);
  });

  it('does not fork when two seal at once', async () => {
    for (let turn = 0; turn < 5; turn += 1) await ada.post('/api/samples').send(aSample()).expect(201);
    await Promise.allSettled([sealSome(harness.db), sealSome(harness.db), sealSome(harness.db)]);
    await sealAll();
    expect(await checkChain(harness.db)).toMatchObject({ waiting: 0, wrong: [] });
  });

  it('agrees with a seal worked out from its description', async () => {
    // By Python: hashlib.sha256(json.dumps([...], separators=(',', ':')).encode()).hexdigest()
    const { sealOf } = await import('../src/log/chain.ts');
    expect(
      sealOf('0'.repeat(64), {
        id: '01JZZZZZZZZZZZZZZZZZZZZZZZ',
        at: new Date('2026-03-02T09:00:00.000Z'),
        personId: null,
        who: 'This machine',
        through: 'machine',
        keyId: null,
        operation: 'loadsOff',
        subject: null,
        sampleId: null,
        body: null,
        whole: true,
        request: null,
        undoes: null,
      }),
    ).toBe('abfd79e4cb096723b1fe18f0094f32fe1003375e73f0f7652f53263987836130');
  });

  it.each([
    ['a changed word', sql`UPDATE log_entries SET who = 'Somebody else' WHERE id = `, /is not what was sealed/],
    ['a changed moment', sql`UPDATE log_entries SET at = at - INTERVAL 1 SECOND WHERE id = `, /is not what was sealed/],
    ['an entry that is gone', sql`DELETE FROM log_entries WHERE id = `, /is missing/],
    ['a seal that is gone', sql`DELETE FROM log_seals WHERE entry_id = `, /are missing|have no place/],
  ])('shows %s, at its place and only there', async (_what, change, why) => {
    await sealAll();
    const [victim] = await harness.db.select().from(logSeals).where(eq(logSeals.place, 7));
    const id = victim?.entryId ?? '';
    const [entry] = await harness.db.select().from(logEntries).where(eq(logEntries.id, id));
    await harness.db.execute(sql`${change}${id}`);
    const { wrong } = await checkChain(harness.db);
    expect(wrong.length).toBeGreaterThan(0);
    expect(wrong[0]?.place).toBe(7);
    expect(wrong.some((one) => why.test(one.why))).toBe(true);
    expect(wrong.length).toBeLessThanOrEqual(3);
    // Put back, for the next.
    if (victim) await harness.db.insert(logSeals).ignore().values(victim);
    if (entry) {
      await harness.db.delete(logEntries).where(eq(logEntries.id, id));
      await harness.db.insert(logEntries).values(entry);
    }
    expect((await checkChain(harness.db)).wrong).toEqual([]);
  });

  it('shows an entry that was slipped in as one that is in no chain', async () => {
    const [entry] = await harness.db.select().from(logEntries).limit(1);
    if (!entry) throw new Error('an empty log');
    await harness.db.insert(logEntries).values({ ...entry, id: '01JZZZZZZZZZZZZZZZZZZZZZZY', sealed: true });
    expect((await checkChain(harness.db)).wrong).toEqual([
      expect.objectContaining({ why: '1 sealed entries have no place in the chain' }),
    ]);
    await harness.db.delete(logEntries).where(eq(logEntries.id, '01JZZZZZZZZZZZZZZZZZZZZZZY'));
    await harness.db.delete(logThings).where(eq(logThings.entryId, '01JZZZZZZZZZZZZZZZZZZZZZZY'));
  });
});
