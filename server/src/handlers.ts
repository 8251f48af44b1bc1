// The operations of the contract, each tied to the store that carries it out.
import { type Health, type InstrumentInput, listOf, openapiDocument } from '@lastmark/contract';
import type { Trace } from '@lastmark/core/capture';
import { sql } from 'drizzle-orm';
import { fatesOf } from './across/cables.ts';
import {
  deleteAttachment,
  describeAttachment,
  listAttachments,
  readAttachment,
  readThumbnail,
} from './attachments/store.ts';
import { benchPlaces } from './bench/places.ts';
import { createInstrument, createRig, listInstruments, listRigs, updateInstrument, updateRig } from './bench/store.ts';
import { addCableRun } from './cables/store.ts';
import { askRipple, askScope, scopeOf } from './captures/scope.ts';
import { bringBackClaim, createClaim, deleteClaim, listRemovedClaims, updateClaim } from './claims/store.ts';
import { collectionHandlers } from './collection-handlers.ts';
import { compareHandlers } from './compare-handlers.ts';
import { getBenchDay, putBenchDay } from './day/store.ts';
import { NO_SIMULATED_BENCH, plugSimulated, runSimulated } from './demo/hand.ts';
import { demoState } from './demo/shown.ts';
import { createDevice, listDevices, updateDevice } from './devices/store.ts';
import { deleteSample } from './dossier/remove.ts';
import { asJson, disposition, done, saved, tagged, versioned } from './http/answers.ts';
import type { Answer, Call, Handlers } from './http/handlers.ts';
import { notFound, ProblemError, refused } from './http/problem.ts';
import { listColumnMaps } from './importer/import.ts';
import { takeBackImport } from './importer/take-back.ts';
import { listSeenLeases } from './leases/leases.ts';
import { createLimitSet, deleteLimitSet, listLimitSets, updateLimitSet } from './limit-sets/store.ts';
import { sendCommand, trafficOf } from './links/commands.ts';
import type { Places } from './links/places.ts';
import { changeProfile, createProfile, listProfiles } from './links/profiles.ts';
import { streamEvents } from './live/answer.ts';
import { logHandlers } from './log-handlers.ts';
import { createMethod, listMethods, listMethodVersions, retireMethod, updateMethod } from './methods/store.ts';
import { type PeopleParts, peopleHandlers } from './people-handlers.ts';
import { createSheet } from './planning/make-sheet.ts';
import type { Practice } from './practice/practice.ts';
import { practiceHandlers } from './practice-handlers.ts';
import { getProfile, updateProfile } from './profile/store.ts';
import { addReadOut } from './read-outs/store.ts';
import { explainReading } from './readings/because.ts';
import { listReadings } from './readings/list.ts';
import { addReadings } from './readings/store.ts';
import { reportHandlers } from './report-handlers.ts';
import { getRun, here, listTrace } from './runner/rows.ts';
import { addRun } from './runs/store.ts';
import { addCheck } from './safety/store.ts';
import { setLimits } from './samples/limits.ts';
import { createSample, createUnit, getSample, updateSample } from './samples/store.ts';
import { createSetup, deleteSetup, updateSetup } from './setups/store.ts';
import { deleteSheet, getSheet, listSheets, updateSheet } from './sheets/store.ts';
import { addStated } from './statements/store.ts';
import { togetherHandlers } from './together-handlers.ts';
import {
  addTrialRun,
  createTrial,
  deleteTrial,
  getTrial,
  listTrials,
  openTrialKey,
  revealTrial,
  updateTrial,
} from './trials/store.ts';
import type { Metrics } from './watch/metrics.ts';
import type { Working } from './working.ts';

/** Bytes in memory of their own, which a worker may be given whole. */
const own = (file: Buffer | null): Uint8Array =>
  file && file.byteOffset === 0 && file.buffer.byteLength === file.byteLength
    ? new Uint8Array(file.buffer)
    : new Uint8Array(file ?? []);

async function health({ db }: Call): Promise<Omit<Health, 'version'>> {
  try {
    await db.execute(sql`SELECT 1`);
  } catch {
    throw new ProblemError(503, 'Database unreachable', 'The server runs, but its database does not answer.');
  }
  return { status: 'ok', database: 'ok' };
}

/** An address may be tried. @throws 422 for one outside what instruments may be at */
function addressed(input: InstrumentInput, places: Places): InstrumentInput {
  if (input.address !== null) places.check(input.address);
  return input;
}

/** What only a server has that stands for itself: where drills are, and who watches it. */
export interface Outside {
  readonly practice?: Practice | null;
  readonly metrics?: Metrics | null;
  readonly people?: PeopleParts | null;
}

