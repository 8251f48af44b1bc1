// What marks something as changed: browsers fetch only the parts that did, and figures are worked out anew. Belongs in the
// transaction of the change.
import { eq, inArray, sql } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { revisions, samples } from '../db/schema.ts';

/** Parts of one sample, of a model, and what all samples are judged with. */
export type SamplePartName = 'setups' | 'points' | 'stated' | 'readOuts' | 'captures' | 'runs' | 'cableRuns' | 'checks';
export type ModelPartName = 'claims' | 'model';
export const SHARED_PARTS = ['devices', 'rigs', 'instruments', 'profile', 'limitSets'] as const;
export type SharedPartName = (typeof SHARED_PARTS)[number];
/** What is no part of a sample's judgement, and counted only so that those who change it come one after the other. */
export type LineName = 'admins';
export type PartName = SamplePartName | ModelPartName | SharedPartName;

/** Owner of what belongs to all samples. */
export const EVERYONE = '0'.repeat(26);

const count = (db: Queries, owner: string, part: PartName | LineName) =>
  db
    .insert(revisions)
    .values({ owner, part, revision: 1 })
    .onDuplicateKeyUpdate({ set: { revision: sql`${revisions.revision} + 1` } });

/** What marks figures as out of date, those being worked out at this moment included. */
export const OUT_OF_DATE = { stale: true, changes: sql`${samples.changes} + 1` };

/** A part of a sample changed. */
export async function changed(tx: Queries, sampleId: string, part: SamplePartName): Promise<void> {
  await tx
    .update(samples)
    .set({ ...OUT_OF_DATE, updatedAt: new Date() })
    .where(eq(samples.id, sampleId));
  await count(tx, sampleId, part);
}

/** A part of a model changed, and with it every unit. */
export async function changedOfModel(tx: Queries, modelId: string, part: ModelPartName): Promise<void> {
  await tx.update(samples).set(OUT_OF_DATE).where(eq(samples.modelId, modelId));
  await count(tx, modelId, part);
}

/** Something changed that all samples are judged with: one row, however many samples there are. */
export async function changedForAll(tx: Queries, part: SharedPartName): Promise<void> {
  await count(tx, EVERYONE, part);
}

/** Have transactions that decide by more rows than they write come one after the other, whichever host they are sent to. */
export const inLine = (tx: Queries, what: LineName) => count(tx, EVERYONE, what);

export type Revisions = Readonly<Partial<Record<PartName, number>>>;

/** How often the parts of some owners were changed; a part that is not named never was. */
export async function revisionsOf(db: Queries, owners: readonly string[]): Promise<Revisions> {
  const rows = await db
    .select({ part: revisions.part, revision: revisions.revision })
    .from(revisions)
    .where(inArray(revisions.owner, [...owners]));
  // Only what is counted here is in the table.
  return Object.fromEntries(rows.map(({ part, revision }) => [part, revision])) as Revisions;
}

/** How often what all samples are judged with was changed. */
export const sharedRevision = (of: Revisions): number => SHARED_PARTS.reduce((sum, part) => sum + (of[part] ?? 0), 0);
