// A damaged backup changes nothing and is named; a good one is compared before it takes the place of what was there.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { fileURLToPath } from 'node:url';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { RowDataPacket } from 'mysql2';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { writeBackup } from '../../scripts/lib/backup-file.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

const TRIES = process.env.LASTMARK_ATTACK ? 60 : 6;
const folder = scratch('restore');
const good = join(folder, 'good.sql.gz');
let from: Harness;
let to: Harness;
beforeAll(async () => {
  from = await startHarness('restore_from');
  to = await startHarness('restore_to');
  const make = makers(from);
  for (let index = 0; index < 40; index += 1) {
    const sample = await make.sample({ unit: { serial: `S-${index}`, notes: `${'Å¶ßœ∂ƒ \\n\n'.repeat(60)}${index}` } });
    await make.claim(sample.id, { kind: 'total', watts: 45 + index });
  }
  expect(run('db-backup', from, good).status).toBe(0);
  await makers(to).sample({ unit: { serial: 'was here before' } });
});
afterAll(async () => {
  await from.stop();
  await to.stop();
  rmSync(folder, { recursive: true, force: true });
});

const script = (name: string) => fileURLToPath(new URL(`../../scripts/${name}.mjs`, import.meta.url));
const run = (name: string, { url }: Pick<Harness, 'url'>, ...args: string[]) =>
  spawnSync('node', [script(name), ...args], {
    env: { ...process.env, DATABASE_URL: url, LASTMARK_DATA: folder },
    encoding: 'utf8',
  });
const serials = async ({ pool }: Harness) =>
  (await pool.query<RowDataPacket[]>('SELECT serial FROM samples ORDER BY serial'))[0].map(
    ({ serial }) => serial as string,
  );
const databases = async ({ pool }: Harness) =>
  (await pool.query<RowDataPacket[]>("SHOW DATABASES LIKE 'lastmark_restore%'"))[0].flatMap((row) =>
    Object.values(row),
  );

/** Try to restore a damaged file. @returns what was said */
async function refused(name: string, bytes: Buffer): Promise<string> {
  const file = join(folder, name);
  writeFileSync(file, bytes);
  const { status, stderr } = run('db-restore', to, file, '--replace');
  expect(status).toBe(1);
  expect(await serials(to)).toEqual(['was here before']);
  return stderr;
}

describe('a damaged backup', () => {
  it('with one byte flipped anywhere is named by where it is damaged, and changes nothing', async () => {
    const whole = readFileSync(good);
    for (let turn = 0; turn < TRIES; turn += 1) {
      const at = Math.floor(((turn + 0.37) / TRIES) * whole.length);
      const bytes = Buffer.from(whole);
      bytes[at] = (bytes[at] ?? 0) ^ (1 << (turn % 8));
      const said = await refused('flipped.sql.gz', bytes);
      const [, begin = '', end = ''] = /is damaged between byte (\d+) and byte (\d+)/.exec(said) ?? [];
      // Flags and times in a header mean nothing, so nothing is said about them there.
      expect([at, said]).toEqual([at, expect.stringContaining('flipped.sql.gz is damaged')]);
      expect(Number(begin)).toBeLessThanOrEqual(at);
      expect(Number(end)).toBeGreaterThan(at);
      expect(said).toContain('Nothing was changed');
    }
  });

  it.each([
    ['cut off', (bytes: Buffer) => bytes.subarray(0, Math.floor(bytes.length * 0.7)), /ends in the middle of a block/],
    ['cut off at the end of a block', cutAtBlock, /closing line is not there/],
    ['empty', () => Buffer.alloc(0), /is no backup/],
    ['something else', () => Buffer.from('CREATE TABLE evil'), /is no backup/],
    [
      'an earlier version’s, cut off',
      (bytes: Buffer) => gzipSync(gunzipSync(bytes).subarray(0, 5000)),
      /its end is missing/,
    ],
  ])('%s is refused', async (_what, damage, sentence) => {
    expect(await refused('damaged.sql.gz', damage(readFileSync(good)))).toMatch(sentence);
  });

  it('of a newer version is refused with which', async () => {
    const file = join(folder, 'newer.sql.gz');
    await writeBackup(Readable.from([Buffer.from('CREATE TABLE evil (id INT);\n')]), file, () => ({
      format: 1,
      version: '9.0.0',
      migration: 9e15,
    }));
    expect(await refused('newer.sql.gz', readFileSync(file))).toMatch(/made by version 9\.0\.0, which is newer/);
  });
});

/** Everything but the last block. */
function cutAtBlock(bytes: Buffer): Buffer {
  let at = 0;
  for (let next = 0; next < bytes.length; next += bytes.readUInt32LE(next + 16)) at = next;
  return bytes.subarray(0, at);
}

describe('a good backup', () => {
  it('takes the place of what was there, and leaves no other database behind', async () => {
    const before = (await databases(to)).sort();
    const { status, stdout, stderr } = run('db-restore', to, good, '--replace');
    expect([status, stderr]).toEqual([0, '']);
    expect(stdout).toMatch(/checked: whole[\s\S]*loaded beside the data and compared[\s\S]*in place: 40 samples/);
    expect(await serials(to)).toEqual(await serials(from));
    expect((await databases(to)).sort()).toEqual(before);
    // Its tables refer to each other where they are now, and the server goes on with them.
    const [tables] = await to.pool.query<RowDataPacket[]>('SHOW CREATE TABLE readings');
    expect(String(tables[0]?.['Create Table'])).not.toMatch(/_restoring|_before|lastmark_/);
    await makers(to).sample({ unit: { serial: 'after' } });
    expect(await serials(to)).toHaveLength(41);
  });

  it('drives no bench it does not stand at: addresses are told and asked for again', async () => {
    const file = join(folder, 'addressed.sql.gz');
    const { post } = makers(from);
    const instrument = { name: 'Mill load', class: 'DC load', firmware: '', calibrationDue: null, profileId: null };
    await post('/instruments', { ...instrument, address: '127.0.0.1:5025', sees: null, specs: {} });
    expect(run('db-backup', from, file).status).toBe(0);
    const { status, stdout, stderr } = run('db-restore', to, file, '--replace');
    expect(status, stderr).toBe(0);
    expect(stdout).toContain('Mill load was at 127.0.0.1:5025');
    const [rows] = await to.pool.query<RowDataPacket[]>('SELECT name, address FROM instruments');
    expect(rows).toEqual([{ name: 'Mill load', address: null }]);
    const [kept] = await from.pool.query<RowDataPacket[]>('SELECT address FROM instruments');
    expect(kept).toEqual([{ address: '127.0.0.1:5025' }]);
  });

  it('of an earlier version, without a check of its own, is taken when it is whole', async () => {
    const sql = gunzipSync(readFileSync(good))
      .toString('utf8')
      .replace(/-- Lastmark backup .*\n$/, '-- Dump completed\n');
    const file = join(folder, 'earlier.sql.gz');
    writeFileSync(file, gzipSync(sql));
    expect(run('db-restore', to, file, '--replace').status).toBe(0);
    expect(await serials(to)).toHaveLength(40);
  });
});
