// The safety look: checks, only ever added.
import type { CheckKind, SafetyCheck } from '@lastmark/core/safety';
import { type AnyMySqlColumn, index, mysqlTable, unique, varchar } from 'drizzle-orm/mysql-core';
import { authorColumn, jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { samples } from './shelf.ts';

export const safetyChecks = mysqlTable(
  'safety_checks',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    kind: varchar('kind', { length: 12 }).$type<CheckKind>().notNull(),
    body: jsonColumn<SafetyCheck>('body').notNull(),
    takenAt: momentColumn('taken_at').notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => safetyChecks.id),
    enteredAt: momentColumn('entered_at').notNull(),
    author: authorColumn(),
  },
  (table) => [
    index('safety_checks_by_sample').on(table.sampleId, table.takenAt),
    unique('one_safety_check').on(table.supersedes),
  ],
);
