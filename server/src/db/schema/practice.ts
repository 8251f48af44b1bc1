// Drills: who practised what, and how it went. What was measured in one is in a database of its own.
import type { DrillStateName } from '@lastmark/contract';
import type { DrillResult, StatedPart } from '@lastmark/core/drill';
import { index, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, momentColumn, ulidColumn } from '../columns.ts';

/** What was drawn, as the simulated bench reads it. */
export interface DrawnDrill {
  readonly chargers: readonly { readonly seed: number; readonly faults?: readonly string[]; readonly name?: string }[];
  readonly cables: readonly { readonly seed: number; readonly faults?: readonly string[]; readonly name?: string }[];
  readonly rig: readonly string[];
}

export const drills = mysqlTable(
  'drills',
  {
    id: ulidColumn('id').primaryKey(),
    person: varchar('person', { length: 60 }).notNull(),
    levelId: varchar('level', { length: 20 }).notNull(),
    seed: int('seed').notNull(),
    state: varchar('state', { length: 12 }).$type<DrillStateName>().notNull(),
    drawn: jsonColumn<DrawnDrill>('drawn').notNull(),
    /** Bench time there is, s. */
    budget: int('budget').notNull(),
    /** A good plan. */
    good: jsonColumn<{ readonly steps: number; readonly seconds: number }>('good').notNull(),
    stated: jsonColumn<StatedPart[]>('stated'),
    result: jsonColumn<DrillResult>('result'),
    /** Its parts as they were, once it is over: the world it was in is gone. */
    parts:
      jsonColumn<
        { readonly id: string; readonly name: string; readonly of: 'charger' | 'cable' | 'rig'; readonly tag: string }[]
      >('parts').notNull(),
    startedAt: momentColumn('started_at').notNull(),
    endedAt: momentColumn('ended_at'),
  },
  (table) => [index('drills_by_state').on(table.state)],
);
