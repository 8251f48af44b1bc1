// Files attached to what they show.
import { boolean, index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import { authorColumn, bytesColumn, momentColumn, ulidColumn } from '../columns.ts';
import { readings } from './measured.ts';
import { claims, samples } from './shelf.ts';

/** A file attached to exactly one sample, claim or reading. */
export const attachments = mysqlTable(
  'attachments',
  {
    id: ulidColumn('id').primaryKey(),
    /** The sample it is listed under; for a claim, any unit of its model. */
    sampleId: ulidColumn('sample_id').references(() => samples.id),
    claimId: ulidColumn('claim_id').references(() => claims.id),
    readingId: ulidColumn('reading_id').references(() => readings.id),
    name: varchar('name', { length: 200 }).notNull(),
    type: varchar('type', { length: 60 }).notNull(),
    size: int('size').notNull(),
    sha256: varchar('sha256', { length: 64 }).notNull(),
    thumbnail: bytesColumn('thumbnail'),
    /** What it shows; empty where nobody said. */
    caption: varchar('caption', { length: 200 }).notNull().default(''),
    /** Chosen for the report. */
    inReport: boolean('in_report').notNull().default(false),
    createdAt: momentColumn('created_at').notNull(),
    author: authorColumn(),
  },
  (table) => [
    index('attachments_by_sample').on(table.sampleId),
    index('attachments_by_claim').on(table.claimId),
    index('attachments_by_reading').on(table.readingId),
  ],
);

/** File contents in pieces small enough for any server's packet limit. */
export const attachmentParts = mysqlTable(
  'attachment_parts',
  {
    attachmentId: ulidColumn('attachment_id')
      .notNull()
      .references(() => attachments.id, { onDelete: 'cascade' }),
    part: int('part').notNull(),
    bytes: bytesColumn('bytes').notNull(),
  },
  (table) => [primaryKey({ columns: [table.attachmentId, table.part] })],
);
