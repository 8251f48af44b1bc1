// Searches somebody keeps, by title.
import type { SearchInput, StoredSearch } from '@lastmark/contract';
import { count, eq } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { searches } from '../db/schema.ts';
import { conflict, notFound } from '../http/problem.ts';

const MOST = 100;

export async function listSearches(db: Queries): Promise<StoredSearch[]> {
  const rows = await db.select().from(searches).orderBy(searches.title, searches.id).limit(MOST);
  return rows.map(({ id, title, query }) => ({ id, title, query }));
}

/** @throws 409 where there are too many */
export async function createSearch(db: Database, { title, query }: SearchInput): Promise<StoredSearch> {
  const [there] = await db.select({ total: count() }).from(searches);
  if ((there?.total ?? 0) >= MOST) throw conflict(`${MOST} searches are kept already. Remove one first.`);
  const id = newId();
  await db.insert(searches).values({ id, title, query, createdAt: new Date() });
  return { id, title, query };
}

/** @throws 404 */
export async function deleteSearch(db: Database, id: string): Promise<void> {
  const [there] = await db.select({ id: searches.id }).from(searches).where(eq(searches.id, id));
  if (!there) throw notFound('search');
  await db.delete(searches).where(eq(searches.id, id));
}
