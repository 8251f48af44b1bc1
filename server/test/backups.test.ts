// Backups by themselves: made when they are due, by one server, brought back once, sealed on wish, cleared away by rule.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { RowDataPacket } from 'mysql2';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
import { readConfig } from '../src/config.ts';
import { BackupKeeper, newestBackup } from '../src/jobs/backup-keeper.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

const folder = scratch('backups');
const phrase = join(folder, 'phrase.txt');
let from: Harness;
let to: Harness;
beforeAll(async () => {
  from = await startHarness('backups_from');
  to = await startHarness('backups_to');
  await makers(from).sample({ unit: { serial: 'in the backup' } });
  await makers(to).sample({ unit: { serial: 'was here before' } });
  writeFileSync(phrase, 'a lamp in every hut\n');
});
afterAll(async () => {
  await from.stop();
  await to.stop();
  rmSync(folder, { recursive: true, force: true });
});

const script = (name: string) => fileURLToPath(new URL(`../../scripts/${name}.mjs`, import.meta.url));
const run = (name: string, { url }: Pick<Harness, 'url'>, env: Record<string, string>, ...args: string[]) =>
  spawnSync('node', [script(name), ...args], {
    env: { ...process.env, DATABASE_URL: url, LASTMARK_DATA: folder, ...env },
    encoding: 'utf8',
  });
const serials = async ({ pool }: Harness) =>
  (await pool.query<RowDataPacket[]>('SELECT serial FROM samples ORDER BY serial'))[0].map(
    ({ serial }) => serial as string,
  );
const databases = async () =>
  (await from.pool.query<RowDataPacket[]>("SHOW DATABASES LIKE 'lastmark_backups%'"))[0].flatMap((row) =>
    Object.values(row),
  );

