import type { LimitSetInput, SampleDossier, StoredLimitSet, StoredProfile } from '@lastmark/contract';
import { LIMIT_SETS } from '@lastmark/core/limits';
import { judgeSample } from '@lastmark/core/verdict';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { aPoint, EU, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('limit_sets');
  make = makers(harness);
});
afterAll(() => harness.stop());

const eu = LIMIT_SETS.find(({ id }) => id === 'eu-2019-1782');
if (!eu) throw new Error('no set');
const { id: _, ...shipped } = eu;
/** Stricter by four points above 49 W, from the end of 2028. */
const successor: LimitSetInput = {
  ...shipped,
  title: 'Stricter successor',
  validFrom: '2028-12-31',
  tests: [],
  formulas: [
    {
      quantity: 'average-efficiency',
      nameplateClass: 'basic',
      pieces: [{ upTo: null, inclusive: true, constant: 0.93, perWatt: 0, perLog: 0 }],
    },
  ],
};
const list = async () => (await request(harness.app).get('/api/limit-sets')).body.items as StoredLimitSet[];
const put = (path: string, version: number, body: object) =>
  request(harness.app).put(`/api${path}`).set('If-Match', `"v${version}"`).send(body);

describe('limit sets of the bench’s own', () => {
  it('stand beside those that ship, with their version', async () => {
    const made = await make.post<StoredLimitSet>('/limit-sets', successor);
    expect(made).toMatchObject({ title: 'Stricter successor', builtIn: false, version: 1 });
    expect((await list()).map(({ title, builtIn }) => [title, builtIn])).toEqual([
      ...LIMIT_SETS.map(({ title }) => [title, true]),
      ['Stricter successor', false],
    ]);
  });

  it('are refused while a worked value is missed or a piece is out of place, with what to do', async () => {
    const missed = await request(harness.app)
      .post('/api/limit-sets')
      .send({
        ...successor,
        tests: [{ quantity: 'average-efficiency', nameplateClass: 'basic', watts: 65, value: 0.88, within: 0.00005 }],
      });
    expect([missed.status, missed.body.errors[0].message]).toEqual([
      422,
      expect.stringContaining('the text says 0.88000'),
    ]);
    const unknown = await request(harness.app)
      .post('/api/limit-sets')
      .send({ ...successor, procedureId: 'by feel' });
    expect(unknown.body.errors[0].message).toContain('no procedure "by feel"');
    expect(await list()).toHaveLength(LIMIT_SETS.length + 1);
  });

  it('those that ship can be copied, not changed', async () => {
    const answer = await put('/limit-sets/eu-2019-1782', 1, successor);
    expect([answer.status, answer.body.detail]).toEqual([409, expect.stringContaining('Copy it')]);
  });

  it('judge every sample anew once chosen, touch no reading, and speak no verdict before they are in force', async () => {
    const own = (await list()).at(-1) as StoredLimitSet;
    const sample = await make.sample();
    const rig = await make.rig();
    const setup = await make.setup(sample.id, rig.id);
    for (const load of [1, 0.75, 0.5, 0.25])
      await make.post(`/samples/${sample.id}/readings`, {
        points: [
          aPoint(
            setup.id,
            rig.id,
            { watts: String(72.2 * load), volts: '20', amps: String(3.25 * load) },
            { load, takenAt: '2026-11-02T09:00:00.000Z' },
          ),
        ],
      });
    const dossier = async () =>
      (await request(harness.app).get(`/api/samples/${sample.id}/dossier`)).body as SampleDossier;
    const before = await dossier();
    const profile = (await request(harness.app).get('/api/profile')).body as StoredProfile;
    const { version, ...settings } = profile;
    const chosen = await put('/profile', version, { ...settings, limitSetIds: ['eu-2019-1782', own.id] });
    expect(chosen.status, JSON.stringify(chosen.body)).toBe(200);
    const after = await dossier();
    expect(after.points).toEqual(before.points);
    const lines = judgeSample(toJudge(after)).results.efficiency.limits[0]?.lines ?? [];
    expect(lines.map(({ title, decision }) => [title, decision.outcome])).toEqual([
      ['EU 2019/1782', 'proven'],
      ['Stricter successor', 'short'],
    ]);
    expect(lines[1]?.reasons).toContain('In force from 2028-12-31; measured 2026-11-02.');
    // Nobody wrote down how it was taken, so neither is a verdict; once stated, the one in force is.
    expect(lines.map(({ standing }) => standing)).toEqual(['indicative', 'indicative']);
    await make.post(`/samples/${sample.id}/stated`, {
      id: newId(),
      setupId: setup.id,
      mains: EU,
      taken: {
        warmUp: 1800,
        rest: { drift: 0.004, over: 300, averaged: false },
        source: { volts: 230.4, hertz: 50, distortion: 0.011, crest: 1.41 },
      },
    });
    const stated = judgeSample(toJudge(await dossier())).results.efficiency.limits[0]?.lines ?? [];
    expect(stated.map(({ standing, reasons }) => [standing, reasons])).toEqual([
      ['verdict', []],
      ['indicative', ['In force from 2028-12-31; measured 2026-11-02.']],
    ]);
  });

  it('one that judges cannot be removed; one that does not can', async () => {
    const own = (await list()).at(-1) as StoredLimitSet;
    const remove = () => request(harness.app).delete(`/api/limit-sets/${own.id}`).set('If-Match', '"v1"');
    expect((await remove()).body.detail).toContain('Stop judging by it first');
    const { version, ...settings } = (await request(harness.app).get('/api/profile')).body as StoredProfile;
    await put('/profile', version, { ...settings, limitSetIds: ['eu-2019-1782'] });
    expect((await remove()).status).toBe(204);
    expect(await list()).toHaveLength(LIMIT_SETS.length);
  });

  it('a changed set is versioned: a second edit of the same version is told', async () => {
    const made = await make.post<StoredLimitSet>('/limit-sets', successor);
    const once = await put(`/limit-sets/${made.id}`, 1, { ...successor, title: 'Renamed' });
    expect(once.body).toMatchObject({ title: 'Renamed', version: 2 });
    expect((await put(`/limit-sets/${made.id}`, 1, successor)).status).toBe(412);
  });
});

