import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { workOutFigures } from '../src/shelf/figures.ts';
import { aPoint, aSample, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('samples');
  make = makers(harness);
});
afterAll(() => harness.stop());

const get = (path: string) => request(harness.app).get(`/api${path}`);
const put = (path: string, body: object, etag: string) =>
  request(harness.app).put(`/api${path}`).set('If-Match', etag).send(body);
const del = (path: string, etag: string) => request(harness.app).delete(`/api${path}`).set('If-Match', etag);

describe('a sample', () => {
  it('comes back as it was taken in', async () => {
    const { id } = await make.sample();
    const answer = await get(`/samples/${id}`);
    expect(answer.status).toBe(200);
    expect(answer.body).toMatchObject(aSample());
    expect(answer.body.tag).toHaveLength(6);
    expect(answer.headers.etag).toBe('"m1-u1"');
  });

  it('keeps text in any script', async () => {
    const { id } = await make.sample({ model: { maker: 'Østergård 北 “Ω”', model: '⚡' } });
    expect((await get(`/samples/${id}`)).body.model.maker).toBe('Østergård 北 “Ω”');
  });

  it('cannot be overwritten by someone who has not seen the last save', async () => {
    const sample = await make.sample();
    const mine = await put(`/samples/${sample.id}`, aSample({ unit: { notes: 'mine' } }), sample.etag);
    expect(mine.status).toBe(200);
    const theirs = await put(`/samples/${sample.id}`, aSample({ unit: { notes: 'theirs' } }), sample.etag);
    expect(theirs.status).toBe(412);
    expect(theirs.headers['content-type']).toContain('application/problem+json');
    expect((await get(`/samples/${sample.id}`)).body.unit.notes).toBe('mine');
  });

  it('of two saves at the same moment loses exactly one, and says so', async () => {
    const sample = await make.sample();
    const saves = await Promise.all(
      ['a', 'b', 'c'].map((notes) => put(`/samples/${sample.id}`, aSample({ unit: { notes } }), sample.etag)),
    );
    expect(saves.map(({ status }) => status).sort()).toEqual([200, 412, 412]);
  });

  it('needs the version it is based on', async () => {
    const { id } = await make.sample();
    expect((await request(harness.app).put(`/api/samples/${id}`).send(aSample())).status).toBe(428);
  });

  it('has further units that share its model', async () => {
    const first = await make.sample({ model: { model: 'Shared' } });
    const second = await make.post<{ id: string; etag: string; units: unknown[] }>(`/samples/${first.id}/units`, {
      unit: aSample({ unit: { serial: 'T-2' } }).unit,
    });
    expect(second.units).toHaveLength(2);
    const changed = aSample({ model: { model: 'Shared', maker: 'Pellwick' }, unit: { serial: 'T-2' } });
    expect((await put(`/samples/${second.id}`, changed, second.etag)).status).toBe(200);
    expect((await get(`/samples/${first.id}`)).body.model.maker).toBe('Pellwick');
    // The first unit's page is now out of date as well: the model is shared.
    expect((await put(`/samples/${first.id}`, aSample(), first.etag)).status).toBe(412);
  });

  it('can be removed until something was measured', async () => {
    const sample = await make.sample();
    const rig = await make.rig();
    const setup = await make.setup(sample.id, rig.id);
    await make.claim(sample.id, { kind: 'total', watts: 65 });
    const point = aPoint(setup.id, rig.id, { watts: '71.6' });
    await make.post(`/samples/${sample.id}/readings`, { points: [point] });
    expect((await del(`/samples/${sample.id}`, sample.etag)).status).toBe(409);
    const other = await make.sample();
    await make.claim(other.id, { kind: 'total', watts: 65 });
    expect((await del(`/samples/${other.id}`, other.etag)).status).toBe(204);
    expect((await get(`/samples/${other.id}`)).status).toBe(404);
  });

  it('that is not there is a 404 with problem details', async () => {
    const answer = await get('/samples/01JZZZZZZZZZZZZZZZZZZZZZZZ');
    expect(answer.body).toMatchObject({ status: 404, title: 'Not found' });
  });
});

