// The operations of the contract, each tied to the store that carries it out.
import {
  type Ask,
  type CaptureInput,
  type ClaimInput,
  type DeviceInput,
  type ImportInput,
  type InstrumentInput,
  type InstrumentProfileInput,
  type LimitSetInput,
  openapiDocument,
  type PointInput,
  type ReadOutInput,
  type RigInput,
  type RunInput,
  type SampleInput,
  type SetupInput,
  type SheetInput,
  type StartInput,
  type StatedInput,
  type UnitInput,
} from '@lastmark/contract';
import type { Trace } from '@lastmark/core/capture';
import type { Limits } from '@lastmark/core/plan';
import type { Profile } from '@lastmark/core/verdict';
import { sql } from 'drizzle-orm';
import { deleteAttachment, listAttachments, type Owner, readAttachment, readThumbnail } from './attachments/store.ts';
import { createInstrument, createRig, listInstruments, listRigs, updateInstrument, updateRig } from './bench/store.ts';
import { askScope, scopeOf } from './captures/scope.ts';
import { createClaim, deleteClaim, updateClaim } from './claims/store.ts';
import { NO_SIMULATED_BENCH, runSimulated, type SimulatedInput } from './demo/hand.ts';
import { createDevice, listDevices, updateDevice } from './devices/store.ts';
import { type Answer, type Call, type Handlers, param } from './http/handlers.ts';
import { ProblemError, refused } from './http/problem.ts';
import { etagOf } from './http/versions.ts';
import { listColumnMaps } from './importer/import.ts';
import type { MadeFile } from './jobs/table.ts';
import { createLimitSet, deleteLimitSet, listLimitSets, updateLimitSet } from './limit-sets/store.ts';
import { sendCommand, trafficOf } from './links/commands.ts';
import { partsOf } from './links/links.ts';
import { type Networks, outside } from './links/networks.ts';
import { changeProfile, createProfile, listProfiles } from './links/profiles.ts';
import { streamEvents } from './live/answer.ts';
import { getProfile, updateProfile } from './profile/store.ts';
import { addReadOut } from './read-outs/store.ts';
import { listReadings } from './readings/list.ts';
import { addReadings } from './readings/store.ts';
import { listLeases } from './runner/leases.ts';
import { getRun, here, listTrace } from './runner/rows.ts';
import { addRun } from './runs/store.ts';
import { setLimits } from './samples/limits.ts';
import type { ShelfQuery } from './samples/shelf.ts';
import { addStated } from './samples/stated.ts';
import { createSample, createUnit, deleteSample, getSample, updateSample } from './samples/store.ts';
import { createSetup, deleteSetup, updateSetup } from './setups/store.ts';
import { createSheet, deleteSheet, getSheet, listSheets, updateSheet } from './sheets/store.ts';
import type { Working } from './working.ts';

const versioned = <T extends { version: number }>(body: T): Answer => ({ body, etag: etagOf(body.version) });
const tagged = <T extends { etag: string }>(body: T): Answer => ({ body, etag: body.etag });
const sampleId = (call: Call): string => param(call, 'sampleId');

