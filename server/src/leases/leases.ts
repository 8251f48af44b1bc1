// Which instrument belongs to which run.
import type { Lease, StoredInstrument } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { leases, sheetRuns } from '../db/schema.ts';
import { conflict } from '../http/problem.ts';
import { unseenAmong } from '../seen/seen.ts';

/** The run an instrument belongs to now; undefined when it is free. */
export const leaseOf = async (db: Queries, instrumentId: string): Promise<Lease | undefined> =>
  (await listLeases(db)).find((one) => one.instrumentId === instrumentId);

/** Refuse to touch an instrument that a run holds. @param to what was wanted: "set it" @throws 409 with whose it is */
export async function requireFree(db: Queries, instrument: Pick<StoredInstrument, 'id' | 'name'>, to: string) {
  const lease = await leaseOf(db, instrument.id);
  if (lease)
    throw conflict(
      `"${instrument.name}" belongs to ${lease.person}'s run "${lease.title}". Its console reads along; to ${to}, stop the run.`,
    );
}

/** Who has which instrument now. */
export async function listLeases(db: Queries): Promise<Lease[]> {
  return db
    .select({
      instrumentId: leases.instrumentId,
      runId: leases.runId,
      person: sheetRuns.person,
      title: sheetRuns.title,
    })
    .from(leases)
    .innerJoin(sheetRuns, eq(leases.runId, sheetRuns.id));
}

/** The same for whoever asks: of a run they do not see only that there is one. */
export async function listSeenLeases(db: Queries): Promise<Lease[]> {
  const rows = await db
    .select({ runId: leases.runId, sampleId: sheetRuns.sampleId })
    .from(leases)
    .innerJoin(sheetRuns, eq(leases.runId, sheetRuns.id));
  const unseen = await unseenAmong(
    db,
    rows.map(({ sampleId }) => sampleId),
  );
  const hidden = new Set(rows.filter(({ sampleId }) => unseen.includes(sampleId)).map(({ runId }) => runId));
  return (await listLeases(db)).map((one) => (hidden.has(one.runId) ? { ...one, title: 'a run you do not see' } : one));
}

export const release = (db: Queries, runId: string) => db.delete(leases).where(eq(leases.runId, runId));
