// The whole demo as packages: each is whole, holds what the sample has and no other instruments, and is judged without a server
// to the very same verdict.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
// @ts-expect-error scripts are plain JavaScript
import { analyseProgram } from '../../scripts/lib/analyse-program.mjs';
import { seedDemo } from '../src/demo/seed.ts';
import { getDossier } from '../src/dossier/dossier.ts';
import { usedInstruments } from '../src/dossier/used.ts';
import { toVerdict } from '../src/export/verdict.ts';
import { readPackage } from '../src/packages/read.ts';
import { packageOf } from '../src/packages/write.ts';
import { listSamples } from '../src/shelf/shelf.ts';
import { type Harness, startHarness } from '../testing/harness.ts';

let harness: Harness;
let folder: string;
let ids: readonly string[];
beforeAll(async () => {
  harness = await startHarness('packages');
  await seedDemo(harness.db);
  ids = (await listSamples(harness.db, { size: 50 })).items.map(({ id }) => id);
  folder = mkdtempSync(join(tmpdir(), 'lastmark-packages-'));
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await harness.stop();
});

it('every sample of the demo is judged from its package to the last digit', async () => {
  expect(ids.length).toBeGreaterThan(15);
  for (const id of ids) {
    const { bytes } = await packageOf(harness.db, id);
    const { dossier, manifest } = readPackage(bytes);
    const original = await getDossier(harness.db, id);
    expect(JSON.stringify(toVerdict(dossier))).toBe(JSON.stringify(toVerdict(original)));
    expect(dossier.instruments.map((one) => one.id)).toEqual(usedInstruments(original).map((one) => one.id));
    expect(manifest.sample.id).toBe(id);
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
