// Every operation of the API: the server mounts exactly these, and the API description is made from them.
import type { Capture } from '@lastmark/core/capture';
import type { FilePlan } from '@lastmark/core/meter-file';
import type { Limits } from '@lastmark/core/plan';
import type { Point, Reading, Stated } from '@lastmark/core/reading';
import type { Profile, SampleKind } from '@lastmark/core/verdict';
import { captureInput, captureSpectrumQuery, captureTraceQuery } from './capture-schemas.ts';
import { limitSetInput, statedInput } from './limit-schemas.ts';
import {
  askInput,
  newSheetInput,
  sampleLimitsInput,
  sheetInput,
  sheetsQuery,
  simulatedInput,
  startInput,
  traceQuery,
} from './plan-schemas.ts';
import type {
  Ask,
  Lease,
  RunTrace,
  SheetInput,
  SheetRow,
  SheetRun,
  SimulatedBenchState,
  SimulatedInput,
  StartInput,
  StoredSheet,
} from './plan-types.ts';
import { deviceInput, readOutInput, runBody } from './proof-schemas.ts';
import { get, is, of, type ParamOf, type Route, write } from './route.ts';
import {
  attachmentListQuery,
  attachmentQuery,
  becauseInput,
  claimInput,
  commandInput,
  demoInput,
  doorInput,
  dossierQuery,
  importInput,
  instrumentInput,
  instrumentProfileInput,
  listQuery,
  profileInput,
  readingsInput,
  readingsQuery,
  rigInput,
  sampleInput,
  setupInput,
  unitOfModelInput,
} from './schemas.ts';
import type {
  AttachmentInfo,
  CaptureInput,
  ClaimInput,
  CommandAnswer,
  DemoState,
  DeviceInput,
  DossierAnswer,
  ImportInput,
  ImportOutcome,
  ImportTakenBack,
  InstrumentInput,
  InstrumentProfileInput,
  InstrumentTraffic,
  LimitSetInput,
  LoadsOffAnswer,
  Page,
  PointInput,
  ReadOutInput,
  RemovedClaim,
  RigInput,
  RunInput,
  Sample,
  SampleInput,
  SampleRow,
  SampleVerdict,
  SetupInput,
  ShelfOrder,
  StatedInput,
  StoredClaim,
  StoredDevice,
  StoredInstrument,
  StoredInstrumentProfile,
  StoredLimitSet,
  StoredProfile,
  StoredReadOut,
  StoredRig,
  StoredRun,
  StoredSetup,
  TraceSpectrum,
  TraceWindow,
  UnitInput,
} from './types.ts';

export type { Route } from './route.ts';

const MIB = 1024 * 1024;

/** Largest attachment, bytes. */
export const ATTACHMENT_LIMIT = 20 * MIB;
/** Largest meter file or capture file, bytes. */
export const IMPORT_LIMIT = 64 * MIB;

export interface Health {
  status: string;
  database: string;
  version: string;
}

interface Items<T> {
  items: T[];
}

export interface PageQuery {
  readonly page?: number;
  readonly size?: number;
}

export interface ShelfQuery extends PageQuery {
  readonly q?: string;
  readonly kind?: SampleKind;
  readonly sort?: ShelfOrder;
  /** Largest first. */
  readonly down?: boolean;
}

export type ReadingRow = Reading & { readonly pointId: string };

/** The columns of a meter file, as they were understood last. */
export interface ColumnMap {
  readonly headerKey: string;
  readonly plan: FilePlan;
}

