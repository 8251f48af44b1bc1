// Rows of the tables a sample stands in, as they travel: exactly as they are kept, in an order in which each finds what it names.
import { and, eq, getTableColumns, getTableName, inArray, isNotNull } from 'drizzle-orm';
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { Queries } from '../db/database.ts';
import {
  attachments,
  cableRuns,
  captures,
  claims,
  comparisons,
  conclusions,
  devices,
  instruments,
  models,
  points,
  readings,
  readOuts,
  reports,
  rigs,
  runAsks,
  runParts,
  runSheets,
  runs,
  safetyChecks,
  samples,
  setups,
  sheetRuns,
  statements,
  trialRuns,
  trialSamples,
  trials,
} from '../db/schema.ts';

/** A row as JSON: moments as ISO 8601, everything else as it is. */
export type PackedRow = Readonly<Record<string, unknown>>;
export type PackedRows = Readonly<Record<string, readonly PackedRow[]>>;

export interface Travelling<Of = Wanted> {
  readonly table: MySqlTable;
  /** Its rows of what travels. */
  readonly rows: (db: Queries, of: Of) => Promise<readonly Record<string, unknown>[]>;
  /** The column it is known by. */
  readonly key: string;
  /** What is of this bench alone: not compared, and left at its default where it is taken in. */
  readonly own?: Readonly<Record<string, unknown>>;
}

export interface Wanted {
  readonly sampleId: string;
  readonly modelId: string;
  readonly rigIds: readonly string[];
  readonly instrumentIds: readonly string[];
  readonly deviceIds: readonly string[];
}

type OfSample = MySqlTable & { readonly sampleId: AnyMySqlColumn };
type Known = MySqlTable & { readonly id: AnyMySqlColumn };

const bySample =
  (table: OfSample): Travelling['rows'] =>
  (db, { sampleId }) =>
    db.select().from(table).where(eq(table.sampleId, sampleId));
const byIds =
  (table: Known, ids: (of: Wanted) => readonly string[]): Travelling['rows'] =>
  async (db, of) =>
    ids(of).length === 0
      ? []
      : db
          .select()
          .from(table)
          .where(inArray(table.id, [...ids(of)]));

/** Rows of a table that hang on rows of another. */
const under =
  (table: MySqlTable, foreign: AnyMySqlColumn, parent: Known & OfSample): Travelling['rows'] =>
  (db, { sampleId }) =>
    db
      .select()
      .from(table)
      .where(inArray(foreign, db.select({ id: parent.id }).from(parent).where(eq(parent.sampleId, sampleId))));

/** Only runs that are over travel: nobody here carries another bench's on. */
const endedRuns: Travelling['rows'] = (db, { sampleId }) =>
  db
    .select()
    .from(sheetRuns)
    .where(and(eq(sheetRuns.sampleId, sampleId), isNotNull(sheetRuns.endedAt)));
const ofEnded =
  (table: MySqlTable, foreign: AnyMySqlColumn): Travelling['rows'] =>
  (db, { sampleId }) =>
    db
      .select()
      .from(table)
      .where(
        inArray(
          foreign,
          db
            .select({ id: sheetRuns.id })
            .from(sheetRuns)
            .where(and(eq(sheetRuns.sampleId, sampleId), isNotNull(sheetRuns.endedAt))),
        ),
      );

const VERSIONED = { version: 1 } as const;

/**
 * Trials of which every sample travels, and in which nobody has to stay blind: a letter that is known elsewhere would be known here.
 * @param sampleIds what travels
 */
