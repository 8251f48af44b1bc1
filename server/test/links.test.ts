import { type Rack, startRack } from '@lastmark/bench/sim';
import type { CommandAnswer, LoadsOffAnswer, StoredInstrument, StoredInstrumentProfile } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { instruments } from '../src/db/schema.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let rack: Rack;
let load: StoredInstrument;
beforeAll(async () => {
  harness = await startHarness('links');
  make = makers(harness);
  rack = await startRack({ firstPort: 0, speed: 1, seed: 2 });
  load = await instrument('DC load', 'dc-load', 'built-in-dc-load');
});
afterAll(async () => {
  await harness.stop();
  await rack.close();
});

const instrument = (kind: string, on: keyof Rack['ports'], profileId: string | null, part: object = {}) =>
  make.post<StoredInstrument>('/instruments', {
    name: `Test ${kind}`,
    class: kind,
    firmware: '',
    calibrationDue: null,
    address: `127.0.0.1:${rack.ports[on]}`,
    profileId,
    sees: null,
    specs: {},
    ...part,
  });
const say = (id: string, command: string) =>
  request(harness.app).post(`/api/instruments/${id}/commands`).send({ command });

describe('the benches there are', () => {
  it('are named by instruments that are spoken to, and say whether a server stands beside them', async () => {
    const benches = async () => (await request(harness.app).get('/api/benches').expect(200)).body.items;
    expect(await benches()).toEqual([{ name: '', here: true, there: true }]);
    const attic = await instrument('DC load', 'dc-load', null, { name: 'Of the attic' });
    expect(attic.bench).toBe('');
    await harness.db.update(instruments).set({ bench: 'attic' }).where(eq(instruments.id, attic.id));
    expect(await benches()).toEqual([
      { name: '', here: true, there: true },
      { name: 'attic', here: false, there: false },
    ]);
    const said = await request(harness.app).post(`/api/instruments/${attic.id}/commands`).send({ command: '*IDN?' });
    expect([said.status, said.body.detail]).toEqual([
      422,
      '"Of the attic" stands on bench "attic", and only the server beside that speaks to it.',
    ]);
    await harness.db.delete(instruments).where(eq(instruments.id, attic.id));
  });
});

describe('the console', () => {
  it('asks, and shows what went both ways', async () => {
    const answer = (await say(load.id, '*IDN?')).body as CommandAnswer;
    expect(answer.reply).toContain('DC load');
    expect(answer.items.map(({ direction }) => direction)).toEqual(expect.arrayContaining(['out', 'in']));
    const traffic = (await request(harness.app).get(`/api/instruments/${load.id}/traffic`)).body;
    expect(traffic).toMatchObject({ state: 'up' });
    expect(traffic.items.at(-1).text).toContain('DC load');
  });

  it('sends, and reports what the instrument will not take', async () => {
    expect((await say(load.id, 'CURR 1.5')).body).toMatchObject({ reply: null });
    const refused = await say(load.id, 'CURR 99');
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toContain('Data out of range;99 is not in 0 to 6');
    expect((await say(load.id, 'CURR 1\nINP ON')).body.detail).toContain('One command at a time');
  });

  it('says when an instrument does not answer, or has no address', async () => {
    const nobody = await instrument('power analyser', 'control', null, { address: '127.0.0.1:1' });
    const silent = await say(nobody.id, '*IDN?');
    expect(silent.status).toBe(422);
    expect(silent.body.detail).toContain('does not answer at 127.0.0.1:1');
    const byEye = await instrument('power analyser', 'control', null, { address: null });
    expect((await say(byEye.id, '*IDN?')).body.detail).toContain('has no address');
    expect((await say('01JZZZZZZZZZZZZZZZZZZZZZZZ', '*IDN?')).status).toBe(404);
  });

  it.each(['nowhere', 'host:', 'host:port', 'http://host:80', 'a b:80'])('%s is no address', async (address) => {
    const answer = await request(harness.app)
      .post('/api/instruments')
      .send({ ...load, id: undefined, version: undefined, address });
    expect(answer.status).toBe(422);
  });
});

