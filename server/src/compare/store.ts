// Comparisons somebody keeps: their rule, what they are about, and who stood in them then.

import type { ComparisonBody, StoredComparison } from '@lastmark/contract';
import { formulaOf } from '@lastmark/core/formula';
import { desc, eq } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { comparisons, samples } from '../db/schema.ts';
import { notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { unseenAmong } from '../seen/seen.ts';
import { memberIds } from './set.ts';

const MOST_LISTED = 200;

const toComparison = ({
  id,
  body,
  members,
  version,
  updatedAt,
}: typeof comparisons.$inferSelect): StoredComparison => ({
  ...body,
  id,
  members,
  version,
  updatedAt: updatedAt.toISOString(),
});

/** Whether the demo stands on the shelf. */
async function demoShown(db: Queries): Promise<boolean> {
  const [one] = await db.select({ id: samples.id }).from(samples).where(eq(samples.demo, 'shown')).limit(1);
  return one !== undefined;
}

/** A comparison as whoever asks sees it: without members they do not see. */
async function asSeen(db: Queries, comparison: StoredComparison): Promise<StoredComparison> {
  const unseen = await unseenAmong(db, comparison.members);
  if (unseen.length === 0) return comparison;
  return { ...comparison, members: comparison.members.filter((id) => !unseen.includes(id)) };
}

export async function listComparisons(db: Queries): Promise<StoredComparison[]> {
  const shown = await demoShown(db);
  const rows = await db
    .select()
    .from(comparisons)
    .where(shown ? undefined : eq(comparisons.demo, false))
    .orderBy(desc(comparisons.updatedAt), desc(comparisons.id))
    .limit(MOST_LISTED);
  return Promise.all(rows.map((row) => asSeen(db, toComparison(row))));
}

/** @throws 404 */
export async function getComparison(db: Queries, id: string): Promise<StoredComparison> {
  const [row] = await db.select().from(comparisons).where(eq(comparisons.id, id));
  if (!row) throw notFound('comparison');
  return asSeen(db, toComparison(row));
}

/** What is named stands in it, and formulas can be worked out. */
function check({ own, measures, weights }: ComparisonBody): void {
  own.forEach(({ id, formula }, at) => {
    const told = formulaOf(formula);
    if ('refusal' in told) throw refused(`own[${at}].formula`, told.refusal);
    if (own.findIndex((one) => one.id === id) !== at)
      throw refused(`own[${at}].id`, 'Two own measures have the same name.');
  });
  const named = new Set(own.map(({ id }) => id));
  for (const [list, name] of [
    [measures, 'measures'],
    [weights, 'weights'],
  ] as const)
    list.forEach(({ measure }, at) => {
      if (measure.startsWith('own-') && !named.has(measure))
        throw refused(`${name}[${at}].measure`, 'That own measure is not among them: add its formula first.');
    });
}

/** @param demo who stands in one of the demo; left out for a person's own, whose set is looked up */
export async function createComparison(
  db: Database,
  body: ComparisonBody,
  demo?: readonly string[],
): Promise<StoredComparison> {
  check(body);
  const id = newId();
  const members = [...(demo ?? (await memberIds(db, body.rule)))];
  const row = { id, body, members, demo: demo !== undefined, version: 1, updatedAt: new Date() };
  await db.insert(comparisons).values(row);
  return toComparison(row);
}

async function locked(tx: Queries, id: string, seen: string | null): Promise<typeof comparisons.$inferSelect> {
  const [row] = await tx.select().from(comparisons).where(eq(comparisons.id, id)).for('update');
  if (!row) throw notFound('comparison');
  requireMatch(seen, etagOf(row.version), 'comparison');
  return row;
}

/** @throws 412 when somebody else changed it meanwhile */
export async function updateComparison(
  db: Database,
  id: string,
  body: ComparisonBody,
  seen: string | null,
): Promise<StoredComparison> {
  check(body);
  const members = [...(await memberIds(db, body.rule))];
  return db.transaction(async (tx) => {
    const row = await locked(tx, id, seen);
    const next = { body, members, version: row.version + 1, updatedAt: new Date() };
    await tx.update(comparisons).set(next).where(eq(comparisons.id, id));
    return toComparison({ ...row, ...next });
  });
}

export const deleteComparison = (db: Database, id: string, seen: string | null): Promise<void> =>
  db.transaction(async (tx) => {
    await locked(tx, id, seen);
    await tx.delete(comparisons).where(eq(comparisons.id, id));
  });