export async function trialsWithin(db: Queries, sampleIds: readonly string[]): Promise<readonly string[]> {
  if (sampleIds.length === 0) return [];
  const touched = db
    .select({ id: trialSamples.trialId })
    .from(trialSamples)
    .where(inArray(trialSamples.sampleId, [...sampleIds]));
  const [all, names] = await Promise.all([
    db.select().from(trials).where(inArray(trials.id, touched)).orderBy(trials.id),
    db.select().from(trialSamples).where(inArray(trialSamples.trialId, touched)),
  ]);
  const inside = new Set(sampleIds);
  return all
    .filter(({ body, revealedAt }) => body.kind !== 'blocks' || !body.blind || revealedAt !== null)
    .map(({ id }) => id)
    .filter((id) => names.every(({ trialId, sampleId }) => trialId !== id || inside.has(sampleId)));
}

/** What spans samples, and travels where all of them do. */
export interface Spanning {
  readonly trialIds: readonly string[];
  readonly comparisonId: string | null;
}

const ofTrials =
  (table: MySqlTable, foreign: AnyMySqlColumn): Travelling<Spanning>['rows'] =>
  async (db, { trialIds }) =>
    trialIds.length === 0
      ? []
      : db
          .select()
          .from(table)
          .where(inArray(foreign, [...trialIds]));

/** Tables of what spans samples, in the same manner. */
export const SPANNING: readonly Travelling<Spanning>[] = [
  { table: trials, key: 'id', rows: ofTrials(trials, trials.id), own: VERSIONED },
  { table: trialSamples, key: 'id', rows: ofTrials(trialSamples, trialSamples.trialId) },
  { table: trialRuns, key: 'id', rows: ofTrials(trialRuns, trialRuns.trialId) },
  {
    table: comparisons,
    key: 'id',
    rows: async (db, { comparisonId }) =>
      comparisonId === null ? [] : db.select().from(comparisons).where(eq(comparisons.id, comparisonId)),
    own: { ...VERSIONED, demo: false, updatedAt: null },
  },
];

/** Every table a sample stands in; what a row names stands before it. */
export const TRAVELLING: readonly Travelling[] = [
  // Where an instrument answers is of the bench it stands on: taken in, it answers nowhere.
  {
    table: instruments,
    key: 'id',
    rows: byIds(instruments, ({ instrumentIds }) => instrumentIds),
    // Where it stands and is reached is this lab's own affair.
    own: { ...VERSIONED, bench: '', address: null, profileId: null },
  },
  { table: rigs, key: 'id', rows: byIds(rigs, ({ rigIds }) => rigIds), own: VERSIONED },
  { table: devices, key: 'id', rows: byIds(devices, ({ deviceIds }) => deviceIds), own: VERSIONED },
  {
    table: models,
    key: 'id',
    rows: (db, { modelId }) => db.select().from(models).where(eq(models.id, modelId)),
    own: VERSIONED,
  },
  {
    table: samples,
    key: 'id',
    rows: (db, { sampleId }) => db.select().from(samples).where(eq(samples.id, sampleId)),
    // How it is filed is this bench's own affair.
    own: {
      ...VERSIONED,
      changes: 0,
      stale: true,
      demo: '',
      labels: null,
      archived: false,
      collectionId: null,
      updatedAt: null,
    },
  },
  {
    table: claims,
    key: 'id',
    rows: (db, { modelId }) => db.select().from(claims).where(eq(claims.modelId, modelId)),
    own: VERSIONED,
  },
  { table: setups, key: 'id', rows: bySample(setups), own: VERSIONED },
  { table: points, key: 'id', rows: bySample(points) },
  { table: readings, key: 'id', rows: under(readings, readings.pointId, points) },
  { table: statements, key: 'id', rows: bySample(statements) },
  { table: readOuts, key: 'id', rows: bySample(readOuts) },
  { table: captures, key: 'id', rows: bySample(captures) },
  { table: runs, key: 'id', rows: bySample(runs) },
  { table: cableRuns, key: 'id', rows: bySample(cableRuns) },
  { table: safetyChecks, key: 'id', rows: bySample(safetyChecks) },
  { table: runSheets, key: 'id', rows: bySample(runSheets), own: VERSIONED },
  { table: sheetRuns, key: 'id', rows: endedRuns, own: { owner: null } },
  { table: runAsks, key: 'id', rows: ofEnded(runAsks, runAsks.runId) },
  { table: runParts, key: 'id', rows: ofEnded(runParts, runParts.runId) },
  { table: attachments, key: 'id', rows: attachmentRows, own: { thumbnail: null } },
  { table: conclusions, key: 'sampleId', rows: bySample(conclusions), own: { ...VERSIONED, updatedAt: null } },
  { table: reports, key: 'id', rows: bySample(reports) },
];

