// Collections as they are kept, and what of the shelf each person sees by them.
import type { Collection, CollectionInput, InCollection } from '@lastmark/contract';
import { and, asc, count, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { collectionPeople, collections, people, samples } from '../db/schema.ts';
import { conflict, notFound, ProblemError, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { type Scope, scopeNow } from '../who/scope.ts';
import type { Who } from '../who/who.ts';

const MOST = 500;

/**
 * What somebody sees: guests what they are named for; the lab everything but what is under an embargo they are not named
 * for; admins, and whoever sits at a machine of one person, everything.
 */
export async function scopeOf(db: Queries, who: Pick<Who, 'id' | 'role' | 'guest'>): Promise<Scope | null> {
  if (who.id === null || who.role === 'admin') return null;
  const named = db
    .select({ id: collectionPeople.collectionId })
    .from(collectionPeople)
    .where(eq(collectionPeople.personId, who.id));
  if (who.guest) return { rest: false, but: (await named).map(({ id }) => id) };
  const closed = await db
    .select({ id: collections.id })
    .from(collections)
    .where(and(gt(collections.embargo, new Date()), sql`${collections.id} NOT IN (${named})`));
  return closed.length === 0 ? null : { rest: true, but: closed.map(({ id }) => id) };
}

/** Whether a collection is seen here. */
function isSeen(id: string): boolean {
  const scope = scopeNow();
  return scope === null || scope.rest !== scope.but.includes(id);
}

type Row = typeof collections.$inferSelect;

async function toCollections(db: Queries, rows: readonly Row[]): Promise<Collection[]> {
  if (rows.length === 0) return [];
  const ids = rows.map(({ id }) => id);
  const [named, counted] = await Promise.all([
    db.select().from(collectionPeople).where(inArray(collectionPeople.collectionId, ids)),
    db
      .select({ id: samples.collectionId, samples: count() })
      .from(samples)
      .where(inArray(samples.collectionId, ids))
      .groupBy(samples.collectionId),
  ]);
  return rows.map(({ id, name, embargo, version }) => ({
    id,
    name,
    embargo: embargo?.toISOString() ?? null,
    people: named.filter(({ collectionId }) => collectionId === id).map(({ personId }) => personId),
    samples: counted.find((one) => one.id === id)?.samples ?? 0,
    closed: embargo !== null && embargo.getTime() > Date.now(),
    version,
  }));
}

/** Collections whoever asks sees. */
export async function listCollections(db: Queries): Promise<Collection[]> {
  const rows = await db.select().from(collections).orderBy(asc(collections.name), asc(collections.id)).limit(MOST);
  return toCollections(
    db,
    rows.filter(({ id }) => isSeen(id)),
  );
}

async function locked(tx: Queries, id: string, seen: string | null): Promise<Row> {
  const [row] = await tx.select().from(collections).where(eq(collections.id, id)).for('update');
  if (!row) throw notFound('collection');
  requireMatch(seen, etagOf(row.version), 'collection');
  return row;
}

async function keepPeople(tx: Queries, collectionId: string, wanted: readonly string[]): Promise<void> {
  const ids = [...new Set(wanted)];
  const there = ids.length === 0 ? [] : await tx.select({ id: people.id }).from(people).where(inArray(people.id, ids));
  if (there.length < ids.length) throw refused('people', 'Somebody named is not here any more. Choose again.');
  await tx.delete(collectionPeople).where(eq(collectionPeople.collectionId, collectionId));
  if (ids.length > 0) await tx.insert(collectionPeople).values(ids.map((personId) => ({ collectionId, personId })));
}

const momentOf = (embargo: string | null): Date | null => (embargo === null ? null : new Date(embargo));

async function one(tx: Queries, id: string): Promise<Collection> {
  const [found] = await toCollections(tx, await tx.select().from(collections).where(eq(collections.id, id)));
  if (!found) throw notFound('collection');
  return found;
}

export const createCollection = (db: Database, input: CollectionInput): Promise<Collection> =>
  db.transaction(async (tx) => {
    const id = newId();
    await tx.insert(collections).values({ id, name: input.name, embargo: momentOf(input.embargo) });
    await keepPeople(tx, id, input.people);
    return one(tx, id);
  });

/** Change a collection: who sees its samples from now on. @throws 412 where somebody changed it since `seen` */
export const updateCollection = (
  db: Database,
  id: string,
  input: CollectionInput,
  seen: string | null,
): Promise<Collection> =>
  db.transaction(async (tx) => {
    const { version } = await locked(tx, id, seen);
    await tx
      .update(collections)
      .set({ name: input.name, embargo: momentOf(input.embargo), version: version + 1 })
      .where(eq(collections.id, id));
    await keepPeople(tx, id, input.people);
    return one(tx, id);
  });

/** Remove a collection. @throws 409 while samples are in it: they would be seen by all */
export const deleteCollection = (db: Database, id: string, seen: string | null): Promise<void> =>
  db.transaction(async (tx) => {
    await locked(tx, id, seen);
    const [there] = await tx.select({ id: samples.id }).from(samples).where(eq(samples.collectionId, id)).limit(1);
    if (there) throw conflict('Samples are in this collection. Take them out first: then the whole lab sees them.');
    await tx.delete(collectionPeople).where(eq(collectionPeople.collectionId, id));
    await tx.delete(collections).where(eq(collections.id, id));
  });

/** A collection something may be put into. @throws 422 for one that is not there or not seen, 403 for a guest's outside of theirs */
export async function requirePlace(db: Queries, collectionId: string | null): Promise<string | null> {
  if (collectionId === null) {
    if (scopeNow()?.rest === false)
      throw new ProblemError(403, 'Not yours to do', 'Guests put samples into the collections they are named for.');
    return null;
  }
  const [row] = await db.select({ id: collections.id }).from(collections).where(eq(collections.id, collectionId));
  if (!row || !isSeen(collectionId)) throw refused('collectionId', 'There is no such collection. Choose again.');
  return collectionId;
}

/** Put a sample into a collection, or back among the lab's own. */
export const putInCollection = (db: Database, sampleId: string, place: InCollection): Promise<InCollection> =>
  db.transaction(async (tx) => {
    const collectionId = await requirePlace(tx, place.collectionId);
    const [{ affectedRows }] = await tx.update(samples).set({ collectionId }).where(eq(samples.id, sampleId));
    if (affectedRows === 0) throw notFound('sample');
    return { collectionId };
  });
