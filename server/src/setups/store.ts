// Loadings: which outputs, at which level, up to which current.
import type { SetupInput, StoredSetup } from '@lastmark/contract';
import { stepTitle } from '@lastmark/core/proof';
import { type Output, type Setup, sameOutputs } from '@lastmark/core/reading';
import { eq } from 'drizzle-orm';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { captures, points, setups, statements } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { type DossierPart, removedFrom, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

const toSetup = (row: typeof setups.$inferSelect): StoredSetup => ({
  id: row.id,
  name: row.name,
  outputs: row.outputs,
  evidence: row.evidence,
  purpose: row.purpose,
  rigId: row.rigId,
  nameplateClass: row.nameplateClass,
  classReason: row.classReason,
  version: row.version,
});

/** The loadings of a sample in the order they were made. */
export async function listSetups(db: Queries, sampleId: string): Promise<StoredSetup[]> {
  const rows = await db.select().from(setups).where(eq(setups.sampleId, sampleId)).orderBy(setups.id);
  return rows.map(toSetup);
}

function checkOutputs({ outputs }: SetupInput, labels: readonly string[]): void {
  const ports = outputs.map(({ port }) => port);
  const unknown = ports.find((port) => !labels.includes(port));
  if (unknown !== undefined)
    throw refused('outputs', `There is no port "${unknown}". The ports are ${labels.join(', ') || 'not entered yet'}.`);
  if (new Set(ports).size !== ports.length) throw refused('outputs', 'A loading names each port once.');
}

async function portLabels(db: Queries, sampleId: string): Promise<string[]> {
  return (await getSample(db, sampleId)).model.ports.map(({ label }) => label);
}

export async function createSetup(db: Database, sampleId: string, input: SetupInput): Promise<StoredSetup> {
  return db.transaction(async (tx) => {
    checkOutputs(input, await portLabels(tx, sampleId));
    const id = newId();
    await tx.insert(setups).values({ id, sampleId, ...input });
    await changed(tx, sampleId, 'setups');
    return { id, ...input, version: 1 };
  });
}

/**
 * The loading of exactly these outputs with this rig: the one there is, else a new one. Call it inside a transaction that
 * holds the sample, so that two people do not make it twice.
 */
export async function loadingFor(
  db: Queries,
  sampleId: string,
  outputs: readonly Output[],
  rigId: string,
  purpose: Setup['purpose'],
): Promise<StoredSetup> {
  const known = (await listSetups(db, sampleId)).find(
    (setup) => setup.purpose === purpose && setup.rigId === rigId && sameOutputs(setup.outputs, outputs),
  );
  if (known) return known;
  const input: SetupInput = {
    name: stepTitle({ outputs, load: 1 }).slice(0, 80),
    purpose,
    outputs: [...outputs],
    evidence: 'load',
    rigId,
    nameplateClass: null,
  };
  checkOutputs(input, await portLabels(db, sampleId));
  const id = newId();
  await db.insert(setups).values({ id, sampleId, ...input });
  await changed(db, sampleId, 'setups');
  return { id, ...input, version: 1 };
}

async function lockedSetup(db: Queries, id: string, seen: string | null): Promise<typeof setups.$inferSelect> {
  const [row] = await db.select().from(setups).where(eq(setups.id, id)).for('update');
  if (!row) throw notFound('loading');
  requireMatch(seen, etagOf(row.version), 'loading');
  return row;
}

const hasReadings = async (db: Queries, setupId: string): Promise<boolean> =>
  (await db.select({ id: points.id }).from(points).where(eq(points.setupId, setupId)).limit(1)).length > 0;

/** Change a loading. Once it has readings its outputs and evidence stay, or the readings would mean something else. */
export async function updateSetup(
  db: Database,
  id: string,
  input: SetupInput,
  seen: string | null,
): Promise<StoredSetup> {
  return db.transaction(async (tx) => {
    const row = await lockedSetup(tx, id, seen);
    checkOutputs(input, await portLabels(tx, row.sampleId));
    const same = JSON.stringify(row.outputs) === JSON.stringify(input.outputs) && row.evidence === input.evidence;
    if (!same && (await hasReadings(tx, id))) {
      throw conflict(
        'Readings were taken with this loading, so its outputs and evidence stay. Add another loading instead.',
      );
    }
    const version = row.version + 1;
    await tx
      .update(setups)
      .set({ ...input, version })
      .where(eq(setups.id, id));
    await changed(tx, row.sampleId, 'setups');
    return { id, ...input, version };
  });
}

export async function deleteSetup(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    const row = await lockedSetup(tx, id, seen);
    if (await hasReadings(tx, id))
      throw conflict('Readings were taken with this loading. Nothing measured is ever deleted.');
    const own = await tx.select({ body: captures.body }).from(captures).where(eq(captures.sampleId, row.sampleId));
    if (own.some(({ body }) => body.setupId === id))
      throw conflict('Captures were taken with this loading. Nothing measured is ever deleted.');
    await tx.delete(statements).where(eq(statements.setupId, id));
    await tx.delete(setups).where(eq(setups.id, id));
    await changed(tx, row.sampleId, 'setups');
  });
}

export const setupsPart: DossierPart<'setups'> = {
  key: 'setups',
  load: (db, { sampleId }) => listSetups(db, sampleId),
  have: samplesIn(setups),
  remove: removedFrom(setups),
};
