// Conclusions, and what was issued of them.
import type { ConclusionLine } from '@lastmark/core/conclusion';
import { int, mysqlTable } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { samples } from './shelf.ts';

/** The conclusion of a sample as somebody keeps it. */
export const conclusions = mysqlTable('conclusions', {
  sampleId: ulidColumn('sample_id')
    .primaryKey()
    .references(() => samples.id),
  lines: jsonColumn<ConclusionLine[]>('lines').notNull(),
  version: int('version').notNull().default(1),
  updatedAt: momentColumn('updated_at').notNull(),
});
