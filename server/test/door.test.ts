// Beyond loopback: which names the server answers to, and the token each browser gives once.
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createHandlers } from '../src/handlers.ts';
import { createApp } from '../src/http/app.ts';
import { Door } from '../src/http/door.ts';
import { Networks } from '../src/links/networks.ts';
import { createWorking, type Working } from '../src/working.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';

const TOKEN = 'correct-horse';
let harness: Harness;
const opened: Working[] = [];
beforeAll(async () => {
  harness = await startHarness('door');
});
afterAll(async () => {
  for (const working of opened) await working.close();
  await harness.stop();
});

function open(settings: Partial<ConstructorParameters<typeof Door>[0]> = {}) {
  const door = new Door({ host: '0.0.0.0', hosts: ['bench.lan'], token: TOKEN, ...settings });
  const log = pino({ level: 'silent' });
  const working = createWorking({
    db: harness.db,
    vital: harness.db,
    log,
    databaseUrl: harness.url,
    door,
    version: '9.9.9',
  });
  opened.push(working);
  return {
    door,
    app: createApp({
      db: harness.db,
      handlers: createHandlers(working),
      log,
      web: '/nowhere',
      door,
      wrote: () => undefined,
    }),
  };
}

describe('a server open to the network', () => {
  it('lets nobody read, write or switch anything without the token', async () => {
    const { app } = open();
    for (const [method, path] of [
      ['get', '/samples'],
      ['get', '/live'],
      ['get', '/openapi.json'],
      ['post', '/loads-off'],
      ['post', '/samples'],
      ['post', '/instruments/01JZZZZZZZZZZZZZZZZZZZZZZZ/commands'],
    ] as const) {
      const answer = await request(app)
        [method](`/api${path}`)
        .set('Host', 'bench.lan:4310')
        .send(method === 'post' ? aSample() : undefined);
      expect([path, answer.status]).toEqual([path, 401]);
      expect(answer.headers['content-type']).toContain('application/problem+json');
    }
  });

  it('gives a browser that has the token a cookie for a year, that no script and no other site can use', async () => {
    const { app } = open();
    const give = (token: string) => request(app).post('/api/door').set('Host', 'bench.lan').send({ token });
    expect((await give('wrong')).status).toBe(403);
    const entered = await give(` ${TOKEN} `.trim());
    expect(entered.status).toBe(204);
    const [cookie = ''] = entered.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(/HttpOnly; SameSite=Strict; Max-Age=31536000$/);
    expect(cookie).not.toContain(TOKEN);
    const [pair = ''] = cookie.split(';');
    expect((await request(app).get('/api/samples').set('Host', 'bench.lan').set('Cookie', pair)).status).toBe(200);
    expect((await request(app).get('/api/samples').set('Host', 'bench.lan').set('Cookie', `${pair}0`)).status).toBe(
      401,
    );
    // A server with another token does not know it.
    expect(
      (
        await request(open({ token: 'other' }).app)
          .get('/api/samples')
          .set('Host', 'bench.lan')
          .set('Cookie', pair)
      ).status,
    ).toBe(401);
  });

  it('takes so many wrong tokens a minute and no more', async () => {
    const { app } = open();
    const give = (token: string) => request(app).post('/api/door').set('Host', 'bench.lan').send({ token });
    for (let turn = 0; turn < 20; turn += 1) expect((await give(`guess ${turn}`)).status).toBe(403);
    expect((await give(TOKEN)).status).toBe(429);
  });

  it('answers to its own names and those it was given, and to no rebound one, whatever its origin says', async () => {
    const { app, door } = open();
    for (const host of ['evil.example', 'bench.lan.evil.example', 'localhost.evil.example', '1.2.3.4', '']) {
      const answer = await request(app)
        .post('/api/samples')
        .set('Host', host)
        .set('Origin', `http://${host}`)
        .send(aSample());
      expect([host, answer.status]).toEqual([host, 421]);
    }
    for (const host of ['bench.lan', 'BENCH.LAN:4310', 'localhost:4310', '127.0.0.1', '[::1]:80'])
      expect(door.knows(host), host).toBe(true);
    expect(new Door({ host: '192.0.2.7', hosts: [], token: null }).knows('192.0.2.7:4310')).toBe(true);
    expect(new Door({ host: '192.0.2.7', hosts: [], token: null }).knows('192.0.2.8:4310')).toBe(false);
  });

  it('makes a token of its own where none is given, and asks for none on loopback', () => {
    const made = [1, 2].map(() => new Door({ host: '0.0.0.0', hosts: [], token: null }).token);
    expect(made[0]).toMatch(/^[0-9a-f]{24}$/);
    expect(made[0]).not.toBe(made[1]);
    for (const host of ['127.0.0.1', 'localhost', '::1'])
      expect(new Door({ host, hosts: [], token: 'x' }).token).toBeNull();
    expect(new Door({ host: '127.0.0.1.evil', hosts: [], token: null }).token).not.toBeNull();
  });
});

describe('networks of instruments', () => {
  it.each([
    ['127.0.0.0/8,::1/128', '127.8.8.8', true],
    ['127.0.0.0/8', '128.0.0.1', false],
    ['192.168.5.0/24', '192.168.5.77', true],
    ['192.168.5.0/24', '192.168.6.77', false],
    ['192.168.5.0/24', '::ffff:192.168.6.77', false],
    ['10.1.2.3', '10.1.2.3', true],
    ['10.1.2.3', '10.1.2.4', false],
    ['fd00::/8', 'fd12::1', true],
    ['fd00::/8', 'fe80::1', false],
  ])('%s has %s: %s', (networks, address, has) => expect(new Networks(networks).has(address)).toBe(has));

  it.each(['192.168.1.0/33', 'bench.lan', '10.0.0.0/8/8', '10.0.0.0/x'])('%s is no network', (text) => {
    expect(() => new Networks(text)).toThrow(/LASTMARK_INSTRUMENTS has/);
  });

  it('a name is looked at when it is connected: one that leads outside is refused there', async () => {
    const inside = new Networks('127.0.0.0/8,::1/128');
    const outside = new Networks('192.0.2.0/24');
    const resolved = (networks: Networks) =>
      new Promise((resolve) =>
        networks.lookup('localhost', { all: false }, (error, address) => resolve(error?.message ?? address)),
      );
    expect(await resolved(inside)).toMatch(/^(127\.0\.0\.1|::1)$/);
    expect(await resolved(outside)).toContain('outside the networks');
  });
});