/** All handlers. @param outside left out inside a drill */
export const createHandlers = (
  { version, links, roster, live, runner, hand, jobs, ...bench }: Working,
  { practice = null, metrics = null, people = null }: Outside = {},
): Handlers => {
  /** What can be spoken to has changed: it is in memory before the answer goes out, for a Loads off that follows. */
  const known = async <T extends { version: number }>(changed: T): Promise<Answer<T>> => {
    await roster.refresh();
    return versioned(changed);
  };
  const all: Handlers = {
    health: async (call) => ({ body: { ...(await health(call)), version } }),
    healthLive: async () => ({ body: { status: 'ok' } }),
    healthReady: async (call) => {
      if (bench.isStopping())
        throw new ProblemError(503, 'Stopping', 'The server finishes what it accepted and takes nothing new.');
      const { status } = await health(call);
      return { body: { status } };
    },
    getMetrics: async () => {
      if (!metrics) throw notFound('page of figures');
      return { body: await metrics.text() };
    },
    openapi: async () => ({ body: openapiDocument(version) }),

    getDemo: async ({ db }) => ({ body: await demoState(db) }),
    showDemo: async ({ body, left }) => ({ body: await jobs.run('demo', { shown: body.shown }, left) }),

    listSamples: async ({ query, left }) => asJson(await jobs.run('shelf', query, left)),
    createSample: async ({ db, body }) => tagged(await createSample(db, body)),
    getSample: async (call) => tagged(await getSample(call.db, call.params.sampleId)),
    updateSample: async (call) => tagged(await updateSample(call.db, call.params.sampleId, call.body, call.ifMatch)),
    deleteSample: async (call) => done(await deleteSample(call.db, call.params.sampleId, call.ifMatch)),
    createUnit: async (call) => tagged(await createUnit(call.db, call.params.sampleId, call.body.unit)),
    getDossier: async (call) =>
      asJson(await jobs.run('dossier', { sampleId: call.params.sampleId, have: call.query.have ?? '' }, call.left)),

    listReadings: async (call) => {
      const { page, size } = call.query;
      return { body: await listReadings(call.db, call.params.sampleId, page, size) };
    },
    addReadings: async (call) => ({
      body: { points: await addReadings(call.db, call.params.sampleId, call.body.points) },
    }),
    explainReading: async (call) => ({
      body: await explainReading(call.db, call.params.sampleId, call.params.readingId, call.body.because),
    }),
    addReadOut: async (call) => ({ body: await addReadOut(call.db, call.params.sampleId, call.body) }),
    addRun: async (call) => ({ body: await addRun(call.db, call.params.sampleId, call.body.run) }),
    addCapture: async (call) => {
      const { capture, scopeId } = call.body;
      let from: string | Trace | null = call.path;
      if (!from && scopeId !== null && !capture.withdrawn) {
        const { scope, profile } = await scopeOf(call.db, scopeId, capture.kind);
        if (capture.kind === 'ripple') {
          const { model } = await getSample(call.db, call.params.sampleId);
          const channel = model.ports.findIndex(({ label }) => label === capture.port) + 1;
          if (channel === 0) throw refused('capture.port', 'Say which port is recorded.');
          from = await askRipple(links, scope, profile, channel);
        } else from = await askScope(links, scope, profile, capture.kind);
      }
      return { body: await jobs.run('addCapture', { sampleId: call.params.sampleId, capture, from }, call.left) };
    },
    getCaptureTrace: async (call) => {
      const { buckets = 1000, from = null, to = null } = call.query;
      return { body: await jobs.run('trace', { captureId: call.params.captureId, buckets, from, to }, call.left) };
    },
    getCaptureSpectrum: async (call) => {
      const { from = null, to = null } = call.query;
      return { body: await jobs.run('spectrum', { captureId: call.params.captureId, from, to }, call.left) };
    },
    getCaptureCsv: async (call) =>
      saved('attachment', await jobs.run('traceCsv', { captureId: call.params.captureId }, call.left)),
    importFile: async (call) => ({
      body: await jobs.run(
        'importFile',
        { sampleId: call.params.sampleId, input: call.body, path: call.path },
        call.left,
      ),
    }),

    takeBackImport: async ({ db, params }) => ({ body: await takeBackImport(db, params.sampleId, params.fileId) }),
    getSheet: async (call) => saved('inline', await jobs.run('sheet', { sampleId: call.params.sampleId }, call.left)),
    exportCsv: async (call) =>
      saved('attachment', await jobs.run('csv', { sampleId: call.params.sampleId }, call.left)),
    exportJson: async (call) =>
      saved('attachment', await jobs.run('json', { sampleId: call.params.sampleId }, call.left)),

    getVerdict: async (call) => asJson(await jobs.run('verdict', { sampleId: call.params.sampleId }, call.left)),

    createClaim: async (call) => versioned(await createClaim(call.db, call.params.sampleId, call.body)),
    updateClaim: async (call) => versioned(await updateClaim(call.db, call.params.claimId, call.body, call.ifMatch)),
    listRemovedClaims: async (call) => ({ body: { items: await listRemovedClaims(call.db, call.params.sampleId) } }),
    bringBackClaim: async (call) => ({
      body: await bringBackClaim(call.db, call.params.sampleId, call.params.claimId),
    }),
    deleteClaim: async (call) => done(await deleteClaim(call.db, call.params.claimId, call.ifMatch)),
    createSetup: async (call) => versioned(await createSetup(call.db, call.params.sampleId, call.body)),
    updateSetup: async (call) => versioned(await updateSetup(call.db, call.params.setupId, call.body, call.ifMatch)),
    deleteSetup: async (call) => done(await deleteSetup(call.db, call.params.setupId, call.ifMatch)),

    listAttachments: async ({ db, query }) => ({
      body: { items: await listAttachments(db, query.sampleId) },
    }),
    addAttachment: async ({ query, file, left }) => {
      const { owner, ownerId, name } = query;
      return { body: await jobs.run('attach', { owner, ownerId, name, file: own(file) }, left) };
    },
    describeAttachment: async (call) => ({
      body: await describeAttachment(call.db, call.params.attachmentId, call.body),
    }),
    getAttachment: async (call) => {
      const { name, type, bytes } = await readAttachment(call.db, call.params.attachmentId);
      // Text is never shown as a page of ours; pictures and PDFs may open in place.
      const kind = type.startsWith('image/') || type === 'application/pdf' ? 'inline' : 'attachment';
      return { body: bytes, headers: { 'Content-Type': type, 'Content-Disposition': disposition(kind, name) } };
    },
    getThumbnail: async (call) => ({
      body: await readThumbnail(call.db, call.params.attachmentId),
      headers: { 'Cache-Control': 'private, max-age=31536000, immutable' },
    }),
    deleteAttachment: async (call) => done(await deleteAttachment(call.db, call.params.attachmentId)),

    listBenches: async ({ db }) => ({ body: { items: await benchPlaces(db, bench.bench, bench.otherBenches()) } }),
    listInstruments: async ({ db }) => ({ body: { items: await listInstruments(db) } }),
    createInstrument: async ({ db, body }) =>
      known(await createInstrument(db, addressed(body, links.places), bench.bench)),
    updateInstrument: async (call) => {
      const input = addressed(call.body, links.places);
      return known(await updateInstrument(call.db, call.params.instrumentId, input, call.ifMatch));
    },
    listInstrumentProfiles: async ({ db }) => ({ body: { items: await listProfiles(db) } }),
    createInstrumentProfile: async ({ db, body }) => known(await createProfile(db, body)),
    updateInstrumentProfile: async (call) =>
      known(await changeProfile(call.db, call.params.profileId, call.body, call.ifMatch)),
    sendCommand: async (call) => ({
      body: await sendCommand(call.db, links, bench.consoleLoads, call.params.instrumentId, call.body.command),
    }),
    getTraffic: async (call) => ({ body: await trafficOf(call.db, links, call.params.instrumentId) }),
    live: async ({ query }) => ({
      stream: (response, lastId) => streamEvents(live, response, { lastId, fast: listOf(query.fast) }),
    }),
    loadsOff: async () => {
      const pressed = bench.loadsOff.press();
      runner.nudgeAll();
      return { body: await pressed };
    },
    listLeases: async ({ db }) => ({ body: { items: await listSeenLeases(db) } }),
    setLimits: async (call) => tagged(await setLimits(call.db, call.params.sampleId, call.body.limits, call.ifMatch)),
    getLabel: async (call) => saved('inline', await jobs.run('label', { sampleId: call.params.sampleId }, call.left)),
    listSheets: async ({ db, query }) => ({
      body: { items: await listSheets(db, query.sampleId) },
    }),
    getToday: async ({ left }) => asJson(await jobs.run('today', {}, left)),
    getBenchDay: async ({ db, params }) => versioned(await getBenchDay(db, params.day)),
    putBenchDay: async ({ db, params, body, ifMatch }) => versioned(await putBenchDay(db, params.day, body, ifMatch)),
    listMethods: async ({ db }) => ({ body: { items: await listMethods(db) } }),
    listMethodVersions: async ({ db, params }) => ({ body: { items: await listMethodVersions(db, params.methodId) } }),
    createMethod: async ({ db, body }) => versioned(await createMethod(db, body)),
    updateMethod: async (call) => versioned(await updateMethod(call.db, call.params.methodId, call.body, call.ifMatch)),
    retireMethod: async (call) => done(await retireMethod(call.db, call.params.methodId, call.ifMatch)),
    createSheet: async (call) => versioned(await createSheet(call.db, call.params.sampleId, call.body)),
    getSheetById: async (call) => versioned(await getSheet(call.db, call.params.sheetId)),
    updateSheet: async (call) => versioned(await updateSheet(call.db, call.params.sheetId, call.body, call.ifMatch)),
    deleteSheet: async (call) => done(await deleteSheet(call.db, call.params.sheetId, call.ifMatch)),
    startRun: async (call) => ({ body: await runner.start(call.params.sheetId, call.body) }),
    getRun: async (call) => ({ body: await getRun(call.db, call.params.runId) }),
    getRunTrace: async (call) => ({
      body: await listTrace(call.db, call.params.runId, call.query),
    }),
    resumeRun: async (call) => ({ body: await runner.resume(call.params.runId, call.body) }),
    askOfRun: async (call) => ({ body: await runner.ask(call.params.runId, call.body.ask) }),
    hereAtRun: async (call) => {
      await here(call.db, call.params.runId);
      return { body: {} };
    },
    getSimulatedBench: async () => ({ body: hand ? await hand.state() : NO_SIMULATED_BENCH }),
    plugSimulated: async (call) => ({
      body: await plugSimulated(call.db, hand, call.params.sampleId, call.body),
    }),
    runSimulated: async (call) => ({
      body: await runSimulated(call.db, hand, runner, call.params.sampleId, call.body),
    }),
    listRigs: async ({ db }) => ({ body: { items: await listRigs(db) } }),
    createRig: async ({ db, body }) => versioned(await createRig(db, body)),
    updateRig: async (call) => versioned(await updateRig(call.db, call.params.rigId, call.body, call.ifMatch)),
    listDevices: async ({ db }) => ({ body: { items: await listDevices(db) } }),
    getDeviceEvidence: async ({ left }) => asJson(await jobs.run('deviceEvidence', {}, left)),
    createDevice: async ({ db, body }) => versioned(await createDevice(db, body)),
    updateDevice: async (call) => versioned(await updateDevice(call.db, call.params.deviceId, call.body, call.ifMatch)),
    getProfile: async ({ db }) => versioned(await getProfile(db)),
    updateProfile: async ({ db, body, ifMatch }) => versioned(await updateProfile(db, body, ifMatch)),
    listLimitSets: async ({ db }) => ({ body: { items: await listLimitSets(db) } }),
    createLimitSet: async ({ db, body }) => versioned(await createLimitSet(db, body)),
    updateLimitSet: async (call) =>
      versioned(await updateLimitSet(call.db, call.params.limitSetId, call.body, call.ifMatch)),
    deleteLimitSet: async (call) => done(await deleteLimitSet(call.db, call.params.limitSetId, call.ifMatch)),
    addStated: async (call) => ({ body: await addStated(call.db, call.params.sampleId, call.body) }),
    addCableRun: async (call) => ({ body: await addCableRun(call.db, call.params.sampleId, call.body.run) }),
    addCheck: async (call) => ({ body: await addCheck(call.db, call.params.sampleId, call.body.check) }),
    ...compareHandlers(jobs),
    ...practiceHandlers(practice),
    ...peopleHandlers(people),
    ...collectionHandlers(),
    ...togetherHandlers(),
    ...logHandlers(jobs, () => all),
    ...reportHandlers(jobs),
    getFates: async (call) => ({ body: { items: await fatesOf(call.db, call.params.sampleId) } }),
    getHeldBack: async (call) => asJson(await jobs.run('heldBack', { sampleId: call.params.sampleId }, call.left)),
    listTrials: async ({ db, query }) => ({ body: { items: await listTrials(db, query.sampleId) } }),
    createTrial: async ({ db, body }) => versioned(await createTrial(db, body)),
    getTrial: async (call) => versioned(await getTrial(call.db, call.params.trialId)),
    updateTrial: async (call) => versioned(await updateTrial(call.db, call.params.trialId, call.body, call.ifMatch)),
    deleteTrial: async (call) => done(await deleteTrial(call.db, call.params.trialId, call.ifMatch)),
    addTrialRun: async (call) => versioned(await addTrialRun(call.db, call.params.trialId, call.body.run)),
    openTrialKey: async (call) => ({ body: await openTrialKey(call.db, call.params.trialId) }),
    revealTrial: async (call) => versioned(await revealTrial(call.db, call.params.trialId)),
    listColumnMaps: async ({ db }) => ({ body: { items: await listColumnMaps(db) } }),
  };
  return all;
};
