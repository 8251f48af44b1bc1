import { execFileSync, spawnSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let empty: Harness;
const folder = scratch('backup');
const script = (name: string) => fileURLToPath(new URL(`../../scripts/${name}.mjs`, import.meta.url));
const envFor = ({ url }: Harness) => ({ ...process.env, DATABASE_URL: url, LASTMARK_DATA: folder });

beforeAll(async () => {
  harness = await startHarness('backup_from', { demo: true });
  empty = await startHarness('backup_to', { migrated: false });
  // What is brought back reaches no instrument until somebody says so.
  await harness.pool.query('UPDATE instruments SET address = NULL');
});
afterAll(async () => {
  await harness.stop();
  await empty.stop();
  rmSync(folder, { recursive: true, force: true });
});

const checksums = async ({ pool }: Harness) => {
  const [tables] = await pool.query('SHOW TABLES');
  const names = (tables as Record<string, string>[]).flatMap((row) => Object.values(row)).sort();
  const [rows] = await pool.query(`CHECKSUM TABLE ${names.map((name) => `\`${name}\``).join(', ')}`);
  return (rows as { Table: string; Checksum: number }[]).map(({ Table, Checksum }) => [
    Table.split('.').at(-1),
    Checksum,
  ]);
};

it('a backup brings every table and file back as it was, and never overwrites unasked', async () => {
  const { items } = (await request(harness.app).get('/api/samples')).body;
  const bytes = Buffer.concat([
    Buffer.from('%PDF-1.4\n'),
    Buffer.from(Array.from({ length: 3_000_000 }, (_, index) => (index * 7919) % 256)),
  ]);
  await makers(harness).attach('sample', items[0].id, 'receipt.pdf', bytes);
  // Nothing is worked out any more while it is copied and compared.
  await harness.working.figures.close();
  const file = join(folder, 'one.sql.gz');
  execFileSync('node', [script('db-backup'), file], { env: envFor(harness) });
  execFileSync('node', [script('db-restore'), file], { env: envFor(empty) });
  expect(await checksums(empty)).toEqual(await checksums(harness));
  const again = spawnSync('node', [script('db-restore'), file], { env: envFor(empty), encoding: 'utf8' });
  expect(again.status).toBe(1);
  expect(again.stderr).toContain('Add --replace');
  execFileSync('node', [script('db-restore'), file, '--replace'], { env: envFor(empty) });
  expect(await checksums(empty)).toEqual(await checksums(harness));
  const { items: files } = (await request(empty.app).get(`/api/attachments?sampleId=${items[0].id}`)).body;
  const restored = await request(empty.app).get(`/api/attachments/${files[0].id}`).buffer(true);
  expect(Buffer.compare(restored.body as Buffer, bytes)).toBe(0);
});

it('a file that is no backup is refused', () => {
  const file = join(folder, 'broken.sql.gz');
  writeFileSync(file, 'not a backup');
  const answer = spawnSync('node', [script('db-restore'), file, '--replace'], { env: envFor(empty), encoding: 'utf8' });
  expect(answer.status).toBe(1);
  expect(answer.stderr).toContain('could not be read');
});
