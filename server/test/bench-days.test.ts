// Bench days: one row a day that everybody shares, kept with the version last seen.
import type { BenchDay } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aSample, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('bench_days');
});
afterAll(() => harness.stop());

const get = (day: string) => request(harness.app).get(`/api/bench-days/${day}`);
const put = (day: string, body: object, seen: string) =>
  request(harness.app).put(`/api/bench-days/${day}`).set('If-Match', seen).send(body);
const SHEET = '01JSHEET000000000000000001';
const body = {
  from: 28_800,
  setUp: 300,
  people: [{ title: 'Ines', there: [{ from: 28_800, to: 43_200 }] }],
  sheets: [{ sheetId: SHEET, from: 36_000, due: null, chamberId: null }],
  pins: [{ taskId: `${SHEET} s2`, at: 40_000.5 }],
};

describe('a bench day', () => {
  it('is kept with the version that was seen, and another’s is never overwritten', async () => {
    const fresh = await get('2026-11-30');
    expect([fresh.headers.etag, fresh.body.version, fresh.body.sheets]).toEqual(['"v0"', 0, []]);
    expect(fresh.body.people[0].title).toBe('Warden');
    const kept = await put('2026-11-30', body, '"v0"');
    expect([kept.status, kept.headers.etag]).toEqual([200, '"v1"']);
    expect(kept.body).toEqual({ day: '2026-11-30', version: 1, ...body });
    expect((await get('2026-11-30')).body).toEqual(kept.body);
    const other = await put('2026-11-30', { ...body, setUp: 0 }, '"v0"');
    expect([other.status, (await get('2026-11-30')).body.setUp]).toEqual([412, 300]);
    expect((await put('2026-11-30', { ...body, setUp: 0 }, '"v1"')).body.version).toBe(2);
    // Two at once: one is kept, the other is told.
    const both = await Promise.all([put('2026-12-01', body, '"v0"'), put('2026-12-01', body, '"v0"')]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 412]);
  });

  it('of which there was none has the hours of the newest, and nothing to be done', async () => {
    await put('2026-12-02', { ...body, from: 30_000, people: [{ title: 'Odo', there: [] }] }, '"v0"');
    expect((await get('2027-01-01')).body).toEqual<BenchDay>({
      day: '2027-01-01',
      version: 0,
      from: 30_000,
      setUp: 300,
      people: [{ title: 'Odo', there: [] }],
      sheets: [],
      pins: [],
    });
  });

  it('refuses what is no day, and says in words what is wrong', async () => {
    for (const day of ['tomorrow', '2026-13-01', '2026-1-1']) expect((await get(day)).status).toBe(422);
    const wrong = await put('2026-12-03', { ...body, from: -1 }, '"v0"');
    expect(wrong.status).toBe(422);
    expect(wrong.body.detail).not.toMatch(/from|setUp/);
    expect((await request(harness.app).put('/api/bench-days/2026-12-03').send(body)).status).toBe(428);
    expect((await get('2026-12-03')).body.version).toBe(0);
  });

  it('knows when a lent sample goes back, from its run sheet', async () => {
    const make = makers(harness);
    const unit = { ...aSample().unit, obtained: 'lent' as const, returnBy: '2026-12-04' };
    const sample = await make.sample({ unit });
    const rig = await make.rig();
    await make.post(`/samples/${sample.id}/run-sheets`, { methodId: 'desk', rigId: rig.id });
    const { items } = (await request(harness.app).get('/api/run-sheets')).body;
    expect(items[0].sample).toMatchObject({ id: sample.id, returnBy: '2026-12-04' });
  });
});
