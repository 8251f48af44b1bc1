// Whether the demo's samples stand on the shelf, and putting them away or bringing them back.
import type { DemoState } from '@lastmark/contract';
import { eq, inArray, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { samples } from '../db/schema.ts';
import { conflict } from '../http/problem.ts';
import { seedDemo } from './seed.ts';

/** Whether the demo is there, and whether anything is: an empty bench greets its first user. */
export async function demoState(db: Queries): Promise<DemoState> {
  const rows = await db
    .select({ demo: samples.demo, count: sql<number>`COUNT(*)` })
    .from(samples)
    .groupBy(samples.demo);
  const has = (demo: string) => rows.some((row) => row.demo === demo);
  return { demo: has('shown') ? 'shown' : has('away') ? 'away' : 'none', empty: rows.length === 0 };
}

/** Whether some samples are archived. */
export async function someArchived(db: Queries): Promise<boolean> {
  const [one] = await db.select({ id: samples.id }).from(samples).where(eq(samples.archived, true)).limit(1);
  return one !== undefined;
}

/** Whether some samples are put away. */
export async function someAway(db: Queries): Promise<boolean> {
  const [one] = await db.select({ id: samples.id }).from(samples).where(eq(samples.demo, 'away')).limit(1);
  return one !== undefined;
}

/**
 * Show the demo, or put it away: nothing of it is deleted. An empty bench is filled with it.
 * @throws 409 where somebody's own work stands and no demo was ever there
 */
export async function showDemo(db: Database, shown: boolean): Promise<DemoState> {
  const before = await demoState(db);
  if (before.demo === 'none') {
    if (!shown) throw conflict('There is no demo to put away.');
    if (!(await seedDemo(db))) throw conflict('This bench is in use: the demo only fills an empty one.');
    return demoState(db);
  }
  await db
    .update(samples)
    .set({ demo: shown ? 'shown' : 'away' })
    .where(inArray(samples.demo, ['shown', 'away']));
  return demoState(db);
}
