// What one looks at in the morning: what runs, what is next, what is overdue, what was left borderline.

import type { SampleName, Today } from '@lastmark/contract';
import { and, desc, eq, gt, inArray, isNull, ne } from 'drizzle-orm';
import { listInstruments } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { figures, models, reports, samples, sheetRuns } from '../db/schema.ts';
import { tagOf } from '../samples/store.ts';
import { ofSeen, seen, seenText } from '../seen/seen.ts';
import { nextOf } from './next.ts';

const MOST = 30;
/** Samples that are looked at for what is next. */
const LOOKED_AT = 8;
/** Calibrations and loans are told so long before, days. */
const SOON = 30;
/** A report is followed up after so long, days. */
const FOLLOW_UP = 180;
const DAY = 86_400_000;

const daysUntil = (day: string, today: string): number => Math.round((Date.parse(day) - Date.parse(today)) / DAY);

/** Names of samples on the shelf, by id; archived ones and a demo that is put away are left out. */
async function namesOf(db: Database, ids: readonly string[]): Promise<ReadonlyMap<string, SampleName>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: samples.id, serial: samples.serial, demo: samples.demo, archived: samples.archived, model: models })
    .from(samples)
    .innerJoin(models, eq(models.id, samples.modelId))
    .where(and(inArray(samples.id, [...new Set(ids)]), seen()));
  return new Map(
    rows
      .filter(({ demo, archived }) => demo !== 'away' && !archived)
      .map(({ id, serial, model }) => [id, { id, maker: model.maker, model: model.model, serial, tag: tagOf(id) }]),
  );
}

/** Samples on the shelf with something to count, the most of it first. */
const mostOf = (db: Database, column: typeof figures.open | typeof figures.borderline, most: number) =>
  db
    .select({ id: figures.sampleId, claims: column })
    .from(figures)
    .innerJoin(samples, eq(samples.id, figures.sampleId))
    .where(and(gt(column, 0), ne(samples.demo, 'away'), eq(samples.archived, false), seen()))
    .orderBy(desc(column), figures.sampleId)
    .limit(most);

interface Lent {
  readonly id: string;
  readonly by: string;
}

/** @param now by whose day it is told */
export async function today(db: Database, now = new Date()): Promise<Today> {
  const day = now.toISOString().slice(0, 10);
  const runs = await db
    .select()
    .from(sheetRuns)
    .where(and(isNull(sheetRuns.endedAt), ofSeen(db, sheetRuns.sampleId)))
    .orderBy(desc(sheetRuns.startedAt))
    .limit(MOST);
  const within = seenText('s');
  const [lent] = await db.$client.query(
    `SELECT s.id, JSON_VALUE(s.facts, '$.returnBy') AS \`by\` FROM samples s
      WHERE JSON_VALUE(s.facts, '$.returnBy') IS NOT NULL AND ${within.text} ORDER BY \`by\` LIMIT 200`,
    [...within.values],
  );
  const loans = (lent as Lent[]).filter(({ by }) => daysUntil(by, day) <= SOON);
  const issued = await db
    .select({
      id: reports.id,
      sampleId: reports.sampleId,
      code: reports.code,
      fate: reports.fate,
      amends: reports.amends,
      issuedAt: reports.issuedAt,
    })
    .from(reports)
    .where(ofSeen(db, reports.sampleId))
    .orderBy(desc(reports.issuedAt))
    .limit(1000);
  const newest = new Map(issued.toReversed().map((one) => [one.sampleId, one]));
  const due = [...newest.values()].filter(
    ({ fate, issuedAt }) =>
      (fate === null || fate === 'held up well') && now.getTime() - issuedAt.getTime() > FOLLOW_UP * DAY,
  );
  const borderline = await mostOf(db, figures.borderline, MOST);
  const open = await mostOf(db, figures.open, LOOKED_AT);
  const names = await namesOf(db, [
    ...runs.map(({ sampleId }) => sampleId),
    ...loans.map(({ id }) => id),
    ...due.map(({ sampleId }) => sampleId),
    ...borderline.map(({ id }) => id),
    ...open.map(({ id }) => id),
  ]);
  const named = <T>(list: readonly T[], idOf: (one: T) => string) =>
    list.slice(0, MOST).flatMap((one) => {
      const sample = names.get(idOf(one));
      return sample ? [{ one, sample }] : [];
    });
  const instruments = await listInstruments(db);
  return {
    day,
    runs: named(runs, ({ sampleId }) => sampleId).map(({ one: { id, title, state, person, says }, sample }) => ({
      sample,
      id,
      title,
      state,
      person,
      says,
    })),
    calibration: instruments
      .flatMap(({ id, name, calibrationDue: end }) =>
        end && daysUntil(end, day) <= SOON ? [{ id, name, due: end, days: daysUntil(end, day) }] : [],
      )
      .sort((a, b) => a.days - b.days)
      .slice(0, MOST),
    loans: named(loans, ({ id }) => id).map(({ one: { by }, sample }) => ({ sample, by, days: daysUntil(by, day) })),
    followUps: named(
      due.sort((a, b) => a.issuedAt.getTime() - b.issuedAt.getTime()),
      ({ sampleId }) => sampleId,
    ).map(({ one: { code, issuedAt }, sample }) => ({ sample, code, issued: issuedAt.toISOString().slice(0, 10) })),
    borderline: named(borderline, ({ id }) => id).map(({ one, sample }) => ({ sample, claims: one.claims })),
    next: await nextOf(
      db,
      open.flatMap(({ id }) => names.get(id) ?? []),
    ),
  };
}
