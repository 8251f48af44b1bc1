// Methods a bench wrote itself, version by version; those that ship are not here. A version is never changed.
import type { MethodBody } from '@lastmark/core/plan';
import { boolean, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn, ulidColumn } from '../columns.ts';

export const methods = mysqlTable('methods', {
  id: ulidColumn('id').primaryKey(),
  /** The newest. */
  version: int('version').notNull().default(1),
  retired: boolean('retired').notNull().default(false),
});

export const methodVersions = mysqlTable(
  'method_versions',
  {
    methodId: ulidColumn('method_id')
      .notNull()
      .references(() => methods.id),
    version: int('version').notNull(),
    body: jsonColumn<MethodBody>('body').notNull(),
    note: varchar('note', { length: 400 }).notNull(),
    createdAt: momentColumn('created_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.methodId, table.version] })],
);
