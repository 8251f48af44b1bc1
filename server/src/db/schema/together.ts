// Several at once: who is where, and what they say to each other.
import { index, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { authorColumn, jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { samples } from './shelf.ts';

/** Pages somebody has open now: each says every other second that it is there. */
export const presence = mysqlTable(
  'presence',
  {
    /** Of the page, by its own word. */
    tab: varchar('tab', { length: 40 }).primaryKey(),
    personId: ulidColumn('person_id').notNull(),
    name: varchar('name', { length: 60 }).notNull(),
    sampleId: ulidColumn('sample_id'),
    place: varchar('place', { length: 80 }).notNull(),
    /** By the database's clock. */
    at: momentColumn('at').notNull(),
  },
  (table) => [index('presence_by_time').on(table.at)],
);

/** What somebody says of a sample, a claim, a reading or a report. Only ever added: an answer closes a question. */
export const remarks = mysqlTable(
  'remarks',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id, { onDelete: 'cascade' }),
    about: varchar('about', { length: 8 }).$type<'sample' | 'claim' | 'reading' | 'report'>().notNull(),
    aboutId: ulidColumn('about_id').notNull(),
    kind: varchar('kind', { length: 8 }).$type<'note' | 'question' | 'answer' | 'witness'>().notNull(),
    text: varchar('text', { length: 2000 }).notNull(),
    /** People it is for. */
    mentions: jsonColumn<string[]>('mentions').notNull(),
    /** The question it answers. */
    answers: ulidColumn('answers'),
    who: varchar('who', { length: 80 }).notNull(),
    author: authorColumn(),
    madeAt: momentColumn('made_at').notNull(),
  },
  (table) => [
    index('remarks_by_sample').on(table.sampleId, table.id),
    index('remarks_by_thing').on(table.aboutId),
    index('remarks_by_question').on(table.answers),
    index('remarks_by_kind').on(table.kind, table.id),
  ],
);
