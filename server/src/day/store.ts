// Bench days: what is to be done on a day, and by whom; one day is one row everybody shares.
import type { BenchDay, BenchDayBody } from '@lastmark/contract';
import { desc, eq } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { benchDays } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';

const HOUR = 3600;
/** Where there was no day yet. */
const USUAL: BenchDayBody = {
  from: 8 * HOUR,
  setUp: 600,
  people: [
    {
      title: 'Warden',
      there: [
        { from: 8 * HOUR, to: 12 * HOUR },
        { from: 13 * HOUR, to: 17 * HOUR },
      ],
    },
  ],
  sheets: [],
  pins: [],
};

/** @throws 422 for what is no day */
function checked(day: string): string {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(day) || Number.isNaN(Date.parse(day)))
    throw refused('day', 'This is no day. Write it as 2026-11-30.');
  return day;
}

/** A day as it stands; one nobody planned has the hours of the newest that was, and version 0. */
export async function getBenchDay(db: Queries, asked: string): Promise<BenchDay> {
  const day = checked(asked);
  const [row] = await db.select().from(benchDays).where(eq(benchDays.day, day));
  if (row) return { day, version: row.version, ...row.body };
  const [last] = await db.select().from(benchDays).orderBy(desc(benchDays.updatedAt), desc(benchDays.day)).limit(1);
  const { from, setUp, people } = last?.body ?? USUAL;
  return { day, version: 0, from, setUp, people, sheets: [], pins: [] };
}

/** Keep a day. @throws 412 where somebody else kept it meanwhile */
export async function putBenchDay(
  db: Database,
  asked: string,
  body: BenchDayBody,
  seen: string | null,
): Promise<BenchDay> {
  const day = checked(asked);
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(benchDays).where(eq(benchDays.day, day)).for('update');
    requireMatch(seen, etagOf(row?.version ?? 0), 'day');
    const version = (row?.version ?? 0) + 1;
    const kept = { body, version, updatedAt: new Date() };
    // Two who keep the first version of a day at once: the key lets one in, the other is done anew and told.
    if (row) await tx.update(benchDays).set(kept).where(eq(benchDays.day, day));
    else await tx.insert(benchDays).values({ day, ...kept });
    return { day, version, ...body };
  });
}
