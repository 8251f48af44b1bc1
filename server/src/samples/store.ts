// Samples: a unit together with its model, written as one.
import type { Sample, SampleInput, UnitInput } from '@lastmark/contract';
import { and, eq } from 'drizzle-orm';
import { changedOfModel } from '../changes/changes.ts';
import { requirePlace } from '../collections/store.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { figures, models, samples } from '../db/schema.ts';
import { notFound } from '../http/problem.ts';
import { requireMatch } from '../http/versions.ts';
import { seen } from '../seen/seen.ts';

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
    .where(and(eq(samples.id, id), seen()));
  const [row] = lock ? await query.for('update') : await query;
  if (!row) throw notFound('sample');
  return row;
}

/** One sample. @throws 404 */
export async function getSample(db: Queries, id: string): Promise<Sample> {
  const row = await rowOf(db, id);
  const units = await db
    .select()
    .from(samples)
    .where(and(eq(samples.modelId, row.model.id), seen()))
    .orderBy(samples.id);
  const { maker, model, kind, facts } = row.model;
  return {
    id,
    modelId: row.model.id,
    tag: tagOf(id),
    etag: etagOfRow(row),
    limits: row.sample.limits,
    collectionId: row.sample.collectionId,
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

/** What a unit is found by. */
const wordsOf = ({ maker, model }: Pick<SampleInput['model'], 'maker' | 'model'>, serial: string, id: string): string =>
  [maker, model, serial, tagOf(id)].join(' ').toLowerCase();

type Model = Pick<typeof models.$inferSelect, 'id' | 'maker' | 'model' | 'kind'>;

async function insertUnit(
  db: Queries,
  model: Model,
  { serial, ...facts }: UnitInput,
  collectionId: string | null,
): Promise<string> {
  const id = newId();
  const now = new Date();
  const found = { words: wordsOf(model, serial, id), kind: model.kind };
  await db
    .insert(samples)
    .values({ id, modelId: model.id, serial, facts, collectionId, ...found, createdAt: now, updatedAt: now });
  await db.insert(figures).values({ sampleId: id, ...NO_FIGURES });
  return id;
}

/** Figures nobody has worked out yet. */
const NO_FIGURES = { shared: -1, form: 0, short: 0, judged: true };

/** What every unit of a model is found by follows the model. */
async function findByModel(tx: Queries, { id, maker, model, kind }: Model): Promise<void> {
  const units = await tx
    .select({ id: samples.id, serial: samples.serial })
    .from(samples)
    .where(eq(samples.modelId, id));
  for (const unit of units)
    await tx
      .update(samples)
      .set({ words: wordsOf({ maker, model }, unit.serial, unit.id), kind })
      .where(eq(samples.id, unit.id));
}

const modelRow = ({ maker, model, kind, ...facts }: SampleInput['model']) => ({ maker, model, kind, facts });

/** Take in a sample of a new model. */
export async function createSample(db: Database, input: SampleInput): Promise<Sample> {
  return db.transaction(async (tx) => {
    const place = await requirePlace(tx, input.collectionId ?? null);
    const modelId = newId();
    await tx.insert(models).values({ id: modelId, ...modelRow(input.model) });
    return getSample(tx, await insertUnit(tx, { id: modelId, ...input.model }, input.unit, place));
  });
}

/** Take in a further unit of the same model, in the same collection. */
export async function createUnit(db: Database, sampleId: string, unit: UnitInput): Promise<Sample> {
  return db.transaction(async (tx) => {
    const { model, sample } = await rowOf(tx, sampleId);
    // Where the one it is made beside is: whoever sees that one sees this one.
    return getSample(tx, await insertUnit(tx, model, unit, sample.collectionId));
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
    await findByModel(tx, { id: row.model.id, ...input.model });
    await changedOfModel(tx, row.model.id, 'model');
    return getSample(tx, id);
  });
}

/** Lock a sample that is to go. @returns its model @throws 404, and 412 when it changed since `seen` */
export async function lockSample(tx: Queries, id: string, seen: string | null): Promise<string> {
  const row = await rowOf(tx, id, true);
  requireMatch(seen, etagOfRow(row), 'sample');
  return row.model.id;
}

/** The model a sample belongs to. @throws 404 */
export const modelIdOf = async (db: Queries, sampleId: string): Promise<string> => (await rowOf(db, sampleId)).model.id;
