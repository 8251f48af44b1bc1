// What samples are compared by, and comparisons somebody keeps.
import type { ComparisonBody } from '@lastmark/contract';
import { boolean, double, index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { samples } from './shelf.ts';

/** Values of measures, made with the figures of their sample and from the same. */
export const measures = mysqlTable(
  'measures',
  {
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id, { onDelete: 'cascade' }),
    measure: varchar('measure', { length: 30 }).notNull(),
    condition: varchar('condition_words', { length: 160 }).notNull(),
    value: double('value').notNull(),
    /** Standard uncertainty; null while not known. */
    u: double('u'),
    common: double('common').notNull(),
    meters: varchar('meters', { length: 200 }).notNull(),
    at: varchar('at', { length: 24 }),
    below: boolean('below').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.sampleId, table.measure, table.condition] }),
    index('measures_by_condition').on(table.measure, table.condition),
  ],
);

export const comparisons = mysqlTable('comparisons', {
  id: ulidColumn('id').primaryKey(),
  body: jsonColumn<ComparisonBody>('body').notNull(),
  /** Who stood in it when it was kept, so that it can say that the shelf has grown. */
  members: jsonColumn<string[]>('members').notNull(),
  /** Of the demo, or a person's own. */
  demo: boolean('demo').notNull().default(false),
  version: int('version').notNull().default(1),
  updatedAt: momentColumn('updated_at').notNull(),
});