/** Files of a sample, its model's claims and its readings. */
async function attachmentRows(db: Queries, { sampleId, modelId }: Wanted): Promise<readonly Record<string, unknown>[]> {
  const own = await db.select().from(attachments).where(eq(attachments.sampleId, sampleId));
  const ofClaims = db.select({ id: claims.id }).from(claims).where(eq(claims.modelId, modelId));
  const ofReadings = db
    .select({ id: readings.id })
    .from(readings)
    .innerJoin(points, eq(readings.pointId, points.id))
    .where(eq(points.sampleId, sampleId));
  return [
    ...own,
    ...(await db.select().from(attachments).where(inArray(attachments.claimId, ofClaims))),
    ...(await db.select().from(attachments).where(inArray(attachments.readingId, ofReadings))),
  ];
}

type Any = Omit<Travelling, 'rows'>;

export const nameOf = ({ table }: Any): string => getTableName(table);

const asPacked = (row: Record<string, unknown>): PackedRow =>
  Object.fromEntries(
    Object.entries(row).flatMap(([name, value]) =>
      // Bytes travel as files of their own.
      value instanceof Uint8Array ? [] : [[name, value instanceof Date ? value.toISOString() : value]],
    ),
  );

/** Rows in an order in which what one takes the place of stands before it. */
function correctedFirst(rows: readonly PackedRow[]): readonly PackedRow[] {
  const waiting = new Map(rows.map((row) => [row.id, row]));
  const sorted: PackedRow[] = [];
  const place = (row: PackedRow): void => {
    if (!waiting.delete(row.id)) return;
    for (const before of [row.supersedes, row.amends]) {
      const first = before == null ? undefined : waiting.get(before);
      if (first) place(first);
    }
    sorted.push(row);
  };
  for (const row of rows) place(row);
  return sorted;
}

/** Everything of what travels, table by table. */
export async function packedRows<Of>(db: Queries, tables: readonly Travelling<Of>[], of: Of): Promise<PackedRows> {
  const all: Record<string, readonly PackedRow[]> = {};
  for (const one of tables) all[nameOf(one)] = correctedFirst((await one.rows(db, of)).map(asPacked));
  return all;
}

/** A row as the table takes it: moments as dates, and what is of another bench at its default. @throws RangeError for a moment that is none */
export function unpackedRow({ table, own = {} }: Any, row: PackedRow): Record<string, unknown> {
  const columns = getTableColumns(table);
  const given = Object.entries(columns).flatMap(([name, column]) => {
    if (name in own)
      return own[name] === null && column.notNull ? [[name, new Date()] as const] : [[name, own[name]] as const];
    if (!(name in row)) return [];
    const value = row[name];
    if (value === null || column.dataType !== 'date') return [[name, value] as const];
    const moment = new Date(String(value));
    if (Number.isNaN(moment.getTime())) throw new RangeError(`${name} is no moment.`);
    return [[name, moment] as const];
  });
  return Object.fromEntries(given);
}

/** Columns in which a row here differs from the same row in a package, by their names. */
export function differing({ own = {} }: Any, here: Record<string, unknown>, packed: PackedRow): readonly string[] {
  const is = asPacked(here);
  // A column an older package did not have is nothing it could differ in.
  return Object.keys(is).filter(
    (name) => !(name in own) && name in packed && JSON.stringify(is[name]) !== JSON.stringify(packed[name]),
  );
}
