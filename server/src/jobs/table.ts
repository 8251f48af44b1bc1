// Everything that takes more than a few milliseconds, each as a job: what it needs as plain data, and what comes of it.
import { readFile } from 'node:fs/promises';
import type {
  CaptureInput,
  ComparisonBody,
  DemoState,
  ImportInput,
  ImportOutcome,
  ReportInput,
  ShelfQuery,
  StoredComparison,
  StoredReport,
  TakenPackage,
  TraceSpectrum,
  TraceWindow,
  WantedMeasure,
} from '@lastmark/contract';
import type { Capture, Trace } from '@lastmark/core/capture';
import type { SetRule } from '@lastmark/core/compare';
import { heldBackBy } from '../across/cables.ts';
import { addAttachment, type Owner } from '../attachments/store.ts';
import { addCapture, captureFile, captureSpectrum, captureTrace } from '../captures/store.ts';
import { lookAtSet } from '../compare/set.ts';
import { createComparison, updateComparison } from '../compare/store.ts';
import type { Database } from '../db/database.ts';
import { showDemo } from '../demo/shown.ts';
import { deviceEvidence } from '../devices/evidence.ts';
import { dossierSince, getDossier, revisionsIn } from '../dossier/dossier.ts';
import { toCsv, toJson } from '../export/data.ts';
import { toVerdict } from '../export/verdict.ts';
import { ProblemError, refused } from '../http/problem.ts';
import { importFile } from '../importer/import.ts';
import { checkCode, issuedPdf } from '../issued/store.ts';
import { checkChain } from '../log/chain.ts';
import { PackageRefused } from '../packages/read.ts';
import { type StudyOf, studyOf } from '../packages/study.ts';
import { takeIn } from '../packages/take-in.ts';
import { packageOf } from '../packages/write.ts';
import type { Asked } from '../reports/content.ts';
import { draftReport, issuedAs, issueReport, type ReportForm } from '../reports/issue.ts';
import { getSample } from '../samples/store.ts';
import { labelPdf } from '../sheet/label.ts';
import { sheetPdf } from '../sheet/sheet.ts';
import { workOutFigures } from '../shelf/figures.ts';
import { listSamples } from '../shelf/shelf.ts';
import { today } from '../today/today.ts';

/** A file made of a sample, with the name it is saved under. */
export interface MadeFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

const NOTHING = new Uint8Array();
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
/** JSON is written where it was worked out, so that the thread that answers only passes it on. */
const jsonOf = (value: unknown): Uint8Array => bytesOf(JSON.stringify(value));

async function dossierFile(db: Database, sampleId: string, extension: string) {
  const dossier = await getDossier(db, sampleId);
  const { maker, model } = dossier.sample.model;
  return { dossier, name: `${maker} ${model} ${dossier.sample.tag}.${extension}` };
}

/** The arithmetic refuses what cannot be: a reading stored before there were bounds. @throws 422 that says so */
async function workedOut<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new ProblemError(
      422,
      'Cannot be worked out',
      `Something in this sample cannot be worked out: ${error.message} Look for an impossible reading and correct it.`,
    );
  }
}

/** A lane is a queue of its own: what people wait for on a screen does not wait behind files. */
export const LANES = ['screen', 'file', 'background'] as const;
export type Lane = (typeof LANES)[number];

interface Job<Needs, Result> {
  readonly lane: Lane;
  /** It is ended after so many ms where that is not the usual time. */
  readonly longest?: number;
  readonly work: (db: Database, needs: Needs) => Promise<Result>;
}
const job = <Needs, Result>(lane: Lane, work: Job<Needs, Result>['work']): Job<Needs, Result> => ({ lane, work });

