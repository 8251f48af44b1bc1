// A step of a sheet says what its kind has, and nothing else: over the API, and after an upgrade.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { SheetInput, StoredSheet } from '@lastmark/contract';
import type { SheetStep } from '@lastmark/core/plan';
import { eq } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { runSheets } from '../src/db/schema.ts';
import { MIGRATIONS } from '../src/paths.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let sheet: StoredSheet;
beforeAll(async () => {
  harness = await startHarness('steps');
  const make = makers(harness);
  const sample = await make.sample();
  const rig = await make.rig();
  await make.claim(sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
  sheet = await make.post<StoredSheet>(`/samples/${sample.id}/run-sheets`, { methodId: 'desk', rigId: rig.id });
});
afterAll(() => harness.stop());

const put = (steps: readonly object[], version = 1) =>
  request(harness.app)
    .put(`/api/run-sheets/${sheet.id}`)
    .set('If-Match', `"v${version}"`)
    .send({ title: sheet.title, rigId: sheet.rigId, steps } as unknown as SheetInput);

const point = () => sheet.steps.find(({ kind }) => kind === 'point') as SheetStep;

it.each([
  ['a point without a supply', { mains: undefined }, 'mains'],
  ['a point without a load', { load: undefined }, 'load'],
  ['a point with what only a combination has', { order: ['C1'] }, 'order'],
  ['a point of no station', { station: 'idle' }, 'station'],
  ['a kind nobody knows', { kind: 'dance' }, 'kind'],
])('%s is refused, and says where', async (_, part, field) => {
  const answer = await put([{ ...point(), ...part }]).expect(422);
  expect(JSON.stringify(answer.body)).toContain(field);
});

it('a port that is not there is refused in every kind of step', async () => {
  const base = { ...point(), outputs: undefined, load: undefined, station: undefined, settle: undefined };
  for (const step of [
    { ...point(), outputs: [{ port: 'Z9', volts: 5, amps: 1 }] },
    { ...base, kind: 'split', order: ['C1', 'Z9'] },
    { ...base, kind: 'read-out', mains: undefined, port: 'Z9' },
  ]) {
    const answer = await put([JSON.parse(JSON.stringify(step))]).expect(422);
    expect(answer.body.detail ?? JSON.stringify(answer.body)).toContain('There is no port "Z9".');
  }
});

it('sheets of the former form, where every step had everything, are read, changed and kept', async () => {
  const former = {
    order: [],
    port: null,
    outputs: [],
    load: 0,
    station: null,
    attached: 'nothing',
    settle: null,
    deviceId: null,
    mains: null,
    capture: null,
  };
  const steps = sheet.steps.map((step) => ({ ...former, ...step }));
  await harness.db
    .update(runSheets)
    .set({ steps: steps as unknown as SheetStep[] })
    .where(eq(runSheets.id, sheet.id));
  await put(steps).expect(422);
  const upgrade = readFileSync(join(MIGRATIONS, '0010_steps_by_kind.sql'), 'utf8');
  for (const statement of upgrade.split('--> statement-breakpoint')) await harness.pool.query(statement);
  const { body } = await request(harness.app).get(`/api/run-sheets/${sheet.id}`).expect(200);
  expect(body.steps).toEqual(sheet.steps);
  expect((await put(body.steps).expect(200)).body.version).toBe(2);
});
