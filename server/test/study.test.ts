// A study: several samples as one archive, with the trials among them and the comparison they are of; taken in whole, or not at all.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { misfit, type Sample, type Shape, type StoredComparison, type StoredTrial } from '@lastmark/contract';
import { trialOrder } from '@lastmark/core/trial';
import { unzipSync, zipSync } from 'fflate';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
// @ts-expect-error scripts are plain JavaScript
import { analyseProgram } from '../../scripts/lib/analyse-program.mjs';
import { newId } from '../src/db/ids.ts';
import { takeIn } from '../src/packages/take-in.ts';
import { aPoint, EU, type Harness, makers, sendForm, startHarness } from '../testing/harness.ts';

let harness: Harness;
let other: Harness;
let make: ReturnType<typeof makers>;
let folder: string;
let one: Sample;
let two: Sample;
let three: Sample;
let trial: StoredTrial;
let comparison: StoredComparison;

const armed = (samples: readonly Sample[], part: object = {}) => ({
  kind: 'blocks',
  question: 'Is the newer one quicker?',
  factor: 'charger',
  arms: samples.map(({ id, tag }) => ({ name: tag, sampleId: id })),
  measure: { name: 'time to 50 %', quantity: 'duration', better: 'lower' },
  held: [],
  blocks: 2,
  seed: 5,
  matters: null,
  expected: null,
  blind: false,
  ...part,
});
const plan = (body: object) => make.post<StoredTrial>('/trials', { trial: body });

beforeAll(async () => {
  [harness, other] = await Promise.all([startHarness('study'), startHarness('study_in')]);
  folder = mkdtempSync(join(tmpdir(), 'lastmark-study-'));
  make = makers(harness);
  one = await make.sample({ model: { model: 'Ember 45' } });
  two = await make.sample({ model: { model: 'Ember 65' } });
  three = await make.sample({ model: { model: 'Elsewhere' } });
  const rig = await make.rig();
  for (const [sample, watts] of [
    [one, '0.1 W'],
    [two, '0.9 W'],
  ] as const) {
    await make.claim(sample.id, { kind: 'idle', watts: 0.5, mains: null });
    const point = aPoint(newId(), rig.id, { watts }, { setupId: null, load: 0, mains: EU });
    await make.post(`/samples/${sample.id}/readings`, { points: [point] });
  }
  trial = await plan(armed([one, two]));
  for (const [at, slot] of trialOrder(trial.trial).entries())
    await make.post(`/trials/${trial.id}/runs`, {
      run: {
        id: newId(),
        ...slot,
        value: 1500 + 60 * at,
        held: [],
        note: '',
        takenAt: `2026-02-10T1${at}:00:00.000Z`,
        supersedes: null,
        withdrawn: false,
      },
    });
  // Somebody who is not there, and one in which nobody may know yet.
  await plan(armed([one, three]));
  await plan(armed([one, two], { blind: true }));
  comparison = await make.post<StoredComparison>('/comparisons', {
    title: 'Both embers',
    note: '',
    rule: { kind: 'picked', picks: [one, two].map(({ id }) => ({ id, reason: '' })) },
    measures: [{ measure: 'idle', condition: null }],
    own: [],
    weights: [],
  });
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await harness.stop();
  await other.stop();
});

const fetchStudy = async (query: string) => {
  const { status, body } = await request(harness.app)
    .get(`/api/study.zip?${query}`)
    .buffer(true)
    .parse((res, done) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () => done(null, Buffer.concat(parts)));
    });
  return { status, bytes: new Uint8Array(body as Buffer) };
};
const text = (bytes: Uint8Array | undefined) => Buffer.from(bytes ?? []).toString('utf8');
const json = (bytes: Uint8Array | undefined) => JSON.parse(text(bytes));

it('holds a package of each sample, and the trials whose samples all are in it', async () => {
  const { status, bytes } = await fetchStudy(`comparison=${comparison.id}`);
  expect(status).toBe(200);
  const files = unzipSync(bytes);
  const manifest = json(files['manifest.json']);
  expect(manifest).toMatchObject({ form: 'lastmark-study', version: 1, title: 'Both embers' });
  expect(manifest.samples.map(({ id }: { id: string }) => id).sort()).toEqual([one.id, two.id].sort());
  for (const { path, sha256 } of manifest.files)
    expect(
      createHash('sha256')
        .update(files[path] ?? '')
        .digest('hex'),
    ).toBe(sha256);
  const trials = json(files['trials.json']);
  expect(trials.map(({ id }: { id: string }) => id)).toEqual([trial.id]);
  expect(misfit(json(files['trials.schema.json']) as Shape, trials)).toBeNull();
  const [head, ...lines] = text(files['tables/trials.csv']).trimEnd().split('\r\n');
  expect(head).toBe('trial,question,run,block,what,value,unit,taken_at');
  expect(lines).toHaveLength(4);
  expect(lines[0]).toContain('1500,s,2026-02-10T10:00:00.000Z');
  expect(new Set(lines.map((line) => line.split(',')[4]))).toEqual(new Set([one.tag, two.tag]));
  expect(json(files['comparison.json'])).toMatchObject({ title: 'Both embers', rule: { kind: 'picked' } });
});

