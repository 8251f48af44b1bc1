// What is taken in: models, their units, what their labels promise.
import type { ModelInput, UnitInput } from '@lastmark/contract';
import type { ClaimDuration, Promised } from '@lastmark/core/claim';
import type { Limits } from '@lastmark/core/plan';
import type { SampleKind } from '@lastmark/core/verdict';
import { boolean, index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn, ulidColumn } from '../columns.ts';

/** What all units of a model share. `facts` holds the rest of the intake as one document. */
export const models = mysqlTable(
  'models',
  {
    id: ulidColumn('id').primaryKey(),
    maker: varchar('maker', { length: 80 }).notNull(),
    model: varchar('model', { length: 120 }).notNull(),
    kind: varchar('kind', { length: 12 }).$type<SampleKind>().notNull(),
    facts: jsonColumn<Omit<ModelInput, 'maker' | 'model' | 'kind'>>('facts').notNull(),
    version: int('version').notNull().default(1),
  },
  (table) => [index('models_by_name').on(table.maker, table.model), index('models_by_kind').on(table.kind)],
);

/** Samples only some may see: guests those they are named for, the lab all whose embargo is over. */
export const collections = mysqlTable('collections', {
  id: ulidColumn('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  /** Until when only those named see it; null for never. */
  embargo: momentColumn('embargo'),
  version: int('version').notNull().default(1),
});

/** Who is named. */
export const collectionPeople = mysqlTable(
  'collection_people',
  {
    collectionId: ulidColumn('collection_id')
      .notNull()
      .references(() => collections.id),
    personId: ulidColumn('person_id').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.collectionId, table.personId] }),
    index('collection_people_by_person').on(table.personId),
  ],
);

/** One unit on the bench. */
export const samples = mysqlTable(
  'samples',
  {
    id: ulidColumn('id').primaryKey(),
    modelId: ulidColumn('model_id')
      .notNull()
      .references(() => models.id),
    serial: varchar('serial', { length: 80 }).notNull(),
    facts: jsonColumn<Omit<UnitInput, 'serial'>>('facts').notNull(),
    /** What it is found by on the shelf, small letters: maker, model, serial, tag. Its kind is the model's. */
    words: varchar('words', { length: 320 }).notNull().default(''),
    kind: varchar('kind', { length: 12 }).$type<SampleKind>().notNull().default('wall'),
    /** Counts what made its figures out of date, so that figures worked out meanwhile are told from current ones. */
    changes: int('changes').notNull().default(0),
    /** Something changed since its figures were worked out. */
    stale: boolean('stale').notNull().default(true),
    /** Of the demo: there to look at, or put away; empty for a real one. */
    demo: varchar('demo', { length: 5 }).$type<'' | 'shown' | 'away'>().notNull().default(''),
    /** What somebody files it under, and whether it is put by. */
    labels: jsonColumn<string[]>('labels'),
    archived: boolean('archived').notNull().default(false),
    /** Whose it is to see; null for the lab's own. */
    collectionId: ulidColumn('collection_id').references(() => collections.id),
    /** Limits of its own at which loads go off. */
    limits: jsonColumn<Limits>('limits'),
    version: int('version').notNull().default(1),
    createdAt: momentColumn('created_at').notNull(),
    updatedAt: momentColumn('updated_at').notNull(),
  },
  (table) => [
    index('samples_by_model').on(table.modelId),
    index('samples_by_update').on(table.updatedAt, table.id, table.words, table.kind),
    index('samples_by_words').on(table.words),
    index('samples_by_stale').on(table.stale),
    index('samples_by_demo').on(table.demo),
    index('samples_by_archived').on(table.archived),
    index('samples_by_collection').on(table.collectionId),
  ],
);

export const claims = mysqlTable(
  'claims',
  {
    id: ulidColumn('id').primaryKey(),
    modelId: ulidColumn('model_id')
      .notNull()
      .references(() => models.id),
    promise: jsonColumn<Promised>('promise').notNull(),
    duration: jsonColumn<ClaimDuration>('duration').notNull(),
    printed: varchar('printed', { length: 120 }).notNull(),
    version: int('version').notNull().default(1),
    /** When it was removed; it counts no more, and can be brought back. */
    removedAt: momentColumn('removed_at'),
  },
  (table) => [index('claims_by_model').on(table.modelId)],
);
