// What all copies of the server must know alike and nobody else.
import { createHash, randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { labSecrets } from '../db/schema.ts';

/** What sessions are signed with, and what copies sign with that ask each other. */
export type KeyName = 'sessions' | 'copies';

/** A key of the lab: made once by whichever copy asks first. */
export async function labKey(db: Queries, name: KeyName): Promise<string> {
  await db
    .insert(labSecrets)
    .ignore()
    .values({ name, value: randomBytes(32).toString('hex') });
  const [row] = await db.select().from(labSecrets).where(eq(labSecrets.name, name));
  if (!row) throw new Error('The key of the lab could not be read.');
  return row.value;
}

/** What tells the lab from another on the same machine: nothing its keys could be found from. */
export const labName = async (db: Queries): Promise<string> =>
  createHash('sha256')
    .update(await labKey(db, 'copies'))
    .digest('hex')
    .slice(0, 16);
