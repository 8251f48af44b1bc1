// Bench days, by their date.
import type { BenchDayBody } from '@lastmark/contract';
import { int, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn } from '../columns.ts';

export const benchDays = mysqlTable('bench_days', {
  /** ISO date. */
  day: varchar('day', { length: 10 }).primaryKey(),
  body: jsonColumn<BenchDayBody>('body').notNull(),
  version: int('version').notNull(),
  updatedAt: momentColumn('updated_at').notNull(),
});
