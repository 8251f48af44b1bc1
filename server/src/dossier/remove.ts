// Removes a sample on which nothing was measured.
import { eq } from 'drizzle-orm';
import type { Database } from '../db/database.ts';
import { models, revisions, samples } from '../db/schema.ts';
import { conflict } from '../http/problem.ts';
import { lockSample } from '../samples/store.ts';
import { SAMPLE_PARTS } from './parts.ts';

/** Remove a sample; its model goes with its last unit. @throws 409 with what there is to lose */
export async function deleteSample(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    const modelId = await lockSample(tx, id, seen);
    for (const part of SAMPLE_PARTS) {
      const why = (await part.keeps?.(tx, id)) ?? null;
      if (why !== null) throw conflict(why);
    }
    const last = [...SAMPLE_PARTS].reverse();
    for (const part of last) await part.remove?.(tx, id);
    await tx.delete(revisions).where(eq(revisions.owner, id));
    await tx.delete(samples).where(eq(samples.id, id));
    const [other] = await tx.select({ id: samples.id }).from(samples).where(eq(samples.modelId, modelId)).limit(1);
    if (other) return;
    for (const part of last) await part.removeOfModel?.(tx, modelId);
    await tx.delete(revisions).where(eq(revisions.owner, modelId));
    await tx.delete(models).where(eq(models.id, modelId));
  });
}
