// What has changed how often, and the figures that follow from it.
import type { KeyFigures } from '@lastmark/core/verdict';
import { boolean, double, index, int, mysqlTable, primaryKey, text, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn, ulidColumn } from '../columns.ts';
import { samples } from './shelf.ts';

/** How often a part of what is known was changed. No row: never. */
export const revisions = mysqlTable(
  'revisions',
  {
    /** A sample, a model, or everything there is. */
    owner: ulidColumn('owner').notNull(),
    part: varchar('part', { length: 24 }).notNull(),
    revision: int('revision').notNull(),
  },
  (table) => [primaryKey({ columns: [table.owner, table.part] })],
);

/** Key figures of samples, as the shelf shows and sorts them, with what they were made from. */
export const figures = mysqlTable(
  'figures',
  {
    sampleId: ulidColumn('sample_id')
      .primaryKey()
      .references(() => samples.id, { onDelete: 'cascade' }),
    /** The whole of them; null when something in the sample cannot be worked out. */
    body: jsonColumn<KeyFigures>('body'),
    /** How often what all samples are judged with had been changed. */
    shared: int('shared').notNull(),
    form: int('form').notNull(),
    watts: double('watts'),
    efficiency: double('efficiency'),
    idle: double('idle'),
    massPerWatt: double('mass_per_watt'),
    /** Claims that are short: the worst first. */
    short: int('short_claims').notNull(),
    /** Claims nothing has settled yet, and those of them that are borderline. */
    open: int('open_claims').notNull().default(0),
    borderline: int('borderline_claims').notNull().default(0),
    judged: boolean('judged').notNull(),
    /** Number of ports, the day it was first paid for, and how many values of measures there are. */
    ports: int('ports').notNull().default(0),
    since: varchar('since', { length: 10 }),
    measured: int('measured').notNull().default(0),
    /** Revision and date code: what units are grouped by. */
    unitGroup: varchar('unit_group', { length: 160 }).notNull().default(''),
    /** What it is found by beside its name: notes, claims, own words, reports, labels. */
    words: text('words'),
  },
  (table) => [
    index('figures_by_shared').on(table.shared),
    index('figures_by_form').on(table.form),
    index('figures_by_watts').on(table.watts),
    index('figures_by_efficiency').on(table.efficiency),
    index('figures_by_idle').on(table.idle),
    index('figures_by_mass').on(table.massPerWatt),
    index('figures_by_short').on(table.short),
    index('figures_by_open').on(table.open),
    index('figures_by_borderline').on(table.borderline),
  ],
);

/** Work one server does for all, for as long as it says so. */
export const turns = mysqlTable('turns', {
  what: varchar('what', { length: 40 }).primaryKey(),
  owner: varchar('owner', { length: 40 }).notNull(),
  /** By the database's clock. */
  until: momentColumn('until_at').notNull(),
});

/** Marks of transactions, each in the one it is of: whether one was committed whose answer never came. */
export const commits = mysqlTable(
  'commits',
  {
    id: ulidColumn('id').primaryKey(),
    /** By the database's clock. */
    at: momentColumn('at').notNull(),
  },
  (table) => [index('commits_by_time').on(table.at)],
);

/** Keys requests were sent under, and when first. */
export const requestKeys = mysqlTable(
  'request_keys',
  {
    /** SHA-256 of the key. */
    digest: varchar('digest', { length: 64 }).primaryKey(),
    at: momentColumn('at').notNull(),
  },
  (table) => [index('request_keys_by_time').on(table.at)],
);
