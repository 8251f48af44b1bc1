// Which names the server answers to, and which networks instruments may be on.
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createHandlers } from '../src/handlers.ts';
import { createApp } from '../src/http/app.ts';
import { Door } from '../src/http/door.ts';
import { OPEN } from '../src/http/entrance.ts';
import { Networks } from '../src/links/networks.ts';
import { Journal } from '../src/log/journal.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('door');
});
afterAll(() => harness.stop());

function open() {
  const door = new Door({ host: '0.0.0.0', hosts: ['bench.lan'] });
  const log = pino({ level: 'silent' });
  return {
    door,
    app: createApp({
      db: harness.db,
      handlers: createHandlers(harness.working),
      log,
      web: '/nowhere',
      door,
      entrance: OPEN,
      journal: new Journal(harness.db, log),
      wrote: () => undefined,
    }),
  };
}

describe('a server', () => {
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
    expect(new Door({ host: '192.0.2.7', hosts: [] }).knows('192.0.2.7:4310')).toBe(true);
    expect(new Door({ host: '192.0.2.7', hosts: [] }).knows('192.0.2.8:4310')).toBe(false);
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