describe('a statement', () => {
  it('about a loading of another sample is refused; the same id twice is kept once', async () => {
    const sample = await make.sample();
    const rig = await make.rig();
    const foreign = await make.setup((await make.sample()).id, rig.id);
    const taken = { warmUp: 600, rest: null, source: { volts: null, hertz: null, distortion: null, crest: null } };
    const body = { id: newId(), setupId: foreign.id, mains: EU, taken };
    const refused = await request(harness.app).post(`/api/samples/${sample.id}/stated`).send(body);
    expect([refused.status, refused.body.errors[0].path]).toEqual([422, 'setupId']);
    const own = { ...body, setupId: null };
    await make.post(`/samples/${sample.id}/stated`, own);
    await make.post(`/samples/${sample.id}/stated`, own);
    const { stated } = (await request(harness.app).get(`/api/samples/${sample.id}/dossier`)).body as SampleDossier;
    expect(stated).toMatchObject([{ id: own.id, taken }]);
  });

  it('goes with its sample or loading while nothing was measured', async () => {
    const sample = await make.sample();
    const setup = await make.setup(sample.id, (await make.rig()).id);
    const taken = { warmUp: 600, rest: null, source: { volts: null, hertz: null, distortion: null, crest: null } };
    for (const setupId of [setup.id, null])
      await make.post(`/samples/${sample.id}/stated`, { id: newId(), setupId, mains: EU, taken });
    expect((await request(harness.app).delete(`/api/setups/${setup.id}`).set('If-Match', '"v1"')).status).toBe(204);
    const { headers } = await request(harness.app).get(`/api/samples/${sample.id}`);
    const gone = await request(harness.app)
      .delete(`/api/samples/${sample.id}`)
      .set('If-Match', headers.etag ?? '');
    expect([gone.status, JSON.stringify(gone.body)]).toEqual([204, '{}']);
  });
});
