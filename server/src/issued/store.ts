// Reports that were issued: frozen with the hash of what they were made from, amended and never rewritten.

import { createHash } from 'node:crypto';
import { deflateSync, inflateSync } from 'node:zlib';
import type { CodeAnswer, StoredReport } from '@lastmark/contract';
import { codeOf, readCode } from '@lastmark/core/report';
import { and, desc, eq, inArray, ne } from 'drizzle-orm';
import { OUT_OF_DATE } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { reportParts, reports, samples } from '../db/schema.ts';
import { notFound, refused } from '../http/problem.ts';
import { keptIn, type SamplePart } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';
import { seen, unseenAmong } from '../seen/seen.ts';

const PIECE = 1 << 20;
const MOST_LISTED = 500;

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

export type ReportRow = Omit<typeof reports.$inferSelect, 'author'> & { readonly author?: string | null };

export const toReport = (row: ReportRow, amendedBy: string | null): StoredReport => {
  // Whose it is, its person says; who sat at the keys, the log says.
  const { pdfHash: _, author: __, issuedAt, leaves, otherSamples, ...rest } = row;
  return {
    ...rest,
    leaves: leaves ?? [],
    otherSamples: otherSamples ?? [],
    issuedAt: issuedAt.toISOString(),
    amendedBy,
  };
};

/** Rows with the code of what amends each. */
export async function withAmendments(db: Queries, rows: readonly ReportRow[]): Promise<StoredReport[]> {
  if (rows.length === 0) return [];
  const later = await db
    .select({ amends: reports.amends, code: reports.code })
    .from(reports)
    .where(
      inArray(
        reports.amends,
        rows.map(({ id }) => id),
      ),
    );
  const byId = new Map(later.map(({ amends, code }) => [amends, code]));
  return rows.map((row) => toReport(row, byId.get(row.id) ?? null));
}

export async function listReports(db: Queries, sampleId: string | null): Promise<StoredReport[]> {
  if (sampleId !== null) await getSample(db, sampleId);
  const rows = await db
    .select({ report: reports })
    .from(reports)
    .innerJoin(samples, eq(samples.id, reports.sampleId))
    // Reports of the demo are away with it.
    .where(and(sampleId === null ? ne(samples.demo, 'away') : eq(reports.sampleId, sampleId), seen()))
    .orderBy(desc(reports.issuedAt), desc(reports.id))
    .limit(MOST_LISTED);
  // One with another sample in it that is not seen is not seen either.
  const others = rows.flatMap(({ report }) => report.otherSamples ?? []);
  const unseen = new Set(await unseenAmong(db, others));
  return withAmendments(
    db,
    rows.map(({ report }) => report).filter((one) => !one.otherSamples?.some((id) => unseen.has(id))),
  );
}

export async function reportRow(db: Queries, id: string): Promise<ReportRow> {
  const [row] = await db.select().from(reports).where(eq(reports.id, id));
  if (!row) throw notFound('report');
  return row;
}

async function bytesOf(db: Queries, reportId: string, what: 'content' | 'pdf'): Promise<Buffer> {
  const rows = await db
    .select({ bytes: reportParts.bytes })
    .from(reportParts)
    .where(and(eq(reportParts.reportId, reportId), eq(reportParts.what, what)))
    .orderBy(reportParts.part);
  return Buffer.concat(rows.map(({ bytes }) => bytes));
}

/** What a report was made from, deflated as it is kept. */
export const contentBytes = (db: Queries, reportId: string): Promise<Buffer> => bytesOf(db, reportId, 'content');

/** What a report was made from, as JSON. */
export const contentText = async (db: Queries, reportId: string): Promise<string> =>
  inflateSync(await bytesOf(db, reportId, 'content')).toString('utf8');

/** The PDF as it was issued. @throws 404 */
export async function issuedPdf(db: Queries, id: string): Promise<{ name: string; bytes: Uint8Array }> {
  const { title, code } = await reportRow(db, id);
  return { name: `${title} ${code}.pdf`, bytes: await bytesOf(db, id, 'pdf') };
}

/** Keep a report with what it was made from and its PDF: all of it, or nothing. */
export const keepReport = (db: Database, row: ReportRow, content: Buffer, pdf: Buffer): Promise<void> =>
  db.transaction(async (tx) => {
    await tx.insert(reports).values(row);
    await storeParts(tx, row.id, 'content', deflateSync(content));
    await storeParts(tx, row.id, 'pdf', pdf);
    await tx.update(samples).set(OUT_OF_DATE).where(eq(samples.id, row.sampleId));
  });

async function storeParts(tx: Queries, reportId: string, what: 'content' | 'pdf', bytes: Buffer): Promise<void> {
  for (let part = 0; part * PIECE < bytes.length; part += 1)
    await tx
      .insert(reportParts)
      .values({ reportId, what, part, bytes: bytes.subarray(part * PIECE, (part + 1) * PIECE) });
}

/** What of the frozen content stands in the row as well. */
interface Frozen {
  readonly id: string;
  readonly person: string;
  readonly language: string;
  readonly issuedAt: string;
  readonly amends: { readonly id: string; readonly reason: string; readonly fate: string | null } | null;
}

/** Whether what stands of a report is what was issued. */
async function isWhole(db: Queries, row: ReportRow): Promise<boolean> {
  try {
    const plain = inflateSync(await bytesOf(db, row.id, 'content'));
    const pdf = await bytesOf(db, row.id, 'pdf');
    if (sha256(plain) !== row.hash || sha256(pdf) !== row.pdfHash || codeOf(row.hash) !== row.code) return false;
    // What the row says beside it is what was hashed.
    const was = JSON.parse(plain.toString('utf8')) as Frozen;
    return (
      was.id === row.id &&
      was.person === row.person &&
      was.language === row.language &&
      was.issuedAt === row.issuedAt.toISOString() &&
      (was.amends?.id ?? null) === row.amends &&
      (was.amends?.reason ?? '') === row.reason &&
      (was.amends?.fate ?? null) === row.fate
    );
  } catch {
    return false;
  }
}

/** The newest in the line of amendments after a report; null where there is none. */
async function newestAfter(db: Queries, id: string): Promise<ReportRow | null> {
  let newest: ReportRow | null = null;
  for (let at = id; ; ) {
    const [next] = await db.select().from(reports).where(eq(reports.amends, at));
    if (!next) return newest;
    newest = next;
    at = next.id;
  }
}

/** What is known of a code. @throws 422 for what is no code */
export async function checkCode(db: Queries, text: string): Promise<CodeAnswer> {
  const read = readCode(text);
  if ('reason' in read) throw refused('code', read.reason);
  const { code } = read;
  const [row] = await db.select().from(reports).where(eq(reports.code, code));
  if (!row) return { code, state: 'unknown', report: null, newest: null };
  const [report = null] = await withAmendments(db, [row]);
  const later = await newestAfter(db, row.id);
  const [newest = null] = later ? await withAmendments(db, [later]) : [];
  const whole = await isWhole(db, row);
  return { code, state: whole ? (later ? 'amended' : 'untouched') : 'damaged', report, newest };
}

export const reportsPart: SamplePart = { keeps: keptIn(reports, 'Reports were issued of') };
