// "Switched off by hand" as a stored fact: every server sees it, and what wants to switch a load on compares.
import { sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { loadsOffLatch } from '../db/schema.ts';
import { holdAll } from './asks.ts';

const ROW = 1;

/** Write down that every load was switched off; every run that is on holds, whichever server carries it out. */
export const pressLatch = (db: Database): Promise<void> =>
  db.transaction(async (tx) => {
    await tx
      .insert(loadsOffLatch)
      .values({ id: ROW, offs: 1, at: sql`UTC_TIMESTAMP(3)` })
      .onDuplicateKeyUpdate({ set: { offs: sql`${loadsOffLatch.offs} + 1`, at: sql`UTC_TIMESTAMP(3)` } });
    await holdAll(tx);
  });

/** How often every load was switched off. */
export async function readLatch(db: Queries): Promise<number> {
  const [row] = await db.select({ offs: loadsOffLatch.offs }).from(loadsOffLatch);
  return row?.offs ?? 0;
}
