// Run sheets and their runs.
import type { Ask, Progress, RunSample, RunState, StepOutcome } from '@lastmark/contract';
import type { Condition, SheetStep } from '@lastmark/core/plan';
import { boolean, index, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { authorColumn, jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { instruments, rigs } from './bench.ts';
import { samples } from './shelf.ts';

/** Run sheets: what to do with a sample, step by step. */
export const runSheets = mysqlTable(
  'run_sheets',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    methodId: varchar('method_id', { length: 40 }).notNull(),
    /** Null for sheets of before methods had versions. */
    methodVersion: int('method_version'),
    rigId: ulidColumn('rig_id')
      .notNull()
      .references(() => rigs.id),
    title: varchar('title', { length: 120 }).notNull(),
    steps: jsonColumn<SheetStep[]>('steps').notNull(),
    /** What a run does by itself; null for sheets of before there was any. */
    conditions: jsonColumn<Condition[]>('conditions'),
    version: int('version').notNull().default(1),
    createdAt: momentColumn('created_at').notNull(),
  },
  (table) => [index('run_sheets_by_sample').on(table.sampleId)],
);

/** A run of a sheet. Its row is all there is to know: any server can show it, and take it up again. */
export const sheetRuns = mysqlTable(
  'sheet_runs',
  {
    id: ulidColumn('id').primaryKey(),
    sheetId: ulidColumn('sheet_id')
      .notNull()
      .references(() => runSheets.id),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    rigId: ulidColumn('rig_id')
      .notNull()
      .references(() => rigs.id),
    title: varchar('title', { length: 120 }).notNull(),
    person: varchar('person', { length: 60 }).notNull(),
    state: varchar('state', { length: 12 }).$type<RunState>().notNull(),
    says: varchar('says', { length: 600 }).notNull(),
    stepId: varchar('step_id', { length: 26 }),
    /** The steps as they were when it started, and those it added itself. */
    steps: jsonColumn<SheetStep[]>('steps').notNull(),
    conditions: jsonColumn<Condition[]>('conditions'),
    outcomes: jsonColumn<Record<string, StepOutcome>>('outcomes').notNull(),
    progress: jsonColumn<Progress>('progress'),
    watched: boolean('watched').notNull(),
    /** Someone was at the console. */
    hereAt: momentColumn('here_at').notNull(),
    /** The server that carries it out was alive, by the database's own clock. */
    aliveAt: momentColumn('alive_at').notNull(),
    /** Counts up with every server that takes the run over; what writes names the epoch it began in. */
    epoch: int('epoch').notNull().default(0),
    /** The server that carries it out. */
    owner: varchar('owner', { length: 40 }),
    startedAt: momentColumn('started_at').notNull(),
    endedAt: momentColumn('ended_at'),
    author: authorColumn(),
  },
  (table) => [index('sheet_runs_by_sheet').on(table.sheetId), index('sheet_runs_by_state').on(table.state)],
);

/** What people asked of a run, in order. Kept as its log. */
export const runAsks = mysqlTable(
  'run_asks',
  {
    id: ulidColumn('id').primaryKey(),
    runId: ulidColumn('run_id')
      .notNull()
      .references(() => sheetRuns.id),
    body: jsonColumn<Ask>('body').notNull(),
    askedAt: momentColumn('asked_at').notNull(),
    /** When the run acted on it; null while it has not. */
    doneAt: momentColumn('done_at'),
  },
  (table) => [index('run_asks_by_run').on(table.runId, table.doneAt)],
);

/** What the instruments told during a run, in parts of half a second at most. */
export const runParts = mysqlTable(
  'run_parts',
  {
    id: ulidColumn('id').primaryKey(),
    runId: ulidColumn('run_id')
      .notNull()
      .references(() => sheetRuns.id),
    stepId: varchar('step_id', { length: 26 }).notNull(),
    body: jsonColumn<RunSample[]>('body').notNull(),
  },
  (table) => [index('run_parts_by_step').on(table.runId, table.stepId)],
);

/** One run owns its instruments. The key makes sure it is one. */
export const leases = mysqlTable('leases', {
  instrumentId: ulidColumn('instrument_id')
    .primaryKey()
    .references(() => instruments.id),
  runId: ulidColumn('run_id')
    .notNull()
    .references(() => sheetRuns.id),
});

/** Loads a person switched on at the console, and the server that looks after them. */
export const consoleLoads = mysqlTable('console_loads', {
  instrumentId: ulidColumn('instrument_id')
    .primaryKey()
    .references(() => instruments.id),
  owner: varchar('owner', { length: 40 }).notNull(),
  aliveAt: momentColumn('alive_at').notNull(),
});

/** How often every load was switched off by hand: one row, seen by every server. */
export const loadsOffLatch = mysqlTable('loads_off_latch', {
  id: int('id').primaryKey(),
  offs: int('offs').notNull(),
  at: momentColumn('at').notNull(),
});

/** Copies of the server there are: which bench each stands beside, and where others reach it. */
export const copies = mysqlTable('copies', {
  owner: varchar('owner', { length: 40 }).primaryKey(),
  bench: varchar('bench', { length: 40 }).notNull(),
  url: varchar('url', { length: 240 }).notNull(),
  /** By the database's clock. */
  aliveAt: momentColumn('alive_at').notNull(),
});
