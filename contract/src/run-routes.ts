// Operations of run sheets and their runs.
import { methodInput } from './method-schemas.ts';
import {
  askInput,
  benchDayInput,
  newSheetInput,
  sheetInput,
  sheetsQuery,
  simulatedDeviceInput,
  simulatedInput,
  startInput,
  traceQuery,
} from './plan-schemas.ts';
import type {
  Ask,
  BenchDay,
  BenchDayBody,
  MethodInput,
  RunTrace,
  SheetInput,
  SheetRow,
  SheetRun,
  SimulatedBenchState,
  SimulatedDeviceInput,
  SimulatedInput,
  StartInput,
  StoredMethod,
  StoredSheet,
  Today,
} from './plan-types.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';

export const RUN_ROUTES = {
  getToday: get('/today', 'What runs, what is next, what is overdue, and what was left borderline', {
    answer: is<Today>(),
  }),
  getBenchDay: get('/bench-days/{day}', 'What is to be done on a day, and by whom', { answer: is<BenchDay>() }),
  putBenchDay: write('put', '/bench-days/{day}', 'Keep a day as it is planned', {
    body: of<BenchDayBody>(benchDayInput),
    ifMatch: true,
    answer: is<BenchDay>(),
  }),
  listMethods: get('/methods', 'Methods as they are now: those that ship, and those of this bench', {
    answer: is<Items<StoredMethod>>(),
  }),
  listMethodVersions: get('/methods/{methodId}/versions', 'Every version of a method, the newest first', {
    answer: is<Items<StoredMethod>>(),
  }),
  createMethod: write('post', '/methods', 'Add a method of this bench', {
    needs: 'keeper',
    body: of<MethodInput>(methodInput),
    answer: is<StoredMethod>(),
  }),
  updateMethod: write(
    'put',
    '/methods/{methodId}',
    'A new version of a method; sheets keep the one they were made by',
    {
      needs: 'keeper',
      body: of<MethodInput>(methodInput),
      ifMatch: true,
      answer: is<StoredMethod>(),
    },
  ),
  retireMethod: write('delete', '/methods/{methodId}', 'Make no more sheets by a method; its versions stay', {
    needs: 'keeper',
    ifMatch: true,
  }),
  listSheets: get('/run-sheets', 'Run sheets, newest first', {
    query: of<{ sampleId?: string }>(sheetsQuery),
    answer: is<Items<SheetRow>>(),
  }),
  createSheet: write('post', '/samples/{sampleId}/run-sheets', 'Make a run sheet by a method', {
    body: of<{ methodId: string; rigId: string; claimIds?: readonly string[] | undefined }>(newSheetInput),
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
  hereAtRun: write('post', '/sheet-runs/{runId}/here', 'Someone is at the console', {
    answer: is<object>(),
    keepsNothing: true,
  }),
  getSimulatedBench: get('/simulated-bench', 'Whether the demo has a simulated bench, and what it can play', {
    answer: is<SimulatedBenchState>(),
  }),
  plugSimulated: write('post', '/samples/{sampleId}/simulated-devices', 'Plug a device in at the simulated bench', {
    body: of<SimulatedDeviceInput>(simulatedDeviceInput),
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
} as const satisfies Record<string, Route>;
