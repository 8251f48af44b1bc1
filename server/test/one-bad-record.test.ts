// No single record keeps the server from starting, a list from answering, or loads from going off.
import { startRack } from '@lastmark/bench/sim';
import type { LoadsOffAnswer, Page, SampleRow, StoredInstrument } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changed } from '../src/changes/changes.ts';
import { newId } from '../src/db/ids.ts';
import { instrumentProfiles, instruments, points, readings } from '../src/db/schema.ts';
import { aPoint, EU, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let rack: Awaited<ReturnType<typeof startRack>>;
beforeAll(async () => {
  harness = await startHarness('one_bad_record');
  make = makers(harness);
  rack = await startRack({ firstPort: 0, speed: 1, seed: 2 });
});
afterAll(async () => {
  await harness.stop();
  await rack.close();
});

const anInstrument = (part: object = {}) => ({
  name: 'Load',
  class: 'DC load',
  firmware: '',
  calibrationDue: null,
  address: `127.0.0.1:${rack.ports['dc-load']}`,
  profileId: 'built-in-dc-load',
  sees: null,
  specs: {},
  ...part,
});

describe('a reading', () => {
  it('of 10^155 W is refused at the door, an unlikely one is asked about and taken when it is meant', async () => {
    const sample = await make.sample();
    const rig = await make.rig();
    const setup = await make.setup(sample.id, rig.id);
    const send = (point: object) =>
      request(harness.app)
        .post(`/api/samples/${sample.id}/readings`)
        .send({ points: [point] });
    const absurd = await send(aPoint(setup.id, rig.id, { watts: '1e155' }));
    expect([absurd.status, absurd.body.detail]).toEqual([
      422,
      expect.stringContaining('at most 25000 W can be entered'),
    ]);
    const point = aPoint(setup.id, rig.id, { watts: '3250' });
    const asked = await send(point);
    expect([asked.status, asked.body.errors]).toEqual([
      422,
      [{ path: 'points[0].readings[0].typed', message: expect.stringContaining('is unlikely'), really: true }],
    ]);
    const meant = await send({ ...point, readings: point.readings.map((one) => ({ ...one, really: true })) });
    expect(meant.status).toBe(201);
  });

  it('that is there already, however absurd, costs its own row of the shelf only', async () => {
    const good = await make.sample({ unit: { serial: 'good' } });
    const bad = await make.sample({ unit: { serial: 'bad' } });
    const rig = await make.rig();
    const setup = await make.setup(bad.id, rig.id);
    for (const load of [1, 0.75, 0.5, 0.25, 0]) {
      const pointId = newId();
      const common = { sampleId: bad.id, rigId: rig.id, takenAt: new Date(), mains: EU, attached: 'nothing' as const };
      await harness.db
        .insert(points)
        .values({ ...common, id: pointId, setupId: load > 0 ? setup.id : null, load, evidence: 'load' });
      await harness.db.insert(readings).values({
        id: newId(),
        pointId,
        quantity: 'power',
        place: 'mains',
        port: null,
        value: 1e155,
        u: load === 0 ? -1 : 1e155,
        count: 1,
        spread: 0,
        typed: '1e155',
        instrumentId: null,
        source: 'before',
        supersedes: null,
        overdue: false,
        takenAt: new Date(),
        enteredAt: new Date(),
      });
    }
    await changed(harness.db, bad.id, 'points');
    harness.working.figures.nudge();
    const row = async (id: string) => {
      const { body } = await request(harness.app).get('/api/samples').expect(200);
      return (body as Page<SampleRow>).items.find((one) => one.id === id);
    };
    await expect.poll(async () => (await row(bad.id))?.unjudged).toBe(true);
    await expect.poll(async () => (await row(good.id))?.unjudged).toBe(false);
    for (const path of ['dossier', 'export.csv'])
      expect((await request(harness.app).get(`/api/samples/${bad.id}/${path}`)).status, path).toBe(200);
    for (const path of ['sheet.pdf', 'export.json']) {
      const { status, body } = await request(harness.app).get(`/api/samples/${bad.id}/${path}`);
      expect([status, body.detail]).toEqual([422, expect.stringContaining('Look for an impossible reading')]);
    }
    expect((await request(harness.app).get(`/api/samples/${good.id}/sheet.pdf`)).status).toBe(200);
  });
});

describe('an instrument', () => {
  it.each([0, 65_536, 70_000, 99_999])('at port %d is refused', async (port) => {
    const answer = await request(harness.app)
      .post('/api/instruments')
      .send(anInstrument({ address: `127.0.0.1:${port}` }));
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('port outside 1 to 65535')]);
  });

  it('outside the networks instruments may be on is refused, by number when entered and by name when connected', async () => {
    for (const address of [
      '192.168.1.20:5025',
      '10.0.0.1:80',
      '[fe80::1]:5025',
      '0.0.0.0:5025',
      '169.254.169.254:80',
    ]) {
      const answer = await request(harness.app).post('/api/instruments').send(anInstrument({ address }));
      expect([address, answer.status, answer.body.detail]).toEqual([
        address,
        422,
        expect.stringContaining('LASTMARK_INSTRUMENTS'),
      ]);
    }
    // Loopback by another name is loopback.
    const local = await make.post<StoredInstrument>(
      '/instruments',
      anInstrument({ address: `localhost:${rack.ports['dc-load']}` }),
    );
    const say = await request(harness.app).post(`/api/instruments/${local.id}/commands`).send({ command: '*IDN?' });
    expect([say.status, say.body.reply]).toEqual([201, expect.stringContaining('DC load')]);
  });

  it('or a profile that was stored wrong keeps no other from being listed, watched and switched off', async () => {
    const id = newId();
    await harness.db.insert(instrumentProfiles).values({ id, profile: { title: 'Broken' } as never });
    const broken = { ...anInstrument(), firmware: '', calibrationDue: null, sees: null, specs: {}, version: 1 };
    await harness.db.insert(instruments).values([
      { ...broken, id: newId(), name: 'Impossible port', address: '127.0.0.1:70000' },
      { ...broken, id: newId(), name: 'Impossible host', address: 'no address at all' },
      { ...broken, id: newId(), name: 'Broken profile', profileId: id },
    ] as never);
    const good = await make.post<StoredInstrument>('/instruments', anInstrument({ name: 'Good load' }));
    rack.bench.setSupply({ on: true });
    for (const command of ['INST:NSEL 1', 'SINK:CONN ON', 'CURR 1', 'INP ON'])
      expect((await request(harness.app).post(`/api/instruments/${good.id}/commands`).send({ command })).status).toBe(
        201,
      );
    expect(rack.bench.isOn('C1')).toBe(true);
    const off = (await request(harness.app).post('/api/loads-off').send({})).body as LoadsOffAnswer;
    expect(off.items.find(({ name }) => name === 'Good load')).toMatchObject({ sure: true });
    expect(off.items.find(({ name }) => name === 'Impossible port')).toMatchObject({ sent: false, sure: false });
    expect(rack.bench.isOn('C1')).toBe(false);
    for (const path of ['/instruments', '/rigs', '/samples', '/leases'])
      expect((await request(harness.app).get(`/api${path}`)).status, path).toBe(200);
    expect((await request(harness.app).get('/api/instrument-profiles')).status).toBe(200);
    // Live numbers go on for the good one.
    const heard: string[] = [];
    const stop = harness.working.live.listen(
      (event) => heard.push(event.name),
      null,
      () => undefined,
    );
    await expect.poll(() => heard.includes('Good load')).toBe(true);
    stop();
  });
});
