// The older part of the log goes into a file and out of the database, and the chain stays whole: in the file, and in what is left.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { LogCheck } from '@lastmark/contract';
import { eq, inArray } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
import { newId } from '../src/db/ids.ts';
import { logEntries, logSeals, logThings } from '../src/db/schema.ts';
import { checkChain, sealSome } from '../src/log/chain.ts';
import { plainDeed, writeEntry } from '../src/log/write.ts';
import { MACHINE } from '../src/who/who.ts';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';

const SCRIPT = fileURLToPath(new URL('../../scripts/log-archive.mjs', import.meta.url));
const folder = scratch('log-archive');
let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('log_archive');
});
afterAll(async () => {
  await harness.stop();
  rmSync(folder, { recursive: true, force: true });
});

const run = (...args: string[]) => {
  const url = inject('databaseUrl').replace(/\/lastmark$/, '/lastmark_log_archive');
  const env = { ...process.env, DATABASE_URL: url, LASTMARK_DATA: folder };
  const { status, stdout, stderr } = spawnSync(process.execPath, [SCRIPT, ...args], { env, encoding: 'utf8' });
  return { status, says: (stdout + stderr).trim() };
};
/** Something done on a day, with a thing it is about. */
async function done(day: string): Promise<string> {
  const deed = plainDeed(MACHINE, 'addRun', { body: `{"day":"${day}"}`, things: [newId()] });
  await writeEntry(harness.db, deed, [], new Date(`${day}T10:00:00.250Z`));
  return deed.id;
}
const sealAll = async () => {
  while ((await sealSome(harness.db)) > 0);
};
const check = () => checkChain(harness.db);
const idsLeft = async () => (await harness.db.select({ id: logEntries.id }).from(logEntries)).map(({ id }) => id);

/** Seals of an archive, worked out from its lines alone. */
function sealsOf(path: string): { readonly worked: string[]; readonly told: string[] } {
  const lines = readFileSync(path, 'utf8')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line));
  let before = lines[0].before as string;
  const entries = lines.slice(1, -1) as { seal: string; entry: Record<string, unknown> }[];
  const worked = entries.map(({ entry: e }) => {
    const said = [
      before,
      e.id,
      e.at,
      e.personId,
      e.who,
      e.through,
      e.keyId,
      e.operation,
      e.subject,
      e.sampleId,
      e.body,
      e.whole,
      e.request,
      e.undoes,
    ];
    before = createHash('sha256').update(JSON.stringify(said)).digest('hex');
    return before;
  });
  return { worked, told: entries.map(({ seal }) => seal) };
}

it('archives what is older than a day; what is left goes on from there, also a second time', async () => {
  expect(run('--before', '2026-02-01')).toMatchObject({ status: 0, says: 'Nothing of the log is older than that.' });
  expect(existsSync(join(folder, 'log', 'unfinished'))).toBe(false);
  const january = [await done('2026-01-03'), await done('2026-01-05'), await done('2026-01-20')];
  const march = [await done('2026-03-02'), await done('2026-03-04')];
  const april = [await done('2026-04-02'), await done('2026-04-03')];
  await request(harness.app).post('/api/samples').send(aSample()).expect(201);
  await sealAll();
  const before = await check();
  expect(before).toMatchObject({ sealed: 8, archived: 0, wrong: [] });

  const first = run('--before', '2026-02-01');
  expect(first.status, first.says).toBe(0);
  const path = join(folder, 'log', '1-3.jsonl');
  expect(first.says).toContain(`3 entries are in ${path}, places 1 to 3`);
  expect(sealsOf(path).told).toEqual(sealsOf(path).worked);
  expect(first.says).toContain(createHash('sha256').update(readFileSync(path)).digest('hex'));
  const left = await idsLeft();
  expect(left.filter((id) => january.includes(id))).toEqual([]);
  expect(left).toEqual(expect.arrayContaining([...march, ...april]));
  expect(await harness.db.select().from(logThings).where(inArray(logThings.entryId, january))).toEqual([]);
  await sealAll();
  expect(await check()).toMatchObject({ sealed: 6, archived: 3, waiting: 0, wrong: [] });
  const told = (await request(harness.app).get('/api/log').expect(200)).body.items[0];
  expect(told).toMatchObject({
    operation: 'archiveLog',
    who: 'The server',
    what: 'Put the older part of the log into an archive',
  });
  expect(((await request(harness.app).get('/api/log/check').expect(200)).body as LogCheck).archived).toBe(3);

  // As after an archive that was cut short while it took out: what lies before its end is no part of the chain any more.
  const { entry, place, seal } = JSON.parse(readFileSync(path, 'utf8').split('\n')[2] ?? '') as {
    readonly entry: typeof logEntries.$inferInsert;
    readonly place: number;
    readonly seal: string;
  };
  await harness.db.insert(logEntries).values({ ...entry, at: new Date(entry.at), sealed: true });
  await harness.db.insert(logSeals).values({ place, seal, entryId: entry.id });
  expect(await check()).toMatchObject({ sealed: 6, archived: 3, wrong: [] });

  const own = join(folder, 'spring.jsonl');
  expect(run('--before', '2026-04-01', own).says).toContain('places 4 to 5');
  expect(await idsLeft()).not.toContain(entry.id);
  await sealAll();
  expect(await check()).toMatchObject({ sealed: 5, archived: 5, wrong: [] });
  expect(run('--check', own).says).toMatch(
    /^Places 4 to 5 are as they were written. They follow the seal [0-9a-f]{64}/,
  );
  // One archive goes on where the other ends.
  expect(run('--check', own).says).toContain(`follow the seal ${sealsOf(path).worked.at(-1)}`);
  expect(run('--before', '2026-04-01', own)).toMatchObject({
    status: 1,
    says: expect.stringContaining('nothing is overwritten'),
  });
});

