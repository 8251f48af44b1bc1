// What lets somebody in: sessions, the second factor, tokens, and when each of them ends.
import type { NewAccessToken, NewFactor } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import { Secret, TOTP } from 'otpauth';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { people, sessions } from '../src/db/schema.ts';
import { IDLE_MILLISECONDS } from '../src/people/sessions.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';
import { browserAt, call, firstPerson, PASSWORD, signIn, somebodyNew, whoIs } from '../testing/people.ts';

let harness: Harness;
/** The first person here, an admin. */
let ada: request.Agent;

const browser = () => browserAt(harness);
const somebody = (name: string, role: string) => somebodyNew(harness, ada, name, role);

const codeOf = (secret: string, at: number) =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: at });

beforeAll(async () => {
  harness = await startHarness('sessions', { people: true });
  ada = await firstPerson(harness);
});
afterAll(() => harness.stop());

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
    // One moment for all of it: the clock may come to the next code on the way.
    const now = Date.now();
    const code = codeOf(secret, now);
    const recovery = (await call(agent, 'put', '/me/factor', { code }).expect(200)).body.items as string[];
    expect(recovery).toHaveLength(10);
    const half = browser();
    expect((await signIn(half, 'tam@fernwall')).body).toEqual({ me: null, codeWanted: true });
    expect((await call(half, 'get', '/samples')).status).toBe(401);
    // The code that confirmed it is spent; the one of the next step is good once, whoever is faster.
    expect((await signIn(browser(), 'tam@fernwall', PASSWORD, code)).status).toBe(403);
    const next = codeOf(secret, now + 30_000);
    const both = await Promise.all([1, 2].map(() => signIn(browser(), 'tam@fernwall', PASSWORD, next)));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 403]);
    const spare = recovery[3]?.toLowerCase() ?? '';
    expect((await signIn(browser(), 'tam@fernwall', PASSWORD, spare)).status).toBe(200);
    expect((await signIn(browser(), 'tam@fernwall', PASSWORD, spare)).status).toBe(403);
    expect((await whoIs(agent)).me).toMatchObject({ factor: true, recovery: 9 });
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