describe('claims', () => {
  it('are added, changed and removed by version', async () => {
    const sample = await make.sample();
    const claim = await make.claim(sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 });
    const body = { promise: { kind: 'total', watts: 65 }, duration: { kind: 'continuous' }, printed: 'box' };
    expect((await put(`/claims/${claim.id}`, body, '"v1"')).body).toMatchObject({ ...body, version: 2 });
    expect((await put(`/claims/${claim.id}`, body, '"v1"')).status).toBe(412);
    expect((await del(`/claims/${claim.id}`, '"v2"')).status).toBe(204);
    expect((await del(`/claims/${claim.id}`, '"v2"')).status).toBe(404);
  });

  it('speak only of ports the sample has', async () => {
    const sample = await make.sample();
    const claim = (promise: object) =>
      request(harness.app)
        .post(`/api/samples/${sample.id}/claims`)
        .send({ promise, duration: { kind: 'unstated' }, printed: 'label' });
    const answer = await claim({ kind: 'port-line', port: 'C9', volts: 20, amps: 3 });
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain('There is no port "C9". The ports are C1, A1.');
    const twice = await claim({
      kind: 'combination',
      shares: [
        { port: 'C1', watts: 30 },
        { port: 'C1', watts: 30 },
      ],
    });
    expect(twice.body.detail).toContain('names each port once');
  });
});

describe('the shelf', () => {
  it('is found by words, kind and page, with key figures that follow the readings', async () => {
    const sample = await make.sample({ model: { maker: 'Quernstone', model: 'Pip 20' }, unit: { serial: 'QX-77' } });
    await make.claim(sample.id, { kind: 'total', watts: 65 });
    const find = async (query: string) => (await get(`/samples?${query}`)).body;
    expect((await find('q=quern+qx-77')).items).toHaveLength(1);
    expect((await find('q=quern+zzz')).items).toHaveLength(0);
    expect((await find('q=100%25')).items).toHaveLength(0);
    expect((await find(`q=${sample.tag}`)).items[0].id).toBe(sample.id);
    expect((await find('kind=car')).total).toBe(0);
    await workOutFigures(harness.db, 1000);
    expect((await find('q=quern')).items[0]).toMatchObject({
      pending: false,
      figures: { watts: 65, claims: { 'not tested': 1 } },
    });
    const rig = await make.rig();
    const setup = await make.setup(sample.id, rig.id);
    await make.post(`/samples/${sample.id}/readings`, {
      points: [aPoint(setup.id, rig.id, { watts: '71.62', volts: '20.043', amps: '3.248' })],
    });
    await workOutFigures(harness.db, 1000);
    expect((await find('q=quern')).items[0].figures.claims).toEqual({ proven: 1 });
    const [first, second] = await Promise.all([find('size=2&page=1'), find('size=2&page=2')]);
    expect(first.items).toHaveLength(2);
    expect(first.total).toBe(second.total);
    expect(second.items.map(({ id }: { id: string }) => id)).not.toContain(first.items[0].id);
  });

  it('says how many there are on every page: a full one, the last, and one beyond it', async () => {
    for (const serial of ['FW-1', 'FW-2', 'FW-3', 'FW-4'])
      await make.sample({ model: { maker: 'Counted', model: serial }, unit: { serial } });
    for (const query of ['q=counted', 'q=counted&sort=watts', 'q=counted&sort=name&down=true'])
      for (const [size, page, shown] of [
        [3, 1, 3],
        [3, 2, 1],
        [2, 2, 2],
        [4, 1, 4],
        [4, 2, 0],
        [200, 1, 4],
        [200, 2, 0],
      ] as const) {
        const { items, total } = (await get(`/samples?${query}&size=${size}&page=${page}`)).body;
        expect([items.length, total], `${query}, page ${page} of ${size}`).toEqual([shown, 4]);
      }
  });

  it.each(['page=0', 'size=201', 'kind=boat', 'page=abc', 'unknown=1'])('refuses %s', async (query) => {
    expect((await get(`/samples?${query}`)).status).toBe(422);
  });
});

describe('the profile', () => {
  it('changes how every sample is judged', async () => {
    const sample = await make.sample({ model: { maker: 'Judged' } });
    const profile = (await get('/profile')).body;
    const { version, ...settings } = profile;
    expect(
      (await put('/profile', { ...settings, allowance: 0.1, limitSetIds: ['us-level-6'] }, `"v${version}"`)).status,
    ).toBe(200);
    expect((await put('/profile', settings, `"v${version}"`)).status).toBe(412);
    expect((await get(`/samples/${sample.id}/dossier`)).body.profile.allowance).toBe(0.1);
    const unknown = await put('/profile', { ...settings, limitSetIds: ['mars'] }, `"v${version + 1}"`);
    expect(unknown.body.detail).toContain('no limit set "mars"');
  });
});
