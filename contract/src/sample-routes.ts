// Operations of samples and all that is known of them.
import type { Capture } from '@lastmark/core/capture';
import type { Limits } from '@lastmark/core/plan';
import type { Point, Reading, Stated } from '@lastmark/core/reading';
import { captureInput, captureSpectrumQuery, captureTraceQuery } from './capture-schemas.ts';
import { statedInput } from './limit-schemas.ts';
import { sampleLimitsInput } from './plan-schemas.ts';
import { readOutInput, runBody } from './proof-schemas.ts';
import { get, is, of, type Route, write } from './route.ts';
import {
  ATTACHMENT_LIMIT,
  CAPTURE_LIMIT,
  IMPORT_LIMIT,
  type Items,
  type PageQuery,
  type ReadingRow,
  type ShelfQuery,
} from './route-types.ts';
import {
  attachmentInput,
  attachmentListQuery,
  attachmentQuery,
  becauseInput,
  claimInput,
  dossierQuery,
  importInput,
  listQuery,
  readingsInput,
  readingsQuery,
  sampleInput,
  setupInput,
  unitOfModelInput,
} from './schemas.ts';
import type {
  AttachmentInfo,
  CaptureInput,
  ClaimInput,
  DossierAnswer,
  ImportInput,
  ImportOutcome,
  ImportTakenBack,
  Page,
  PointInput,
  ReadOutInput,
  RemovedClaim,
  RunInput,
  Sample,
  SampleInput,
  SampleRow,
  SampleVerdict,
  SetupInput,
  StatedInput,
  StoredClaim,
  StoredReadOut,
  StoredRun,
  StoredSetup,
  TraceSpectrum,
  TraceWindow,
  UnitInput,
} from './types.ts';

export const SAMPLE_ROUTES = {
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
    limit: CAPTURE_LIMIT,
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
  describeAttachment: write(
    'put',
    '/attachments/{attachmentId}',
    'Say what a file shows, and whether it stands in the report',
    {
      body: of<Pick<AttachmentInfo, 'caption' | 'inReport'>>(attachmentInput),
      answer: is<AttachmentInfo>(),
    },
  ),
  deleteAttachment: write('delete', '/attachments/{attachmentId}', 'Detach a file'),
  setLimits: write('put', '/samples/{sampleId}/limits', 'Limits of one sample at which loads go off', {
    body: of<{ limits: Limits | null }>(sampleLimitsInput),
    ifMatch: true,
    answer: is<Sample>(),
  }),
  getLabel: get('/samples/{sampleId}/label.pdf', 'A label with the tag of a sample as a QR code', {
    answers: 'application/pdf',
  }),
  addStated: write('post', '/samples/{sampleId}/stated', 'State how points were taken; the newest counts', {
    body: of<StatedInput>(statedInput),
    ids: ['id'],
    answer: is<Stated>(),
  }),
} as const satisfies Record<string, Route>;