export const ROUTES = {
  health: get('/health', 'Whether server and database work', { answer: is<Health>() }),
  enter: write('post', '/door', 'Give the token printed at the start, once per browser', {
    body: of<{ token: string }>(doorInput),
    status: 204,
  }),
  openapi: get('/openapi.json', 'This description', { answer: is<object>() }),
  listSamples: get('/samples', 'The shelf: samples with their key figures', {
    query: of<ShelfQuery>(listQuery),
    answer: is<Page<SampleRow>>(),
  }),
  createSample: write('post', '/samples', 'Take in a sample of a new model', {
    body: of<SampleInput>(sampleInput),
    answer: is<Sample>(),
  }),
  getSample: get('/samples/{sampleId}', 'One sample', { answer: is<Sample>() }),
  updateSample: write('put', '/samples/{sampleId}', 'Change the intake of a sample', {
    body: of<SampleInput>(sampleInput),
    ifMatch: true,
    answer: is<Sample>(),
  }),
  deleteSample: write('delete', '/samples/{sampleId}', 'Remove a sample nothing was measured on', { ifMatch: true }),
  createUnit: write('post', '/samples/{sampleId}/units', 'Take in a further unit of the same model', {
    body: of<{ unit: UnitInput }>(unitOfModelInput),
    answer: is<Sample>(),
  }),
  getDossier: get('/samples/{sampleId}/dossier', 'Everything needed to judge a sample', {
    query: of<{ have?: string }>(dossierQuery),
    answer: is<DossierAnswer>(),
  }),
  listReadings: get('/samples/{sampleId}/readings', 'All readings, superseded ones included', {
    query: of<PageQuery>(readingsQuery),
    answer: is<Page<ReadingRow>>(),
  }),
  addReadings: write('post', '/samples/{sampleId}/readings', 'Add readings; the same id twice is kept once', {
    body: of<{ points: PointInput[] }>(readingsInput),
    ids: ['points[].id', 'points[].readings[].id'],
    answer: is<{ points: Point[] }>(),
  }),
  explainReading: write(
    'post',
    '/samples/{sampleId}/readings/{readingId}/because',
    'Say once why a reading was corrected',
    {
      body: of<{ because: string }>(becauseInput),
      answer: is<Reading>(),
    },
  ),
  addReadOut: write('post', '/samples/{sampleId}/read-outs', 'Add a read-out; the same id twice is kept once', {
    body: of<ReadOutInput>(readOutInput),
    ids: ['id'],
    answer: is<StoredReadOut>(),
  }),
  addRun: write('post', '/samples/{sampleId}/runs', 'Add a run; the same id twice is kept once', {
    body: of<{ run: RunInput }>(runBody),
    ids: ['run.id'],
    answer: is<StoredRun>(),
  }),
  addCapture: write('post', '/samples/{sampleId}/captures', 'Add a capture; the same id twice is kept once', {
    body: of<CaptureInput>(captureInput),
    ids: ['capture.id'],
    file: 'with input',
    limit: IMPORT_LIMIT,
    answer: is<Capture>(),
  }),
  getCaptureTrace: get(
    '/captures/{captureId}/trace',
    'A stretch of its trace: lowest and highest of each bucket, for a picture',
    {
      query: of<{ buckets?: number; from?: number; to?: number }>(captureTraceQuery),
      answer: is<TraceWindow>(),
    },
  ),
  getCaptureSpectrum: get(
    '/captures/{captureId}/spectrum',
    'What rides on an output in a stretch of its trace, by frequency',
    {
      query: of<{ from?: number; to?: number }>(captureSpectrumQuery),
      answer: is<TraceSpectrum>(),
    },
  ),
  getCaptureCsv: get('/captures/{captureId}/trace.csv', 'Every sample', { answers: 'text/csv' }),
  importFile: write('post', '/samples/{sampleId}/imports', 'Read a meter file into a loading', {
    body: of<ImportInput>(importInput),
    file: 'with input',
    limit: IMPORT_LIMIT,
    answer: is<ImportOutcome>(),
  }),
  takeBackImport: write(
    'post',
    '/samples/{sampleId}/imports/{fileId}/take-back',
    'Strike out everything that came with a file',
    { answer: is<ImportTakenBack>() },
  ),
  getSheet: get('/samples/{sampleId}/sheet.pdf', 'The printable sheet', { answers: 'application/pdf' }),
  exportCsv: get('/samples/{sampleId}/export.csv', 'All standing readings as CSV', { answers: 'text/csv' }),
  exportJson: get('/samples/{sampleId}/export.json', 'The sample with everything measured as JSON', {
    answer: is<object>(),
  }),
  getVerdict: get('/samples/{sampleId}/verdict', 'Claims with their states and tests, figures and stations; SI', {
    answer: is<SampleVerdict>(),
  }),
  createClaim: write('post', '/samples/{sampleId}/claims', 'Add a claim', {
    body: of<ClaimInput>(claimInput),
    answer: is<StoredClaim>(),
  }),
  listRemovedClaims: get('/samples/{sampleId}/removed-claims', 'Claims removed lately, the last first', {
    answer: is<Items<RemovedClaim>>(),
  }),
  bringBackClaim: write('post', '/samples/{sampleId}/claims/{claimId}/back', 'Bring a removed claim back as it was', {
    answer: is<StoredClaim>(),
  }),
  updateClaim: write('put', '/claims/{claimId}', 'Change a claim', {
    body: of<ClaimInput>(claimInput),
    ifMatch: true,
    answer: is<StoredClaim>(),
  }),
  deleteClaim: write('delete', '/claims/{claimId}', 'Remove a claim', { ifMatch: true }),
  createSetup: write('post', '/samples/{sampleId}/setups', 'Add a loading', {
    body: of<SetupInput>(setupInput),
    answer: is<StoredSetup>(),
  }),
  updateSetup: write('put', '/setups/{setupId}', 'Change a loading', {
    body: of<SetupInput>(setupInput),
    ifMatch: true,
    answer: is<StoredSetup>(),
  }),
  deleteSetup: write('delete', '/setups/{setupId}', 'Remove a loading without readings', { ifMatch: true }),
  listAttachments: get('/attachments', 'Files attached to a sample, its claims and readings', {
    query: of<{ sampleId: string }>(attachmentListQuery),
    answer: is<Items<AttachmentInfo>>(),
  }),
  addAttachment: write('post', '/attachments', 'Attach a file', {
    query: of<{ owner: AttachmentInfo['owner']; ownerId: string; name: string }>(attachmentQuery),
    file: true,
    limit: ATTACHMENT_LIMIT,
    answer: is<AttachmentInfo>(),
  }),
  getAttachment: get('/attachments/{attachmentId}', 'The file itself', { answers: '*/*' }),
  getThumbnail: get('/attachments/{attachmentId}/thumbnail', 'A small picture of it', { answers: 'image/webp' }),
  deleteAttachment: write('delete', '/attachments/{attachmentId}', 'Detach a file'),
  listInstruments: get('/instruments', 'The instruments of the bench', { answer: is<Items<StoredInstrument>>() }),
  createInstrument: write('post', '/instruments', 'Add an instrument', {
    body: of<InstrumentInput>(instrumentInput),
    answer: is<StoredInstrument>(),
  }),
  updateInstrument: write('put', '/instruments/{instrumentId}', 'Change an instrument', {
    body: of<InstrumentInput>(instrumentInput),
    ifMatch: true,
    answer: is<StoredInstrument>(),
  }),
  listInstrumentProfiles: get('/instrument-profiles', 'The profiles: what ships, and what this bench made', {
    answer: is<Items<StoredInstrumentProfile>>(),
  }),
  createInstrumentProfile: write('post', '/instrument-profiles', 'Add a profile', {
    body: of<InstrumentProfileInput>(instrumentProfileInput),
    answer: is<StoredInstrumentProfile>(),
  }),
  updateInstrumentProfile: write('put', '/instrument-profiles/{profileId}', 'Change a profile', {
    body: of<InstrumentProfileInput>(instrumentProfileInput),
    ifMatch: true,
    answer: is<StoredInstrumentProfile>(),
  }),
  sendCommand: write('post', '/instruments/{instrumentId}/commands', 'Send one command, and wait for its answer', {
    body: of<{ command: string }>(commandInput),
    answer: is<CommandAnswer>(),
  }),
  getTraffic: get('/instruments/{instrumentId}/traffic', 'The last lines that went to and came from an instrument', {
    answer: is<InstrumentTraffic>(),
  }),
  live: get('/live', 'Live numbers of connected instruments, as server-sent events', { answers: 'text/event-stream' }),
  loadsOff: write('post', '/loads-off', 'Switch every load off, ahead of anything that waits', {
    answer: is<LoadsOffAnswer>(),
  }),
  listLeases: get('/leases', 'Which instruments a run owns, and whose it is', { answer: is<Items<Lease>>() }),
  setLimits: write('put', '/samples/{sampleId}/limits', 'Limits of one sample at which loads go off', {
    body: of<{ limits: Limits | null }>(sampleLimitsInput),
    ifMatch: true,
    answer: is<Sample>(),
  }),
  getLabel: get('/samples/{sampleId}/label.pdf', 'A label with the tag of a sample as a QR code', {
    answers: 'application/pdf',
  }),
  listSheets: get('/run-sheets', 'Run sheets, newest first', {
    query: of<{ sampleId?: string }>(sheetsQuery),
    answer: is<Items<SheetRow>>(),
  }),
  createSheet: write('post', '/samples/{sampleId}/run-sheets', 'Make a run sheet by a method', {
    body: of<{ methodId: string; rigId: string }>(newSheetInput),
    answer: is<StoredSheet>(),
  }),
  getSheetById: get('/run-sheets/{sheetId}', 'One run sheet', { answer: is<StoredSheet>() }),
  updateSheet: write('put', '/run-sheets/{sheetId}', 'Change a run sheet', {
    body: of<SheetInput>(sheetInput),
    ifMatch: true,
    answer: is<StoredSheet>(),
  }),
  deleteSheet: write('delete', '/run-sheets/{sheetId}', 'Remove a run sheet that never ran', { ifMatch: true }),
  startRun: write('post', '/run-sheets/{sheetId}/runs', 'Run a sheet; the tag of the sample is checked', {
    body: of<StartInput>(startInput),
    answer: is<SheetRun>(),
  }),
  getRun: get('/sheet-runs/{runId}', 'One run of a sheet, as it is now', { answer: is<SheetRun>() }),
  getRunTrace: get(
    '/sheet-runs/{runId}/trace',
    'What the instruments told, the newest part or the one before another',
    {
      query: of<{ step?: string; before?: string }>(traceQuery),
      answer: is<RunTrace>(),
    },
  ),
  askOfRun: write(
    'post',
    '/sheet-runs/{runId}/asks',
    'Hold, go on, repeat, cycle the supply, skip, note, record, stop',
    {
      body: of<{ ask: Ask }>(askInput),
      answer: is<SheetRun>(),
    },
  ),
  resumeRun: write('post', '/sheet-runs/{runId}/resume', 'Take a stopped run up again where it stood', {
    body: of<StartInput>(startInput),
    answer: is<SheetRun>(),
  }),
  hereAtRun: write('post', '/sheet-runs/{runId}/here', 'Someone is at the console', { answer: is<object>() }),
  getSimulatedBench: get('/simulated-bench', 'Whether the demo has a simulated bench, and what it can play', {
    answer: is<SimulatedBenchState>(),
  }),
  runSimulated: write(
    'post',
    '/samples/{sampleId}/simulated-runs',
    'Put a demo sample on the simulated bench and run',
    {
      body: of<SimulatedInput>(simulatedInput),
      answer: is<SheetRun>(),
    },
  ),
  listRigs: get('/rigs', 'The rigs of the bench', { answer: is<Items<StoredRig>>() }),
  createRig: write('post', '/rigs', 'Add a rig', { body: of<RigInput>(rigInput), answer: is<StoredRig>() }),
  updateRig: write('put', '/rigs/{rigId}', 'Change a rig', {
    body: of<RigInput>(rigInput),
    ifMatch: true,
    answer: is<StoredRig>(),
  }),
  listDevices: get('/devices', 'The devices that serve as loads', { answer: is<Items<StoredDevice>>() }),
  createDevice: write('post', '/devices', 'Add a device', {
    body: of<DeviceInput>(deviceInput),
    answer: is<StoredDevice>(),
  }),
  updateDevice: write('put', '/devices/{deviceId}', 'Change a device', {
    body: of<DeviceInput>(deviceInput),
    ifMatch: true,
    answer: is<StoredDevice>(),
  }),
  getProfile: get('/profile', 'The choices of method', { answer: is<StoredProfile>() }),
  updateProfile: write('put', '/profile', 'Change the choices of method', {
    body: of<Profile>(profileInput),
    ifMatch: true,
    answer: is<StoredProfile>(),
  }),
  listLimitSets: get('/limit-sets', 'The limit sets: those that ship, and those of this bench', {
    answer: is<Items<StoredLimitSet>>(),
  }),
  createLimitSet: write('post', '/limit-sets', 'Add a limit set', {
    body: of<LimitSetInput>(limitSetInput),
    answer: is<StoredLimitSet>(),
  }),
  updateLimitSet: write('put', '/limit-sets/{limitSetId}', 'Change a limit set of this bench', {
    body: of<LimitSetInput>(limitSetInput),
    ifMatch: true,
    answer: is<StoredLimitSet>(),
  }),
  deleteLimitSet: write('delete', '/limit-sets/{limitSetId}', 'Remove a limit set nothing is judged by', {
    ifMatch: true,
  }),
  addStated: write('post', '/samples/{sampleId}/stated', 'State how points were taken; the newest counts', {
    body: of<StatedInput>(statedInput),
    ids: ['id'],
    answer: is<Stated>(),
  }),
  getDemo: get('/demo', 'Whether the demo stands on the shelf', { answer: is<DemoState>() }),
  showDemo: write('put', '/demo', 'Show the demo, or put it away; an empty bench is filled with it', {
    body: of<{ shown: boolean }>(demoInput),
    answer: is<DemoState>(),
  }),
  listColumnMaps: get('/column-maps', 'Remembered columns of meter files', { answer: is<Items<ColumnMap>>() }),
} as const satisfies Record<string, Route>;

export type Operation = keyof typeof ROUTES;

/** What a body, a query and an answer of an operation are. */
export type BodyOf<O extends Operation> =
  (typeof ROUTES)[O] extends Route<string, infer B, infer _Q, infer _A> ? B : never;
export type QueryOf<O extends Operation> =
  (typeof ROUTES)[O] extends Route<string, infer _B, infer Q, infer _A> ? Q : never;
export type AnswerOf<O extends Operation> =
  (typeof ROUTES)[O] extends Route<string, infer _B, infer _Q, infer A> ? A : never;
export type ParamsOf<O extends Operation> = Readonly<Record<ParamOf<(typeof ROUTES)[O]['path']>, string>>;
