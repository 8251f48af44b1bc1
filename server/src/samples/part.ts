// What hangs on a sample, each kind of it looked after by its own folder.
import type { SampleDossier } from '@lastmark/contract';
import { eq, inArray } from 'drizzle-orm';
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { PartName } from '../changes/changes.ts';
import type { Queries } from '../db/database.ts';

/** Whose it is. */
export interface SampleRef {
  readonly sampleId: string;
  readonly modelId: string;
}

/** Something kept about a sample. */
export interface SamplePart {
  /** Why a sample that has some of it stays; null when there is none. */
  keeps?(db: Queries, sampleId: string): Promise<string | null>;
  /** Goes with the sample. */
  remove?(tx: Queries, sampleId: string): Promise<unknown>;
  /** Goes with the last unit of the model. */
  removeOfModel?(tx: Queries, modelId: string): Promise<unknown>;
}

/** Something a sample is judged by. */
export interface DossierPart<K extends keyof SampleDossier & PartName = keyof SampleDossier & PartName>
  extends SamplePart {
  readonly key: K;
  load(db: Queries, of: SampleRef): Promise<SampleDossier[K]>;
  /**
   * Which of some samples have any of it, so that many are loaded without asking each for what it has not; or what they have,
   * where that is little.
   */
  have(db: Queries, of: readonly SampleRef[]): Promise<ReadonlySet<string> | ReadonlyMap<string, SampleDossier[K]>>;
}

type OfSample = MySqlTable & { readonly id: AnyMySqlColumn; readonly sampleId: AnyMySqlColumn };

/** Keeps a sample from being deleted as long as it has rows there. @param what "Readings were taken on" */
export const keptIn =
  (table: OfSample, what: string): NonNullable<SamplePart['keeps']> =>
  async (db, sampleId) => {
    const [row] = await db.select({ id: table.id }).from(table).where(eq(table.sampleId, sampleId)).limit(1);
    return row ? `${what} this sample. Nothing measured is ever deleted.` : null;
  };

/** Samples that have rows there. */
export const samplesIn =
  (table: OfSample): ((db: Queries, of: readonly SampleRef[]) => Promise<ReadonlySet<string>>) =>
  async (db, of) => {
    const ids = of.map(({ sampleId }) => sampleId);
    const rows = await db.selectDistinct({ id: table.sampleId }).from(table).where(inArray(table.sampleId, ids));
    return new Set(rows.map(({ id }) => String(id)));
  };

/** Rows that go with the sample. */
export const removedFrom =
  (table: OfSample): NonNullable<SamplePart['remove']> =>
  (tx, sampleId) =>
    tx.delete(table).where(eq(table.sampleId, sampleId));
