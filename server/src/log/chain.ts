// The chain of the log: every entry gets a place and a seal made of itself and the seal before. Whoever changes, removes or
// slips in an entry afterwards breaks it from there on.
import { createHash } from 'node:crypto';
import type { LogCheck } from '@lastmark/contract';
import { and, asc, count, desc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import type { Database } from '../db/database.ts';
import { logEntries, logSeals } from '../db/schema.ts';

type Entry = typeof logEntries.$inferSelect;

/** Seal before the first. */
const NOTHING = '0'.repeat(64);
const BATCH = 200;
const PAGE = 2000;
/** Most breaks that are told one by one. */
const MOST_TOLD = 20;

/**
 * The seal of an entry: SHA-256 over the seal before it and everything the entry says, as a JSON list.
 * @param before seal of the entry before, hex
 */
export function sealOf(before: string, entry: Omit<Entry, 'sealed'>): string {
  const { id, at, personId, who, through, keyId, operation, subject, sampleId, body, whole, request, undoes } = entry;
  const said = [before, id, at.toISOString(), personId, who, through, keyId, operation, subject, sampleId, body, whole];
  return createHash('sha256')
    .update(JSON.stringify([...said, request, undoes]))
    .digest('hex');
}

/** Chain some of the entries that are in no chain yet, the oldest first. @returns how many */
export async function sealSome(db: Database): Promise<number> {
  return db.transaction(async (tx) => {
    const entries = await tx
      .select()
      .from(logEntries)
      .where(eq(logEntries.sealed, false))
      .orderBy(asc(logEntries.id))
      .limit(BATCH);
    if (entries.length === 0) return 0;
    const [last] = await tx.select().from(logSeals).orderBy(desc(logSeals.place)).limit(1);
    let { place, seal } = last ?? { place: 0, seal: NOTHING };
    const seals = entries.map((entry) => {
      place += 1;
      seal = sealOf(seal, entry);
      return { place, entryId: entry.id, seal };
    });
    // Two that seal at once want the same places: one of them is refused, and nothing of it stays.
    await tx.insert(logSeals).values(seals);
    await tx
      .update(logEntries)
      .set({ sealed: true })
      .where(
        inArray(
          logEntries.id,
          entries.map(({ id }) => id),
        ),
      );
    return entries.length;
  });
}

/** The end of the part that is in archives: told by an entry of the chain itself, and still there as a seal; null without one. */
async function archivedIn(db: Database): Promise<{ readonly place: number; readonly seal: string } | null> {
  const told = await db
    .select({ body: logEntries.body })
    .from(logEntries)
    .where(and(eq(logEntries.operation, 'archiveLog'), eq(logEntries.through, 'server')))
    .orderBy(desc(logEntries.id));
  for (const { body } of told) {
    const { place = 0, seal = '' } = JSON.parse(body ?? '{}') as { place?: number; seal?: string };
    const [there] = await db.select({ seal: logSeals.seal }).from(logSeals).where(eq(logSeals.place, place));
    if (there?.seal === seal) return { place, seal };
  }
  return null;
}

/** Go through the whole chain as far as it is in the database. Takes as long as it is: for a worker. */
export async function checkChain(db: Database): Promise<LogCheck> {
  const wrong: LogCheck['wrong'] = [];
  const found = (place: number, why: string) => {
    if (wrong.length < MOST_TOLD) wrong.push({ place, why });
  };
  const archived = await archivedIn(db);
  let before = archived?.seal ?? NOTHING;
  let expected = (archived?.place ?? 0) + 1;
  for (let from = archived?.place ?? 0; ; ) {
    const rows = await db
      .select({ place: logSeals.place, entryId: logSeals.entryId, seal: logSeals.seal, entry: logEntries })
      .from(logSeals)
      .leftJoin(logEntries, eq(logSeals.entryId, logEntries.id))
      .where(gt(logSeals.place, from))
      .orderBy(asc(logSeals.place))
      .limit(PAGE);
    for (const { place, entryId, seal, entry } of rows) {
      if (place !== expected) found(expected, `places ${expected} to ${place - 1} are missing`);
      if (!entry) found(place, `entry ${entryId} is missing`);
      else if (sealOf(before, entry) !== seal) found(place, `entry ${entryId} is not what was sealed`);
      // One break is told once: the next entry is held against the seal that stands.
      before = seal;
      expected = place + 1;
    }
    const last = rows.at(-1);
    if (!last) break;
    from = last.place;
  }
  const [open] = await db
    .select({ entries: count(), stray: sql<number>`CAST(COALESCE(SUM(${logEntries.sealed}), 0) AS SIGNED)` })
    .from(logEntries)
    .leftJoin(logSeals, eq(logSeals.entryId, logEntries.id))
    .where(isNull(logSeals.place));
  if (open && Number(open.stray) > 0) found(expected, `${open.stray} sealed entries have no place in the chain`);
  const out = archived?.place ?? 0;
  return {
    sealed: expected - 1 - out,
    archived: out,
    waiting: (open?.entries ?? 0) - Number(open?.stray ?? 0),
    head: before,
    wrong,
  };
}
