// What marks something as changed, so that what follows from it is worked out anew. Belongs in the transaction of the change.
import { eq, sql } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { samples } from '../db/schema.ts';

/** What marks figures as out of date, those being worked out at this moment included. */
const FORGOTTEN = { figures: null, changes: sql`${samples.changes} + 1` };

/** Mark a sample's shelf figures as out of date. Belongs in the transaction of the change. */
export async function forgetFigures(db: Queries, sampleId: string): Promise<void> {
  await db
    .update(samples)
    .set({ ...FORGOTTEN, updatedAt: new Date() })
    .where(eq(samples.id, sampleId));
}

/** The same for every unit of a model. */
export async function forgetFiguresOfModel(db: Queries, modelId: string): Promise<void> {
  await db.update(samples).set(FORGOTTEN).where(eq(samples.modelId, modelId));
}

/** The same for all, after a change of method or instruments. */
export async function forgetAllFigures(db: Queries): Promise<void> {
  await db.update(samples).set(FORGOTTEN);
}
