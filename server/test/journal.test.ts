// What was done while the database was silent is in the log although the server did not live to see it back.
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { LogPage } from '@lastmark/contract';
import { pino } from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { startMariadb } from '../../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../../scripts/lib/stage.mjs';
import { connect } from '../src/db/database.ts';
import { newId } from '../src/db/ids.ts';
import { migrate } from '../src/db/migrate.ts';
import { logEntries } from '../src/db/schema.ts';
import { Journal } from '../src/log/journal.ts';
import { Spool } from '../src/log/spool.ts';
import { plainDeed } from '../src/log/write.ts';
import { MIGRATIONS } from '../src/paths.ts';
import { MACHINE } from '../src/who/who.ts';

const folder = scratch('journal');
const silent = pino({ level: 'silent' });
let database: { url: string; pid: number; stop: () => Promise<void> };
beforeAll(async () => {
  database = await startMariadb(folder);
});
afterAll(async () => {
  process.kill(database.pid, 'SIGCONT');
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Files of entries that wait, of whichever lab. */
const waiting = (): string[] => {
  const all = join(folder, 'journal');
  if (!existsSync(all)) return [];
  return readdirSync(all).flatMap((lab) => readdirSync(join(all, lab)).map((name) => join(all, lab, name)));
};

it('Loads off pressed while the database hangs is told by the next server, at the time it was pressed', async () => {
  const env = { LASTMARK_DATA: folder };
  const first = await forkServer(database.url, folder, { env });
  process.kill(database.pid, 'SIGSTOP');
  const pressed = Date.now();
  const answer = await fetch(`http://127.0.0.1:${first.port}/api/loads-off`, {
    method: 'POST',
    headers: { Origin: `http://127.0.0.1:${first.port}` },
  });
  expect(answer.ok).toBe(true);
  await expect.poll(() => waiting().filter((path) => readFileSync(path, 'utf8').includes('loadsOff')).length).toBe(1);
  const answered = Date.now();
  first.server.kill('SIGKILL');
  await first.exited;
  process.kill(database.pid, 'SIGCONT');
  const second = await forkServer(database.url, folder, { env });
  const { items } = (await (await fetch(`http://127.0.0.1:${second.port}/api/log`)).json()) as LogPage;
  const told = items.filter(({ operation }) => operation === 'loadsOff');
  expect(told).toHaveLength(1);
  const at = Date.parse(told[0]?.at ?? '');
  expect(at).toBeGreaterThanOrEqual(pressed - 1);
  expect(at).toBeLessThanOrEqual(answered);
  expect(waiting()).toEqual([]);
  second.server.kill('SIGTERM');
  await second.exited;
});

it('what the database takes late is written once, and its file goes; torn lines and files of servers that live are left alone', async () => {
  const url = database.url.replace(/lastmark$/, 'lastmark_journal');
  const admin = connect(database.url);
  await admin.pool.query('CREATE DATABASE lastmark_journal');
  const { db, pool } = connect(url);
  await migrate(pool, MIGRATIONS);
  const own = join(folder, 'own');
  const journal = new Journal(db, silent, new Spool(own));
  const deed = plainDeed(MACHINE, 'loadsOff');
  // Away: the table is another one for a moment.
  await pool.query('RENAME TABLE log_entries TO log_entries_away');
  await journal.keep(deed, []);
  expect(readFileSync(join(own, `${process.pid}.jsonl`), 'utf8')).toContain(deed.id);
  await pool.query('RENAME TABLE log_entries_away TO log_entries');
  await expect.poll(() => existsSync(join(own, `${process.pid}.jsonl`))).toBe(false);
  expect(await db.select({ id: logEntries.id }).from(logEntries)).toEqual([{ id: deed.id }]);
  await journal.close();

  const left = { deed: plainDeed(MACHINE, 'loadsOff', { subject: newId() }), made: [], at: '2026-03-01T08:00:00.000Z' };
  mkdirSync(own, { recursive: true });
  // No process has such a number: above what Linux gives.
  writeFileSync(
    join(own, '4194305.jsonl'),
    `${JSON.stringify(left)}\n${JSON.stringify({ deed, made: [], at: left.at })}\n{"deed":{"id":"01`,
  );
  writeFileSync(join(own, `${process.ppid}.jsonl`), 'of somebody who lives');
  writeFileSync(join(own, 'notes.txt'), 'not ours');
  await new Journal(db, silent, new Spool(own)).takeUp();
  const rows = await db.select({ id: logEntries.id, at: logEntries.at }).from(logEntries);
  expect(rows.map(({ id }) => id).sort()).toEqual([deed.id, left.deed.id].sort());
  expect(rows.find(({ id }) => id === left.deed.id)?.at).toEqual(new Date(left.at));
  expect(readdirSync(own).sort()).toEqual([`${process.ppid}.jsonl`, 'notes.txt'].sort());
  await pool.end();
  await admin.pool.end();
});