it('an archive that was changed or cut says where', () => {
  const path = join(folder, 'log', '1-3.jsonl');
  const text = readFileSync(path, 'utf8');
  const copy = join(folder, 'copy.jsonl');
  const says = (changed: string) => {
    writeFileSync(copy, changed);
    return run('--check', copy);
  };
  expect(says(text).status).toBe(0);
  expect(says(text.replace('2026-01-05', '2026-01-06')).says).toContain('Line 3');
  expect(
    says(
      text
        .split('\n')
        .filter((_, at) => at !== 2)
        .join('\n'),
    ).says,
  ).toContain('Line 3 has place 3; 2 comes there.');
  expect(says(text.slice(0, -80)).says).toContain('the file was cut');
  expect(says(text.trim().split('\n').slice(0, -1).join('\n')).says).toContain('no end');
  expect(says('{"format":"else"}').says).toContain('no archive of a log');
  expect(run('--check', join(folder, 'nowhere')).says).toContain('is not there');
});

it('takes out nothing where the chain is broken, and nothing for a day that is none', async () => {
  const rows = await idsLeft();
  const [one] = await harness.db.select().from(logEntries).where(eq(logEntries.body, '{"day":"2026-04-03"}'));
  await harness.db
    .update(logEntries)
    .set({ body: '{}' })
    .where(eq(logEntries.id, one?.id ?? ''));
  const files = readdirSync(join(folder, 'log'));
  const broken = run('--before', '2026-05-01');
  expect(broken.status).toBe(1);
  expect(broken.says).toMatch(/The log is not as it was written: place 7 was changed. Nothing was archived./);
  expect([await idsLeft(), readdirSync(join(folder, 'log'))]).toEqual([rows, files]);
  await harness.db
    .update(logEntries)
    .set({ body: one?.body ?? null })
    .where(eq(logEntries.id, one?.id ?? ''));
  for (const args of [['--before', 'soon'], ['--before', '2999-01-01'], ['--until', '2026-01-01'], []])
    expect(run(...args).status, args.join(' ')).toBe(1);
  expect(existsSync(join(folder, 'log', 'unfinished'))).toBe(false);
});

it('without the entry that tells of it, what is in an archive is missing', async () => {
  const told = await harness.db.select().from(logEntries).where(eq(logEntries.operation, 'archiveLog'));
  await harness.db.delete(logEntries).where(eq(logEntries.operation, 'archiveLog'));
  const { wrong, archived } = await check();
  expect(archived).toBe(0);
  expect(wrong[0]).toEqual({ place: 1, why: 'places 1 to 4 are missing' });
  await harness.db.insert(logEntries).values(told);
  expect((await check()).wrong).toEqual([]);
  // Nor for a seal that is another one.
  const [anchor] = await harness.db.select().from(logSeals).where(eq(logSeals.place, 5));
  await harness.db
    .update(logSeals)
    .set({ seal: 'f'.repeat(64) })
    .where(eq(logSeals.place, 5));
  expect((await check()).wrong.length).toBeGreaterThan(0);
  await harness.db
    .update(logSeals)
    .set({ seal: anchor?.seal ?? '' })
    .where(eq(logSeals.place, 5));
});