/** A file name that is safe in a header, with the real one beside it (RFC 6266). */
function disposition(kind: 'inline' | 'attachment', name: string): string {
  const plain = name.replace(/[^\w.-]+/g, '_');
  return `${kind}; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}

/** Bytes of JSON as they were written where it was worked out. */
const asJson = (body: Uint8Array): Answer => ({ body, headers: { 'Content-Type': 'application/json; charset=utf-8' } });
const saved = (kind: 'inline' | 'attachment', { name, bytes }: MadeFile): Answer => ({
  body: bytes,
  headers: { 'Content-Disposition': disposition(kind, name) },
});
/** Bytes in memory of their own, which a worker may be given whole. */
const own = (file: Buffer | null): Uint8Array => new Uint8Array(file ?? []);

async function health({ db }: Call): Promise<unknown> {
  try {
    await db.execute(sql`SELECT 1`);
  } catch {
    throw new ProblemError(503, 'Database unreachable', 'The server runs, but its database does not answer.');
  }
  return { status: 'ok', database: 'ok' };
}

/** An address may be tried. @throws 422 for one outside the networks instruments may be on */
function addressed(input: InstrumentInput, networks: Networks): InstrumentInput {
  if (input.address !== null && !networks.mayTry(partsOf(input.address).host))
    throw refused('address', outside(input.address));
  return input;
}

/** All handlers. */
export const createHandlers = ({
  version,
  links,
  roster,
  live,
  runner,
  hand,
  jobs,
  door,
  ...bench
}: Working): Handlers => {
  /** What can be spoken to has changed: it is in memory before the answer goes out, for a Loads off that follows. */
  const known = async <T extends { version: number }>(changed: T): Promise<Answer> => {
    await roster.refresh();
    return versioned(changed);
  };
  return {
    health: async (call) => ({ body: { ...((await health(call)) as object), version } }),
    enter: async ({ body }) => ({
      headers: { 'Set-Cookie': door.enter((body as { token: string }).token) },
    }),
    openapi: async () => ({ body: openapiDocument(version) }),

    listSamples: async ({ query, left }) => asJson(await jobs.run('shelf', query as ShelfQuery, left)),
    createSample: async ({ db, body }) => tagged(await createSample(db, body as SampleInput)),
    getSample: async (call) => tagged(await getSample(call.db, sampleId(call))),
    updateSample: async (call) =>
      tagged(await updateSample(call.db, sampleId(call), call.body as SampleInput, call.ifMatch)),
    deleteSample: async (call) => ({ body: await deleteSample(call.db, sampleId(call), call.ifMatch) }),
    createUnit: async (call) =>
      tagged(await createUnit(call.db, sampleId(call), (call.body as { unit: UnitInput }).unit)),
    getDossier: async (call) => asJson(await jobs.run('dossier', { sampleId: sampleId(call) }, call.left)),

    listReadings: async (call) => {
      const { page, size } = call.query as { page?: number; size?: number };
      return { body: await listReadings(call.db, sampleId(call), page, size) };
    },
    addReadings: async (call) => ({
      body: { points: await addReadings(call.db, sampleId(call), (call.body as { points: PointInput[] }).points) },
    }),
    addReadOut: async (call) => ({ body: await addReadOut(call.db, sampleId(call), call.body as ReadOutInput) }),
    addRun: async (call) => ({ body: await addRun(call.db, sampleId(call), (call.body as { run: RunInput }).run) }),
    addCapture: async (call) => {
      const { capture, scopeId } = call.body as CaptureInput;
      let from: Uint8Array | Trace | null = call.file && own(call.file);
      if (!from && scopeId !== null && !capture.withdrawn) {
        const { scope, profile } = await scopeOf(call.db, scopeId);
        from = await askScope(links, scope, profile, capture.kind);
      }
      return { body: await jobs.run('addCapture', { sampleId: sampleId(call), capture, from }, call.left) };
    },
    getCaptureTrace: async (call) => {
      const buckets = (call.query.buckets as number | undefined) ?? 1000;
      return { body: await jobs.run('trace', { captureId: param(call, 'captureId'), buckets }, call.left) };
    },
    getCaptureCsv: async (call) =>
      saved('attachment', await jobs.run('traceCsv', { captureId: param(call, 'captureId') }, call.left)),
    importFile: async (call) => ({
      body: await jobs.run(
        'importFile',
        { sampleId: sampleId(call), input: call.body as ImportInput, file: own(call.file) },
        call.left,
      ),
    }),

    getSheet: async (call) => saved('inline', await jobs.run('sheet', { sampleId: sampleId(call) }, call.left)),
    exportCsv: async (call) => saved('attachment', await jobs.run('csv', { sampleId: sampleId(call) }, call.left)),
    exportJson: async (call) => saved('attachment', await jobs.run('json', { sampleId: sampleId(call) }, call.left)),

    createClaim: async (call) => versioned(await createClaim(call.db, sampleId(call), call.body as ClaimInput)),
    updateClaim: async (call) =>
      versioned(await updateClaim(call.db, param(call, 'claimId'), call.body as ClaimInput, call.ifMatch)),
    deleteClaim: async (call) => ({ body: await deleteClaim(call.db, param(call, 'claimId'), call.ifMatch) }),
    createSetup: async (call) => versioned(await createSetup(call.db, sampleId(call), call.body as SetupInput)),
    updateSetup: async (call) =>
      versioned(await updateSetup(call.db, param(call, 'setupId'), call.body as SetupInput, call.ifMatch)),
    deleteSetup: async (call) => ({ body: await deleteSetup(call.db, param(call, 'setupId'), call.ifMatch) }),

    listAttachments: async ({ db, query }) => ({
      body: { items: await listAttachments(db, query.sampleId as string) },
    }),
    addAttachment: async ({ query, file, left }) => {
      const { owner, ownerId, name } = query as { owner: Owner; ownerId: string; name: string };
      return { body: await jobs.run('attach', { owner, ownerId, name, file: own(file) }, left) };
    },
    getAttachment: async (call) => {
      const { name, type, bytes } = await readAttachment(call.db, param(call, 'attachmentId'));
      // Text is never shown as a page of ours; pictures and PDFs may open in place.
      const kind = type.startsWith('image/') || type === 'application/pdf' ? 'inline' : 'attachment';
      return { body: bytes, headers: { 'Content-Type': type, 'Content-Disposition': disposition(kind, name) } };
    },
    getThumbnail: async (call) => ({
      body: await readThumbnail(call.db, param(call, 'attachmentId')),
      headers: { 'Cache-Control': 'private, max-age=31536000, immutable' },
    }),
    deleteAttachment: async (call) => ({ body: await deleteAttachment(call.db, param(call, 'attachmentId')) }),

    listInstruments: async ({ db }) => ({ body: { items: await listInstruments(db) } }),
    createInstrument: async ({ db, body }) =>
      known(await createInstrument(db, addressed(body as InstrumentInput, links.networks))),
    updateInstrument: async (call) => {
      const input = addressed(call.body as InstrumentInput, links.networks);
      return known(await updateInstrument(call.db, param(call, 'instrumentId'), input, call.ifMatch));
    },
    listInstrumentProfiles: async ({ db }) => ({ body: { items: await listProfiles(db) } }),
    createInstrumentProfile: async ({ db, body }) => known(await createProfile(db, body as InstrumentProfileInput)),
    updateInstrumentProfile: async (call) =>
      known(await changeProfile(call.db, param(call, 'profileId'), call.body as InstrumentProfileInput, call.ifMatch)),
    sendCommand: async (call) => ({
      body: await sendCommand(
        call.db,
        links,
        bench.consoleLoads,
        param(call, 'instrumentId'),
        (call.body as { command: string }).command,
      ),
    }),
    getTraffic: async (call) => ({ body: await trafficOf(call.db, links, param(call, 'instrumentId')) }),
    live: async () => ({ stream: (response, lastId) => streamEvents(live, response, lastId) }),
    loadsOff: async () => {
      const pressed = bench.loadsOff.press();
      runner.nudgeAll();
      return { body: await pressed };
    },
    listLeases: async ({ db }) => ({ body: { items: await listLeases(db) } }),
    setLimits: async (call) =>
      tagged(await setLimits(call.db, sampleId(call), (call.body as { limits: Limits | null }).limits, call.ifMatch)),
    getLabel: async (call) => saved('inline', await jobs.run('label', { sampleId: sampleId(call) }, call.left)),
    listSheets: async ({ db, query }) => ({
      body: { items: await listSheets(db, query.sampleId as string | undefined) },
    }),
    createSheet: async (call) =>
      versioned(await createSheet(call.db, sampleId(call), call.body as { methodId: string; rigId: string })),
    getSheetById: async (call) => versioned(await getSheet(call.db, param(call, 'sheetId'))),
    updateSheet: async (call) =>
      versioned(await updateSheet(call.db, param(call, 'sheetId'), call.body as SheetInput, call.ifMatch)),
    deleteSheet: async (call) => ({ body: await deleteSheet(call.db, param(call, 'sheetId'), call.ifMatch) }),
    startRun: async (call) => ({ body: await runner.start(param(call, 'sheetId'), call.body as StartInput) }),
    getRun: async (call) => ({ body: await getRun(call.db, param(call, 'runId')) }),
    getRunTrace: async (call) => ({
      body: { items: await listTrace(call.db, param(call, 'runId'), call.query.step as string | undefined) },
    }),
    askOfRun: async (call) => ({ body: await runner.ask(param(call, 'runId'), (call.body as { ask: Ask }).ask) }),
    hereAtRun: async (call) => {
      await here(call.db, param(call, 'runId'));
      return { body: {} };
    },
    getSimulatedBench: async () => ({ body: hand ? await hand.state() : NO_SIMULATED_BENCH }),
    runSimulated: async (call) => ({
      body: await runSimulated(call.db, hand, runner, sampleId(call), call.body as SimulatedInput),
    }),
    listRigs: async ({ db }) => ({ body: { items: await listRigs(db) } }),
    createRig: async ({ db, body }) => versioned(await createRig(db, body as RigInput)),
    updateRig: async (call) =>
      versioned(await updateRig(call.db, param(call, 'rigId'), call.body as RigInput, call.ifMatch)),
    listDevices: async ({ db }) => ({ body: { items: await listDevices(db) } }),
    createDevice: async ({ db, body }) => versioned(await createDevice(db, body as DeviceInput)),
    updateDevice: async (call) =>
      versioned(await updateDevice(call.db, param(call, 'deviceId'), call.body as DeviceInput, call.ifMatch)),
    getProfile: async ({ db }) => versioned(await getProfile(db)),
    updateProfile: async ({ db, body, ifMatch }) => versioned(await updateProfile(db, body as Profile, ifMatch)),
    listLimitSets: async ({ db }) => ({ body: { items: await listLimitSets(db) } }),
    createLimitSet: async ({ db, body }) => versioned(await createLimitSet(db, body as LimitSetInput)),
    updateLimitSet: async (call) =>
      versioned(await updateLimitSet(call.db, param(call, 'limitSetId'), call.body as LimitSetInput, call.ifMatch)),
    deleteLimitSet: async (call) => ({ body: await deleteLimitSet(call.db, param(call, 'limitSetId'), call.ifMatch) }),
    addStated: async (call) => ({ body: await addStated(call.db, sampleId(call), call.body as StatedInput) }),
    listColumnMaps: async ({ db }) => ({ body: { items: await listColumnMaps(db) } }),
  };
};
