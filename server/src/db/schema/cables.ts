// What was done with things that sit in the line, and trials. Runs are only ever added.
import type { CableRun } from '@lastmark/core/cable';
import type { Trial, TrialRun } from '@lastmark/core/trial';
import { type AnyMySqlColumn, index, int, mysqlTable, unique, varchar } from 'drizzle-orm/mysql-core';
import { authorColumn, jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { rigs } from './bench.ts';
import { samples } from './shelf.ts';

/** Drops, copies, bends. */
export const cableRuns = mysqlTable(
  'cable_runs',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    kind: varchar('kind', { length: 12 }).$type<CableRun['kind']>().notNull(),
    /** Whose meters read it; null for what no meter reads. */
    rigId: ulidColumn('rig_id').references(() => rigs.id),
    body: jsonColumn<CableRun>('body').notNull(),
    takenAt: momentColumn('taken_at').notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => cableRuns.id),
    enteredAt: momentColumn('entered_at').notNull(),
    author: authorColumn(),
  },
  (table) => [
    index('cable_runs_by_sample').on(table.sampleId, table.takenAt),
    unique('one_cable_run').on(table.supersedes),
  ],
);

/** A trial as it was planned. */
export const trials = mysqlTable('trials', {
  id: ulidColumn('id').primaryKey(),
  body: jsonColumn<Trial>('body').notNull(),
  /** Which of the arms stands behind each letter. */
  letters: jsonColumn<number[]>('letters').notNull(),
  revealedAt: momentColumn('revealed_at'),
  keyOpenedAt: momentColumn('key_opened_at'),
  version: int('version').notNull().default(1),
  createdAt: momentColumn('created_at').notNull(),
});

/** Samples a trial compares: for what is known of a sample, and what keeps it. */
export const trialSamples = mysqlTable(
  'trial_samples',
  {
    id: ulidColumn('id').primaryKey(),
    trialId: ulidColumn('trial_id')
      .notNull()
      .references(() => trials.id),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
  },
  (table) => [
    unique('one_sample_a_trial').on(table.trialId, table.sampleId),
    index('trials_by_sample').on(table.sampleId),
  ],
);

export const trialRuns = mysqlTable(
  'trial_runs',
  {
    id: ulidColumn('id').primaryKey(),
    trialId: ulidColumn('trial_id')
      .notNull()
      .references(() => trials.id),
    body: jsonColumn<TrialRun>('body').notNull(),
    takenAt: momentColumn('taken_at').notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => trialRuns.id),
    enteredAt: momentColumn('entered_at').notNull(),
    author: authorColumn(),
  },
  (table) => [
    index('trial_runs_by_trial').on(table.trialId, table.takenAt),
    unique('one_trial_run').on(table.supersedes),
  ],
);
