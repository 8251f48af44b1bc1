// Choices and rules that hold for every sample.
import type { LimitSet } from '@lastmark/core/limits';
import type { FilePlan } from '@lastmark/core/meter-file';
import type { Profile } from '@lastmark/core/verdict';
import { int, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn, ulidColumn } from '../columns.ts';

/** Limit sets a bench wrote itself; those that ship are not here. */
export const limitSets = mysqlTable('limit_sets', {
  id: ulidColumn('id').primaryKey(),
  body: jsonColumn<Omit<LimitSet, 'id'>>('body').notNull(),
  version: int('version').notNull().default(1),
});

/** How the columns of a meter's files were mapped last time. */
export const columnMaps = mysqlTable('column_maps', {
  headerHash: varchar('header_hash', { length: 64 }).primaryKey(),
  headerKey: varchar('header_key', { length: 2000 }).notNull(),
  plan: jsonColumn<FilePlan>('plan').notNull(),
  usedAt: momentColumn('used_at').notNull(),
});

/** The choices of method; one row so far. */
export const profiles = mysqlTable('profiles', {
  id: varchar('id', { length: 26 }).primaryKey(),
  settings: jsonColumn<Profile>('settings').notNull(),
  version: int('version').notNull().default(1),
});
