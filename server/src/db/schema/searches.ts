// Searches of the shelf somebody keeps.
import { mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { momentColumn, ulidColumn } from '../columns.ts';

export const searches = mysqlTable('searches', {
  id: ulidColumn('id').primaryKey(),
  title: varchar('title', { length: 60 }).notNull(),
  /** As the address of the shelf has it: `q=pellwick&kind=wall`. */
  query: varchar('query', { length: 300 }).notNull(),
  createdAt: momentColumn('created_at').notNull(),
});
