// People: how the first comes in, who is let in, how often anybody may guess, what each may do, and who is forgotten.
import type { LetIn, StoredPerson } from '@lastmark/contract';
import type { RowDataPacket } from 'mysql2';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { sessions, signInTries } from '../src/db/schema.ts';
import { checkChain, sealSome } from '../src/log/chain.ts';
import { firstCode } from '../src/people/invitations.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';
import { browserAt, call, PASSWORD, signIn, somebodyNew, whoIs } from '../testing/people.ts';

let harness: Harness;
/** The first person here, an admin. */
let ada: request.Agent;
let first: string;

const browser = () => browserAt(harness);
const somebody = (name: string, role: string) => somebodyNew(harness, ada, name, role);

beforeAll(async () => {
  harness = await startHarness('people', { people: true });
  first = (await firstCode(harness.db)) ?? '';
  ada = browser();
});
afterAll(() => harness.stop());

describe('the first person', () => {
  it('comes in with the code of the start, once, and is admin', async () => {
    expect(await whoIs(ada)).toEqual({ people: true, first: true, provider: null, me: null });
    const join = (agent: request.Agent, secret: string, password = PASSWORD) =>
      call(agent, 'post', '/join', { secret, signIn: 'Ada@Fernwall', name: 'Ada Marrow', password });
    expect((await join(ada, 'AAAA-BBBB-CCCC-DDDD')).status).toBe(403);
    const weak = await join(ada, first, 'qwerty123456');
    expect([weak.status, weak.body.detail]).toEqual([
      422,
      'Password is one of those that are tried first. Take another.',
    ]);
    // Two at once, from the code of another copy of the server: one is the first.
    const other = (await firstCode(harness.db)) ?? '';
    const both = await Promise.all([join(ada, first.toLowerCase().replaceAll('-', ' ')), join(browser(), other)]);
    // The other finds somebody there, or its code gone.
    expect(both.filter(({ status }) => status === 201)).toHaveLength(1);
    expect(both.filter(({ status }) => [403, 409].includes(status))).toHaveLength(1);
    if (both[0]?.status !== 201) await signIn(ada, 'ada@fernwall').expect(200);
    expect((await whoIs(ada)).me).toMatchObject({
      name: 'Ada Marrow',
      role: 'admin',
      signIn: 'ada@fernwall',
      factor: false,
    });
    expect(await firstCode(harness.db)).toBeNull();
    expect((await join(browser(), first)).status).toBe(403);
  });
});

describe('whoever is not signed in', () => {
  it('reads, writes and switches nothing, and nothing they send is read', async () => {
    const nobody = browser();
    for (const [method, path] of [
      ['get', '/samples'],
      ['get', '/live'],
      ['get', '/openapi.json'],
      ['get', '/metrics'],
      ['get', '/people/names'],
      ['post', '/loads-off'],
      ['post', '/samples'],
      ['post', '/packages'],
      ['post', '/instruments/01JZZZZZZZZZZZZZZZZZZZZZZZ/commands'],
      ['get', '/log'],
    ] as const) {
      const answer = await call(nobody, method, path, method === 'post' ? { broken: true } : undefined);
      expect([path, answer.status]).toEqual([path, 401]);
      expect(answer.headers['content-type']).toContain('application/problem+json');
    }
    // Nor whether a drill is under way.
    for (const path of ['/practice/api/samples', '/practice/api/no-such-address'])
      expect([path, (await nobody.get(path)).status]).toEqual([path, 401]);
    for (const path of ['/health/live', '/health/ready', '/me'])
      expect((await call(nobody, 'get', path)).status).toBe(200);
  });

  it('comes in by nothing but a whole, signed session of this lab', async () => {
    const answer = await signIn(browser(), 'ada@fernwall').expect(200);
    const [cookie = ''] = answer.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(
      /^lastmark_session=[\w-]{43}\.[\w-]{43}; Path=\/; HttpOnly; SameSite=Strict; Max-Age=604800$/,
    );
    const [pair = ''] = cookie.split(';');
    const [secret = '', mac = ''] = pair.replace('lastmark_session=', '').split('.');
    const asks = async (value: string) =>
      (await request(harness.app).get('/api/samples').set('Cookie', `lastmark_session=${value}`)).status;
    expect(await asks(`${secret}.${mac}`)).toBe(200);
    for (const bad of [
      secret,
      `${secret}.`,
      `.${mac}`,
      `${secret}.${mac}x`,
      `x${secret}.${mac}`,
      `${mac}.${secret}`,
      '.',
      '',
    ])
      expect([bad, await asks(bad)]).toEqual([bad, 401]);
    // Nothing of it can be had from the database.
    const kept = await harness.db.select().from(sessions);
    expect(JSON.stringify(kept)).not.toContain(secret);
    // Over TLS, the name of the cookie holds it to this host.
    harness.app.set('trust proxy', 1);
    const secure = await request(harness.app)
      .post('/api/sign-in')
      .set('X-Forwarded-Proto', 'https')
      .send({ signIn: 'ada@fernwall', password: PASSWORD, code: '' });
    harness.app.set('trust proxy', 0);
    expect(secure.headers['set-cookie']?.[0]).toMatch(/^__Host-lastmark_session=.*; Secure$/);
  });

  it('is told the same whether the name or the password is wrong', async () => {
    const [name, password] = await Promise.all([
      signIn(browser(), 'nobody@fernwall'),
      signIn(browser(), 'ada@fernwall', 'hut on the fridge'),
    ]);
    expect([name.status, name.body]).toEqual([403, password.body]);
  });

  it('may guess so often and no more, however many guesses arrive at once; the right password does not help then', async () => {
    await somebody('Guessed', 'reader');
    const guesses = await Promise.all(
      Array.from({ length: 25 }, (_, turn) => signIn(browser(), 'guessed@fernwall', `guess number ${turn}`)),
    );
    const statuses = guesses.map(({ status }) => status);
    expect(statuses.filter((one) => one === 403).length).toBeLessThanOrEqual(10);
    expect(statuses.filter((one) => one === 429).length).toBeGreaterThanOrEqual(15);
    const late = await signIn(browser(), 'guessed@fernwall');
    expect([late.status, late.headers['retry-after']]).toEqual([429, '900']);
    // Another name from there is still looked at.
    expect((await signIn(browser(), 'ada@fernwall')).status).toBe(200);
    await harness.db.delete(signInTries);
    expect((await signIn(browser(), 'guessed@fernwall')).status).toBe(200);
  });
});

