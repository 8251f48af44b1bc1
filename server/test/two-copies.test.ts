// Two copies of the server on one database: people, their sessions, their tries and what they do are known to both.
import type { News } from '@lastmark/contract';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect, VITAL_CONNECTIONS } from '../src/db/database.ts';
import { logEntries, logSeals } from '../src/db/schema.ts';
import { createHandlers } from '../src/handlers.ts';
import { createApp } from '../src/http/app.ts';
import { Door } from '../src/http/door.ts';
import { checkChain, sealSome } from '../src/log/chain.ts';
import { Journal } from '../src/log/journal.ts';
import { PeopleEntrance } from '../src/people/entrance.ts';
import { firstCode } from '../src/people/invitations.ts';
import { createWorking } from '../src/working.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';

const PASSWORD = 'hut on the ridge';
let harness: Harness;
let second: { readonly app: Express; readonly close: () => Promise<void> };

/** Another copy on the same database, with connections of its own. */
async function copyOf(url: string) {
  const log = pino({ level: 'silent' });
  const { db, pool } = connect(url);
  const vital = connect(url, VITAL_CONNECTIONS);
  const working = createWorking({ db, vital: vital.db, log, databaseUrl: url, version: '9.9.9' });
  const journal = new Journal(db, log);
  const people = await PeopleEntrance.open(db);
  const app = createApp({
    db,
    handlers: createHandlers(working, { people: { key: people.key, journal, provider: null } }),
    log,
    web: '/nowhere',
    door: new Door({ host: '127.0.0.1', hosts: [] }),
    entrance: people,
    journal,
    wrote: () => undefined,
  });
  const close = async () => {
    await working.close();
    await journal.close();
    await Promise.all([pool.end(), vital.pool.end()]);
  };
  return { app, close };
}

beforeAll(async () => {
  harness = await startHarness('two_copies', { people: true });
  second = await copyOf(harness.url);
});
afterAll(async () => {
  await second.close();
  await harness.stop();
});

/** The cookie of a browser: whichever copy it speaks to, it gives the same. */
let cookie = '';
const ask = (app: Express, method: 'get' | 'post' | 'put' | 'delete', path: string, body?: object) =>
  request(app)[method](`/api${path}`).set('Cookie', cookie).send(body);

describe('two copies', () => {
  it('know each other’s sessions, and their end', async () => {
    const secret = await firstCode(harness.db);
    const joined = await ask(harness.app, 'post', '/join', {
      secret,
      signIn: 'ada',
      name: 'Ada Marrow',
      password: PASSWORD,
    });
    cookie = joined.headers['set-cookie']?.[0]?.split(';')[0] ?? '';
    for (const { app } of [harness, second]) expect((await ask(app, 'get', '/samples')).status).toBe(200);
    await ask(second.app, 'post', '/sign-out').expect(204);
    for (const { app } of [harness, second]) expect((await ask(app, 'get', '/samples')).status).toBe(401);
    // A signature is known to both without asking: loads go off at either.
    for (const { app } of [harness, second]) expect((await ask(app, 'post', '/loads-off')).status).toBe(201);
  });

  it('count tries together', async () => {
    const tries = await Promise.all(
      Array.from({ length: 20 }, (_, at) =>
        ask(at % 2 ? second.app : harness.app, 'post', '/sign-in', {
          signIn: 'ada',
          password: `guess ${at}`,
          code: '',
        }),
      ),
    );
    expect(tries.filter(({ status }) => status === 403).length).toBeLessThanOrEqual(10);
    await harness.db.execute('DELETE FROM sign_in_tries');
    const back = await ask(second.app, 'post', '/sign-in', { signIn: 'ada', password: PASSWORD, code: '' });
    cookie = back.headers['set-cookie']?.[0]?.split(';')[0] ?? '';
    expect(back.status).toBe(200);
  });

  it('tell of what was done at the other', async () => {
    const news = async (app: Express, newest: string): Promise<News> =>
      (await ask(app, 'post', '/news', { tab: 'one-page-only', newest, sampleId: null, place: '' }).expect(200)).body;
    const { newest } = await news(second.app, '');
    const made = await ask(harness.app, 'post', '/samples', aSample()).expect(201);
    await expect
      .poll(async () => (await news(second.app, newest)).entries.map(({ subject }) => subject))
      .toContain(made.body.id);
    // What one said was the newest means nothing to the other: it says that everything may have changed.
    expect((await news(harness.app, newest)).missed).toBe(true);
  });

  it('keep one log, in one chain, each entry once', async () => {
    await Promise.all(
      Array.from({ length: 12 }, (_, at) =>
        ask(at % 2 ? second.app : harness.app, 'post', '/samples', aSample()).expect(201),
      ),
    );
    const sealing = async () => {
      while ((await sealSome(harness.db)) > 0);
    };
    // Two that seal at once: one of them may be refused, and begins anew.
    await Promise.allSettled([sealing(), sealing()]);
    await sealing();
    const entries = await harness.db.select().from(logEntries);
    const seals = await harness.db.select().from(logSeals);
    expect(new Set(seals.map(({ entryId }) => entryId))).toEqual(new Set(entries.map(({ id }) => id)));
    expect(await checkChain(harness.db)).toMatchObject({ sealed: entries.length, waiting: 0, wrong: [] });
  });

  it('let one person be changed at one of them at a time', async () => {
    const { body } = await ask(harness.app, 'get', '/people');
    const [me] = body.items as { id: string; name: string; version: number }[];
    const change = (app: Express, name: string) =>
      request(app)
        .put(`/api/people/${me?.id}`)
        .set('Cookie', cookie)
        .set('If-Match', `"v${me?.version}"`)
        .send({ name, role: 'admin', disabled: false });
    const both = await Promise.all([change(harness.app, 'Ada One'), change(second.app, 'Ada Two')]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 412]);
  });

  it('let the choices of method be changed at one of them at a time, also the very first time', async () => {
    for (const tariff of [0.31, 0.41, 0.51]) {
      const { version, ...choices } = (await ask(harness.app, 'get', '/profile')).body;
      const change = (app: Express, price: number) =>
        request(app)
          .put('/api/profile')
          .set('Cookie', cookie)
          .set('If-Match', `"v${version}"`)
          .send({ ...choices, tariff: price });
      const both = await Promise.all([change(harness.app, tariff), change(second.app, tariff + 0.01)]);
      expect(both.map(({ status }) => status).sort()).toEqual([200, 412]);
      const kept = both.find(({ status }) => status === 200)?.body.tariff;
      expect((await ask(second.app, 'get', '/profile')).body).toMatchObject({ tariff: kept, version: version + 1 });
    }
  });
});
