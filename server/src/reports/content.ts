// What a report is made of, frozen as it is issued: everything behind every figure, so that it can be held against any copy.
import type { SampleDossier } from '@lastmark/contract';
import type { FigureChange } from '@lastmark/core/conclusion';
import { type ConclusionLine, draftConclusion, type Language, standing, waiting } from '@lastmark/core/conclusion';
import { type LeavableId, type Recorded, recordingsOf } from '@lastmark/core/report';
import { judgeSample } from '@lastmark/core/verdict';
import { printable } from '../attachments/content.ts';
import { listAttachments, readAttachment } from '../attachments/store.ts';
import { getConclusion } from '../conclusions/store.ts';
import type { Database, Queries } from '../db/database.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';
import { usedInstruments, usedRigs } from '../dossier/used.ts';
import { refused } from '../http/problem.ts';
import { traceWindow } from '../traces/window.ts';

/** Grows with the shape of what is frozen, so that older ones stay readable. */
export const REPORT_FORM = 2;

/** What an amendment says of its forerunner. */
export interface Amending {
  readonly id: string;
  readonly code: string;
  readonly issuedAt: string;
  readonly kind: 'correction' | 'follow-up';
  readonly reason: string;
  /** What became of the sample, of a follow-up. */
  readonly fate: string | null;
  readonly changes: readonly FigureChange[];
}

/** What a report holds of one sample. */
export interface SampleContent {
  readonly dossier: SampleDossier;
  /** The conclusion as it was read. */
  readonly lines: readonly ConclusionLine[];
  /** Recordings as they are drawn. */
  readonly recorded: Recorded;
  /** Pictures somebody chose, as they are printed. */
  readonly photos: readonly Photo[];
}

/** A report: of one sample, with others beside it where somebody chose them. */
export interface ReportContent extends SampleContent {
  readonly form: number;
  readonly id: string;
  readonly language: Language;
  readonly person: string;
  /** UTC ISO 8601 */
  readonly issuedAt: string;
  readonly amends: Amending | null;
  /** Sections it leaves out. */
  readonly leaves: readonly LeavableId[];
  readonly others: readonly SampleContent[];
  /** Whether the maker saw the text before it was issued; null where nobody said. */
  readonly makerSaw: boolean | null;
}

/** A frozen report, of whichever form it was frozen in. */
export function readContent(text: string): ReportContent {
  const content = JSON.parse(text) as ReportContent;
  // The first form knew neither sections nor other samples, nor in its first days photos.
  return content.form < 2
    ? { ...content, leaves: [], others: [], makerSaw: null, photos: content.photos ?? [] }
    : content;
}

/** One sample of several as a report of its own, printed inside the other. */
export const ownContent = (content: ReportContent, own: SampleContent): ReportContent => ({
  ...content,
  ...own,
  amends: null,
  others: [],
});

/** A picture of a report: JPEG, base64. */
export interface Photo {
  readonly id: string;
  readonly name: string;
  readonly caption: string;
  readonly jpeg: string;
}

/** More than so many pictures no reader looks at. */
const MOST_PHOTOS = 24;

async function photosOf(db: Queries, sampleId: string): Promise<readonly Photo[]> {
  const chosen = (await listAttachments(db as Database, sampleId)).filter(({ inReport }) => inReport);
  const photos: Photo[] = [];
  for (const { id, name, caption } of chosen.slice(0, MOST_PHOTOS)) {
    const { bytes } = await readAttachment(db, id);
    photos.push({ id, name, caption, jpeg: (await printable(bytes)).toString('base64') });
  }
  return photos;
}

const BUCKETS = 300;

/** Recordings whose pictures are drawn; one whose samples cannot be read is left out, and its figures stay. */
async function recordedOf(db: Queries, ids: readonly string[]): Promise<Recorded> {
  const all: Record<string, Recorded[string]> = {};
  for (const id of ids) {
    const window = await traceWindow(db, id, null, null, BUCKETS).catch(() => null);
    if (window) all[id] = window.columns.map(({ name, quantity, points }) => ({ name, quantity, points }));
  }
  return all;
}

/** A dossier with the rigs and instruments that were used alone. */
export const ownOnly = (dossier: SampleDossier): SampleDossier => ({
  ...dossier,
  rigs: [...usedRigs(dossier)],
  instruments: [...usedInstruments(dossier)],
});

async function sampleContent(
  db: Queries,
  sampleId: string,
  photos: boolean,
): Promise<SampleContent & { waiting: number }> {
  const dossier = ownOnly(await getDossier(db, sampleId));
  const verdict = judgeSample(toJudge(dossier));
  const { lines: kept } = await getConclusion(db, sampleId);
  const drafts = draftConclusion(toJudge(dossier), verdict, dossier.sample.unit);
  const all = standing(kept, drafts, ({ key }) => key);
  return {
    dossier,
    lines: all.map(({ line }) => line).filter((line) => line.kind === 'own' || !line.hidden),
    recorded: await recordedOf(db, recordingsOf(verdict, dossier.sample.model.kind)),
    photos: photos ? await photosOf(db, sampleId) : [],
    waiting: waiting(all).length,
  };
}

/** Which report is asked for. */
export type Asked = Pick<
  ReportContent,
  'id' | 'language' | 'person' | 'issuedAt' | 'amends' | 'leaves' | 'makerSaw'
> & {
  readonly others: readonly string[];
  /** Refuse while a sentence of a conclusion waits for a yes. */
  readonly strict: boolean;
};

const nameOf = ({ sample: { model, tag } }: SampleDossier): string => `${model.maker} ${model.model} ${tag}`;

/**
 * Everything a report of a sample is made of.
 * @throws 422 while a sentence of a conclusion waits for a yes and it is asked for strictly, 404 for a sample that is none
 */
export async function gather(
  db: Queries,
  sampleId: string,
  { others, strict, ...head }: Asked,
): Promise<ReportContent> {
  const ids = [...new Set([sampleId, ...others])];
  const photos = !head.leaves.includes('photos');
  const all: SampleContent[] = [];
  for (const id of ids) {
    const { waiting: wait, ...own } = await sampleContent(db, id, photos);
    if (strict && wait > 0)
      throw refused(
        'report',
        `${wait === 1 ? 'One sentence' : `${wait} sentences`} of the conclusion${ids.length > 1 ? ` of ${nameOf(own.dossier)}` : ''} ${wait === 1 ? 'waits' : 'wait'} for a yes: the evidence changed since. Look at them at Verdict first.`,
      );
    all.push(own);
  }
  const [own, ...rest] = all;
  if (!own) throw new Error('A report needs a sample.');
  return { form: REPORT_FORM, ...head, ...own, others: rest };
}
