// The whole demo as packages: each is whole, holds what the sample has and no other instruments, and is judged without a server
// to the very same verdict.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { misfit } from '@lastmark/contract';
import { sql } from 'drizzle-orm';
import { zipSync } from 'fflate';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
// @ts-expect-error scripts are plain JavaScript
import { analyseProgram } from '../../scripts/lib/analyse-program.mjs';
import { getDossier } from '../src/dossier/dossier.ts';
import { usedInstruments } from '../src/dossier/used.ts';
import { toVerdict } from '../src/export/verdict.ts';
import { readPackage } from '../src/packages/read.ts';
import { takeIn } from '../src/packages/take-in.ts';
import { packageOf } from '../src/packages/write.ts';
import { listSamples } from '../src/shelf/shelf.ts';
import { readTrace } from '../src/traces/store.ts';
import { type Harness, startHarness } from '../testing/harness.ts';

let harness: Harness;
let other: Harness;
let folder: string;
let ids: readonly string[];
beforeAll(async () => {
  harness = await startHarness('packages', { demo: true });
  other = await startHarness('packages_in');
  ids = (await listSamples(harness.db, { size: 50 })).items.map(({ id }) => id);
  folder = mkdtempSync(join(tmpdir(), 'lastmark-packages-'));
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await harness.stop();
  await other.stop();
});

it('every part of every sample of the demo is described', async () => {
  // What is answered is held against the description as everywhere; the schema in each package is made of the same.
  for (const id of ids)
    for (const part of ['dossier', 'conclusion', 'reports']) {
      const { status } = await request(harness.app).get(`/api/samples/${id}/${part}`);
      expect([part, status]).toEqual([part, 200]);
    }
  for (const id of ids) expect((await request(harness.app).get(`/api/attachments?sampleId=${id}`)).status).toBe(200);
  expect((await request(harness.app).get('/api/run-sheets')).status).toBe(200);
});

it('every sample of the demo is judged from its package to the last digit', async () => {
  expect(ids.length).toBeGreaterThan(15);
  for (const id of ids) {
    const { bytes } = await packageOf(harness.db, id);
    const { dossier, manifest, files } = readPackage(bytes);
    const original = await getDossier(harness.db, id);
    expect(JSON.stringify(toVerdict(dossier))).toBe(JSON.stringify(toVerdict(original)));
    expect(dossier.instruments.map((one) => one.id)).toEqual(usedInstruments(original).map((one) => one.id));
    expect(manifest.sample.id).toBe(id);
    const json = (name: string) => JSON.parse(Buffer.from(files[name] ?? []).toString('utf8'));
    expect(misfit(json('sample.schema.json'), json('sample.json'))).toBeNull();
  }
});

it('a package holds its recordings as plain numbers, its reports, and the conclusion', async () => {
  const { items } = await listSamples(harness.db, { q: 'PT-75-3310', size: 1 });
  const id = items[0]?.id ?? '';
  const { body } = await request(harness.app)
    .get(`/api/samples/${id}/package.zip`)
    .buffer(true)
    .parse((res, done) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () => done(null, Buffer.concat(parts)));
    });
  const { files, dossier } = readPackage(new Uint8Array(body as Buffer));
  const of = (path: string) => files[path] ?? new Uint8Array();
  const sample = JSON.parse(Buffer.from(of('sample.json')).toString('utf8'));
  expect(sample.reports).toHaveLength(2);
  expect(Buffer.from(of(sample.reports[0].path)).toString('latin1', 0, 5)).toBe('%PDF-');
  expect(sample.conclusion.lines[0].text.en).toContain('one laptop at a time');
  const soak = dossier.captures.find(({ kind }) => kind === 'soak');
  const about = JSON.parse(Buffer.from(of(`traces/${soak?.id}.json`)).toString('utf8'));
  expect(about.samples).toBe(soak?.samples);
  for (const { file } of about.channels) expect(of(`traces/${file}`).length).toBe(4 * about.samples);
  const schema = JSON.parse(Buffer.from(of('tables/readings.schema.json')).toString('utf8'));
  const [head = ''] = Buffer.from(of('tables/readings.csv')).toString('utf8').split('\r\n');
  expect(head.split(',')).toEqual(schema.fields.map(({ name }: { name: string }) => name));
});

it('the command line judges it without a server, as the server does', async () => {
  const { items } = await listSamples(harness.db, { q: 'GQ-20931', size: 1 });
  const id = items[0]?.id ?? '';
  const path = join(folder, 'quad.lastmark.zip');
  writeFileSync(path, (await packageOf(harness.db, id)).bytes);
  const program = (await analyseProgram()) as string;
  const said = execFileSync(process.execPath, [program, 'judge', path, '--json'], {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  });
  const { body } = await request(harness.app).get(`/api/samples/${id}/verdict`);
  expect(JSON.parse(said)).toEqual(body);
  const words = execFileSync(process.execPath, [program, 'judge', path], { encoding: 'utf8' });
  expect(words).toContain('short: C1 + C2: 65 + 65 W.');
});

