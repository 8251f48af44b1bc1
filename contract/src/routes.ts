// Every operation of the API: the server mounts exactly these, and the API description is made from them.
import type { AnyObject, ObjectSchema } from 'yup';
import { captureInput, captureTraceQuery } from './capture-schemas.ts';
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
import { deviceInput, readOutInput, runBody } from './proof-schemas.ts';
import {
  attachmentListQuery,
  attachmentQuery,
  claimInput,
  commandInput,
  doorInput,
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

export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Path below /api with {name} parameters. */
  readonly path: string;
  readonly summary: string;
  readonly body?: ObjectSchema<AnyObject>;
  readonly query?: ObjectSchema<AnyObject>;
  /** Status when it works. */
  readonly status: 200 | 201 | 204;
  /** Media type of the answer. */
  readonly answers: string;
  /** Needs If-Match with the version last seen, so that nobody's edit is overwritten unseen. */
  readonly ifMatch?: boolean;
  /** The body is a file rather than JSON; or a form of the JSON as `input` and the file as `file`. */
  readonly file?: true | 'with input';
  /** Largest body, or file of a form, bytes; the default is 1 MiB. */
  readonly limit?: number;
}

const JSON_TYPE = 'application/json';
const MIB = 1024 * 1024;

/** Largest attachment, bytes. */
export const ATTACHMENT_LIMIT = 20 * MIB;
/** Largest meter file or capture file, bytes. */
export const IMPORT_LIMIT = 64 * MIB;

const get = (path: string, summary: string, more: Partial<Route> = {}): Route => ({
  method: 'get',
  path,
  summary,
  status: 200,
  answers: JSON_TYPE,
  ...more,
});
const write = (method: Route['method'], path: string, summary: string, more: Partial<Route> = {}): Route => ({
  method,
  path,
  summary,
  status: method === 'post' ? 201 : method === 'delete' ? 204 : 200,
  answers: JSON_TYPE,
  ...more,
});

