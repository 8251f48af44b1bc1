// When a key was first sent: what is made under it has that moment in its ids, whenever and to whichever copy it is sent again.
import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { requestKeys } from '../db/schema.ts';

/** @param key as a request names it @returns ms */
export async function momentOf(db: Queries, key: string): Promise<number> {
  const digest = createHash('sha256').update(key).digest('hex');
  await db.insert(requestKeys).ignore().values({ digest, at: new Date() });
  const [row] = await db.select({ at: requestKeys.at }).from(requestKeys).where(eq(requestKeys.digest, digest));
  return row?.at.getTime() ?? Date.now();
}
