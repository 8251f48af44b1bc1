// Attached files, kept in the database so that one backup holds all.
import { createHash } from 'node:crypto';
import type { AttachmentInfo } from '@lastmark/contract';
import { and, countDistinct, eq, inArray, isNotNull, isNull, or } from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { attachmentParts, attachments, claims, points, readings } from '../db/schema.ts';
import { notFound, refused } from '../http/problem.ts';
import { removedFrom, type SamplePart } from '../samples/part.ts';
import { getSample, modelIdOf } from '../samples/store.ts';
import { type Recognised, recognise } from './content.ts';

const PART_BYTES = 1024 * 1024;

export type Owner = AttachmentInfo['owner'];

type Row = Omit<typeof attachments.$inferSelect, 'thumbnail' | 'author'> & { thumbnail: Buffer | null };

function toInfo(row: Row): AttachmentInfo {
  const [owner, ownerId]: [Owner, string] = row.claimId
    ? ['claim', row.claimId]
    : row.readingId
      ? ['reading', row.readingId]
      : ['sample', row.sampleId ?? ''];
  return {
    id: row.id,
    owner,
    ownerId,
    name: row.name,
    type: row.type,
    size: row.size,
    hasThumbnail: row.thumbnail !== null,
    createdAt: row.createdAt.toISOString(),
    caption: row.caption,
    inReport: row.inReport,
    points: 0,
  };
}

async function requireOwner(db: Queries, owner: Owner, id: string): Promise<void> {
  if (owner === 'sample') {
    await getSample(db, id);
    return;
  }
  const table = owner === 'claim' ? claims : readings;
  const [row] = await db.select({ id: table.id }).from(table).where(eq(table.id, id));
  if (!row) throw notFound(owner);
}

/** Store recognised bytes. Belongs inside a transaction. */
export async function insertAttachment(
  db: Queries,
  owner: { kind: Owner; id: string },
  name: string,
  { type, thumbnail, bytes }: Recognised,
): Promise<AttachmentInfo> {
  const row: Row = {
    id: newId(),
    sampleId: owner.kind === 'sample' ? owner.id : null,
    claimId: owner.kind === 'claim' ? owner.id : null,
    readingId: owner.kind === 'reading' ? owner.id : null,
    name,
    type,
    size: bytes.length,
    sha256: createHash('sha256').update(bytes).digest('hex'),
    thumbnail,
    caption: '',
    inReport: false,
    createdAt: new Date(),
  };
  await db.insert(attachments).values(row);
  for (let part = 0; part * PART_BYTES < bytes.length; part += 1) {
    const piece = bytes.subarray(part * PART_BYTES, (part + 1) * PART_BYTES);
    await db.insert(attachmentParts).values({ attachmentId: row.id, part, bytes: piece });
  }
  return toInfo(row);
}

/** Attach a file to a sample, a claim or a reading. */
export async function addAttachment(
  db: Database,
  owner: Owner,
  ownerId: string,
  name: string,
  bytes: Buffer,
): Promise<AttachmentInfo> {
  const recognised = await recognise(bytes, name);
  return db.transaction(async (tx) => {
    await requireOwner(tx, owner, ownerId);
    return insertAttachment(tx, { kind: owner, id: ownerId }, name, recognised);
  });
}

/** Files of a sample, of its model's claims and of its readings, oldest first. */
export async function listAttachments(db: Database, sampleId: string): Promise<AttachmentInfo[]> {
  const ownClaims = db
    .select({ id: claims.id })
    .from(claims)
    .where(eq(claims.modelId, await modelIdOf(db, sampleId)));
  const ownReadings = db
    .select({ id: readings.id })
    .from(readings)
    .innerJoin(points, eq(readings.pointId, points.id))
    .where(eq(points.sampleId, sampleId));
  const rows = await db
    .select()
    .from(attachments)
    .where(
      or(
        eq(attachments.sampleId, sampleId),
        inArray(attachments.claimId, ownClaims),
        inArray(attachments.readingId, ownReadings),
      ),
    )
    .orderBy(attachments.id);
  const standing = await pointsByFile(db, sampleId);
  return rows.map((row) => ({ ...toInfo(row), points: standing.get(row.id) ?? 0 }));
}

/** How many points came with each file and still have a reading that stands. */
async function pointsByFile(db: Queries, sampleId: string): Promise<ReadonlyMap<string, number>> {
  const later = alias(readings, 'later');
  const rows = await db
    .select({ fileId: points.fileId, count: countDistinct(points.id) })
    .from(points)
    .innerJoin(readings, eq(readings.pointId, points.id))
    .leftJoin(later, eq(later.supersedes, readings.id))
    .where(and(eq(points.sampleId, sampleId), isNotNull(points.fileId), isNotNull(readings.value), isNull(later.id)))
    .groupBy(points.fileId);
  return new Map(rows.map(({ fileId, count }) => [fileId ?? '', count]));
}

async function rowOf(db: Queries, id: string): Promise<Row> {
  const [row] = await db.select().from(attachments).where(eq(attachments.id, id));
  if (!row) throw notFound('file');
  return row;
}

export async function readAttachment(db: Queries, id: string): Promise<{ name: string; type: string; bytes: Buffer }> {
  const { name, type } = await rowOf(db, id);
  const parts = await db
    .select()
    .from(attachmentParts)
    .where(eq(attachmentParts.attachmentId, id))
    .orderBy(attachmentParts.part);
  return { name, type, bytes: Buffer.concat(parts.map(({ bytes }) => bytes)) };
}

export async function readThumbnail(db: Queries, id: string): Promise<Buffer> {
  const { thumbnail } = await rowOf(db, id);
  if (!thumbnail) throw notFound('thumbnail');
  return thumbnail;
}

/** Say what it shows, and whether it stands in the report. @throws 404 */
export async function describeAttachment(
  db: Database,
  id: string,
  { caption, inReport }: Pick<AttachmentInfo, 'caption' | 'inReport'>,
): Promise<AttachmentInfo> {
  const row = await rowOf(db, id);
  if (inReport && !row.type.startsWith('image/')) throw refused('inReport', 'Only pictures stand in a report.');
  await db.update(attachments).set({ caption, inReport }).where(eq(attachments.id, id));
  return toInfo({ ...row, caption, inReport });
}

export async function deleteAttachment(db: Database, id: string): Promise<void> {
  await rowOf(db, id);
  await db.delete(attachments).where(eq(attachments.id, id));
}

export const attachmentsPart: SamplePart = { remove: removedFrom(attachments) };
