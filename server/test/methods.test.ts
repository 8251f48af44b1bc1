// Methods of the bench's own: versions that are never changed, sheets that name theirs, and only what settles a promise.
import type { SheetRow, StoredMethod, StoredSheet } from '@lastmark/contract';
import { METHODS, type Method } from '@lastmark/core/plan';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('methods');
  make = makers(harness);
});
afterAll(() => harness.stop());

const { id: _id, ...desk } = METHODS.find(({ id }) => id === 'desk') as Method;
const own = { ...desk, title: 'Hut desk', idle: 1200 };
const list = async () => (await request(harness.app).get('/api/methods')).body.items as StoredMethod[];
const put = (id: string, version: number, method: object, note = '') =>
  request(harness.app).put(`/api/methods/${id}`).set('If-Match', `"v${version}"`).send({ method, note });
const retire = (id: string, version: number) =>
  request(harness.app).delete(`/api/methods/${id}`).set('If-Match', `"v${version}"`);

describe('methods', () => {
  it('those that ship stand first and stay as they are', async () => {
    const all = await list();
    expect(all.map(({ id }) => id)).toEqual(METHODS.map(({ id }) => id));
    expect(all.every(({ builtIn, version }) => builtIn && version === 1)).toBe(true);
    const change = await put('desk', 1, own);
    expect([change.status, change.body.detail]).toEqual([409, expect.stringContaining('Copy it, and change the copy')]);
    expect((await retire('desk', 1)).status).toBe(409);
  });

  it('one of the bench has versions; each stays as it was, and says what it changed', async () => {
    const made = await make.post<StoredMethod>('/methods', { method: own, note: 'longer idle' });
    expect(made).toMatchObject({ version: 1, builtIn: false, retired: false, method: own, note: 'longer idle' });
    const changed = await put(made.id, 1, { ...own, idle: 1800 }, 'longer still');
    expect([changed.status, changed.body.version, changed.body.method.idle]).toEqual([200, 2, 1800]);
    // Whoever saw an older one is told.
    expect((await put(made.id, 1, own)).status).toBe(412);
    const { items } = (await request(harness.app).get(`/api/methods/${made.id}/versions`)).body as {
      items: StoredMethod[];
    };
    expect(items.map(({ version, method, note }) => [version, method.idle, note])).toEqual([
      [2, 1800, 'longer still'],
      [1, 1200, 'longer idle'],
    ]);
    expect((await list()).at(-1)).toMatchObject({ id: made.id, version: 2 });
    expect((await request(harness.app).get(`/api/methods/${newId()}/versions`)).status).toBe(404);
  });

  it('what makes no sheet is refused with everything that is wrong', async () => {
    const { status, body } = await request(harness.app)
      .post('/api/methods')
      .send({ method: { ...own, by: 'instruments', loads: [1, 1], warmUp: 0 }, note: '' });
    expect([status, body.errors[0].message]).toEqual([
      422,
      'A load point stands twice. Load points without a warm-up are read of a cold charger: give a warm-up.',
    ]);
    const strange = await request(harness.app)
      .post('/api/methods')
      .send({ method: { ...own, soak: -1, mains: [] }, note: '' });
    const said = strange.body.errors.map(({ message }: { message: string }) => message).sort();
    expect(said).toEqual(['Say at which mains', 'Soak must be at least 0 s']);
  });

  it('a sheet names the version it was made by, also after the next one', async () => {
    const made = await make.post<StoredMethod>('/methods', { method: own, note: '' });
    const sample = await make.sample();
    const rig = await make.rig();
    const sheet = (methodId: string) =>
      make.post<StoredSheet>(`/samples/${sample.id}/run-sheets`, { methodId, rigId: rig.id });
    const first = await sheet(made.id);
    await put(made.id, 1, { ...own, title: 'Hut desk, shorter', idle: 300 });
    const second = await sheet(made.id);
    expect([first.methodVersion, second.methodVersion]).toEqual([1, 2]);
    const idleOf = ({ steps }: StoredSheet) => steps.find(({ kind }) => kind === 'idle')?.dwell;
    expect([idleOf(first), idleOf(second)]).toEqual([1200, 300]);
    const { items } = (await request(harness.app).get(`/api/run-sheets?sampleId=${sample.id}`)).body as {
      items: SheetRow[];
    };
    expect(items.map(({ methodTitle, methodVersion }) => [methodTitle, methodVersion])).toEqual([
      ['Hut desk, shorter', 2],
      ['Hut desk', 1],
    ]);
    expect((await retire(made.id, 2)).status).toBe(204);
    const refused = await request(harness.app)
      .post(`/api/samples/${sample.id}/run-sheets`)
      .send({ methodId: made.id, rigId: rig.id });
    expect([refused.status, refused.body.errors[0].message]).toEqual([
      422,
      expect.stringMatching(/^This method is not for a wall charger\. Choose .*Regulatory pair/),
    ]);
    expect((await list()).find(({ id }) => id === made.id)?.retired).toBe(true);
  });

  it('of a whole sheet only what settles some promises is made', async () => {
    const sample = await make.sample();
    const rig = await make.rig();
    const idle = await make.claim(sample.id, { kind: 'idle', watts: 0.075, mains: null });
    const words = await make.claim(sample.id, { kind: 'wording', text: 'Calm power' });
    const sheet = await make.post<StoredSheet>(`/samples/${sample.id}/run-sheets`, {
      methodId: 'desk',
      rigId: rig.id,
      claimIds: [idle.id, words.id],
    });
    expect(sheet.steps.map(({ kind }) => kind)).toEqual(['rig', 'idle']);
    expect(sheet.title).toBe('Desk rig without instruments, what settles most');
    const none = await request(harness.app)
      .post(`/api/samples/${sample.id}/run-sheets`)
      .send({ methodId: 'desk', rigId: rig.id, claimIds: [words.id] });
    expect([none.status, none.body.errors[0].message]).toEqual([
      422,
      'The method has no step for these promises. Choose another, or add one by hand.',
    ]);
  });
});
