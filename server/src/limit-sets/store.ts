// Limit sets: those that ship, and those this bench wrote. Changing one changes judgements, never readings.
import type { LimitSetInput, StoredLimitSet } from '@lastmark/contract';
import { LIMIT_SETS, limitSetProblems } from '@lastmark/core/limits';
import { PROCEDURES } from '@lastmark/core/procedure';
import { eq } from 'drizzle-orm';
import { changedForAll } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { limitSets, profiles } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';

const SHIPPED: readonly StoredLimitSet[] = LIMIT_SETS.map((set) => ({ ...set, builtIn: true, version: 1 }));

/** Every limit set, those that ship first. */
export async function listLimitSets(db: Queries): Promise<StoredLimitSet[]> {
  const rows = await db.select().from(limitSets).orderBy(limitSets.id);
  return [...SHIPPED, ...rows.map(({ id, body, version }) => ({ ...body, id, builtIn: false, version }))];
}

/** @throws 422 with every problem, each with what to do */
function check(input: LimitSetInput): void {
  const problems = limitSetProblems(input);
  if (problems.length > 0) throw refused('formulas', problems.join(' '));
  if (!PROCEDURES.some(({ id }) => id === input.procedureId))
    throw refused('procedureId', `There is no procedure "${input.procedureId}".`);
}

export async function createLimitSet(db: Database, input: LimitSetInput): Promise<StoredLimitSet> {
  check(input);
  const id = newId();
  await db.transaction(async (tx) => {
    await tx.insert(limitSets).values({ id, body: input });
    await changedForAll(tx, 'limitSets');
  });
  return { ...input, id, builtIn: false, version: 1 };
}

async function lockedSet(db: Queries, id: string, seen: string | null): Promise<typeof limitSets.$inferSelect> {
  if (SHIPPED.some((set) => set.id === id))
    throw conflict('This set ships with Lastmark and stays as it is. Copy it, and change the copy.');
  const [row] = await db.select().from(limitSets).where(eq(limitSets.id, id)).for('update');
  if (!row) throw notFound('limit set');
  requireMatch(seen, etagOf(row.version), 'limit set');
  return row;
}

export async function updateLimitSet(
  db: Database,
  id: string,
  input: LimitSetInput,
  seen: string | null,
): Promise<StoredLimitSet> {
  check(input);
  return db.transaction(async (tx) => {
    const { version: before } = await lockedSet(tx, id, seen);
    const version = before + 1;
    await tx.update(limitSets).set({ body: input, version }).where(eq(limitSets.id, id));
    await changedForAll(tx, 'limitSets');
    return { ...input, id, builtIn: false, version };
  });
}

export async function deleteLimitSet(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    await lockedSet(tx, id, seen);
    const choices = await tx.select({ settings: profiles.settings }).from(profiles);
    if (choices.some(({ settings }) => settings.limitSetIds.includes(id)))
      throw conflict('Samples are judged by this set. Stop judging by it first.');
    await tx.delete(limitSets).where(eq(limitSets.id, id));
    await changedForAll(tx, 'limitSets');
  });
}
