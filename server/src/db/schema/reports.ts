// Conclusions, and what was issued of them. A report is never changed: what changed since is a row of its own.
import type { ReportInput } from '@lastmark/contract';
import type { ConclusionLine, FigureChange, Language } from '@lastmark/core/conclusion';
import type { Fate, LeavableId } from '@lastmark/core/report';
import { type AnyMySqlColumn, index, int, mysqlTable, primaryKey, unique, varchar } from 'drizzle-orm/mysql-core';
import { authorColumn, bytesColumn, jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
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

export const reports = mysqlTable(
  'reports',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    code: varchar('code', { length: 19 }).notNull(),
    /** SHA-256 of what it was made from, and of its PDF. */
    hash: varchar('hash', { length: 64 }).notNull(),
    pdfHash: varchar('pdf_hash', { length: 64 }).notNull(),
    kind: varchar('kind', { length: 12 }).$type<ReportInput['kind']>().notNull(),
    language: varchar('language', { length: 2 }).$type<Language>().notNull(),
    title: varchar('title', { length: 240 }).notNull(),
    person: varchar('person', { length: 80 }).notNull(),
    amends: ulidColumn('amends').references((): AnyMySqlColumn => reports.id),
    reason: varchar('reason', { length: 1000 }).notNull(),
    fate: varchar('fate', { length: 20 }).$type<Fate>(),
    changes: jsonColumn<FigureChange[]>('changes').notNull(),
    /** Sections it leaves out, and the other samples in it; null in reports of before there was a choice. */
    leaves: jsonColumn<LeavableId[]>('leaves'),
    otherSamples: jsonColumn<string[]>('other_samples'),
    size: int('size').notNull(),
    issuedAt: momentColumn('issued_at').notNull(),
    author: authorColumn(),
  },
  (table) => [
    index('reports_by_sample').on(table.sampleId, table.issuedAt),
    index('reports_by_day').on(table.issuedAt),
    unique('one_report_a_code').on(table.code),
    unique('one_amendment').on(table.amends),
  ],
);

/** What a report was made from, and its PDF, in pieces small enough for any server's packet limit. */
export const reportParts = mysqlTable(
  'report_parts',
  {
    reportId: ulidColumn('report_id')
      .notNull()
      .references(() => reports.id),
    what: varchar('what', { length: 8 }).$type<'content' | 'pdf'>().notNull(),
    part: int('part').notNull(),
    bytes: bytesColumn('bytes').notNull(),
  },
  (table) => [primaryKey({ columns: [table.reportId, table.what, table.part] })],
);