describe('roles', () => {
  it('may do what they may: each operation is refused to the role below, and nothing is half done', async () => {
    const reader = (await somebody('Rea', 'reader')).agent;
    const engineer = (await somebody('Eno', 'engineer')).agent;
    const keeper = (await somebody('Kit', 'keeper')).agent;
    const limitSet = { name: 'x' };
    const writes = await call(reader, 'post', '/samples', aSample());
    expect([writes.status, writes.body.detail]).toEqual([
      403,
      'This is for engineers, and you are reader here. Ask an admin.',
    ]);
    expect((await call(reader, 'get', '/samples')).status).toBe(200);
    expect((await call(reader, 'post', '/loads-off')).status).toBe(201);
    expect((await call(engineer, 'post', '/samples', aSample())).status).toBe(201);
    expect((await call(engineer, 'post', '/limit-sets', limitSet)).status).toBe(403);
    // Let through to its schema.
    expect((await call(keeper, 'post', '/limit-sets', limitSet)).status).toBe(422);
    for (const path of ['/people', '/invitations'])
      for (const agent of [reader, engineer, keeper]) expect((await call(agent, 'get', path)).status).toBe(403);
    expect((await call(reader, 'put', '/me', { name: 'Rea Roper' })).body).toMatchObject({ name: 'Rea Roper' });
    expect((await call(keeper, 'post', '/invitations', { role: 'admin', note: '' })).status).toBe(403);
    expect((await call(reader, 'get', '/people/names')).body.items).toContainEqual(
      expect.objectContaining({ name: 'Eno', role: 'engineer' }),
    );
  });

  it('change at once, and the last admin stays one', async () => {
    const { agent, me } = await somebody('Ira', 'engineer');
    const row = async (id: string) =>
      ((await call(ada, 'get', '/people')).body.items as StoredPerson[]).find((one) => one.id === id);
    const change = async (id: string, part: Partial<StoredPerson>) => {
      const { name = '', role = 'reader', disabled = false, version = 0 } = { ...(await row(id)), ...part };
      return ada.put(`/api/people/${id}`).set('If-Match', `"v${version}"`).send({ name, role, disabled });
    };
    expect((await change(me.id, { role: 'reader' })).status).toBe(200);
    expect((await call(agent, 'post', '/samples', aSample())).status).toBe(403);
    const own = (await whoIs(ada)).me?.id ?? '';
    for (const part of [{ role: 'keeper' }, { disabled: true }] as const) {
      const refused = await change(own, part);
      expect([refused.status, refused.body.detail]).toEqual([
        409,
        'This is the last admin. Make somebody else one first.',
      ]);
    }
    expect((await change(me.id, { disabled: true })).status).toBe(200);
    expect((await call(agent, 'get', '/samples')).status).toBe(401);
    const back = await signIn(browser(), 'ira@fernwall');
    expect([back.status, back.body.detail]).toEqual([403, 'You are kept out. Ask an admin.']);
    // Somebody else's change in between is not overwritten.
    const stale = await ada
      .put(`/api/people/${me.id}`)
      .set('If-Match', '"v1"')
      .send({ name: 'x', role: 'admin', disabled: false });
    expect(stale.status).toBe(412);
  });
});

