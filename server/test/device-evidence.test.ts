// What chargers showed of the devices, across samples: settled runs and whole charges, without what was taken back.
import type { CaptureInput } from '@lastmark/contract';
import type { Capture } from '@lastmark/core/capture';
import type { DeviceEvidence } from '@lastmark/core/charge';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { EU, type Harness, makers, sendForm, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let deviceId: string;
let rigId: string;
const samples: { id: string; tag: string }[] = [];

beforeAll(async () => {
  harness = await startHarness('device_evidence');
  make = makers(harness);
  rigId = (await make.rig()).id;
  deviceId = (
    await make.post<{ id: string }>('/devices', {
      name: 'Ridge 14',
      kind: 'laptop',
      battery: 60 * 3600,
      ceilings: [{ connector: 'C', lead: '5 A', volts: 20, watts: 60 }],
      baseline: null,
      note: '',
    })
  ).id;
  for (const model of ['Ember 45', 'Trio 75']) samples.push(await make.sample({ model: { model } }));
});
afterAll(() => harness.stop());

/** An hour at 40 W, 0 to 80 %, with the device's own level. */
const log = [
  'time [s],power [W],level [%]',
  ...Array.from({ length: 361 }, (_, at) => `${at * 10},40,${Math.floor(at / 4.5)}`),
].join('\n');

const input = (part: Partial<CaptureInput['capture']> = {}): CaptureInput => ({
  capture: {
    id: newId(),
    kind: 'charge',
    mains: EU,
    setupId: null,
    load: 1,
    port: 'C1',
    attached: 'nothing',
    rigId,
    takenAt: '2026-05-01T10:00:00.000Z',
    source: 'log.csv',
    note: '',
    supersedes: null,
    withdrawn: false,
    charge: { deviceId, lead: '5 A', workload: 'asleep', startLevel: null, end: null },
    ...part,
  },
  scopeId: null,
});
const evidence = async (): Promise<DeviceEvidence> =>
  (await request(harness.app).get('/api/device-evidence').expect(200)).body as DeviceEvidence;

it('is empty before anything was charged', async () => {
  expect(await evidence()).toEqual({ samples: [], runs: [], charges: [] });
});

it('has every charge with its course, and the settled runs, by charger', async () => {
  const [ember, trio] = samples;
  if (!ember || !trio) throw new Error('no samples');
  const kept = (await sendForm(harness.app, `/samples/${ember.id}/captures`, input(), log).expect(201)).body as Capture;
  await request(harness.app)
    .post(`/api/samples/${trio.id}/runs`)
    .send({
      run: {
        kind: 'device',
        id: newId(),
        port: 'C1',
        rigId,
        takenAt: '2026-05-02T10:00:00.000Z',
        note: '',
        supersedes: null,
        withdrawn: false,
        deviceId,
        connector: 'C',
        lead: '5 A',
        workload: 'asleep',
        charge: 0.4,
        settled: 200,
        place: 'port',
        volts: 20,
        watts: 55,
        outcome: 'charging',
        message: '',
      },
    })
    .expect(201);
  const found = await evidence();
  expect(found.samples.map(({ name, tag }) => [name, tag]).sort()).toEqual([
    ['Tarnhook Ember 45', ember.tag],
    ['Tarnhook Trio 75', trio.tag],
  ]);
  expect(found.runs.map(({ sampleId, run }) => [sampleId, run.watts])).toEqual([[trio.id, 55]]);
  const [charge] = found.charges;
  expect(charge).toMatchObject({ sampleId: ember.id, captureId: kept.id, port: 'C1', lead: '5 A', workload: 'asleep' });
  // 40 Wh for four fifths of it, at 40 W all the way.
  expect(charge?.course?.watts.every((watts) => Math.abs(watts - 40) < 0.5)).toBe(true);
  expect(charge?.course?.levels.at(-1)).toBeCloseTo(0.8, 6);

  // Taken back, it is gone from the tables and stays in the record.
  await sendForm(
    harness.app,
    `/samples/${ember.id}/captures`,
    input({ supersedes: kept.id, withdrawn: true }),
    null,
  ).expect(201);
  expect((await evidence()).charges).toEqual([]);
});

it('judges a promised time by the charge', async () => {
  const sample = await make.sample({ model: { model: 'Brick 60' } });
  await make.claim(sample.id, { kind: 'charge-time', device: 'Ridge 14', from: 0, to: 0.5, seconds: 35 * 60 });
  const verdict = async () =>
    (await request(harness.app).get(`/api/samples/${sample.id}/verdict`).expect(200)).body as {
      claims: { state: string; sentence: string; notes: string[] }[];
    };
  expect((await verdict()).claims[0]?.state).toBe('not tested');
  await sendForm(harness.app, `/samples/${sample.id}/captures`, input(), log).expect(201);
  const [claim] = (await verdict()).claims;
  // 50 % after 37.5 min.
  expect(claim?.state).toBe('short');
  expect(claim?.sentence).toContain('37.5 min');
});