describe('profiles', () => {
  const list = async () =>
    (await request(harness.app).get('/api/instrument-profiles')).body.items as StoredInstrumentProfile[];

  it('that ship are listed, copied and never changed', async () => {
    const shipped = (await list()).find(({ id }) => id === 'built-in-dc-load');
    if (!shipped) throw new Error('none');
    const { id, builtIn: _, version, ...body } = shipped;
    const put = await request(harness.app)
      .put(`/api/instrument-profiles/${id}`)
      .set('If-Match', `"v${version}"`)
      .send(body);
    expect(put.body.detail).toContain('ships with Lastmark');
    const copy = await make.post<StoredInstrumentProfile>('/instrument-profiles', { ...body, title: 'Own load' });
    expect(copy.builtIn).toBe(false);
    const changed = await request(harness.app)
      .put(`/api/instrument-profiles/${copy.id}`)
      .set('If-Match', '"v1"')
      .send({ ...body, title: 'Own load, changed' });
    expect(changed.body).toMatchObject({ title: 'Own load, changed', version: 2 });
    expect((await list()).map(({ title }) => title)).toContain('Own load, changed');
  });

  it('with a problem are refused with its sentence', async () => {
    const post = (commands: object[]) =>
      request(harness.app).post('/api/instrument-profiles').send({ title: 'Bad', class: 'DC load', commands });
    expect((await post([{ action: 'amps', command: 'CURR' }])).body.detail).toContain('lacks {amps}');
    expect((await post([{ action: 'fly', command: 'FLY' }])).body.detail).toContain('no action "fly"');
    expect(
      (
        await post([
          { action: 'on', command: 'A' },
          { action: 'on', command: 'B' },
        ])
      ).body.detail,
    ).toContain('stands once');
  });
});

describe('loads off', () => {
  const off = async () => (await request(harness.app).post('/api/loads-off').send({})).body as LoadsOffAnswer;
  const draw = async () => {
    rack.bench.setSupply({ on: true });
    for (const command of ['INST:NSEL 1', 'SINK:CONN ON', 'CURR 2', 'INP ON'])
      expect((await say(load.id, command)).status).toBe(201);
    expect(rack.bench.port('C1').amps).toBe(2);
  };

  it('takes the current away, whatever is being asked meanwhile', async () => {
    await draw();
    const busy = Array.from({ length: 40 }, () => say(load.id, 'FETC?'));
    const { items } = await off();
    await expect.poll(() => rack.bench.port('C1').amps).toBe(0);
    expect(items.find(({ instrumentId }) => instrumentId === load.id)).toMatchObject({ sent: true });
    await Promise.all(busy);
  });

  it('goes on to the next when one cannot be reached, and says which', async () => {
    await draw();
    const gone = await instrument('DC load', 'control', 'built-in-dc-load', {
      name: 'Gone load',
      address: '127.0.0.1:1',
    });
    const unknown = await instrument('DC load', 'dc-load', null, { name: 'Load without a profile' });
    const { items } = await off();
    const told = (id: string) => items.find(({ instrumentId }) => instrumentId === id);
    expect(told(load.id)?.sent).toBe(true);
    expect(told(gone.id)).toMatchObject({ sent: false, detail: expect.stringContaining('does not answer') });
    expect(told(unknown.id)).toMatchObject({ sent: false, detail: expect.stringContaining('no profile') });
    expect(rack.bench.port('C1').amps).toBe(0);
  });

  it('of a load that cannot be asked is never told as done, only as sent', async () => {
    const shipped = (await request(harness.app).get('/api/instrument-profiles')).body
      .items as StoredInstrumentProfile[];
    const {
      commands,
      title: _title,
      id: _id,
      builtIn: _built,
      version: _version,
      ...rest
    } = shipped.find(({ id }) => id === 'built-in-dc-load') as StoredInstrumentProfile;
    const deaf = await make.post<StoredInstrumentProfile>('/instrument-profiles', {
      ...rest,
      title: 'Takes, tells nothing',
      commands: commands.filter(({ action }) => !['isOn', 'all', 'current', 'volts'].includes(action)),
    });
    const blind = await instrument('DC load', 'dc-load', deaf.id, { name: 'Blind load' });
    const { items } = await off();
    expect(items.find(({ instrumentId }) => instrumentId === blind.id)).toMatchObject({
      sent: true,
      sure: false,
      blind: true,
      detail: 'its profile has no way of asking whether it is on',
    });
  });
});
