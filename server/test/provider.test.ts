// Sign-in by the lab's own provider: whoever it vouches for comes in, and nobody who only says so.
import type { Who } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readConfig } from '../src/config.ts';
import { firstCode } from '../src/people/invitations.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { CLIENT, startProvider, type TestProvider } from '../testing/provider.ts';

let harness: Harness;
let provider: TestProvider;
let ada: request.Agent;
beforeAll(async () => {
  provider = await startProvider();
  const { issuer } = provider;
  harness = await startHarness('provider', {
    people: true,
    provider: { issuer, ...CLIENT, name: 'Fernwall sign-in', role: 'engineer' },
  });
  ada = request.agent(harness.app);
});
afterAll(async () => {
  await harness.stop();
  await provider.close();
});

const browser = () => request.agent(harness.app).set('Host', 'localhost:4310');
const me = async (agent: request.Agent) => ((await agent.get('/api/me')).body as Who).me;
const whyOf = (location: string | undefined): string =>
  decodeURIComponent((location ?? '').split('#not-let-in=')[1] ?? '');

/** Go to the provider and come back. @param change what somebody did to the address on the way */
async function comeBy(agent: request.Agent, claims: object, part: object = {}, change = (url: URL) => url) {
  provider.next = { claims: { sub: 'unknown', ...claims }, ...part };
  const begun = await agent.get('/api/sign-in/provider').expect(302);
  const sent = await fetch(begun.headers.location ?? '', { redirect: 'manual' });
  const back = change(new URL(sent.headers.get('location') ?? ''));
  expect(back.origin).toBe('http://localhost:4310');
  return agent.get(back.pathname + back.search).set('Sec-Fetch-Site', 'cross-site');
}

const BROOK = { sub: 'brook', name: 'Brook Tarn', email: 'Brook@Fernwall.example' };

