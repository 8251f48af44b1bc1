// Which bench something is done at: that of the instruments it speaks to.
import { eq } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { instruments, rigs } from '../db/schema.ts';
import { benchOfRig } from './rig-bench.ts';
import { listInstruments, listRigs } from './store.ts';

/** The bench of an instrument; null for one there is not, or that is not spoken to. */
export async function benchOfInstrument(db: Queries, id: string): Promise<string | null> {
  const [row] = await db
    .select({ bench: instruments.bench, address: instruments.address })
    .from(instruments)
    .where(eq(instruments.id, id));
  return row && row.address !== null ? row.bench : null;
}

/** The bench of a rig that is kept; null for one there is not. */
export async function benchOfRigId(db: Queries, id: string): Promise<string | null> {
  const [row] = await db.select({ id: rigs.id }).from(rigs).where(eq(rigs.id, id));
  const rig = row && (await listRigs(db)).find((one) => one.id === id);
  return rig ? benchOfRig(rig, await listInstruments(db)) : null;
}
