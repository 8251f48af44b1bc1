// What was measured. Rows are only ever added: a correction is a new row that supersedes.
import type { Capture } from '@lastmark/core/capture';
import type { NameplateClass } from '@lastmark/core/limits';
import type { Run } from '@lastmark/core/proof';
import type { QuantityId } from '@lastmark/core/quantity';
import type { ReadOut } from '@lastmark/core/read-out';
import type { Attached, EvidenceKind, Mains, Output, Place, Taken } from '@lastmark/core/reading';
import { type AnyMySqlColumn, boolean, double, index, int, mysqlTable, unique, varchar } from 'drizzle-orm/mysql-core';
import { authorColumn, jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { devices, instrumentRef, instruments, rigs } from './bench.ts';
import { samples } from './shelf.ts';

/** One way of loading a sample. */
export const setups = mysqlTable(
  'setups',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    name: varchar('name', { length: 80 }).notNull(),
    outputs: jsonColumn<readonly Output[]>('outputs').notNull(),
    evidence: varchar('evidence', { length: 12 }).$type<EvidenceKind>().notNull(),
    purpose: varchar('purpose', { length: 12 }).$type<'efficiency' | 'proof'>().notNull().default('efficiency'),
    rigId: ulidColumn('rig_id')
      .notNull()
      .references(() => rigs.id),
    nameplateClass: varchar('nameplate_class', { length: 20 }).$type<NameplateClass>(),
    classReason: varchar('class_reason', { length: 300 }),
    version: int('version').notNull().default(1),
  },
  (table) => [index('setups_by_sample').on(table.sampleId)],
);

/** The conditions readings of one moment share. */
export const points = mysqlTable(
  'points',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    setupId: ulidColumn('setup_id').references(() => setups.id),
    mains: jsonColumn<Mains>('mains').notNull(),
    load: double('load_fraction').notNull(),
    attached: varchar('attached', { length: 20 }).$type<Attached>().notNull(),
    evidence: varchar('evidence', { length: 12 }).$type<EvidenceKind>().notNull(),
    rigId: ulidColumn('rig_id')
      .notNull()
      .references(() => rigs.id),
    override: varchar('override_reason', { length: 300 }),
    taken: jsonColumn<Taken>('taken'),
    /** The file it was taken from; its id stays when the file is removed. */
    fileId: ulidColumn('file_id'),
    takenAt: momentColumn('taken_at').notNull(),
  },
  (table) => [index('points_by_sample').on(table.sampleId, table.takenAt), index('points_by_file').on(table.fileId)],
);

/** What someone stated about how points were taken that carry no record of their own; only ever added. */
export const statements = mysqlTable(
  'statements',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    setupId: ulidColumn('setup_id').references(() => setups.id),
    mains: jsonColumn<Mains>('mains').notNull(),
    taken: jsonColumn<Taken>('taken').notNull(),
    statedAt: momentColumn('stated_at').notNull(),
    author: authorColumn(),
  },
  (table) => [index('statements_by_sample').on(table.sampleId)],
);

export const readings = mysqlTable(
  'readings',
  {
    id: ulidColumn('id').primaryKey(),
    pointId: ulidColumn('point_id')
      .notNull()
      .references(() => points.id),
    quantity: varchar('quantity', { length: 20 }).$type<QuantityId>().notNull(),
    place: varchar('place', { length: 12 }).$type<Place>().notNull(),
    port: varchar('port', { length: 24 }),
    /** SI; null strikes out the reading it supersedes. */
    value: double('value'),
    /** Standard uncertainty, SI; null where the accuracy of what read it is not stated. */
    u: double('u'),
    count: int('sample_count').notNull(),
    spread: double('spread').notNull(),
    typed: varchar('typed', { length: 60 }).notNull(),
    instrumentId: ulidColumn('instrument_id').references(() => instruments.id),
    takenAt: momentColumn('taken_at').notNull(),
    source: varchar('source', { length: 260 }).notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => readings.id),
    enteredAt: momentColumn('entered_at').notNull(),
    /** Its instrument's calibration was overdue when it was taken. */
    overdue: boolean('overdue').notNull().default(false),
    /** Why it corrects the one before; said once. */
    because: varchar('because', { length: 200 }),
    author: authorColumn(),
  },
  (table) => [index('readings_by_point').on(table.pointId), unique('one_correction').on(table.supersedes)],
);

/** What a port said it offers; only ever added, a correction supersedes. */
export const readOuts = mysqlTable(
  'read_outs',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    port: varchar('port', { length: 24 }).notNull(),
    instrumentId: instrumentRef('instrument_id'),
    body: jsonColumn<Omit<ReadOut, 'id' | 'port' | 'instrumentId' | 'takenAt' | 'supersedes'>>('body').notNull(),
    takenAt: momentColumn('taken_at').notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => readOuts.id),
    enteredAt: momentColumn('entered_at').notNull(),
    author: authorColumn(),
  },
  (table) => [
    index('read_outs_by_sample').on(table.sampleId, table.takenAt),
    unique('one_read_out').on(table.supersedes),
  ],
);

/** Things recorded against time, with the figures that follow. Only ever added; the raw samples are a trace of the same id. */
export const captures = mysqlTable(
  'captures',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    body: jsonColumn<Capture>('body').notNull(),
    /** What was charged; null for other kinds. */
    deviceId: ulidColumn('device_id').references(() => devices.id),
    /** The idle point it made; null for other kinds. */
    pointId: ulidColumn('point_id').references(() => points.id),
    takenAt: momentColumn('taken_at').notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => captures.id),
    enteredAt: momentColumn('entered_at').notNull(),
    author: authorColumn(),
  },
  (table) => [
    index('captures_by_sample').on(table.sampleId, table.takenAt),
    unique('one_capture').on(table.supersedes),
  ],
);

/** Runs that take time: a device, a hold, a moved level, a search over the rating. Only ever added. */
export const runs = mysqlTable(
  'runs',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    rigId: ulidColumn('rig_id')
      .notNull()
      .references(() => rigs.id),
    deviceId: ulidColumn('device_id').references(() => devices.id),
    body: jsonColumn<Run>('body').notNull(),
    takenAt: momentColumn('taken_at').notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => runs.id),
    enteredAt: momentColumn('entered_at').notNull(),
    author: authorColumn(),
  },
  (table) => [index('runs_by_sample').on(table.sampleId, table.takenAt), unique('one_run').on(table.supersedes)],
);
