// What people state about how points were taken. Only ever added: the newest about a loading and supply counts.
import type { StatedInput } from '@lastmark/contract';
import type { Stated } from '@lastmark/core/reading';
import { eq } from 'drizzle-orm';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { setups, statements } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { type DossierPart, removedFrom, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

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
    const ways = { table: statements, what: 'statement', list: listStated };
    const { repeated } = await beforeAdding(tx, sampleId, input, ways);
    if (repeated) return repeated;
    if (input.setupId) {
      const [setup] = await tx.select({ of: setups.sampleId }).from(setups).where(eq(setups.id, input.setupId));
      if (setup?.of !== sampleId) throw refused('setupId', 'This loading is not there any more. Reload.');
    }
    const statedAt = new Date();
    await tx.insert(statements).values({ ...input, sampleId, statedAt });
    await changed(tx, sampleId, 'stated');
    return { ...input, statedAt: statedAt.toISOString() };
  });
}

export const statementsPart: DossierPart<'stated'> = {
  key: 'stated',
  load: (db, { sampleId }) => listStated(db, sampleId),
  have: samplesIn(statements),
  remove: removedFrom(statements),
};
