// Claims: the promises of a model, one ledger line each.
import type { ClaimInput, RemovedClaim, StoredClaim } from '@lastmark/contract';
import { sharePorts } from '@lastmark/core/claim';
import { groupsBy } from '@lastmark/core/memo';
import { and, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { changedOfModel } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { attachments, claims } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import type { DossierPart } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

/** So many removed ones are shown. */
const MOST_REMOVED = 50;

const toClaim = ({ id, promise, duration, printed, version }: typeof claims.$inferSelect): StoredClaim => ({
  id,
  promise,
  duration,
  printed,
  version,
});

/** The claims of a model in the order they were typed. */
export async function listClaims(db: Queries, modelId: string): Promise<StoredClaim[]> {
  const rows = await db
    .select()
    .from(claims)
    .where(and(eq(claims.modelId, modelId), isNull(claims.removedAt)))
    .orderBy(claims.id);
  return rows.map(toClaim);
}

/** Claims of a sample's model that were removed lately, the last first. */
export async function listRemovedClaims(db: Queries, sampleId: string): Promise<RemovedClaim[]> {
  const { modelId } = await getSample(db, sampleId);
  const rows = await db
    .select()
    .from(claims)
    .where(and(eq(claims.modelId, modelId), isNotNull(claims.removedAt)))
    .orderBy(desc(claims.removedAt), desc(claims.id))
    .limit(MOST_REMOVED);
  return rows.map((row) => ({ ...toClaim(row), removedAt: (row.removedAt as Date).toISOString() }));
}

/**
 * Bring a removed claim back as it was. One that stands stays as it is.
 * @throws 404 for one there never was; 422 where it speaks of a port that is gone meanwhile
 */
export const bringBackClaim = (db: Database, sampleId: string, id: string): Promise<StoredClaim> =>
  db.transaction(async (tx) => {
    const { modelId, model } = await getSample(tx, sampleId);
    const [row] = await tx
      .select()
      .from(claims)
      .where(and(eq(claims.id, id), eq(claims.modelId, modelId)))
      .for('update');
    if (!row) throw notFound('claim');
    if (row.removedAt === null) return toClaim(row);
    checkPorts(
      row,
      model.ports.map(({ label }) => label),
    );
    const version = row.version + 1;
    await tx.update(claims).set({ removedAt: null, version }).where(eq(claims.id, id));
    await changedOfModel(tx, row.modelId, 'claims');
    return toClaim({ ...row, version });
  });

/** A claim may only speak of ports the model has. */
function checkPorts({ promise }: Pick<ClaimInput, 'promise'>, labels: readonly string[]): void {
  const named =
    'port' in promise ? [promise.port] : promise.kind === 'combination' ? promise.shares.flatMap(sharePorts) : [];
  const unknown = named.find((port) => !labels.includes(port));
  if (unknown !== undefined)
    throw refused(
      'promise.port',
      `There is no port "${unknown}". The ports are ${labels.join(', ') || 'not entered yet'}.`,
    );
  if (new Set(named).size !== named.length) throw refused('promise.shares', 'A combination names each port once.');
}

/** Add a claim to the model of a sample. */
export async function createClaim(db: Database, sampleId: string, input: ClaimInput): Promise<StoredClaim> {
  return db.transaction(async (tx) => {
    const sample = await getSample(tx, sampleId);
    checkPorts(
      input,
      sample.model.ports.map(({ label }) => label),
    );
    const id = newId();
    await tx.insert(claims).values({ id, modelId: sample.modelId, ...input });
    await changedOfModel(tx, sample.modelId, 'claims');
    return { id, ...input, version: 1 };
  });
}

async function lockedClaim(db: Queries, id: string, seen: string | null): Promise<typeof claims.$inferSelect> {
  const [row] = await db
    .select()
    .from(claims)
    .where(and(eq(claims.id, id), isNull(claims.removedAt)))
    .for('update');
  if (!row) throw notFound('claim');
  requireMatch(seen, etagOf(row.version), 'claim');
  return row;
}

/** Change a claim. @throws 412 when it changed since `seen` */
export async function updateClaim(
  db: Database,
  id: string,
  input: ClaimInput,
  seen: string | null,
): Promise<StoredClaim> {
  return db.transaction(async (tx) => {
    const row = await lockedClaim(tx, id, seen);
    const version = row.version + 1;
    await tx
      .update(claims)
      .set({ ...input, version })
      .where(eq(claims.id, id));
    await changedOfModel(tx, row.modelId, 'claims');
    return { id, ...input, version };
  });
}

/** Remove a claim; it can be brought back. @throws 409 while files are attached to it */
export async function deleteClaim(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    const row = await lockedClaim(tx, id, seen);
    const [attached] = await tx
      .select({ id: attachments.id })
      .from(attachments)
      .where(eq(attachments.claimId, id))
      .limit(1);
    if (attached) throw conflict('A file is attached to this claim. Detach it first.');
    await tx
      .update(claims)
      .set({ removedAt: new Date(), version: row.version + 1 })
      .where(eq(claims.id, id));
    await changedOfModel(tx, row.modelId, 'claims');
  });
}

export const claimsPart: DossierPart<'claims'> = {
  key: 'claims',
  load: (db, { modelId }) => listClaims(db, modelId),
  // Nearly every sample has some, and they are short.
  have: async (db, of) => {
    const rows = await db
      .select()
      .from(claims)
      .where(
        and(
          inArray(
            claims.modelId,
            of.map(({ modelId }) => modelId),
          ),
          isNull(claims.removedAt),
        ),
      )
      .orderBy(claims.id);
    const byModel = groupsBy(rows, ({ modelId }) => modelId);
    return new Map(of.map(({ sampleId, modelId }) => [sampleId, (byModel.get(modelId) ?? []).map(toClaim)]));
  },
  removeOfModel: (tx, modelId) => tx.delete(claims).where(eq(claims.modelId, modelId)),
};
