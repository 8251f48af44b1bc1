// People: how they come in, what lets them in, how often anybody may guess, and what each may do.
import type { LetIn, Me, NewAccessToken, NewFactor, StoredPerson, Who } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import type { RowDataPacket } from 'mysql2';
import { Secret, TOTP } from 'otpauth';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { people, sessions, signInTries } from '../src/db/schema.ts';
import { checkChain, sealSome } from '../src/log/chain.ts';
import { firstCode } from '../src/people/invitations.ts';
import { IDLE_MILLISECONDS } from '../src/people/sessions.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';

const PASSWORD = 'hut on the ridge';
let harness: Harness;
/** The first person here, an admin. */
let ada: request.Agent;
let first: string;

const browser = () => request.agent(harness.app).set('User-Agent', 'a browser');
const call = (agent: request.Agent, method: 'get' | 'post' | 'put' | 'delete', path: string, body?: object) =>
  agent[method](`/api${path}`).send(body);
const signIn = (agent: request.Agent, name: string, password = PASSWORD, code = '') =>
  call(agent, 'post', '/sign-in', { signIn: name, password, code });
const who = async (agent: request.Agent) => (await call(agent, 'get', '/me')).body as Who;

/** Somebody new, signed in at a browser of their own. */
async function somebody(name: string, role: string): Promise<{ agent: request.Agent; me: Me; path: string }> {
  const { path } = (await call(ada, 'post', '/invitations', { role, note: name }).expect(201)).body as LetIn;
  const agent = browser();
  const joined = await call(agent, 'post', '/join', {
    secret: path.split('#')[1],
    signIn: `${name}@fernwall`,
    name,
    password: PASSWORD,
  }).expect(201);
  return { agent, me: joined.body as Me, path };
}

const codeOf = (secret: string, at = Date.now()) =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: at });

beforeAll(async () => {
  harness = await startHarness('people', { people: true });
  first = (await firstCode(harness.db)) ?? '';
  ada = browser();
});
afterAll(() => harness.stop());

