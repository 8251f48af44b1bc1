// Long series: what they are, and their samples in pieces.
import type { KeptChannel, TraceFacts } from '@lastmark/core/trace';
import { boolean, double, index, int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core';
import { bytesColumn, jsonColumn, momentColumn, ulidColumn } from '../columns.ts';

/** Long series against time. Their samples are written first; a trace nothing names is swept. */
export const traces = mysqlTable(
  'traces',
  {
    id: ulidColumn('id').primaryKey(),
    samples: int('samples').notNull(),
    /** s between samples; the usual pause where they are uneven. */
    interval: double('interval_s').notNull(),
    /** Times are kept too: they are uneven. */
    timed: boolean('timed').notNull(),
    /** s since 1970 of the first sample, where the file says it. */
    began: double('began'),
    channels: jsonColumn<readonly KeptChannel[]>('channels').notNull(),
    facts: jsonColumn<TraceFacts>('facts').notNull(),
    /** Something refers to it. */
    named: boolean('named').notNull(),
    startedAt: momentColumn('started_at').notNull(),
  },
  (table) => [index('traces_to_sweep').on(table.named, table.startedAt)],
);

/** Samples of one channel, or a level above them, deflated, in pieces small enough for any server's packet limit. */
export const tracePieces = mysqlTable(
  'trace_pieces',
  {
    traceId: ulidColumn('trace_id').notNull(),
    /** Its place among the channels; −1 for the times. */
    channel: int('channel').notNull(),
    /** Samples in each stretch; 1 for the samples themselves. */
    stretch: int('stretch').notNull(),
    part: int('part').notNull(),
    bytes: bytesColumn('bytes').notNull(),
  },
  (table) => [primaryKey({ columns: [table.traceId, table.channel, table.stretch, table.part] })],
);
