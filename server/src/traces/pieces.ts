// Samples as rows: each channel and the levels above it deflated, in pieces.
import { promisify } from 'node:util';
import { deflate, inflate } from 'node:zlib';
import { levelsAbove, type Values } from '@lastmark/core/trace';
import { and, asc, eq, gte, lte } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { tracePieces } from '../db/schema.ts';

/** Away from the thread that answers requests. */
const packed = promisify(deflate);
const unpacked = promisify(inflate);

/** Numbers of one piece: 1 MiB before it is deflated. */
const PIECE = 262_144;
/** Stretches of one piece of a level: three numbers each. */
const STRETCHES = 65_536;
/** Where times stand among the channels. */
const TIMES = -1;

async function write(
  db: Queries,
  traceId: string,
  channel: number,
  stretch: number,
  numbers: Float32Array | Float64Array,
  size: number,
): Promise<void> {
  for (let part = 0; part * size < numbers.length; part += 1) {
    const piece = numbers.slice(part * size, (part + 1) * size);
    const bytes = await packed(Buffer.from(piece.buffer, piece.byteOffset, piece.byteLength), { level: 1 });
    await db
      .insert(tracePieces)
      .values({ traceId, channel, stretch, part, bytes })
      .onDuplicateKeyUpdate({ set: { bytes } });
  }
}

/** Write a channel in single precision, and what pictures are drawn from. */
export async function writeChannel(db: Queries, traceId: string, channel: number, values: Values): Promise<void> {
  await write(db, traceId, channel, 1, Float32Array.from(values), PIECE);
  for (const { stretch, triples } of levelsAbove(values))
    await write(db, traceId, channel, stretch, triples, 3 * STRETCHES);
}

export const writeTimes = (db: Queries, traceId: string, times: Float64Array): Promise<void> =>
  write(db, traceId, TIMES, 1, times, PIECE);

async function rows(
  db: Queries,
  traceId: string,
  channel: number,
  stretch: number,
  from: number,
  to: number,
): Promise<Buffer[]> {
  const found = await db
    .select({ bytes: tracePieces.bytes })
    .from(tracePieces)
    .where(
      and(
        eq(tracePieces.traceId, traceId),
        eq(tracePieces.channel, channel),
        eq(tracePieces.stretch, stretch),
        gte(tracePieces.part, from),
        lte(tracePieces.part, to),
      ),
    )
    .orderBy(asc(tracePieces.part));
  return Promise.all(found.map(({ bytes }) => unpacked(bytes)));
}

/** Bytes of several pieces as one block of memory that numbers may begin in. */
function joined(pieces: readonly Buffer[]): ArrayBuffer {
  const all = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all.buffer;
}

/** Samples of a channel from one index up to another. */
export async function readSamples(
  db: Queries,
  traceId: string,
  channel: number,
  from: number,
  to: number,
): Promise<Float32Array> {
  const first = Math.floor(from / PIECE);
  const pieces = await rows(db, traceId, channel, 1, first, Math.floor(Math.max(from, to - 1) / PIECE));
  return new Float32Array(joined(pieces)).subarray(from - first * PIECE, to - first * PIECE);
}

export async function readTimes(db: Queries, traceId: string): Promise<Float64Array> {
  return new Float64Array(joined(await rows(db, traceId, TIMES, 1, 0, Number.MAX_SAFE_INTEGER)));
}

/** Stretches of a level from one index up to another, three numbers each; null where the level is not kept. */
export async function readStretches(
  db: Queries,
  traceId: string,
  channel: number,
  stretch: number,
  from: number,
  to: number,
): Promise<Float32Array | null> {
  const first = Math.floor(from / STRETCHES);
  const pieces = await rows(db, traceId, channel, stretch, first, Math.floor(Math.max(from, to - 1) / STRETCHES));
  if (pieces.length === 0) return null;
  return new Float32Array(joined(pieces)).subarray(3 * (from - first * STRETCHES), 3 * (to - first * STRETCHES));
}