export const JOBS = {
  dossier: job('screen', async (db, { sampleId, have }: { sampleId: string; have: string }) =>
    jsonOf(await dossierSince(db, sampleId, revisionsIn(have))),
  ),
  deviceEvidence: job('screen', async (db, _needs: object) => jsonOf(await deviceEvidence(db))),
  heldBack: job('screen', async (db, { sampleId }: { sampleId: string }) =>
    jsonOf({ items: await heldBackBy(db, sampleId) }),
  ),
  checkLog: job('file', (db, _asked: object) => checkChain(db)),
  figures: job('background', (db, { most, milliseconds }: { most: number; milliseconds: number }) =>
    workOutFigures(db, most, milliseconds),
  ),
  today: job('screen', async (db, _asked: object) => jsonOf(await today(db))),
  shelf: job('screen', async (db, query: ShelfQuery) => jsonOf(await listSamples(db, query))),
  trace: job(
    'screen',
    (
      db,
      { captureId, ...window }: { captureId: string; buckets: number; from: number | null; to: number | null },
    ): Promise<TraceWindow> => captureTrace(db, captureId, window),
  ),
  spectrum: job(
    'screen',
    (
      db,
      { captureId, from, to }: { captureId: string; from: number | null; to: number | null },
    ): Promise<TraceSpectrum> => captureSpectrum(db, captureId, from, to),
  ),
  sheet: job('file', async (db, { sampleId }: { sampleId: string }): Promise<MadeFile> => {
    const { dossier, name } = await dossierFile(db, sampleId, 'pdf');
    return { name, bytes: await workedOut(() => sheetPdf(dossier, new Date())) };
  }),
  report: job(
    'file',
    (
      db,
      {
        sampleId,
        form,
        ...asked
      }: { sampleId: string; form: ReportForm } & Pick<Asked, 'language' | 'leaves' | 'others'>,
    ): Promise<MadeFile> => workedOut(() => draftReport(db, sampleId, form, asked)),
  ),
  package: job('file', (db, { sampleId }: { sampleId: string }): Promise<MadeFile> => packageOf(db, sampleId)),
  study: job('file', (db, of: StudyOf): Promise<MadeFile> => studyOf(db, of)),
  takePackage: job('file', async (db, { path }: { path: string }): Promise<TakenPackage> => {
    try {
      return await takeIn(db, await readFile(path));
    } catch (error) {
      if (error instanceof PackageRefused) throw refused('file', error.message);
      throw error;
    }
  }),
  issuedAs: job(
    'file',
    (db, { reportId, form }: { reportId: string; form: Exclude<ReportForm, 'pdf'> }): Promise<MadeFile> =>
      issuedAs(db, reportId, form),
  ),
  issueReport: job(
    'file',
    (db, { sampleId, report }: { sampleId: string; report: ReportInput }): Promise<StoredReport> =>
      workedOut(() => issueReport(db, sampleId, report)),
  ),
  issuedReport: job('file', (db, { reportId }: { reportId: string }): Promise<MadeFile> => issuedPdf(db, reportId)),
  checkCode: job('screen', async (db, { code }: { code: string }) => jsonOf(await checkCode(db, code))),
  // Who stands in a set is told by looking at the whole shelf.
  createComparison: job(
    'screen',
    (db, { body }: { body: ComparisonBody }): Promise<StoredComparison> => createComparison(db, body),
  ),
  updateComparison: job(
    'screen',
    (db, { id, body, seen }: { id: string; body: ComparisonBody; seen: string | null }): Promise<StoredComparison> =>
      updateComparison(db, id, body, seen),
  ),
  comparisonSet: job('screen', async (db, { rule, measures }: { rule: SetRule; measures: WantedMeasure[] }) =>
    jsonOf(await lookAtSet(db, rule, measures)),
  ),
  // Filling the shelf draws, judges and prints: nothing for the thread that holds the loads.
  demo: {
    ...job('file', (db, { shown }: { shown: boolean }): Promise<DemoState> => showDemo(db, shown)),
    // Of fixed size, and nobody can hang it: a slow machine is given its time.
    longest: 900_000,
  },
  label: job(
    'file',
    async (db, { sampleId }: { sampleId: string }): Promise<MadeFile> => ({
      name: `label ${sampleId.slice(-6)}.pdf`,
      bytes: await labelPdf(await getSample(db, sampleId)),
    }),
  ),
  csv: job('file', async (db, { sampleId }: { sampleId: string }): Promise<MadeFile> => {
    const { dossier, name } = await dossierFile(db, sampleId, 'csv');
    return { name, bytes: bytesOf(toCsv(dossier)) };
  }),
  json: job('file', async (db, { sampleId }: { sampleId: string }): Promise<MadeFile> => {
    const { dossier, name } = await dossierFile(db, sampleId, 'json');
    return { name, bytes: await workedOut(async () => jsonOf(toJson(dossier, new Date().toISOString()))) };
  }),
  verdict: job('file', async (db, { sampleId }: { sampleId: string }) => {
    const dossier = await getDossier(db, sampleId);
    return workedOut(async () => jsonOf(toVerdict(dossier)));
  }),
  traceCsv: job('file', async (db, { captureId }: { captureId: string }): Promise<MadeFile> => {
    return captureFile(db, captureId);
  }),
  importFile: job(
    'file',
    async (db, needs: { sampleId: string; input: ImportInput; path: string | null }): Promise<ImportOutcome> =>
      importFile(db, needs.sampleId, needs.input, needs.path === null ? NOTHING : await readFile(needs.path)),
  ),
  addCapture: job(
    'file',
    async (
      db,
      /** Where the file stands, or what a scope told. */
      { sampleId, capture, from }: { sampleId: string; capture: CaptureInput['capture']; from: string | Trace | null },
    ): Promise<Capture> => addCapture(db, sampleId, capture, typeof from === 'string' ? await readFile(from) : from),
  ),
  attach: job('file', (db, needs: { owner: Owner; ownerId: string; name: string; file: Uint8Array }) =>
    addAttachment(db, needs.owner, needs.ownerId, needs.name, Buffer.from(needs.file)),
  ),
} as const;

export type JobName = keyof typeof JOBS;
export type Needs<N extends JobName> = Parameters<(typeof JOBS)[N]['work']>[1];
export type Result<N extends JobName> = Awaited<ReturnType<(typeof JOBS)[N]['work']>>;
