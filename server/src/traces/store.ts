// Traces: their samples are written first, piece by piece, and count once a transaction names them.
import type { Channel, Trace } from '@lastmark/core/trace';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { tracePieces, traces } from '../db/schema.ts';
import { notFound } from '../http/problem.ts';
import { readSamples, readTimes, writeChannel, writeTimes } from './pieces.ts';

/** A trace nobody named is swept after so long, h by the database's clock: whoever wrote it is gone. */
const FORGOTTEN_HOURS = 6;
const SWEPT_AT_ONCE = 50;

/** A trace as it is kept: single precision, which is more digits than any meter has. Figures are worked out from this. */
export const asKept = (trace: Trace): Trace => ({
  ...trace,
  channels: trace.channels.map((channel): Channel => ({ ...channel, values: Float32Array.from(channel.values) })),
});

/**
 * Write a trace outside any transaction. Until {@link nameTrace} nothing shows it; the same id again writes the same.
 */
export async function writeTrace(db: Queries, id: string, trace: Trace): Promise<void> {
  const { samples, interval, times, began, channels, facts } = trace;
  const kept = channels.map(({ name, quantity, unit }) => ({ name, quantity, unit }));
  await db
    .insert(traces)
    .values({
      id,
      samples,
      interval,
      timed: times !== null,
      began,
      channels: kept,
      facts,
      named: false,
      startedAt: new Date(),
    })
    .onDuplicateKeyUpdate({ set: { id } });
  for (const [at, { values }] of channels.entries()) await writeChannel(db, id, at, values);
  if (times) await writeTimes(db, id, times);
}

/** Make a written trace count, in the transaction of what refers to it. @throws 404 where it was swept meanwhile */
export async function nameTrace(tx: Queries, id: string): Promise<void> {
  const [row] = await tx.select({ id: traces.id }).from(traces).where(eq(traces.id, id)).for('update');
  if (!row) throw notFound('trace');
  await tx.update(traces).set({ named: true }).where(eq(traces.id, id));
}

/** What a trace is, without its samples. */
export async function traceHead(db: Queries, id: string) {
  const [row] = await db
    .select()
    .from(traces)
    .where(and(eq(traces.id, id), eq(traces.named, true)));
  if (!row) throw notFound('trace');
  return row;
}

/** A whole trace. */
export async function readTrace(db: Queries, id: string): Promise<Trace> {
  const { samples, interval, timed, began, channels, facts } = await traceHead(db, id);
  const read: Channel[] = [];
  for (const [at, one] of channels.entries()) read.push({ ...one, values: await readSamples(db, id, at, 0, samples) });
  return {
    samples,
    interval,
    times: timed ? await readTimes(db, id) : null,
    began,
    channels: read,
    facts,
    remarks: [],
  };
}

/** Remove traces. */
async function drop(db: Queries, ids: readonly string[]): Promise<void> {
  // Piece by piece, so that no transaction is long.
  for (const id of ids) await db.delete(tracePieces).where(eq(tracePieces.traceId, id));
  if (ids.length > 0) await db.delete(traces).where(inArray(traces.id, [...ids]));
}

/** Remove a trace that was given up before anything named it. */
export async function dropUnnamed(db: Queries, id: string): Promise<void> {
  const [row] = await db
    .select({ id: traces.id })
    .from(traces)
    .where(and(eq(traces.id, id), eq(traces.named, false)));
  if (row) await drop(db, [id]);
}

/** Remove traces that nothing named for hours. @returns how many */
export async function sweepTraces(db: Database): Promise<number> {
  const old = sql`${traces.startedAt} < UTC_TIMESTAMP(3) - INTERVAL ${sql.raw(String(FORGOTTEN_HOURS))} HOUR`;
  const rows = await db
    .select({ id: traces.id })
    .from(traces)
    .where(and(eq(traces.named, false), old))
    .limit(SWEPT_AT_ONCE);
  await drop(
    db,
    rows.map(({ id }) => id),
  );
  return rows.length;
}
