// What one looks at in the morning, from what is on the bench: nothing of what is put by, and the most urgent first.
import type { Today } from '@lastmark/contract';
import { sql } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { changed } from '../src/changes/changes.ts';
import { newId } from '../src/db/ids.ts';
import { workOutFigures } from '../src/shelf/figures.ts';
import { today } from '../src/today/today.ts';
import { aPoint, EU, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('today');
  make = makers(harness);
});
afterAll(() => harness.stop());

const look = async () => {
  while (await workOutFigures(harness.db, 100));
  const { status, body } = await request(harness.app).get('/api/today');
  expect([status, body.detail]).toEqual([200, undefined]);
  return body as Today;
};
/** Told on a day of its own: what is due hangs on it. */
const on = (day: string) => today(harness.db, new Date(`${day}T06:00:00.000Z`));
const instrument = (name: string, calibrationDue: string | null) =>
  make.post('/instruments', {
    name,
    class: 'bench multimeter',
    firmware: '',
    calibrationDue,
    address: null,
    profileId: null,
    sees: null,
    specs: {},
  });

it('of an empty bench has nothing to say, and says it', async () => {
  const { day, ...rest } = await look();
  expect(day).toMatch(/^\d{4}-\d{2}-\d{2}$/);
  expect(rest).toEqual({ runs: [], calibration: [], loans: [], followUps: [], borderline: [], next: [] });
});

it('tells calibrations that end within a month or ended, the most overdue first', async () => {
  await instrument('Ended', '2026-05-01');
  await instrument('Soon', '2026-06-20');
  await instrument('Later', '2026-09-01');
  await instrument('Never stated', null);
  expect((await on('2026-06-01')).calibration.map(({ name, days }) => [name, days])).toEqual([
    ['Ended', -31],
    ['Soon', 19],
  ]);
});

it('tells what was lent and goes back soon, and not what is archived', async () => {
  const lent = (serial: string, returnBy: string | null) =>
    make.sample({ model: { model: 'Lent' }, unit: { obtained: 'lent', serial, returnBy } });
  await lent('L-1', '2026-06-10');
  await lent('L-2', '2026-05-20');
  await lent('L-3', '2026-12-01');
  await lent('L-4', null);
  const away = await lent('L-5', '2026-06-01');
  await make.post('/filings', { filings: [{ id: away.id, labels: [], archived: true }] });
  expect((await on('2026-06-01')).loans.map(({ sample, by, days }) => [sample.serial, by, days])).toEqual([
    ['L-2', '2026-05-20', -12],
    ['L-1', '2026-06-10', 9],
  ]);
  const none = await request(harness.app)
    .post('/api/samples')
    .send({
      ...(await request(harness.app).get(`/api/samples/${away.id}`)).body,
    });
  expect(none.status).toBe(422);
});

it('tells what was left borderline, and of what is open the work that settles most for its time', async () => {
  const sample = await make.sample({ model: { model: 'Near' } });
  const rig = await make.rig();
  await make.claim(sample.id, { kind: 'idle', watts: 0.5, mains: null });
  await make.claim(sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
  const point = aPoint(newId(), rig.id, { watts: '0.48 W' }, { setupId: null, load: 0, mains: EU });
  await make.post(`/samples/${sample.id}/readings`, { points: [point] });
  const told = await look();
  expect(told.borderline).toMatchObject([{ sample: { model: 'Near' }, claims: 1 }]);
  const [next] = told.next;
  expect(next).toMatchObject({ sample: { id: sample.id }, title: 'C1 20 V 2.25 A', open: 2 });
  expect(next?.expected).toBeGreaterThan(0.5);
  expect(next?.seconds).toBeGreaterThan(0);
  // Told again it is the same; with another promise it is of three.
  expect((await look()).next).toEqual(told.next);
  await make.claim(sample.id, { kind: 'port-line', port: 'C1', volts: 9, amps: 3 });
  expect((await look()).next).toMatchObject([{ sample: { id: sample.id }, open: 3 }]);
});

it('goes on where something in a sample cannot be worked out', async () => {
  const { id } = await make.sample({ model: { model: 'Impossible' } });
  await make.claim(id, { kind: 'idle', watts: 0.5, mains: null });
  await make.claim(id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
  const rig = await make.rig();
  const point = aPoint(newId(), rig.id, { watts: '0.48 W' }, { setupId: null, load: 0, mains: EU });
  await make.post(`/samples/${id}/readings`, { points: [point] });
  const open = (told: Today) => told.next.map(({ sample }) => sample.model);
  expect(open(await look())).toContain('Impossible');
  await harness.db.execute(sql`UPDATE readings SET value = 1e155, u = -1 WHERE point_id = ${point.id}`);
  await changed(harness.db, id, 'points');
  expect(open(await today(harness.db))).not.toContain('Impossible');
});

it('tells reports nobody followed up for half a year, and those of the newest only', async () => {
  const sample = await make.sample({ model: { model: 'Reported' } });
  const issue = async (body: object) =>
    (await make.post<{ id: string }>(`/samples/${sample.id}/reports`, {
      report: { id: newId(), language: 'en', person: 'Keeper', ...body },
    })) as { id: string; code: string };
  const first = await issue({ kind: 'first' });
  expect((await look()).followUps).toEqual([]);
  await harness.db.execute(sql`UPDATE reports SET issued_at = '2025-01-10 09:00:00' WHERE id = ${first.id}`);
  expect((await look()).followUps).toMatchObject([
    { sample: { model: 'Reported' }, code: first.code, issued: '2025-01-10' },
  ]);
  await issue({ kind: 'follow-up', amends: first.id, reason: 'Looked at after months.', fate: 'held up well' });
  expect((await look()).followUps).toEqual([]);
});

it('tells runs that are not over, whoever carries them out', async () => {
  const sample = await make.sample({ model: { model: 'Running' } });
  const rig = await make.rig();
  const sheet = await make.post<{ id: string }>(`/samples/${sample.id}/run-sheets`, {
    methodId: 'desk',
    rigId: rig.id,
  });
  await make.post(`/run-sheets/${sheet.id}/runs`, { person: 'Warden', tag: sample.tag, watched: true });
  const [run] = (await look()).runs;
  expect(run).toMatchObject({
    sample: { model: 'Running' },
    person: 'Warden',
    title: 'Running T-1: Desk rig without instruments',
  });
  expect(['running', 'waiting']).toContain(run?.state);
});

it('tells what is borderline, however many samples have more that is open', async () => {
  const near = (told: Today) => told.borderline.map(({ sample }) => sample.model);
  const before = near(await look());
  expect(before).toContain('Near');
  const columns = sql.raw('model_id, words, facts, created_at, updated_at');
  await harness.db.execute(sql`INSERT INTO samples (id, serial, ${columns})
    SELECT CONCAT('01JMANY', LPAD(seq, 19, '0')), CONCAT('many ', seq), ${columns}
    FROM seq_1_to_600 JOIN (SELECT * FROM samples LIMIT 1) AS one`);
  await harness.db.execute(sql`INSERT INTO figures (sample_id, shared, form, short_claims, judged, open_claims)
    SELECT id, 0, 0, 0, TRUE, 9 FROM samples WHERE serial LIKE 'many %'`);
  expect(near(await today(harness.db))).toEqual(before);
});
