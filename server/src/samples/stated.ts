// What people state about how points were taken. Only ever added: the newest about a loading and supply counts.
import type { StatedInput } from '@lastmark/contract';
import type { Stated } from '@lastmark/core/reading';
import { eq } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { setups, statements } from '../db/schema.ts';
import { conflict, refused } from '../http/problem.ts';
import { getSample } from './store.ts';

/** Everything stated about a sample, oldest first. */
export async function listStated(db: Queries, sampleId: string): Promise<Stated[]> {
  const rows = await db
    .select()
    .from(statements)
    .where(eq(statements.sampleId, sampleId))
    .orderBy(statements.statedAt, statements.id);
  return rows.map(({ id, setupId, mains, taken, statedAt }) => ({
    id,
    setupId,
    mains,
    taken,
    statedAt: statedAt.toISOString(),
  }));
}

/** Add a statement. Sending the same id again changes nothing. */
export async function addStated(db: Database, sampleId: string, input: StatedInput): Promise<Stated> {
  return db.transaction(async (tx) => {
    await getSample(tx, sampleId);
    const known = (await listStated(tx, sampleId)).find(({ id }) => id === input.id);
    if (known) return known;
    const [foreign] = await tx.select({ id: statements.id }).from(statements).where(eq(statements.id, input.id));
    if (foreign) throw conflict('Another statement has this id.');
    if (input.setupId) {
      const [setup] = await tx.select({ of: setups.sampleId }).from(setups).where(eq(setups.id, input.setupId));
      if (setup?.of !== sampleId) throw refused('setupId', 'This loading is not there any more. Reload.');
    }
    const statedAt = new Date();
    await tx.insert(statements).values({ ...input, sampleId, statedAt });
    return { ...input, statedAt: statedAt.toISOString() };
  });
}
