// The tables. Readings are only ever added: a correction is a new row that supersedes.
import type { Ask, ModelInput, Progress, RunSample, RunState, StepOutcome, UnitInput } from '@lastmark/contract';
import type { Capture, ColumnName } from '@lastmark/core/capture';
import type { ClaimDuration, Promised } from '@lastmark/core/claim';
import type { InstrumentProfile } from '@lastmark/core/instrument';
import type { LimitSet, NameplateClass } from '@lastmark/core/limits';
import type { FilePlan } from '@lastmark/core/meter-file';
import type { Limits, Ratings, SheetStep } from '@lastmark/core/plan';
import type { Device, Run } from '@lastmark/core/proof';
import type { QuantityId } from '@lastmark/core/quantity';
import type { ReadOut, Sees } from '@lastmark/core/read-out';
import type {
  Attached,
  EvidenceKind,
  Instrument,
  LineElement,
  Mains,
  Output,
  Place,
  RigDrives,
  Taken,
} from '@lastmark/core/reading';
import type { KeyFigures, Profile, SampleKind } from '@lastmark/core/verdict';
import {
  type AnyMySqlColumn,
  boolean,
  double,
  index,
  int,
  mysqlTable,
  primaryKey,
  unique,
  varchar,
} from 'drizzle-orm/mysql-core';
import { bytesColumn, jsonColumn, momentColumn, ulidColumn } from './columns.ts';

/** What all units of a model share. `facts` holds the rest of the intake as one document. */
export const models = mysqlTable(
  'models',
  {
    id: ulidColumn('id').primaryKey(),
    maker: varchar('maker', { length: 80 }).notNull(),
    model: varchar('model', { length: 120 }).notNull(),
    kind: varchar('kind', { length: 12 }).$type<SampleKind>().notNull(),
    facts: jsonColumn<Omit<ModelInput, 'maker' | 'model' | 'kind'>>('facts').notNull(),
    version: int('version').notNull().default(1),
  },
  (table) => [index('models_by_name').on(table.maker, table.model), index('models_by_kind').on(table.kind)],
);

/** One unit on the bench. */
export const samples = mysqlTable(
  'samples',
  {
    id: ulidColumn('id').primaryKey(),
    modelId: ulidColumn('model_id')
      .notNull()
      .references(() => models.id),
    serial: varchar('serial', { length: 80 }).notNull(),
    facts: jsonColumn<Omit<UnitInput, 'serial'>>('facts').notNull(),
    /** Key figures for the shelf; null when something changed since they were worked out. */
    figures: jsonColumn<KeyFigures>('figures'),
    /** Limits of its own at which loads go off. */
    limits: jsonColumn<Limits>('limits'),
    version: int('version').notNull().default(1),
    createdAt: momentColumn('created_at').notNull(),
    updatedAt: momentColumn('updated_at').notNull(),
  },
  (table) => [index('samples_by_model').on(table.modelId), index('samples_by_update').on(table.updatedAt)],
);

export const claims = mysqlTable(
  'claims',
  {
    id: ulidColumn('id').primaryKey(),
    modelId: ulidColumn('model_id')
      .notNull()
      .references(() => models.id),
    promise: jsonColumn<Promised>('promise').notNull(),
    duration: jsonColumn<ClaimDuration>('duration').notNull(),
    printed: varchar('printed', { length: 120 }).notNull(),
    version: int('version').notNull().default(1),
  },
  (table) => [index('claims_by_model').on(table.modelId)],
);

export const instruments = mysqlTable('instruments', {
  id: ulidColumn('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  class: varchar('class', { length: 40 }).notNull(),
  firmware: varchar('firmware', { length: 40 }).notNull(),
  calibrationDue: varchar('calibration_due', { length: 10 }),
  calibratedOn: varchar('calibrated_on', { length: 10 }),
  sees: jsonColumn<Sees>('sees'),
  /** host:port where it answers SCPI; null for one that is read by eye. */
  address: varchar('address', { length: 120 }),
  profileId: varchar('profile_id', { length: 60 }),
  specs: jsonColumn<Instrument['specs']>('specs').notNull(),
  ratings: jsonColumn<Ratings>('ratings'),
  version: int('version').notNull().default(1),
});

const instrumentRef = (name: string) =>
  ulidColumn(name)
    .notNull()
    .references((): AnyMySqlColumn => instruments.id);

/** Profiles a bench made: actions of a class, and the strings that carry them out. */
export const instrumentProfiles = mysqlTable('instrument_profiles', {
  id: ulidColumn('id').primaryKey(),
  profile: jsonColumn<InstrumentProfile>('profile').notNull(),
  version: int('version').notNull().default(1),
});

export const rigs = mysqlTable('rigs', {
  id: ulidColumn('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  mainsMeterId: instrumentRef('mains_meter_id'),
  outputVoltsMeterId: instrumentRef('output_volts_meter_id'),
  outputAmpsMeterId: instrumentRef('output_amps_meter_id'),
  loadEndMeterId: ulidColumn('load_end_meter_id').references((): AnyMySqlColumn => instruments.id),
  elements: jsonColumn<readonly LineElement[]>('elements'),
  outputPlace: varchar('output_place', { length: 10 }).$type<'port' | 'load-end'>().notNull(),
  leadOhms: double('lead_ohms').notNull(),
  leadUOhms: double('lead_u_ohms').notNull(),
  drives: jsonColumn<RigDrives>('drives'),
  note: varchar('note', { length: 400 }).notNull(),
  version: int('version').notNull().default(1),
});

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
    takenAt: momentColumn('taken_at').notNull(),
  },
  (table) => [index('points_by_sample').on(table.sampleId, table.takenAt)],
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
  },
  (table) => [index('statements_by_sample').on(table.sampleId)],
);

