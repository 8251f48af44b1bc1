// How often somebody may guess: counted in the database, so that it holds for all copies of the server together.
import { and, count, eq, gt, lt } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { signInTries } from '../db/schema.ts';
import { ProblemError } from '../http/problem.ts';

const WINDOW_SECONDS = 900;
/** Tries within the window: of one name from one address, of one name from anywhere, from one address of any name. */
export const MOST_HERE = 10;
export const MOST_OF_NAME = 40;
export const MOST_FROM_ADDRESS = 80;

const since = (): Date => new Date(Date.now() - WINDOW_SECONDS * 1000);

/**
 * Count a try before it is looked at, so that a hundred at once are a hundred.
 * @throws 429 when there were too many; it says nothing about whether the name exists
 */
export async function countTry(db: Queries, account: string, address: string): Promise<void> {
  const [who, where] = [account.toLowerCase().slice(0, 120), address.slice(0, 64)];
  await db.insert(signInTries).values({ id: newId(), account: who, address: where, at: new Date() });
  const recent = gt(signInTries.at, since());
  const [here, anywhere, anybody] = await Promise.all(
    [
      and(eq(signInTries.account, who), eq(signInTries.address, where), recent),
      and(eq(signInTries.account, who), recent),
      and(eq(signInTries.address, where), recent),
    ].map(async (which) => (await db.select({ tries: count() }).from(signInTries).where(which))[0]?.tries ?? 0),
  );
  if ((here ?? 0) > MOST_HERE || (anywhere ?? 0) > MOST_OF_NAME || (anybody ?? 0) > MOST_FROM_ADDRESS)
    throw new ProblemError(
      429,
      'Too many tries',
      'Too many wrong tries. Wait a quarter of an hour, or ask an admin for a link to choose a password anew.',
      { again: WINDOW_SECONDS },
    );
}

/** Whoever came in had a reason to try: their tries from there count no more, and old ones are swept out. */
export async function forgetTries(db: Queries, account: string, address: string): Promise<void> {
  await db
    .delete(signInTries)
    .where(
      and(eq(signInTries.account, account.toLowerCase().slice(0, 120)), eq(signInTries.address, address.slice(0, 64))),
    );
  await db.delete(signInTries).where(lt(signInTries.at, since()));
}
