// Issuing a report: what it is made from is gathered, hashed, printed, and kept for ever.
import type { ReportInput, StoredReport } from '@lastmark/contract';
import type { FigureChange } from '@lastmark/core/conclusion';
import { changesBetween, codeOf, figuresOfReport } from '@lastmark/core/report';
import { judgeSample } from '@lastmark/core/verdict';
import { eq } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { reports } from '../db/schema.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';
import { conflict, refused } from '../http/problem.ts';
import {
  contentText,
  keepReport,
  type ReportRow,
  reportRow,
  sha256,
  toReport,
  withAmendments,
} from '../issued/store.ts';
import { type Amending, type Asked, gather, type ReportContent, readContent } from './content.ts';
import { reportHtml } from './html.ts';
import { reportPdf } from './pdf.ts';
import { picturesZip } from './pictures.ts';

/** The forerunner of an amendment, with which figures changed. @throws 409 when another amends it already */
async function amendingOf(db: Queries, sampleId: string, input: ReportInput): Promise<Amending | null> {
  if (input.kind === 'first') return null;
  const row = await reportRow(db, input.amends);
  if (row.sampleId !== sampleId) throw refused('report.amends', 'That is a report of another sample.');
  const [later] = await db.select({ code: reports.code }).from(reports).where(eq(reports.amends, row.id));
  if (later) throw conflict(`It was amended already: ${later.code} is the newer one. Amend that.`);
  const before = readContent(await contentText(db, row.id));
  const changes: FigureChange[] = [];
  const still = before.others.filter(({ dossier }) => input.otherSamples?.includes(dossier.sample.id));
  for (const { dossier } of [before, ...still]) {
    const was = toJudge(dossier);
    const is = toJudge(await getDossier(db, dossier.sample.id));
    const own = changesBetween(figuresOfReport(was, judgeSample(was)), figuresOfReport(is, judgeSample(is)));
    changes.push(
      ...own.map((one) => (before.others.length > 0 ? { ...one, name: `${dossier.sample.tag}: ${one.name}` } : one)),
    );
  }
  return {
    id: row.id,
    code: row.code,
    issuedAt: row.issuedAt.toISOString(),
    kind: input.kind,
    reason: input.reason,
    fate: input.kind === 'follow-up' ? input.fate : null,
    changes,
  };
}

/**
 * Issue a report. The same id twice is issued once.
 * @throws 422 while a sentence of its conclusion waits, 409 for an amendment of what was amended already
 */
export async function issueReport(
  db: Database,
  sampleId: string,
  input: ReportInput,
  issued = new Date(),
): Promise<StoredReport> {
  const [there] = await db.select().from(reports).where(eq(reports.id, input.id));
  if (there) {
    const [own] = await withAmendments(db, [there]);
    if (own && own.sampleId === sampleId) return own;
    throw conflict('Another report has this id.');
  }
  const amends = await amendingOf(db, sampleId, input);
  const { id, language, person, leaves = [], otherSamples = [] } = input;
  const content = await gather(db, sampleId, {
    id,
    language,
    person,
    issuedAt: issued.toISOString(),
    amends,
    leaves,
    makerSaw: input.makerSaw ?? null,
    others: otherSamples.filter((other) => other !== sampleId),
    strict: true,
  });
  const plain = Buffer.from(JSON.stringify(content));
  const hash = sha256(plain);
  const code = codeOf(hash);
  const pdf = await reportPdf(content, code);
  const { model, tag } = content.dossier.sample;
  const row: ReportRow = {
    id,
    sampleId,
    code,
    hash,
    pdfHash: sha256(pdf),
    kind: input.kind,
    language,
    title: `${model.maker} ${model.model} ${tag}`,
    person,
    amends: amends?.id ?? null,
    reason: amends?.reason ?? '',
    fate: input.kind === 'follow-up' ? input.fate : null,
    changes: [...(amends?.changes ?? [])],
    leaves: [...content.leaves],
    otherSamples: content.others.map(({ dossier }) => dossier.sample.id),
    size: pdf.length,
    issuedAt: issued,
  };
  await keepReport(db, row, plain, pdf);
  return toReport(row, null);
}

/** How a report is handed out. */
export const REPORT_FORMS = ['pdf', 'html', 'pictures'] as const;
export type ReportForm = (typeof REPORT_FORMS)[number];

async function made(content: ReportContent, code: string | null, form: ReportForm): Promise<MadeReport> {
  const { model, tag } = content.dossier.sample;
  const name = `${model.maker} ${model.model} ${tag} ${code ?? 'draft'}`;
  if (form === 'pictures') return { name: `${name} pictures.zip`, bytes: picturesZip(content) };
  if (form === 'html') return { name: `${name}.html`, bytes: new TextEncoder().encode(reportHtml(content, code)) };
  return { name: `${name}.pdf`, bytes: await reportPdf(content, code) };
}

interface MadeReport {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** The report as it would be now. */
export async function draftReport(
  db: Database,
  sampleId: string,
  form: ReportForm,
  asked: Pick<Asked, 'language' | 'leaves' | 'others'>,
): Promise<MadeReport> {
  const issuedAt = new Date().toISOString();
  const content = await gather(db, sampleId, {
    ...asked,
    id: '',
    person: '',
    issuedAt,
    amends: null,
    makerSaw: null,
    strict: false,
  });
  return made(content, null, form);
}

/** A report that was issued, in another form: made from what was frozen, whatever is known by now. @throws 404 */
export async function issuedAs(db: Database, reportId: string, form: Exclude<ReportForm, 'pdf'>): Promise<MadeReport> {
  const { code } = await reportRow(db, reportId);
  return made(readContent(await contentText(db, reportId)), code, form);
}