describe('invitations', () => {
  it('let in once, until they are taken back or too old', async () => {
    const { path } = await somebody('Uma', 'reader');
    const join = (link: string, name: string) =>
      call(browser(), 'post', '/join', { secret: link.split('#')[1], signIn: name, name, password: PASSWORD });
    expect((await join(path, 'again')).status).toBe(403);
    const fresh = (await call(ada, 'post', '/invitations', { role: 'reader', note: 'for the hut' })).body as LetIn;
    const listed = (await call(ada, 'get', '/invitations')).body.items as { id: string; note: string; by: string }[];
    const [own] = listed.filter(({ note }) => note === 'for the hut');
    expect(own?.by).toBe('Ada Marrow');
    expect(JSON.stringify(listed)).not.toContain(fresh.path.split('#')[1]);
    await call(ada, 'delete', `/invitations/${own?.id}`).expect(204);
    expect((await join(fresh.path, 'late')).status).toBe(403);
    // Two at once by one link: one comes in.
    const shared = (await call(ada, 'post', '/invitations', { role: 'reader', note: '' })).body as LetIn;
    const both = await Promise.all([join(shared.path, 'one-of-two'), join(shared.path, 'two-of-two')]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 403]);
  });

  it('bring back whoever is locked out, and void what let them in before', async () => {
    const { agent, me } = await somebody('Lou', 'engineer');
    const { path } = (await call(ada, 'post', `/people/${me.id}/reset`).expect(201)).body as LetIn;
    expect((await call(agent, 'get', '/samples')).status).toBe(401);
    const anew = browser();
    const joined = await call(anew, 'post', '/join', {
      secret: path.split('#')[1],
      signIn: 'ignored',
      name: 'Ignored',
      password: 'another ridge hut',
    });
    expect(joined.body).toMatchObject({ id: me.id, name: 'Lou', role: 'engineer', signIn: 'lou@fernwall' });
    expect((await signIn(browser(), 'lou@fernwall')).status).toBe(403);
    expect((await signIn(browser(), 'lou@fernwall', 'another ridge hut')).status).toBe(200);
  });
});

describe('somebody who is forgotten', () => {
  it('is nowhere any more, while what they did stays, in an unbroken chain', async () => {
    const { agent, me } = await somebody('Quillfern', 'engineer');
    const made = (await call(agent, 'post', '/samples', aSample()).expect(201)).body as { id: string };
    await call(agent, 'post', `/samples/${made.id}/remarks`, {
      remark: {
        id: newId(),
        about: 'sample',
        aboutId: made.id,
        kind: 'note',
        text: 'Warm.',
        mentions: [],
        answers: null,
      },
    }).expect(201);
    await call(agent, 'post', '/me/tokens', { name: 'x', role: 'reader', days: 1 }).expect(201);
    await call(agent, 'post', '/me/factor', { ownPassword: PASSWORD }).expect(201);
    await call(ada, 'post', `/people/${me.id}/reset`).expect(201);
    await signIn(browser(), 'quillfern@fernwall', 'a wrong password');
    while ((await sealSome(harness.db)) > 0);
    const version = ((await call(ada, 'get', '/people')).body.items as StoredPerson[]).find(
      ({ id }) => id === me.id,
    )?.version;
    const forget = (id: string, seen: number | undefined) =>
      ada.delete(`/api/people/${id}`).set('If-Match', `"v${seen}"`);
    expect((await forget(me.id, 99)).status).toBe(412);
    expect((await forget(me.id, version)).status).toBe(204);
    const own = ((await call(ada, 'get', '/people')).body.items as StoredPerson[]).find(
      ({ name }) => name === 'Ada Marrow',
    );
    expect((await forget(own?.id ?? '', own?.version)).status).toBe(409);
    // Nothing in any table names them.
    const [tables] = await harness.pool.query<RowDataPacket[]>(
      "SELECT TABLE_NAME AS name FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE'",
    );
    for (const { name } of tables) {
      const [rows] = await harness.pool.query<RowDataPacket[]>(`SELECT * FROM \`${name}\``);
      expect([name, JSON.stringify(rows).match(/quillfern/i)]).toEqual([name, null]);
    }
    expect(tables.length).toBeGreaterThan(40);
    const entries = (await call(ada, 'get', `/log?sample=${made.id}`)).body.items as { who: string }[];
    expect(entries.map(({ who: name }) => name)).toEqual(['Somebody who left', 'Somebody who left']);
    expect((await checkChain(harness.db)).wrong).toEqual([]);
    const said = (await call(ada, 'get', `/samples/${made.id}/remarks`)).body.items as { who: string }[];
    expect(said.map(({ who: name }) => name)).toEqual(['Somebody who left']);
  });
});
