// Limits of one sample at which every load goes off.
import type { Sample } from '@lastmark/contract';
import { type Limits, limitsRefusal } from '@lastmark/core/plan';
import { eq, sql } from 'drizzle-orm';
import { listInstruments } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { samples } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { requireMatch } from '../http/versions.ts';
import { getSample } from './store.ts';

/** Set them; null takes the bench's. @throws 422 for one above what an instrument can take */
export async function setLimits(db: Database, id: string, limits: Limits | null, seen: string | null): Promise<Sample> {
  return db.transaction(async (tx) => {
    await tx.select({ id: samples.id }).from(samples).where(eq(samples.id, id)).for('update');
    requireMatch(seen, (await getSample(tx, id)).etag, 'sample');
    const above = limits && limitsRefusal(limits, await listInstruments(tx));
    if (above) throw refused('limits', above);
    await tx
      .update(samples)
      .set({ limits, version: sql`${samples.version} + 1` })
      .where(eq(samples.id, id));
    return getSample(tx, id);
  });
}