describe('the first person', () => {
  it('comes in with the code of the start, once, and is admin', async () => {
    expect(await who(ada)).toEqual({ people: true, first: true, provider: null, me: null });
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
    expect((await who(ada)).me).toMatchObject({
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
      expect([path, answer.status]).toEqual([path, path === '/log' ? answer.status : 401]);
      expect(answer.headers['content-type']).toContain('application/problem+json');
    }
    expect((await nobody.get('/practice/api/samples')).status).not.toBe(200);
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
    const own = (await who(ada)).me?.id ?? '';
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

describe('sessions', () => {
  it('are listed, ended one by one or all at once, and over for their browser at that moment', async () => {
    const { agent, me } = await somebody('Ola', 'reader');
    const [tablet, phone] = [browser(), browser()];
    await signIn(tablet, 'ola@fernwall').expect(200);
    await signIn(phone, 'ola@fernwall').expect(200);
    const list = async () => (await call(agent, 'get', '/me/sessions')).body.items as { id: string; own: boolean }[];
    expect((await list()).filter(({ own }) => own)).toHaveLength(1);
    const [other] = (await list()).filter(({ own }) => !own);
    // Nobody ends those of somebody else.
    expect((await call(ada, 'delete', `/me/sessions/${other?.id}`)).status).toBe(404);
    await call(agent, 'delete', `/me/sessions/${other?.id}`).expect(204);
    const alive = await Promise.all([tablet, phone].map(async (one) => (await call(one, 'get', '/samples')).status));
    expect(alive.sort()).toEqual([200, 401]);
    await call(agent, 'post', '/me/sessions/end-others').expect(204);
    expect(await list()).toHaveLength(1);
    const out = await call(agent, 'post', '/sign-out').expect(204);
    expect(out.headers['set-cookie']?.[0]).toContain('Max-Age=0');
    expect(await harness.db.select().from(sessions).where(eq(sessions.personId, me.id))).toEqual([]);
  });

  it('are over when nobody used them for long, and at their end however much they were used', async () => {
    const { agent, me } = await somebody('Ned', 'reader');
    const age = (part: Partial<typeof sessions.$inferInsert>) =>
      harness.db.update(sessions).set(part).where(eq(sessions.personId, me.id));
    await age({ seenAt: new Date(Date.now() - IDLE_MILLISECONDS + 60_000) });
    expect((await call(agent, 'get', '/samples')).status).toBe(200);
    await age({ seenAt: new Date(Date.now() - IDLE_MILLISECONDS - 60_000) });
    expect((await call(agent, 'get', '/samples')).status).toBe(401);
    await age({ seenAt: new Date(), endsAt: new Date(Date.now() - 1000) });
    expect((await call(agent, 'get', '/samples')).status).toBe(401);
    // Loads off is pressed by whoever was ever let in, and by nobody who writes a session of their own.
    expect((await call(agent, 'post', '/loads-off')).status).toBe(201);
    const forged = await request(harness.app)
      .post('/api/loads-off')
      .set('Cookie', `lastmark_session=${'x'.repeat(43)}.${'y'.repeat(43)}`);
    expect(forged.status).toBe(401);
  });

  it('are new after another password, and the old ones void', async () => {
    const { agent } = await somebody('Pia', 'reader');
    const elsewhere = browser();
    await signIn(elsewhere, 'pia@fernwall').expect(200);
    const change = (ownPassword: string, password: string) =>
      call(agent, 'put', '/me/password', { ownPassword, password });
    const wrong = await change('not hers at all', 'a hut in the valley');
    expect([wrong.status, wrong.body.errors]).toEqual([
      422,
      [{ path: 'ownPassword', message: 'This is not your password.' }],
    ]);
    expect((await change(PASSWORD, 'pia@fernwall1')).body.detail).toContain('mostly your name');
    const changed = await change(PASSWORD, 'a hut in the valley').expect(200);
    expect(changed.headers['set-cookie']).toHaveLength(1);
    expect((await call(elsewhere, 'get', '/samples')).status).toBe(401);
    expect((await call(agent, 'get', '/samples')).status).toBe(200);
    expect((await signIn(browser(), 'pia@fernwall')).status).toBe(403);
  });
});

describe('the second factor', () => {
  it('is asked for after the password, each code once; recovery codes once each', async () => {
    const { agent, me } = await somebody('Tam', 'keeper');
    const { secret, uri } = (await call(agent, 'post', '/me/factor', { ownPassword: PASSWORD }).expect(201))
      .body as NewFactor;
    expect(uri).toContain(`secret=${secret}`);
    expect((await call(agent, 'put', '/me/factor', { code: '000000' })).status).toBe(422);
    // Not asked for until it is confirmed.
    expect((await signIn(browser(), 'tam@fernwall')).body.codeWanted).toBe(false);
    const recovery = (await call(agent, 'put', '/me/factor', { code: codeOf(secret) }).expect(200)).body
      .items as string[];
    expect(recovery).toHaveLength(10);
    const half = browser();
    expect((await signIn(half, 'tam@fernwall')).body).toEqual({ me: null, codeWanted: true });
    expect((await call(half, 'get', '/samples')).status).toBe(401);
    // The code that confirmed it is spent; the one of the next step is good once, whoever is faster.
    expect((await signIn(browser(), 'tam@fernwall', PASSWORD, codeOf(secret))).status).toBe(403);
    const next = codeOf(secret, Date.now() + 30_000);
    const both = await Promise.all([1, 2].map(() => signIn(browser(), 'tam@fernwall', PASSWORD, next)));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 403]);
    const spare = recovery[3]?.toLowerCase() ?? '';
    expect((await signIn(browser(), 'tam@fernwall', PASSWORD, spare)).status).toBe(200);
    expect((await signIn(browser(), 'tam@fernwall', PASSWORD, spare)).status).toBe(403);
    expect((await who(agent)).me).toMatchObject({ factor: true, recovery: 9 });
    // Nothing that is kept of the recovery codes gives one away.
    const ended = await call(agent, 'post', '/me/factor/end', { ownPassword: PASSWORD }).expect(200);
    expect(ended.body).toMatchObject({ id: me.id, factor: false });
    expect((await signIn(browser(), 'tam@fernwall')).body.codeWanted).toBe(false);
  });
});

describe('tokens of scripts', () => {
  it('may what they were made for and no more than their owner, until they end', async () => {
    const { agent, me } = await somebody('Sol', 'engineer');
    const make = async (role: string) =>
      (await call(agent, 'post', '/me/tokens', { name: 'logger', role, days: 30 }).expect(201)).body as NewAccessToken;
    const asks = (token: string, method: 'get' | 'post', path: string, body?: object) =>
      request(harness.app)[method](`/api${path}`).set('Authorization', `Bearer ${token}`).send(body);
    const reads = await make('reader');
    expect((await asks(reads.token, 'get', '/metrics')).status).toBe(200);
    expect((await asks(reads.token, 'post', '/samples', aSample())).status).toBe(403);
    const most = await make('admin');
    expect(most.role).toBe('engineer');
    expect((await asks(most.token, 'post', '/samples', aSample())).status).toBe(201);
    expect((await asks(most.token, 'get', '/people')).status).toBe(403);
    // No token makes another, nor changes an account.
    expect((await asks(most.token, 'post', '/me/tokens', { name: 'x', role: 'reader', days: 1 })).status).toBe(403);
    expect((await asks(most.token, 'post', '/me/sessions/end-others')).status).toBe(403);
    expect((await asks(reads.token, 'post', '/loads-off')).status).toBe(201);
    for (const bad of [`${reads.token}x`, reads.token.slice(0, -1), 'lastmark_', ''])
      expect((await asks(bad, 'get', '/samples')).status).toBe(401);
    // Whoever may less afterwards does not keep more through a token.
    await harness.db.update(people).set({ role: 'reader' }).where(eq(people.id, me.id));
    expect((await asks(most.token, 'post', '/samples', aSample())).status).toBe(403);
    expect((await call(agent, 'get', '/me/tokens')).text).not.toContain(reads.token);
    await call(agent, 'delete', `/me/tokens/${reads.id}`).expect(204);
    expect((await asks(reads.token, 'get', '/samples')).status).toBe(401);
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
