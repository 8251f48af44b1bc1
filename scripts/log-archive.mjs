// npm run log:archive -- --before 2026-01-01 [FILE]: the older part of the log into a file, and out of the database; what stays
// goes on from its last seal. npm run log:archive -- --check FILE: whether an archive is as it was written.
import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, renameSync, rmSync, writeSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { createConnection } from 'mysql2/promise';
import { ulid } from 'ulid';
import { withDatabase } from './lib/current.mjs';
import { ArchiveProblem, checkArchive, headOf, NOTHING, sealOf } from './lib/log-file.mjs';
import { dataFolder } from './lib/paths.mjs';
import { giveUp } from './lib/say.mjs';

const PAGE = 2000;
const USAGE = 'Until when? npm run log:archive -- --before 2026-01-01 [FILE], or --check FILE';

function asked() {
  try {
    const { values, positionals } = parseArgs({
      allowPositionals: true,
      options: { before: { type: 'string' }, check: { type: 'string' } },
    });
    return { ...values, file: positionals[0] };
  } catch {
    return giveUp(USAGE);
  }
}

/** Where the chain in the database begins: after the last archive, or at its first entry. */
async function beginOf(db) {
  const [rows] = await db.query(
    "SELECT body FROM log_entries WHERE operation = 'archiveLog' AND through = 'server' ORDER BY id DESC",
  );
  for (const { body } of rows) {
    const { place, seal } = JSON.parse(body ?? '{}');
    const [[there]] = await db.query('SELECT seal FROM log_seals WHERE place = ?', [place]);
    if (there?.seal === seal) return { place, seal };
  }
  return { place: 0, seal: NOTHING };
}

const entryOf = (row) => ({
  id: row.id,
  at: row.at.toISOString(),
  personId: row.person_id,
  who: row.who,
  through: row.through,
  keyId: row.key_id,
  operation: row.operation,
  subject: row.subject,
  sampleId: row.sample_id,
  body: row.body,
  whole: Boolean(row.whole),
  request: row.request,
  undoes: row.undoes,
});

/** Entries of a page with their places, seals and things. */
async function pageAfter(db, place) {
  const [rows] = await db.query(
    'SELECT s.place, s.seal, s.entry_id, e.* FROM log_seals s LEFT JOIN log_entries e ON e.id = s.entry_id WHERE s.place > ? ORDER BY s.place LIMIT ?',
    [place, PAGE],
  );
  if (rows.length === 0) return [];
  const ids = rows.map((row) => row.entry_id);
  const [things] = await db.query('SELECT entry_id, thing_id FROM log_things WHERE entry_id IN (?)', [ids]);
  const of = new Map();
  for (const { entry_id: id, thing_id: thing } of things) of.set(id, [...(of.get(id) ?? []), thing]);
  return rows.map((row) => ({ row, things: of.get(row.entry_id) ?? [] }));
}

/** Write what is older than a moment. @returns how many entries; nothing is left where there is none, or where the chain is broken */
async function write(db, begin, before, path) {
  const file = openSync(path, 'w', 0o600);
  const say = (one) => writeSync(file, `${JSON.stringify(one)}\n`);
  let { place, seal } = begin;
  try {
    say(headOf(place + 1, seal));
    reading: for (;;) {
      const page = await pageAfter(db, place);
      if (page.length === 0) break;
      for (const { row, things } of page) {
        if (row.place !== place + 1 || row.id === null)
          throw new ArchiveProblem(
            `The log is not as it was written: place ${place + 1} is missing. Nothing was archived.`,
          );
        if (row.at >= before) break reading;
        const entry = entryOf(row);
        const next = sealOf(seal, entry);
        if (next !== row.seal)
          throw new ArchiveProblem(
            `The log is not as it was written: place ${row.place} was changed. Nothing was archived.`,
          );
        place = row.place;
        seal = next;
        say({ place, seal, entry, things });
      }
    }
    say({ last: place, seal, entries: place - begin.place });
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  return place - begin.place;
}

/** Take out of the database what is in an archive, the oldest first; the last seal stays. Cut short, it is gone on with next time. */
async function takeOut(db, last) {
  for (;;) {
    await db.beginTransaction();
    const [rows] = await db.query(
      'SELECT s.place, s.entry_id FROM log_seals s LEFT JOIN log_entries e ON e.id = s.entry_id WHERE s.place < ? OR (s.place = ? AND e.id IS NOT NULL) ORDER BY s.place LIMIT ?',
      [last, last, PAGE],
    );
    if (rows.length > 0) {
      const ids = rows.map((row) => row.entry_id);
      await db.query('DELETE FROM log_things WHERE entry_id IN (?)', [ids]);
      await db.query('DELETE FROM log_entries WHERE id IN (?)', [ids]);
      await db.query('DELETE FROM log_seals WHERE place < ? AND place <= ?', [last, rows.at(-1).place]);
    }
    await db.commit();
    if (rows.length < PAGE) return;
  }
}

async function archive(url, { before: until, file }) {
  const db = await createConnection({ uri: url, timezone: 'Z' });
  try {
    const begin = await beginOf(db);
    // An archive before that was cut short while it took out.
    await takeOut(db, begin.place);
    const folder = join(dataFolder(), 'log');
    const unfinished = file ? `${resolve(file)}.unfinished` : join(folder, 'unfinished');
    mkdirSync(dirname(unfinished), { recursive: true });
    let found;
    try {
      if ((await write(db, begin, until, unfinished)) === 0) {
        rmSync(unfinished, { force: true });
        return 'Nothing of the log is older than that.';
      }
      // Read back before anything is taken out.
      found = await checkArchive(unfinished);
    } catch (error) {
      rmSync(unfinished, { force: true });
      throw error;
    }
    const { first, last, seal, entries, sha256 } = found;
    const path = file ? resolve(file) : join(folder, `${first}-${last}.jsonl`);
    renameSync(unfinished, path);
    const body = JSON.stringify({ place: last, seal, entries, sha256 });
    await db.query(
      "INSERT INTO log_entries (id, at, who, through, operation, body) VALUES (?, UTC_TIMESTAMP(3), 'The server', 'server', 'archiveLog', ?)",
      [ulid(), body],
    );
    await takeOut(db, last);
    return `${entries} entries are in ${path}, places ${first} to ${last}, SHA-256 ${sha256}. Keep it with the backups.`;
  } finally {
    await db.end();
  }
}

async function main() {
  const { before, check, file } = asked();
  if (check !== undefined) {
    if (!existsSync(check)) giveUp(`${check} is not there.`);
    const { first, last, before: seal, seal: end } = await checkArchive(check);
    console.log(
      `Places ${first} to ${last} are as they were written. They follow the seal ${seal} and end with ${end}.`,
    );
    return;
  }
  const until = new Date(before ?? Number.NaN);
  if (!before || Number.isNaN(until.getTime())) giveUp(USAGE);
  if (until > new Date()) giveUp('That is in the future: the whole log would be gone. Name a day before today.');
  if (file && existsSync(resolve(file))) giveUp(`${file} is there already. Name another: nothing is overwritten.`);
  console.log(await withDatabase((url) => archive(url, { before: until, file })));
}

main().catch((error) => giveUp(error instanceof ArchiveProblem ? error.message : String(error.message ?? error)));