/** Limit sets a bench wrote itself; those that ship are not here. */
export const limitSets = mysqlTable('limit_sets', {
  id: ulidColumn('id').primaryKey(),
  body: jsonColumn<Omit<LimitSet, 'id'>>('body').notNull(),
  version: int('version').notNull().default(1),
});

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
    u: double('u').notNull(),
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
  },
  (table) => [
    index('read_outs_by_sample').on(table.sampleId, table.takenAt),
    unique('one_read_out').on(table.supersedes),
  ],
);

/** Things recorded against time, with the figures that follow. Only ever added; the raw samples are in `captureParts`. */
export const captures = mysqlTable(
  'captures',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    body: jsonColumn<Capture>('body').notNull(),
    /** The idle point it made; null for other kinds. */
    pointId: ulidColumn('point_id').references(() => points.id),
    takenAt: momentColumn('taken_at').notNull(),
    supersedes: ulidColumn('supersedes').references((): AnyMySqlColumn => captures.id),
    enteredAt: momentColumn('entered_at').notNull(),
  },
  (table) => [
    index('captures_by_sample').on(table.sampleId, table.takenAt),
    unique('one_capture').on(table.supersedes),
  ],
);

/** Samples of one column, deflated, in pieces small enough for any server's packet limit. */
export const captureParts = mysqlTable(
  'capture_parts',
  {
    captureId: ulidColumn('capture_id')
      .notNull()
      .references(() => captures.id),
    name: varchar('name', { length: 12 }).$type<ColumnName>().notNull(),
    part: int('part').notNull(),
    bytes: bytesColumn('bytes').notNull(),
  },
  (table) => [primaryKey({ columns: [table.captureId, table.name, table.part] })],
);

/** Real devices that serve as loads. */
export const devices = mysqlTable('devices', {
  id: ulidColumn('id').primaryKey(),
  facts: jsonColumn<Omit<Device, 'id'>>('facts').notNull(),
  version: int('version').notNull().default(1),
});

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
  },
  (table) => [index('runs_by_sample').on(table.sampleId, table.takenAt), unique('one_run').on(table.supersedes)],
);

/** Run sheets: what to do with a sample, step by step. */
export const runSheets = mysqlTable(
  'run_sheets',
  {
    id: ulidColumn('id').primaryKey(),
    sampleId: ulidColumn('sample_id')
      .notNull()
      .references(() => samples.id),
    methodId: varchar('method_id', { length: 40 }).notNull(),
    rigId: ulidColumn('rig_id')
      .notNull()
      .references(() => rigs.id),
    title: varchar('title', { length: 120 }).notNull(),
    steps: jsonColumn<SheetStep[]>('steps').notNull(),
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
    /** The steps as they were when it started. */
    steps: jsonColumn<SheetStep[]>('steps').notNull(),
    outcomes: jsonColumn<Record<string, StepOutcome>>('outcomes').notNull(),
    progress: jsonColumn<Progress>('progress'),
    watched: boolean('watched').notNull(),
    /** Someone was at the console. */
    hereAt: momentColumn('here_at').notNull(),
    /** The server that carries it out was alive. */
    aliveAt: momentColumn('alive_at').notNull(),
    startedAt: momentColumn('started_at').notNull(),
    endedAt: momentColumn('ended_at'),
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
    createdAt: momentColumn('created_at').notNull(),
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

/** How the columns of a meter's files were mapped last time. */
export const columnMaps = mysqlTable('column_maps', {
  headerHash: varchar('header_hash', { length: 64 }).primaryKey(),
  headerKey: varchar('header_key', { length: 2000 }).notNull(),
  plan: jsonColumn<FilePlan>('plan').notNull(),
  usedAt: momentColumn('used_at').notNull(),
});

/** The choices of method; one row so far. */
export const profiles = mysqlTable('profiles', {
  id: varchar('id', { length: 26 }).primaryKey(),
  settings: jsonColumn<Profile>('settings').notNull(),
  version: int('version').notNull().default(1),
});
