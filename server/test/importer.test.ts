import type { FilePlan } from '@lastmark/core/meter-file';
import { sniffFile } from '@lastmark/core/meter-file';
import fc from 'fast-check';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, makers, sendForm, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let sampleId: string;
let setupId: string;
beforeAll(async () => {
  harness = await startHarness('importer');
  make = makers(harness);
  sampleId = (await make.sample()).id;
  const rig = await make.rig();
  setupId = (await make.setup(sampleId, rig.id)).id;
});
afterAll(() => harness.stop());

const planOf = (text: string): FilePlan => {
  const plan = sniffFile(text, ['C1']);
  if ('reason' in plan) throw new Error(plan.reason);
  return plan;
};
const send = (text: string, part: object = {}) =>
  sendForm(
    harness.app,
    `/samples/${sampleId}/imports`,
    {
      fileName: 'log.csv',
      plan: 'plan' in part ? part.plan : planOf(text),
      setupId,
      wholeFileMains: null,
      keepGood: false,
      takenAt: '2026-03-02T09:00:00.000Z',
      ...part,
    },
    text,
  );
const dossier = async () => (await request(harness.app).get(`/api/samples/${sampleId}/dossier`)).body;

const HEAD = 'Load [%];Vin [V];Pin [W];PF;Vout [V];Iout [A]';
const GOOD = [
  HEAD,
  '100;230,1;71,62;0,93;20,043;3,248',
  '100;230,0;71,60;0,93;20,041;3,249',
  '0;230,0;0,045;0,1;5,1;0',
].join('\n');

