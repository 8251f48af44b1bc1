// Samples: a unit together with its model, written as one.
import type { Sample, SampleInput, UnitInput } from '@lastmark/contract';
import { eq, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import {
  attachments,
  captures,
  claims,
  models,
  points,
  readOuts,
  runSheets,
  runs,
  samples,
  setups,
  sheetRuns,
  statements,
} from '../db/schema.ts';
import { conflict, notFound } from '../http/problem.ts';
import { requireMatch } from '../http/versions.ts';

const TAG_LENGTH = 6;

/** Short tag of a sample for label and bench. */
export const tagOf = (id: string): string => id.slice(-TAG_LENGTH);

interface StoredRow {
  readonly sample: typeof samples.$inferSelect;
  readonly model: typeof models.$inferSelect;
}

const etagOfRow = ({ sample, model }: StoredRow): string => `"m${model.version}-u${sample.version}"`;

async function rowOf(db: Queries, id: string, lock = false): Promise<StoredRow> {
  const query = db
    .select({ sample: samples, model: models })
    .from(samples)
    .innerJoin(models, eq(samples.modelId, models.id))
    .where(eq(samples.id, id));
  const [row] = lock ? await query.for('update') : await query;
  if (!row) throw notFound('sample');
  return row;
}

/** One sample. @throws 404 */
export async function getSample(db: Queries, id: string): Promise<Sample> {
  const row = await rowOf(db, id);
  const units = await db.select().from(samples).where(eq(samples.modelId, row.model.id)).orderBy(samples.id);
  const { maker, model, kind, facts } = row.model;
  return {
    id,
    modelId: row.model.id,
    tag: tagOf(id),
    etag: etagOfRow(row),
    limits: row.sample.limits,
    createdAt: row.sample.createdAt.toISOString(),
    updatedAt: row.sample.updatedAt.toISOString(),
    model: { maker, model, kind, ...facts },
    unit: { serial: row.sample.serial, ...row.sample.facts },
    units: units.map((unit) => ({
      id: unit.id,
      tag: tagOf(unit.id),
      serial: unit.serial,
      revision: unit.facts.revision,
    })),
  };
}

async function insertUnit(db: Queries, modelId: string, { serial, ...facts }: UnitInput): Promise<string> {
  const id = newId();
  const now = new Date();
  await db.insert(samples).values({ id, modelId, serial, facts, createdAt: now, updatedAt: now });
  return id;
}

const modelRow = ({ maker, model, kind, ...facts }: SampleInput['model']) => ({ maker, model, kind, facts });

/** Take in a sample of a new model. */
export async function createSample(db: Database, input: SampleInput): Promise<Sample> {
  return db.transaction(async (tx) => {
    const modelId = newId();
    await tx.insert(models).values({ id: modelId, ...modelRow(input.model) });
    return getSample(tx, await insertUnit(tx, modelId, input.unit));
  });
}

/** Take in a further unit of the same model. */
export async function createUnit(db: Database, sampleId: string, unit: UnitInput): Promise<Sample> {
  return db.transaction(async (tx) => {
    const { model } = await rowOf(tx, sampleId);
    return getSample(tx, await insertUnit(tx, model.id, unit));
  });
}

/** Change model and unit together. @throws 412 when either changed since `seen` */
export async function updateSample(db: Database, id: string, input: SampleInput, seen: string | null): Promise<Sample> {
  return db.transaction(async (tx) => {
    const row = await rowOf(tx, id, true);
    requireMatch(seen, etagOfRow(row), 'sample');
    const { serial, ...facts } = input.unit;
    await tx
      .update(models)
      .set({ ...modelRow(input.model), version: row.model.version + 1 })
      .where(eq(models.id, row.model.id));
    await tx
      .update(samples)
      .set({ serial, facts, version: row.sample.version + 1, updatedAt: new Date() })
      .where(eq(samples.id, id));
    await forgetFiguresOfModel(tx, row.model.id);
    return getSample(tx, id);
  });
}

/** Remove a sample nothing was measured on; its model goes with its last unit. @throws 409 when there is something to lose */
export async function deleteSample(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    const row = await rowOf(tx, id, true);
    requireMatch(seen, etagOfRow(row), 'sample');
    const [measured] = await tx.select({ id: points.id }).from(points).where(eq(points.sampleId, id)).limit(1);
    if (measured) throw conflict('Readings were taken on this sample. Nothing measured is ever deleted.');
    const [ran] = await tx.select({ id: sheetRuns.id }).from(sheetRuns).where(eq(sheetRuns.sampleId, id)).limit(1);
    if (ran) throw conflict('A run sheet was run on this sample. Nothing measured is ever deleted.');
    for (const table of [readOuts, runs, captures] as const) {
      const [kept] = await tx.select({ id: table.id }).from(table).where(eq(table.sampleId, id)).limit(1);
      if (kept) throw conflict('Read-outs, runs or captures belong to this sample. Nothing measured is ever deleted.');
    }
    await tx.delete(statements).where(eq(statements.sampleId, id));
    await tx.delete(runSheets).where(eq(runSheets.sampleId, id));
    await tx.delete(attachments).where(eq(attachments.sampleId, id));
    await tx.delete(setups).where(eq(setups.sampleId, id));
    await tx.delete(samples).where(eq(samples.id, id));
    const [other] = await tx.select({ id: samples.id }).from(samples).where(eq(samples.modelId, row.model.id)).limit(1);
    if (other) return;
    await tx.delete(claims).where(eq(claims.modelId, row.model.id));
    await tx.delete(models).where(eq(models.id, row.model.id));
  });
}

/** The model a sample belongs to. @throws 404 */
export const modelIdOf = async (db: Queries, sampleId: string): Promise<string> => (await rowOf(db, sampleId)).model.id;

/** What marks figures as out of date, those being worked out at this moment included. */
const FORGOTTEN = { figures: null, changes: sql`${samples.changes} + 1` };

/** Mark a sample's shelf figures as out of date. Belongs in the transaction of the change. */
export async function forgetFigures(db: Queries, sampleId: string): Promise<void> {
  await db
    .update(samples)
    .set({ ...FORGOTTEN, updatedAt: new Date() })
    .where(eq(samples.id, sampleId));
}

/** The same for every unit of a model. */
export async function forgetFiguresOfModel(db: Queries, modelId: string): Promise<void> {
  await db.update(samples).set(FORGOTTEN).where(eq(samples.modelId, modelId));
}

/** The same for all, after a change of method or instruments. */
export async function forgetAllFigures(db: Queries): Promise<void> {
  await db.update(samples).set(FORGOTTEN);
}
