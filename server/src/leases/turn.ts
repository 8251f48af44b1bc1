// Work that one server does for all: whose turn it is stands in the database, and ends by itself when that one is gone.
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../db/database.ts';
import { turns } from '../db/schema.ts';

/** How long a turn lasts unless it is taken again, s by the database's clock. */
const TURN_SECONDS = 20;

/** Take a turn, or take it again. @returns false while another server has it */
export async function takeTurn(db: Database, what: string, owner: string): Promise<boolean> {
  const until = sql`UTC_TIMESTAMP(3) + INTERVAL ${sql.raw(String(TURN_SECONDS))} SECOND`;
  const over = sql`${turns.until} < UTC_TIMESTAMP(3)`;
  await db
    .insert(turns)
    .values({ what, owner, until })
    .onDuplicateKeyUpdate({
      set: {
        // Columns are set in their order: first whose turn it is, and for that one how long.
        owner: sql`IF(${over}, ${owner}, ${turns.owner})`,
        until: sql`IF(${turns.owner} = ${owner}, ${until}, ${turns.until})`,
      },
    });
  const [row] = await db.select({ owner: turns.owner }).from(turns).where(eq(turns.what, what));
  return row?.owner === owner;
}