it('another bench takes the whole demo in, and judges it to the last digit', async () => {
  for (const id of ids) {
    const { bytes } = await packageOf(harness.db, id);
    const [taken] = (await takeIn(other.db, bytes)).samples;
    expect(taken).toMatchObject({ sampleId: id, differences: [], sameVerdict: true });
    expect(taken?.added.samples).toBe(1);
    const [here, there] = [await getDossier(other.db, id), await getDossier(harness.db, id)];
    expect(JSON.stringify(toVerdict(here))).toBe(JSON.stringify(toVerdict(there)));
    // Nothing here answers where it answered there.
    expect(here.instruments.every(({ address }) => address === null)).toBe(true);
  }
  const rows = async ({ db }: Harness) => {
    const counts = await db.execute(
      sql`SELECT (SELECT COUNT(*) FROM readings) AS readings, (SELECT COUNT(*) FROM captures) AS captures, (SELECT COUNT(*) FROM traces WHERE named) AS traces, (SELECT COUNT(*) FROM report_parts) AS parts, (SELECT COUNT(*) FROM safety_checks) AS checks`,
    );
    return (counts as unknown as [object[]])[0][0];
  };
  expect(await rows(other)).toEqual(await rows(harness));
  const { items } = await listSamples(harness.db, { q: 'OB-18-0092', size: 1 });
  const [ripple] = (await getDossier(other.db, items[0]?.id ?? '')).captures.filter(({ kind }) => kind === 'ripple');
  const trace = async ({ db }: Harness) =>
    (await readTrace(db, ripple?.id ?? '')).channels.map(({ values }) => [...values]);
  expect(await trace(other)).toEqual(await trace(harness));
});

it('the same package again is recognised; what was changed here is told and not overwritten', async () => {
  const { items } = await listSamples(harness.db, { q: 'QP-5520', size: 1 });
  const id = items[0]?.id ?? '';
  const { bytes } = await packageOf(harness.db, id);
  expect((await takeIn(other.db, bytes)).samples).toMatchObject([{ added: {}, differences: [], sameVerdict: true }]);
  await other.db.execute(
    sql`UPDATE claims SET printed = 'somewhere else' WHERE model_id = (SELECT model_id FROM samples WHERE id = ${id}) LIMIT 1`,
  );
  const [taken] = (await takeIn(other.db, bytes)).samples;
  expect([taken?.added, taken?.differences]).toEqual([
    {},
    [{ table: 'claims', id: expect.any(String), fields: ['printed'] }],
  ]);
  const { claims } = await getDossier(other.db, id);
  expect(claims.some(({ printed }) => printed === 'somewhere else')).toBe(true);
});

it('a reading added there since comes along, and what stands here stays', async () => {
  const { items } = await listSamples(harness.db, { q: 'QP-5520', size: 1 });
  const id = items[0]?.id ?? '';
  await other.db.execute(
    sql`DELETE FROM claims WHERE model_id = (SELECT model_id FROM samples WHERE id = ${id}) AND printed = 'somewhere else'`,
  );
  const [taken] = (await takeIn(other.db, (await packageOf(harness.db, id)).bytes)).samples;
  expect(taken?.added).toEqual({ claims: 1 });
});

it('of a package that breaks off half-way nothing is kept, its recordings included', async () => {
  const empty = await startHarness('packages_evil');
  try {
    const { items } = await listSamples(harness.db, { q: 'PT-75-3310', size: 1 });
    const files = { ...readPackage((await packageOf(harness.db, items[0]?.id ?? '')).bytes).files };
    const rows = JSON.parse(Buffer.from(files['rows.json'] ?? []).toString('utf8'));
    rows.reports[0].amends = '01JZZZZZZZZZZZZZZZZZZZZZZZ';
    files['rows.json'] = Buffer.from(JSON.stringify(rows));
    const manifest = JSON.parse(Buffer.from(files['manifest.json'] ?? []).toString('utf8'));
    for (const one of manifest.files)
      one.sha256 = createHash('sha256')
        .update(files[one.path] ?? new Uint8Array())
        .digest('hex');
    files['manifest.json'] = Buffer.from(JSON.stringify(manifest));
    await expect(takeIn(empty.db, zipSync(files))).rejects.toThrow();
    const [[left]] = (await empty.db.execute(
      sql`SELECT (SELECT COUNT(*) FROM samples) + (SELECT COUNT(*) FROM instruments) + (SELECT COUNT(*) FROM traces) + (SELECT COUNT(*) FROM trace_pieces) AS n`,
    )) as unknown as [[{ n: number }]];
    expect(Number(left.n)).toBe(0);
  } finally {
    await empty.stop();
  }
});

it('over the API: what is no package is refused in words, and one that is comes back known', async () => {
  const send = (file: Buffer, name = 'sample.lastmark.zip') =>
    request(other.app).post('/api/packages').field('input', JSON.stringify({ name })).attach('file', file, 'file');
  const none = await send(Buffer.from('hello'));
  expect([none.status, none.body.detail]).toEqual([422, 'It is no archive that can be read: it may be cut short.']);
  const nothing = await request(other.app)
    .post('/api/packages')
    .field('input', JSON.stringify({ name: 'x' }));
  expect([nothing.status, nothing.body.detail]).toEqual([422, 'Send the package itself, as a file.']);
  const { items } = await listSamples(harness.db, { q: 'GQ-20931', size: 1 });
  const { bytes } = await packageOf(harness.db, items[0]?.id ?? '');
  const known = await send(Buffer.from(bytes));
  expect(known.status).toBe(201);
  expect(known.body).toMatchObject({ trials: 0, comparisons: 0, differences: [] });
  expect(known.body.samples).toMatchObject([{ sampleId: items[0]?.id, added: {}, differences: [], sameVerdict: true }]);
});
