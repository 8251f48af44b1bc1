import type { StoredInstrument, StoredRig } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { aPoint, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('bench');
  make = makers(harness);
});
afterAll(() => harness.stop());

const get = async <T>(path: string) => (await request(harness.app).get(`/api${path}`)).body as T;
const put = (path: string, version: number, body: object) =>
  request(harness.app).put(`/api${path}`).set('If-Match', `"v${version}"`).send(body);
const spec = {
  readingPercent: 0.1,
  rangePercent: 0,
  range: 0,
  offset: 0.02,
  resolution: 0,
  floor: 0,
  coverage: 'not stated',
};
const wattmeter = {
  name: 'Power meter',
  class: 'power analyser',
  firmware: '1.0',
  calibrationDue: '2027-01-31',
  address: null,
  profileId: null,
  sees: null,
  specs: { power: spec },
};

describe('instruments', () => {
  it('are added, listed and changed by version', async () => {
    const made = await make.post<StoredInstrument>('/instruments', wattmeter);
    expect((await get<{ items: StoredInstrument[] }>('/instruments')).items).toContainEqual(made);
    expect((await put(`/instruments/${made.id}`, 1, { ...wattmeter, firmware: '1.1' })).body).toMatchObject({
      firmware: '1.1',
      version: 2,
    });
    const late = await put(`/instruments/${made.id}`, 1, wattmeter);
    expect(late.status).toBe(412);
    expect(late.body.detail).toContain('Nothing was overwritten');
  });

  it.each([
    ['no name', { name: '' }, 'Name is empty'],
    ['a class nobody has', { class: 'crystal ball' }, 'Class must be one of'],
    ['a day that is none', { calibrationDue: '2027-02-30' }, 'not a day of the calendar'],
    ['an accuracy of exactly zero', { specs: { power: { ...spec, readingPercent: 0, offset: 0 } } }, 'exactly zero'],
    ['a spec for a quantity it cannot have', { specs: { length: spec } }, 'a field nobody knows: length'],
  ])('with %s are refused', async (_what, part, message) => {
    const answer = await request(harness.app)
      .post('/api/instruments')
      .send({ ...wattmeter, ...part });
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain(message);
  });

  it('changed later leave accepted readings as they were', async () => {
    const sample = await make.sample();
    const rig = await make.rig();
    const setup = await make.setup(sample.id, rig.id);
    const watts = async () => {
      const point = aPoint(setup.id, rig.id, { watts: '71.62' });
      const { points } = await make.post<{ points: { readings: { u: number }[] }[] }>(
        `/samples/${sample.id}/readings`,
        { points: [point] },
      );
      return points[0]?.readings[0]?.u ?? Number.NaN;
    };
    const before = await watts();
    const instrument = (await get<{ items: StoredInstrument[] }>('/instruments')).items.find(
      ({ id }) => id === rig.meters.mains,
    );
    if (!instrument) throw new Error('The rig has no wattmeter.');
    const { id, version, ...input } = instrument;
    const coarse = { ...input, specs: { power: { ...spec, offset: 1 } } };
    expect((await put(`/instruments/${id}`, version, coarse)).status).toBe(200);
    expect(await watts()).toBeGreaterThan(before * 4);
    const { items } = await get<{ items: { u: number }[] }>(`/samples/${sample.id}/readings`);
    expect(items[0]?.u).toBeCloseTo(before, 9);
  });
});

describe('rigs', () => {
  it('refer to instruments that are there', async () => {
    const missing = '01JZZZZZZZZZZZZZZZZZZZZZZZ';
    const body = {
      name: 'Rig',
      meters: { mains: missing, outputVolts: missing, outputAmps: missing, loadEnd: null },
      outputPlace: 'port',
      leadOhms: 0,
      leadUOhms: 0,
      elements: [],
      note: '',
    };
    const answer = await request(harness.app).post('/api/rigs').send(body);
    expect(answer.status).toBe(409);
    expect(answer.body.detail).toContain('something that is not there');
  });

  it('that sense at the load end have their lead taken off in every figure', async () => {
    const sample = await make.sample({ model: { maker: 'Lead' } });
    await make.claim(sample.id, { kind: 'total', watts: 65 });
    const rig = await make.rig({ outputPlace: 'load-end', leadOhms: 0.1, leadUOhms: 0.001 });
    const setup = await make.setup(sample.id, rig.id);
    const point = aPoint(setup.id, rig.id, { watts: '72' });
    const far = [
      ...point.readings,
      {
        ...point.readings[0],
        id: newId(),
        quantity: 'voltage',
        place: 'load-end',
        port: 'C1',
        typed: '19.7',
      },
      {
        ...point.readings[0],
        id: newId(),
        quantity: 'current',
        place: 'load-end',
        port: 'C1',
        typed: '3.25',
      },
    ];
    await make.post(`/samples/${sample.id}/readings`, { points: [{ ...point, readings: far }] });
    const { concluded } = await get<{ concluded: { claims: { sentence: string }[] } }>(
      `/samples/${sample.id}/export.json`,
    );
    // 19.7 V · 3.25 A at the load, and 3.25² · 0.1 Ω on the way there.
    expect(concluded.claims[0]?.sentence).toContain('65.08 ±');
  });

  it('can be renamed while readings refer to them', async () => {
    const rig = await make.rig();
    const { id, version, ...input } = rig as StoredRig & { id: string };
    expect((await put(`/rigs/${id}`, version, { ...input, name: 'Other' })).body).toMatchObject({
      name: 'Other',
      version: 2,
    });
    expect((await put(`/rigs/${id}`, version, input)).status).toBe(412);
  });
});

it('limit sets are handed out as data with their source', async () => {
  const { items } = await get<{ items: { id: string; source: string; note: string }[] }>('/limit-sets');
  expect(items.map(({ id }) => id)).toEqual(['us-level-6', 'eu-2019-1782', 'eu-coc-5-tier-2']);
  expect(items.every(({ source, note }) => source.length > 5 && note.includes('onfirm against the current text'))).toBe(
    true,
  );
});

describe('a rig that reads at the socket only', () => {
  const socket = async () => {
    const { mains } = (await make.rig()).meters;
    return make.rig({ name: 'Socket', meters: { mains, outputVolts: null, outputAmps: null, loadEnd: null } });
  };

  it('takes readings at the mains and refuses those at a port in words', async () => {
    const sample = await make.sample();
    const rig = await socket();
    const setup = await make.setup(sample.id, rig.id);
    const send = (typed: Parameters<typeof aPoint>[2]) =>
      request(harness.app)
        .post(`/api/samples/${sample.id}/readings`)
        .send({ points: [aPoint(setup.id, rig.id, typed)] });
    expect((await send({ watts: '49.6' })).status).toBe(201);
    const refused = await send({ volts: '20.03' });
    expect(refused.status).toBe(422);
    expect(refused.body.errors[0].message).toBe('The rig "Socket" has no meter at the port.');
  });

  it('has neither of both meters at the output, or both', async () => {
    const { meters, name: _, id: _id, version: _version, ...rest } = (await make.rig()) as StoredRig;
    const half = await request(harness.app)
      .post('/api/rigs')
      .send({ ...rest, name: 'Half', meters: { ...meters, outputAmps: null } });
    expect([half.status, half.body.errors[0].message]).toEqual([
      422,
      'Volts and amps of the output need a meter each, or neither has one',
    ]);
  });
});