describe('a backup by night', () => {
  it('is brought back once and compared, and leaves nothing beside it', async () => {
    const own = join(folder, 'plain');
    mkdirSync(own);
    writeFileSync(join(own, 'auto-2026-11-01T02-30-00-000Z.sql.gz.unfinished'), 'broken off');
    const { status, stdout } = run('db-keep', from, { LASTMARK_BACKUP_FOLDER: own });
    expect(status).toBe(0);
    expect(stdout).toContain('brought back once and compared; 0 earlier ones cleared away');
    expect(readdirSync(own)).toEqual([expect.stringMatching(/^auto-.*Z\.sql\.gz$/)]);
    expect(await databases()).toEqual(['lastmark_backups_from', 'lastmark_backups_to']);
  });

  it('clears earlier ones away by the rule, and nothing that somebody made by hand', () => {
    const own = join(folder, 'rule');
    mkdirSync(own);
    const day = (at: number) => new Date(Date.UTC(2026, 9, 1) - at * 86_400_000).toISOString().slice(0, 10);
    for (let at = 0; at < 40; at += 1) writeFileSync(join(own, `auto-${day(at)}T02-30-00-000Z.sql.gz`), 'earlier');
    for (const name of ['by-hand.sql.gz', 'before-0.1.0-2026-01-01T00-00-00-000Z.sql.gz'])
      writeFileSync(join(own, name), 'x');
    expect(run('db-keep', from, { LASTMARK_BACKUP_FOLDER: own }).status).toBe(0);
    const names = readdirSync(own);
    // Today and the six last days there were, four more weeks' ends, and the ends of two months: some are the same.
    expect(names.filter((name) => name.startsWith('auto-')).length).toBeLessThan(15);
    expect(names).toEqual(expect.arrayContaining(['by-hand.sql.gz', 'before-0.1.0-2026-01-01T00-00-00-000Z.sql.gz']));
    expect(names).toContain(`auto-${day(0)}T02-30-00-000Z.sql.gz`);
    expect(names).not.toContain(`auto-${day(20)}T02-30-00-000Z.sql.gz`);
  });

  it('sealed is read by nobody without its phrase, and brought back with it', async () => {
    const own = join(folder, 'sealed');
    const env = { LASTMARK_BACKUP_FOLDER: own, LASTMARK_BACKUP_KEY: phrase };
    expect(run('db-keep', from, env).status).toBe(0);
    const [name = ''] = readdirSync(own);
    expect(name).toMatch(/\.sql\.gz\.sealed$/);
    const file = join(own, name);
    expect(readFileSync(file).includes('in the backup')).toBe(false);
    const without = run('db-restore', to, {}, file, '--replace');
    expect([without.status, without.stderr]).toEqual([
      1,
      expect.stringContaining('is sealed. Set LASTMARK_BACKUP_KEY'),
    ]);
    writeFileSync(join(folder, 'other.txt'), 'some other phrase');
    const other = run('db-restore', to, { LASTMARK_BACKUP_KEY: join(folder, 'other.txt') }, file, '--replace');
    expect([other.status, other.stderr]).toEqual([1, expect.stringContaining('the pass phrase is another')]);
    const damaged = readFileSync(file);
    const at = damaged.length - 40;
    damaged[at] = (damaged[at] ?? 0) ^ 1;
    writeFileSync(join(own, 'damaged'), damaged);
    const changed = run('db-restore', to, env, join(own, 'damaged'), '--replace');
    expect([changed.status, changed.stderr]).toEqual([1, expect.stringContaining('Nothing was changed')]);
    expect(await serials(to)).toEqual(['was here before']);
    const good = run('db-restore', to, env, file, '--replace');
    expect([good.status, good.stderr]).toEqual([0, '']);
    expect(await serials(to)).toEqual(['in the backup']);
  });

  it('that cannot be made says why, keeps nothing, and clears nothing away', () => {
    const own = join(folder, 'failing');
    mkdirSync(own);
    writeFileSync(join(own, 'auto-2020-01-01T00-00-00-000Z.sql.gz'), 'earlier');
    const { status, stderr } = run('db-keep', from, {
      LASTMARK_BACKUP_FOLDER: own,
      LASTMARK_BACKUP_KEY: join(folder, 'nowhere.txt'),
    });
    expect([status, stderr]).toEqual([1, expect.stringContaining('The pass phrase of backups cannot be read')]);
    expect(readdirSync(own)).toEqual(['auto-2020-01-01T00-00-00-000Z.sql.gz']);
  });
});

describe('a server', () => {
  const log = pino({ level: 'silent' });

  it('makes one when it is due, one of all servers, and none before', async () => {
    const own = join(folder, 'kept');
    const keepers = ['a', 'b', 'c'].map(
      (owner) => new BackupKeeper({ db: from.db, databaseUrl: from.url, log, owner, folder: own, hours: 24 }),
    );
    expect([newestBackup(own), keepers[0]?.age(), keepers[0]?.isDue()]).toEqual([null, null, true]);
    for (const keeper of keepers) keeper.watch(0);
    await expect.poll(() => newestBackup(own)).not.toBeNull();
    await Promise.all(keepers.map((keeper) => keeper.close()));
    expect(readdirSync(own).filter((name) => name.endsWith('.gz'))).toHaveLength(1);
    expect(keepers[0]?.age()).toBeLessThan(120);
    expect(keepers.map((keeper) => keeper.isDue())).toEqual([false, false, false]);
    const hourly = new BackupKeeper({ db: from.db, databaseUrl: from.url, log, owner: 'a', folder: own, hours: 1e-6 });
    expect(hourly.isDue()).toBe(true);
  });

  it('says how many hours it understands', () => {
    const read = (LASTMARK_BACKUPS: string) =>
      readConfig({ DATABASE_URL: 'mysql://x@localhost/x', LASTMARK_BACKUPS }).backups;
    expect(read('0')).toBeNull();
    expect(read('24')?.hours).toBe(24);
    for (const bad of ['-1', 'daily', '100000']) expect(() => read(bad)).toThrow('give the hours between two backups');
  });
});
