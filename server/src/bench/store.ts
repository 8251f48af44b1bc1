// The bench: instruments and the rigs made of them.
import type { InstrumentInput, RigInput, StoredInstrument, StoredRig } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import { changedForAll } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { instruments, rigs } from '../db/schema.ts';
import { notFound } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { requireFree } from '../leases/leases.ts';
import { benchOfRig } from './rig-bench.ts';

const toInstrument = (row: typeof instruments.$inferSelect): StoredInstrument => ({
  ...row,
  class: row.class as StoredInstrument['class'],
});

const toRig = (row: typeof rigs.$inferSelect): StoredRig => ({
  id: row.id,
  name: row.name,
  meters: {
    mains: row.mainsMeterId,
    outputVolts: row.outputVoltsMeterId,
    outputAmps: row.outputAmpsMeterId,
    loadEnd: row.loadEndMeterId,
  },
  outputPlace: row.outputPlace,
  leadOhms: row.leadOhms,
  leadUOhms: row.leadUOhms,
  elements: [...(row.elements ?? [])],
  drives: row.drives,
  probe: row.probe,
  spots: row.spots,
  note: row.note,
  version: row.version,
});

const rigRow = ({ meters, ...rest }: RigInput) => ({
  ...rest,
  probe: rest.probe ?? null,
  spots: rest.spots ?? null,
  mainsMeterId: meters.mains,
  outputVoltsMeterId: meters.outputVolts,
  outputAmpsMeterId: meters.outputAmps,
  loadEndMeterId: meters.loadEnd,
});

export async function listInstruments(db: Queries): Promise<StoredInstrument[]> {
  return (await db.select().from(instruments).orderBy(instruments.id)).map(toInstrument);
}

export async function listRigs(db: Queries): Promise<StoredRig[]> {
  return (await db.select().from(rigs).orderBy(rigs.id)).map(toRig);
}

/** What may be left out is not stated. */
const whole = (input: InstrumentInput, bench: string) => ({
  ...input,
  bench: input.bench ?? bench,
  ratings: input.ratings ?? null,
  calibratedOn: input.calibratedOn ?? null,
});

/** @param bench where it stands, unless it says otherwise */
export async function createInstrument(db: Database, input: InstrumentInput, bench = ''): Promise<StoredInstrument> {
  const id = newId();
  const row = { id, ...whole(input, bench), version: 1 };
  await db.transaction(async (tx) => {
    await tx.insert(instruments).values(row);
    await changedForAll(tx, 'instruments');
  });
  return row;
}

/** Change an instrument. Readings keep the uncertainty they were accepted with. */
export async function updateInstrument(
  db: Database,
  id: string,
  input: InstrumentInput,
  seen: string | null,
): Promise<StoredInstrument> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(instruments).where(eq(instruments.id, id)).for('update');
    if (!row) throw notFound('instrument');
    requireMatch(seen, etagOf(row.version), 'instrument');
    // A run speaks to it as it was when the run began.
    const next = whole(input, row.bench);
    const moved = (['address', 'profileId', 'class', 'bench'] as const).some((field) => row[field] !== next[field]);
    if (moved) await requireFree(tx, row, 'change how it is reached');
    const version = row.version + 1;
    await tx
      .update(instruments)
      .set({ ...next, version })
      .where(eq(instruments.id, id));
    await changedForAll(tx, 'instruments');
    return { id, ...next, version };
  });
}

export async function createRig(db: Database, input: RigInput): Promise<StoredRig> {
  const id = newId();
  await db.transaction(async (tx) => {
    benchOfRig(input, await listInstruments(tx));
    await tx.insert(rigs).values({ id, ...rigRow(input) });
    await changedForAll(tx, 'rigs');
  });
  return { id, ...input, version: 1 };
}

export async function updateRig(db: Database, id: string, input: RigInput, seen: string | null): Promise<StoredRig> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(rigs).where(eq(rigs.id, id)).for('update');
    if (!row) throw notFound('rig');
    requireMatch(seen, etagOf(row.version), 'rig');
    benchOfRig(input, await listInstruments(tx));
    const version = row.version + 1;
    await tx
      .update(rigs)
      .set({ ...rigRow(input), version })
      .where(eq(rigs.id, id));
    await changedForAll(tx, 'rigs');
    return { id, ...input, version };
  });
}
