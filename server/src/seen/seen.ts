// Conditions of queries: only samples that whoever asks may see.
import { and, eq, inArray, isNull, not, notInArray, or, type SQL, type SQLWrapper, sql } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { collectionPeople, people, samples } from '../db/schema.ts';
import { type Scope, scopeNow } from '../who/scope.ts';

/** Samples in a scope. */
export function inside({ rest, but }: Scope): SQL {
  const { collectionId } = samples;
  const named = but.length > 0 ? inArray(collectionId, [...but]) : sql`FALSE`;
  if (!rest) return named;
  return but.length > 0 ? (or(isNull(collectionId), notInArray(collectionId, [...but])) as SQL) : sql`TRUE`;
}

/** Of `samples` in a query: those that are seen; undefined where all are. */
export function seen(): SQL | undefined {
  const scope = scopeNow();
  return scope === null ? undefined : inside(scope);
}

/** Of a column that names a sample: those of samples that are seen; undefined where all are. */
export function ofSeen(db: Queries, column: SQLWrapper): SQL | undefined {
  const scope = scopeNow();
  if (scope === null) return undefined;
  const found = db.select({ id: samples.id }).from(samples).where(inside(scope));
  return sql`${column} IN (${found})`;
}

/** The same as text, for queries written out. @param alias what `samples` is called there */
export function seenText(alias: string): { readonly text: string; readonly values: readonly string[] } {
  const scope = scopeNow();
  if (scope === null || (scope.rest && scope.but.length === 0)) return { text: 'TRUE', values: [] };
  if (scope.but.length === 0) return { text: 'FALSE', values: [] };
  const listed = `${alias}.collection_id IN (${scope.but.map(() => '?').join(', ')})`;
  return {
    text: scope.rest ? `(${alias}.collection_id IS NULL OR NOT ${listed})` : listed,
    values: scope.but,
  };
}

/**
 * Of `people` in a query: those whoever asks may know of. A guest knows the lab, and whoever is named for the same
 * collections; that another maker has something here too is nobody's business.
 */
export function knownPeople(db: Queries): SQL | undefined {
  const scope = scopeNow();
  if (scope === null || scope.rest) return undefined;
  const named = db
    .select({ id: collectionPeople.personId })
    .from(collectionPeople)
    .where(scope.but.length > 0 ? inArray(collectionPeople.collectionId, [...scope.but]) : sql`FALSE`);
  return or(eq(people.guest, false), inArray(people.id, named));
}

/** Of some ids, those of samples that are there and not seen. */
export async function unseenAmong(db: Queries, ids: readonly string[]): Promise<string[]> {
  const scope = scopeNow();
  if (scope === null || ids.length === 0) return [];
  // A sample in no collection makes the condition unknown, not false.
  const rows = await db
    .select({ id: samples.id })
    .from(samples)
    .where(and(inArray(samples.id, [...ids]), not(sql`COALESCE(${inside(scope)}, FALSE)`)));
  return rows.map(({ id }) => id);
}