it('another bench takes all of it in; the same again is known', async () => {
  const { bytes } = await fetchStudy(`comparison=${comparison.id}`);
  const taken = await sendForm(other.app, '/packages', { name: 'both.study.zip' }, Buffer.from(bytes));
  expect([taken.status, taken.body.title, taken.body.trials, taken.body.comparisons]).toEqual([
    201,
    'Both embers',
    1,
    1,
  ]);
  expect(taken.body.samples).toHaveLength(2);
  for (const sample of taken.body.samples)
    expect(sample).toMatchObject({ added: { samples: 1, readings: 1 }, differences: [], sameVerdict: true });
  const here = async ({ app }: Harness, path: string) => (await request(app).get(`/api${path}`)).body;
  const there = await here(other, `/trials/${trial.id}`);
  expect(there).toMatchObject({ trial: trial.trial, letters: trial.letters, version: 1 });
  expect(there.runs).toEqual((await here(harness, `/trials/${trial.id}`)).runs);
  expect((await here(other, `/comparisons/${comparison.id}`)).title).toBe('Both embers');
  expect((await here(other, '/trials')).items).toHaveLength(1);
  const again = await takeIn(other.db, bytes);
  expect(again).toMatchObject({ trials: 0, comparisons: 0, differences: [] });
  for (const sample of again.samples) expect(sample.added).toEqual({});
});

it('chosen samples go without a comparison; what is said of none, or of one that is gone, is refused', async () => {
  const { status, bytes } = await fetchStudy(`samples=${one.id},${three.id},${one.id}`);
  expect(status).toBe(200);
  const files = unzipSync(bytes);
  expect(json(files['manifest.json'])).toMatchObject({ title: '2 samples' });
  expect(Object.keys(files)).not.toContain('comparison.json');
  const refusal = async (query: string) => {
    const { status: was, body } = await request(harness.app).get(`/api/study.zip?${query}`);
    return [was, body.errors?.[0]?.message ?? body.detail];
  };
  expect(await refusal('')).toEqual([422, 'Say which samples, or which comparison.']);
  expect((await refusal(`samples=${newId()}`))[0]).toBe(404);
  expect((await refusal(`comparison=${newId()}`))[0]).toBe(404);
  expect((await refusal('samples=../../etc/passwd'))[0]).toBe(422);
});

it('a trial of one sample alone travels in its own package', async () => {
  const own = await plan(
    armed([three, three], {
      arms: [
        { name: 'C1', sampleId: three.id },
        { name: 'A1', sampleId: null },
      ],
    }),
  );
  const { body } = await request(harness.app)
    .get(`/api/samples/${three.id}/package.zip`)
    .buffer(true)
    .parse((res, done) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () => done(null, Buffer.concat(parts)));
    });
  expect((await takeIn(other.db, new Uint8Array(body as Buffer))).trials).toBe(1);
  expect((await request(other.app).get(`/api/trials?sampleId=${three.id}`)).body.items).toMatchObject([{ id: own.id }]);
});

it('of a study that breaks off at its last sample nothing is kept', async () => {
  const empty = await startHarness('study_evil');
  try {
    const { bytes } = await fetchStudy(`samples=${one.id},${two.id}`);
    const files = { ...unzipSync(bytes) };
    const rows = json(files['rows.json']);
    rows.trial_samples[0].sampleId = newId();
    files['rows.json'] = Buffer.from(JSON.stringify(rows));
    const manifest = json(files['manifest.json']);
    for (const file of manifest.files)
      file.sha256 = createHash('sha256')
        .update(files[file.path] ?? '')
        .digest('hex');
    files['manifest.json'] = Buffer.from(JSON.stringify(manifest));
    const answer = await sendForm(empty.app, '/packages', { name: 'x.study.zip' }, Buffer.from(zipSync(files)));
    expect([answer.status, answer.body.detail]).toEqual([
      422,
      'Something in it refers to what is not there. Pack it anew.',
    ]);
    expect((await request(empty.app).get('/api/samples')).body.total).toBe(0);
    expect((await request(empty.app).get('/api/instruments')).body.items).toEqual([]);
  } finally {
    await empty.stop();
  }
});

it('the command line judges each of a study, as the server does', async () => {
  const path = join(folder, 'both.study.zip');
  writeFileSync(path, (await fetchStudy(`samples=${one.id},${two.id}`)).bytes);
  const program = (await analyseProgram()) as string;
  const said = JSON.parse(execFileSync(process.execPath, [program, 'judge', path, '--json'], { encoding: 'utf8' }));
  const verdict = async ({ id }: Sample) => (await request(harness.app).get(`/api/samples/${id}/verdict`)).body;
  expect(said).toEqual({ title: '2 samples', samples: [await verdict(one), await verdict(two)] });
  expect(said.samples.map(({ claims }: { claims: { state: string }[] }) => claims[0]?.state)).toEqual([
    'proven',
    'short',
  ]);
});