describe('the lab’s own sign-in', () => {
  it('lets nobody in before the first, who comes with the code of the start', async () => {
    const answer = await comeBy(browser(), BROOK);
    expect(whyOf(answer.headers.location)).toBe('Nobody is here yet. The first comes in with the code of the start.');
    const secret = await firstCode(harness.db);
    await ada
      .post('/api/join')
      .send({ secret, signIn: 'ada@fernwall.example', name: 'Ada Marrow', password: 'hut on the ridge' })
      .expect(201);
  });

  it('lets in whom it vouches for: new the first time, the same person ever after, with what they may', async () => {
    const first = browser();
    const answer = await comeBy(first, BROOK);
    expect([answer.status, answer.headers.location]).toEqual([302, '/']);
    const known = await me(first);
    expect(known).toMatchObject({
      name: 'Brook Tarn',
      role: 'engineer',
      signIn: 'brook@fernwall.example',
      password: false,
    });
    const second = browser();
    await comeBy(second, { ...BROOK, name: 'Another Name' });
    expect((await me(second))?.id).toBe(known?.id);
    // Two windows at once are one person.
    const [one, other] = [browser(), browser()];
    await Promise.all([comeBy(one, { sub: 'cass' }), comeBy(other, { sub: 'cass' })]);
    expect((await me(one))?.id).toBe((await me(other))?.id);
    // Nobody comes in by a password where there is none.
    const typed = await browser()
      .post('/api/sign-in')
      .send({ signIn: 'brook@fernwall.example', password: '', code: '' });
    expect(typed.status).toBe(403);
  });

  it('takes over no name somebody has already', async () => {
    const agent = browser();
    const answer = await comeBy(agent, { sub: 'mallory', email: 'ada@fernwall.example' });
    expect(whyOf(answer.headers.location)).toContain('Somebody signs in as ada@fernwall.example already');
    expect(await me(agent)).toBeNull();
  });

  it('keeps out whom an admin keeps out', async () => {
    const agent = browser();
    await comeBy(agent, { sub: 'wren', name: 'Wren Fen' });
    const { items } = (await ada.get('/api/people')).body as { items: { id: string; name: string; version: number }[] };
    const wren = items.find(({ name }) => name === 'Wren Fen');
    await ada
      .put(`/api/people/${wren?.id}`)
      .set('If-Match', `"v${wren?.version}"`)
      .send({ name: 'Wren Fen', role: 'engineer', disabled: true })
      .expect(200);
    const answer = await comeBy(agent, { sub: 'wren', name: 'Wren Fen' });
    expect(whyOf(answer.headers.location)).toBe('You are kept out. Ask an admin.');
    expect(await me(agent)).toBeNull();
  });

  it.each([
    ['another signature', { forged: true }, {}],
    ['another audience', {}, { aud: 'another client' }],
    ['another issuer', {}, { iss: 'https://evil.example' }],
    ['another nonce', {}, { nonce: 'of another sign-in' }],
    ['a time that is over', {}, { exp: 1_000_000_000 }],
    ['a refusal', { refuse: true }, {}],
  ])('does not believe %s', async (_what, part, claims) => {
    const agent = browser();
    const answer = await comeBy(agent, { ...BROOK, ...claims }, part);
    expect(whyOf(answer.headers.location)).toBe(
      'Fernwall sign-in did not let you in, or what it said could not be believed.',
    );
    expect(await me(agent)).toBeNull();
  });

  it('is for the browser it was begun in, once', async () => {
    // Somebody else's answer, brought to a browser that began nothing, or began something else.
    const theirs = browser();
    let address = new URL('http://localhost:4310');
    await comeBy(theirs, BROOK, {}, (url) => {
      address = new URL(url);
      return url;
    });
    const again = await theirs.get(address.pathname + address.search);
    expect(whyOf(again.headers.location)).toContain('was not begun in this browser');
    const victim = browser();
    const none = await victim.get(address.pathname + address.search);
    expect(whyOf(none.headers.location)).toContain('was not begun in this browser');
    await victim.get('/api/sign-in/provider').expect(302);
    const other = await victim.get(address.pathname + address.search);
    expect(whyOf(other.headers.location)).toContain('did not let you in');
    expect(await me(victim)).toBeNull();
    // Nor with another state than it was begun with.
    const changed = await comeBy(browser(), BROOK, {}, (url) => {
      url.searchParams.set('state', 'x');
      return url;
    });
    expect(whyOf(changed.headers.location)).toContain('did not let you in');
  });

  it('that cannot be reached says so, and passwords go on working', async () => {
    const away = await startHarness('provider_away', {
      people: true,
      provider: { issuer: 'http://127.0.0.1:1', ...CLIENT, name: 'Fernwall sign-in', role: 'reader' },
    });
    const answer = await request(away.app).get('/api/sign-in/provider').expect(302);
    expect(whyOf(answer.headers.location)).toContain('Fernwall sign-in cannot be reached');
    expect(((await request(away.app).get('/api/me')).body as Who).provider).toBe('Fernwall sign-in');
    await away.stop();
  });

  it('is set up with TLS, a file for its secret, and a role there is', () => {
    const read = (env: Record<string, string>) =>
      readConfig({ DATABASE_URL: 'mysql://x@localhost/x', ...env }).provider;
    const file = new URL(import.meta.url).pathname;
    const whole = {
      LASTMARK_OIDC_ISSUER: 'https://id.example',
      LASTMARK_OIDC_CLIENT: 'x',
      LASTMARK_OIDC_SECRET_FILE: file,
    };
    expect(read({})).toBeNull();
    expect(read(whole)).toMatchObject({ issuer: 'https://id.example', role: 'reader' });
    expect(() => read({ LASTMARK_OIDC_ISSUER: 'https://id.example' })).toThrow('go together');
    expect(() => read({ ...whole, LASTMARK_OIDC_ISSUER: 'http://id.example' })).toThrow('begins with https://');
    expect(() => read({ ...whole, LASTMARK_OIDC_ROLE: 'boss' })).toThrow('give one of reader, engineer, keeper, admin');
    expect(() => read({ ...whole, LASTMARK_OIDC_SECRET_FILE: '/nowhere' })).toThrow('cannot be read');
  });
});