describe('a meter file', () => {
  it('becomes points with means and spread, and is itself attached', async () => {
    const answer = await send(GOOD);
    expect(answer.status).toBe(201);
    expect(answer.body).toMatchObject({ points: 2, goodLines: 3, badLines: [] });
    const { points } = await dossier();
    const loaded = points.find(({ load }: { load: number }) => load === 1);
    const watts = loaded.readings.find(
      ({ quantity, place }: { quantity: string; place: string }) => quantity === 'power' && place === 'mains',
    );
    expect(watts).toMatchObject({ value: expect.closeTo(71.61, 9), count: 2, source: 'log.csv, 2 lines, 2–3' });
    expect(watts.spread).toBeCloseTo(0.01414, 5);
    expect(
      loaded.readings.some(
        ({ quantity, place }: { quantity: string; place: string }) => quantity === 'power' && place === 'port',
      ),
    ).toBe(true);
    const idle = points.find(({ load }: { load: number }) => load === 0);
    expect(idle).toMatchObject({ setupId: null, attached: 'nothing' });
    const file = await request(harness.app).get(`/api/attachments/${answer.body.attachmentId}`);
    expect(file.text).toBe(GOOD);
    const maps = (await request(harness.app).get('/api/column-maps')).body.items;
    expect(maps[0].headerKey).toBe('load|vin|pin|pf|vout|iout');
  });

  it('keeps points as of when their lines were taken, and refuses what is yet to come', async () => {
    const dated = (year: number) =>
      ['Time;Load [%];Vin [V];Pin [W];Vout [V];Iout [A]', `${year}-03-01 14:30:00;10;230,1;8,1;20,05;0,325`].join('\n');
    const moments = async () => (await dossier()).points.map(({ takenAt }: { takenAt: string }) => takenAt);
    expect((await send(dated(2026), { offsetMinutes: 60 })).status).toBe(201);
    expect(await moments()).toContain('2026-03-01T13:30:00.000Z');
    const early = await send(dated(9000));
    expect(early.status).toBe(422);
    expect(JSON.stringify(early.body)).toContain('Line 2 is of 9000-03-01, which is yet to come');
    expect((await moments()).some((moment: string) => moment.startsWith('9000'))).toBe(false);
  });

  it('that was taken in before is recognised by what is in it, and counts twice only when that is agreed', async () => {
    const text = [HEAD, '50;230,1;36,1;0,91;20,05;1,624'].join('\n');
    expect((await send(text)).status).toBe(201);
    const count = async () => (await dossier()).points.length;
    const once = await count();
    const answer = await send(text, { fileName: 'another name.csv' });
    expect([answer.status, answer.body.detail]).toEqual([409, expect.stringContaining('taken in on 20')]);
    expect(answer.body.detail).toContain('as "log.csv"');
    expect(await count()).toBe(once);
    expect((await send(text, { again: true })).status).toBe(201);
    expect(await count()).toBe(once + 1);
  });

  it('is taken back whole, with what was corrected since; the file stays and the second time does nothing', async () => {
    const text = [HEAD, '25;230,1;18,1;0,9;20,06;0,812', '10;230,1;7,4;0,8;20,07;0,325'].join('\n');
    const { body } = await send(text, { fileName: 'whole.csv' }).expect(201);
    const files = async () => (await request(harness.app).get(`/api/attachments?sampleId=${sampleId}`)).body.items;
    const brought = async () =>
      (await files()).find(({ id }: { id: string }) => id === body.attachmentId) as { points: number };
    expect(await brought()).toMatchObject({ name: 'whole.csv', points: 2 });
    const standing = async () => {
      const { points } = await dossier();
      const all = points.flatMap(
        ({
          readings,
        }: {
          readings: { id: string; value: number | null; supersedes: string | null; source: string }[];
        }) => readings,
      );
      const gone = new Set(all.map(({ supersedes }: { supersedes: string | null }) => supersedes));
      return all.filter(
        (one: { id: string; value: number | null; source: string }) =>
          one.source.startsWith('whole.csv') && one.value !== null && !gone.has(one.id),
      ).length;
    };
    expect(await standing()).toBeGreaterThan(6);
    const back = () => request(harness.app).post(`/api/samples/${sampleId}/imports/${body.attachmentId}/take-back`);
    const first = await back().expect(201);
    expect(first.body.points).toBe(2);
    expect(await standing()).toBe(0);
    expect(await brought()).toMatchObject({ points: 0 });
    expect((await back().expect(201)).body).toEqual({ points: 0, readings: 0 });
    await request(harness.app)
      .post(`/api/samples/${sampleId}/imports/01JZZZZZZZZZZZZZZZZZZZZZZZ/take-back`)
      .expect(404);
  });

  it('whose input moves within a point is kept as drifting, no better known than one of its lines', async () => {
    // 36 W rising by 6 % over forty lines, and the same about a level.
    const lines = (watts: (index: number) => number) =>
      Array.from(
        { length: 40 },
        (_, index) => `75;230,1;${watts(index).toFixed(4).replace('.', ',')};0,91;20,05;2,436`,
      );
    const rising = (index: number) => 53 * (1 + (0.06 * index) / 39);
    const level = (index: number) => 53 * (1 + (index % 2 === 0 ? 0.0005 : -0.0005));
    const inputOf = async (text: string) => {
      expect((await send(text)).status).toBe(201);
      const { points } = await dossier();
      return points.at(-1).readings.find(({ quantity }: { quantity: string }) => quantity === 'power');
    };
    const moved = await inputOf([HEAD, ...lines(rising)].join('\n'));
    expect(moved.count).toBe(1);
    expect(moved.source).toMatch(/drifting 5\.8 %$/);
    // statistics.stdev of those forty numbers.
    expect(moved.spread).toBeCloseTo(0.9532, 3);
    const still = await inputOf([HEAD, ...lines(level)].join('\n'));
    expect(still).toMatchObject({ count: 40, source: 'log.csv, 40 lines, 2–41' });
  });

  it('with bad lines is kept only when that is agreed', async () => {
    const text = `${GOOD}\n50;230;oops;0,9;20;1,625`;
    const before = (await dossier()).points.length;
    const refused = await send(text);
    expect(refused.status).toBe(422);
    expect(refused.body.badLines).toEqual([
      { line: 5, reason: 'Pin: "oops" is not a number.', text: '50;230;oops;0,9;20;1,625' },
    ]);
    expect((await dossier()).points).toHaveLength(before);
    expect((await send(text, { keepGood: true })).body).toMatchObject({ goodLines: 3, points: 2 });
  });

  it('whose points contradict themselves is refused whole', async () => {
    const before = (await dossier()).points.length;
    const text = [HEAD, '100;230;71,6;0,9;20,04;3,248', '50;230;31,5;0,9;20;1,625'].join('\n');
    const answer = await send(text);
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain('is above input');
    expect((await dossier()).points).toHaveLength(before);
  });

  it('without a good line, or with an incomplete plan, is refused', async () => {
    expect((await send(`${HEAD}\nx;x;x;x;x;x`, { plan: planOf(GOOD) })).body.title).toBe('Nothing to keep');
    const plan = { ...planOf(GOOD), columns: planOf(GOOD).columns.map((column) => ({ ...column, role: 'ignore' })) };
    expect((await send(GOOD, { plan })).body.detail).toContain('Say which column holds the input watts');
    expect((await send(GOOD, { wholeFileMains: { kind: 'ac', volts: 99, hertz: 50 } })).body.detail).toContain(
      'not among the mains',
    );
  });

  it('never crashes the server and never half-saves, whatever is in it', async () => {
    const cell = fc.oneof(
      fc.double().map(String),
      fc.constantFrom('', '100', '230', '71,6', '"', '\u0000', '-1', '1e308', '20;20'),
      fc.string({ maxLength: 5 }),
    );
    const file = fc
      .array(fc.array(cell, { minLength: 1, maxLength: 8 }), { maxLength: 6 })
      .map((rows) => [HEAD, ...rows.map((row) => row.join(';'))].join('\n'));
    await fc.assert(
      fc.asyncProperty(file, fc.boolean(), async (text, keepGood) => {
        const before = await dossier();
        const answer = await sendForm(
          harness.app,
          `/samples/${sampleId}/imports`,
          {
            fileName: 'f.csv',
            plan: planOf(GOOD),
            setupId,
            wholeFileMains: null,
            keepGood,
            takenAt: '2026-03-02T09:00:00.000Z',
          },
          text,
        );
        expect([201, 422]).toContain(answer.status);
        const after = await dossier();
        if (answer.status === 422) expect(after.points).toHaveLength(before.points.length);
        else expect(after.points).toHaveLength(before.points.length + answer.body.points);
      }),
      { numRuns: 40, seed: 7 },
    );
    expect(harness.log).toEqual([]);
  });
});