export const ROUTES = {
  health: get('/health', 'Whether server and database work'),
  enter: write('post', '/door', 'Give the token printed at the start, once per browser', {
    body: doorInput,
    status: 204,
  }),
  openapi: get('/openapi.json', 'This description'),
  listSamples: get('/samples', 'The shelf: samples with their key figures', { query: listQuery }),
  createSample: write('post', '/samples', 'Take in a sample of a new model', { body: sampleInput }),
  getSample: get('/samples/{sampleId}', 'One sample'),
  updateSample: write('put', '/samples/{sampleId}', 'Change the intake of a sample', {
    body: sampleInput,
    ifMatch: true,
  }),
  deleteSample: write('delete', '/samples/{sampleId}', 'Remove a sample nothing was measured on', { ifMatch: true }),
  createUnit: write('post', '/samples/{sampleId}/units', 'Take in a further unit of the same model', {
    body: unitOfModelInput,
  }),
  getDossier: get('/samples/{sampleId}/dossier', 'Everything needed to judge a sample'),
  listReadings: get('/samples/{sampleId}/readings', 'All readings, superseded ones included', { query: readingsQuery }),
  addReadings: write('post', '/samples/{sampleId}/readings', 'Add readings; the same id twice is kept once', {
    body: readingsInput,
  }),
  addReadOut: write('post', '/samples/{sampleId}/read-outs', 'Add a read-out; the same id twice is kept once', {
    body: readOutInput,
  }),
  addRun: write('post', '/samples/{sampleId}/runs', 'Add a run; the same id twice is kept once', { body: runBody }),
  addCapture: write('post', '/samples/{sampleId}/captures', 'Add a capture; the same id twice is kept once', {
    body: captureInput,
    file: 'with input',
    limit: IMPORT_LIMIT,
  }),
  getCaptureTrace: get('/captures/{captureId}/trace', 'Lowest and highest of each bucket, for a chart', {
    query: captureTraceQuery,
  }),
  getCaptureCsv: get('/captures/{captureId}/trace.csv', 'Every sample', { answers: 'text/csv' }),
  importFile: write('post', '/samples/{sampleId}/imports', 'Read a meter file into a loading', {
    body: importInput,
    file: 'with input',
    limit: IMPORT_LIMIT,
  }),
  getSheet: get('/samples/{sampleId}/sheet.pdf', 'The printable sheet', { answers: 'application/pdf' }),
  exportCsv: get('/samples/{sampleId}/export.csv', 'All standing readings as CSV', { answers: 'text/csv' }),
  exportJson: get('/samples/{sampleId}/export.json', 'The sample with everything measured as JSON'),
  createClaim: write('post', '/samples/{sampleId}/claims', 'Add a claim', { body: claimInput }),
  updateClaim: write('put', '/claims/{claimId}', 'Change a claim', { body: claimInput, ifMatch: true }),
  deleteClaim: write('delete', '/claims/{claimId}', 'Remove a claim', { ifMatch: true }),
  createSetup: write('post', '/samples/{sampleId}/setups', 'Add a loading', { body: setupInput }),
  updateSetup: write('put', '/setups/{setupId}', 'Change a loading', { body: setupInput, ifMatch: true }),
  deleteSetup: write('delete', '/setups/{setupId}', 'Remove a loading without readings', { ifMatch: true }),
  listAttachments: get('/attachments', 'Files attached to a sample, its claims and readings', {
    query: attachmentListQuery,
  }),
  addAttachment: write('post', '/attachments', 'Attach a file', {
    query: attachmentQuery,
    file: true,
    limit: ATTACHMENT_LIMIT,
  }),
  getAttachment: get('/attachments/{attachmentId}', 'The file itself', { answers: '*/*' }),
  getThumbnail: get('/attachments/{attachmentId}/thumbnail', 'A small picture of it', { answers: 'image/webp' }),
  deleteAttachment: write('delete', '/attachments/{attachmentId}', 'Detach a file'),
  listInstruments: get('/instruments', 'The instruments of the bench'),
  createInstrument: write('post', '/instruments', 'Add an instrument', { body: instrumentInput }),
  updateInstrument: write('put', '/instruments/{instrumentId}', 'Change an instrument', {
    body: instrumentInput,
    ifMatch: true,
  }),
  listInstrumentProfiles: get('/instrument-profiles', 'The profiles: what ships, and what this bench made'),
  createInstrumentProfile: write('post', '/instrument-profiles', 'Add a profile', { body: instrumentProfileInput }),
  updateInstrumentProfile: write('put', '/instrument-profiles/{profileId}', 'Change a profile', {
    body: instrumentProfileInput,
    ifMatch: true,
  }),
  sendCommand: write('post', '/instruments/{instrumentId}/commands', 'Send one command, and wait for its answer', {
    body: commandInput,
  }),
  getTraffic: get('/instruments/{instrumentId}/traffic', 'The last lines that went to and came from an instrument'),
  live: get('/live', 'Live numbers of connected instruments, as server-sent events', { answers: 'text/event-stream' }),
  loadsOff: write('post', '/loads-off', 'Switch every load off, ahead of anything that waits'),
  listLeases: get('/leases', 'Which instruments a run owns, and whose it is'),
  setLimits: write('put', '/samples/{sampleId}/limits', 'Limits of one sample at which loads go off', {
    body: sampleLimitsInput,
    ifMatch: true,
  }),
  getLabel: get('/samples/{sampleId}/label.pdf', 'A label with the tag of a sample as a QR code', {
    answers: 'application/pdf',
  }),
  listSheets: get('/run-sheets', 'Run sheets, newest first', { query: sheetsQuery }),
  createSheet: write('post', '/samples/{sampleId}/run-sheets', 'Make a run sheet by a method', { body: newSheetInput }),
  getSheetById: get('/run-sheets/{sheetId}', 'One run sheet'),
  updateSheet: write('put', '/run-sheets/{sheetId}', 'Change a run sheet', { body: sheetInput, ifMatch: true }),
  deleteSheet: write('delete', '/run-sheets/{sheetId}', 'Remove a run sheet that never ran', { ifMatch: true }),
  startRun: write('post', '/run-sheets/{sheetId}/runs', 'Run a sheet; the tag of the sample is checked', {
    body: startInput,
  }),
  getRun: get('/sheet-runs/{runId}', 'One run of a sheet, as it is now'),
  getRunTrace: get('/sheet-runs/{runId}/trace', 'Everything the instruments told during a step', { query: traceQuery }),
  askOfRun: write('post', '/sheet-runs/{runId}/asks', 'Hold, go on, repeat, skip, note, record, stop', {
    body: askInput,
  }),
  hereAtRun: write('post', '/sheet-runs/{runId}/here', 'Someone is at the console'),
  getSimulatedBench: get('/simulated-bench', 'Whether the demo has a simulated bench, and what it can play'),
  runSimulated: write(
    'post',
    '/samples/{sampleId}/simulated-runs',
    'Put a demo sample on the simulated bench and run',
    {
      body: simulatedInput,
    },
  ),
  listRigs: get('/rigs', 'The rigs of the bench'),
  createRig: write('post', '/rigs', 'Add a rig', { body: rigInput }),
  updateRig: write('put', '/rigs/{rigId}', 'Change a rig', { body: rigInput, ifMatch: true }),
  listDevices: get('/devices', 'The devices that serve as loads'),
  createDevice: write('post', '/devices', 'Add a device', { body: deviceInput }),
  updateDevice: write('put', '/devices/{deviceId}', 'Change a device', { body: deviceInput, ifMatch: true }),
  getProfile: get('/profile', 'The choices of method'),
  updateProfile: write('put', '/profile', 'Change the choices of method', { body: profileInput, ifMatch: true }),
  listLimitSets: get('/limit-sets', 'The limit sets: those that ship, and those of this bench'),
  createLimitSet: write('post', '/limit-sets', 'Add a limit set', { body: limitSetInput }),
  updateLimitSet: write('put', '/limit-sets/{limitSetId}', 'Change a limit set of this bench', {
    body: limitSetInput,
    ifMatch: true,
  }),
  deleteLimitSet: write('delete', '/limit-sets/{limitSetId}', 'Remove a limit set nothing is judged by', {
    ifMatch: true,
  }),
  addStated: write('post', '/samples/{sampleId}/stated', 'State how points were taken; the newest counts', {
    body: statedInput,
  }),
  listColumnMaps: get('/column-maps', 'Remembered columns of meter files'),
} as const satisfies Record<string, Route>;

export type Operation = keyof typeof ROUTES;
