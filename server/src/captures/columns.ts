// Samples as rows: each column deflated, in pieces.
import { promisify } from 'node:util';
import { deflate, inflate } from 'node:zlib';
import { CAPTURE_COLUMNS, type CaptureKind, type ColumnName } from '@lastmark/core/capture';
import { asc, eq } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { captureParts } from '../db/schema.ts';

/** Away from the thread that answers requests. */
const packed = promisify(deflate);
const unpacked = promisify(inflate);

/** Samples of one piece: 1 MiB before it is deflated. */
const PIECE = 262_144;

export type Columns = Partial<Record<ColumnName, Float64Array>>;

/** Samples are kept with seven digits, more than any capture has; figures are worked out from what is kept. */
export const asKept = (columns: Columns): Columns =>
  Object.fromEntries(
    Object.entries(columns).map(([name, values]) => [name, Float64Array.from(Float32Array.from(values))]),
  );

/** Store the columns of a capture. Belongs inside a transaction. */
export async function insertColumns(db: Queries, captureId: string, columns: Columns): Promise<void> {
  for (const [name, values] of Object.entries(columns) as [ColumnName, Float64Array][]) {
    const kept = Float32Array.from(values);
    for (let part = 0; part * PIECE < kept.length; part += 1) {
      const piece = kept.slice(part * PIECE, (part + 1) * PIECE);
      const bytes = await packed(Buffer.from(piece.buffer, piece.byteOffset, piece.byteLength));
      await db.insert(captureParts).values({ captureId, name, part, bytes });
    }
  }
}

/** The columns of a capture, in the order its kind names them. */
export async function columnsOf(db: Queries, captureId: string, kind: CaptureKind): Promise<Columns> {
  const rows = await db
    .select()
    .from(captureParts)
    .where(eq(captureParts.captureId, captureId))
    .orderBy(asc(captureParts.part));
  const plain = await Promise.all(
    rows.map(async ({ name, bytes }) => {
      const { buffer, byteOffset, byteLength } = await unpacked(bytes);
      return { name, values: new Float32Array(buffer.slice(byteOffset, byteOffset + byteLength)) };
    }),
  );
  return Object.fromEntries(
    CAPTURE_COLUMNS[kind].map((name) => {
      const pieces = plain.filter((one) => one.name === name).map(({ values }) => values);
      const all = new Float64Array(pieces.reduce((sum, { length }) => sum + length, 0));
      let at = 0;
      for (const piece of pieces) {
        all.set(piece, at);
        at += piece.length;
      }
      return [name, all];
    }),
  );
}
