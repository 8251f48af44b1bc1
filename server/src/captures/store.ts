// Captures: only ever added, raw samples kept, figures worked out once; idle captures count as idle readings too.

import type { TraceSpectrum, TraceWindow } from '@lastmark/contract';
import {
  type Capture,
  type CaptureHead,
  captureContradiction,
  currentCaptures,
  type KeptCapture,
  keptOf,
  type RecordedWith,
  type Trace,
  typedRipple,
} from '@lastmark/core/capture';
import { currentReadings } from '@lastmark/core/reading';
import { isPacked, readTrace as readText, type TraceReading, unpackTrace } from '@lastmark/core/trace';
import { eq } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { captures, points, readings, samples, setups } from '../db/schema.ts';
import { listDevices } from '../devices/store.ts';
import { notFound, refused } from '../http/problem.ts';
import { toReading } from '../readings/reading-row.ts';
import { storePoints } from '../readings/store.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { type DossierPart, keptIn, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';
import { traceCsv } from '../traces/csv.ts';
import { traceSpectrum } from '../traces/spectrum.ts';
import { dropUnnamed, nameTrace, writeTrace } from '../traces/store.ts';
import { traceWindow } from '../traces/window.ts';

/** All captures of a sample, corrected ones included, oldest first; without their samples. */
export async function listCaptures(db: Queries, sampleId: string): Promise<Capture[]> {
  const rows = await db
    .select({ body: captures.body })
    .from(captures)
    .where(eq(captures.sampleId, sampleId))
    .orderBy(captures.takenAt, captures.id);
  return rows.map(({ body }) => body);
}

/** An idle capture is also a reading: energy over its time. @returns the id of the point it made */
async function idlePoint(tx: Queries, sampleId: string, { figures, ...head }: Capture): Promise<string | null> {
  if (figures.kind !== 'idle') return null;
  const id = newId();
  const reading = (quantity: 'energy' | 'duration', typed: string) => ({
    id: newId(),
    quantity,
    place: 'mains' as const,
    port: null,
    typed,
  });
  const joules = figures.watts * figures.seconds;
  await storePoints(
    tx,
    sampleId,
    [
      {
        id,
        mains: head.mains,
        load: 0,
        attached: head.attached,
        rigId: head.rigId,
        takenAt: head.takenAt,
        readings: [reading('energy', `${joules.toFixed(6)} J`), reading('duration', `${figures.seconds.toFixed(3)} s`)],
      },
    ],
    head.source || 'capture',
  );
  return id;
}

/** Strike out what an idle capture had counted as. */
async function strikeOut(tx: Queries, sampleId: string, captureId: string): Promise<void> {
  const [row] = await tx.select({ pointId: captures.pointId }).from(captures).where(eq(captures.id, captureId));
  if (!row?.pointId) return;
  const [point] = await tx.select().from(points).where(eq(points.id, row.pointId));
  if (!point) return;
  const own = await tx
    .select()
    .from(readings)
    .where(eq(readings.pointId, point.id))
    .orderBy(readings.enteredAt, readings.id);
  const standing = currentReadings(own.map(toReading));
  await storePoints(
    tx,
    sampleId,
    [
      {
        id: point.id,
        mains: point.mains,
        load: point.load,
        attached: point.attached,
        rigId: point.rigId,
        takenAt: point.takenAt.toISOString(),
        readings: standing.map(({ id, quantity, place, port }) => ({
          id: newId(),
          quantity: quantity as 'energy',
          place,
          port,
          typed: '',
          supersedes: id,
        })),
      },
    ],
    'capture taken back',
  );
}

/** What of a capture contradicts the sample it is for. */
async function checkHead(tx: Queries, sampleId: string, head: CaptureHead): Promise<void> {
  const { model } = await getSample(tx, sampleId);
  if (head.port !== null && !model.ports.some(({ label }) => label === head.port))
    throw refused('capture.port', `There is no port "${head.port}".`);
  const ofPort = head.kind === 'fading' || head.kind === 'dip' || head.kind === 'sweep' || head.kind === 'ripple';
  if (ofPort && head.port === null) throw refused('capture.port', 'Say which port it was recorded at.');
  for (const { port } of head.outputs ?? [])
    if (!model.ports.some(({ label }) => label === port))
      throw refused('capture.outputs', `There is no port "${port}".`);
  if ((head.kind === 'ripple' || head.kind === 'soak') && !head.withdrawn && !head.outputs?.length)
    throw refused('capture.outputs', 'Say which port was at which level, and what was drawn.');
  if (head.kind === 'ripple' && head.outputs?.every(({ port }) => port !== head.port) && !head.withdrawn)
    throw refused('capture.port', `Say at which level ${head.port ?? 'the port'} was.`);
  if (head.kind === 'charge' && !head.withdrawn) {
    if (!head.charge) throw refused('capture.charge', 'Say which device was charged.');
    const { deviceId } = head.charge;
    if (!(await listDevices(tx)).some(({ id }) => id === deviceId))
      throw refused('capture.charge.deviceId', 'This device is not on the bench any more.');
    if (head.port === null) throw refused('capture.port', 'Say at which port it was charged.');
  }
  if (head.typed != null && head.kind !== 'ripple') throw refused('capture.typed', 'Only ripple is read off by eye.');
  if (head.kind === 'waveform' && head.mains.kind === 'dc')
    throw refused('capture.mains', 'A DC supply has no waveform: power factor is for AC.');
  if (head.kind === 'sweep' && head.mains.kind === 'ac')
    throw refused('capture.mains', 'A sweep lowers a DC supply; this one is AC.');
  if (head.setupId === null) return;
  const [setup] = await tx.select({ of: setups.sampleId }).from(setups).where(eq(setups.id, head.setupId));
  if (setup?.of !== sampleId) throw refused('capture.setupId', 'This loading is not there any more. Reload.');
}

/** What recorded it: the scope of the rig, where its makers state something, and the probe. */
async function recordedWith(db: Queries, rigId: string): Promise<RecordedWith> {
  const rig = (await listRigs(db)).find(({ id }) => id === rigId);
  const scope = (await listInstruments(db)).find(({ id }) => id === rig?.drives?.scope);
  return {
    specs: { volts: scope?.specs.voltage, amps: scope?.specs.current },
    bandwidth: rig?.probe?.bandwidth ?? null,
  };
}

/**
 * Work out what is kept and write its samples, outside any transaction: until a capture names them nothing shows them.
 * @param from a file or log as read, or what an instrument told @throws 422 with the sentence
 */
export async function writeCapture(db: Queries, head: CaptureHead, from: TraceReading | Trace): Promise<KeptCapture> {
  const kept = keptOf(head, from, await recordedWith(db, head.rigId));
  if ('reason' in kept) throw refused('file', kept.reason);
  await writeTrace(db, head.id, kept.trace);
  return kept;
}

/**
 * Keep a capture inside a transaction.
 * @param kept what {@link writeCapture} wrote; null to take one back, or for one read off by eye
 * @param counts whether an idle one is a reading too
 * @throws 422 with the sentence
 */
export async function storeCapture(
  tx: Queries,
  sampleId: string,
  head: CaptureHead,
  kept: KeptCapture | null,
  counts = true,
): Promise<Capture> {
  const [sample] = await tx.select({ id: samples.id }).from(samples).where(eq(samples.id, sampleId)).for('update');
  if (!sample) throw notFound('sample');
  const ways = {
    table: captures,
    what: 'capture',
    at: 'capture.',
    list: listCaptures,
    current: (all: readonly Capture[]) => currentCaptures(all),
  };
  const { repeated, superseded: before } = await beforeAdding(tx, sampleId, head, ways);
  if (repeated) return repeated;
  await checkHead(tx, sampleId, head);
  const typed = head.typed == null ? null : typedRipple(head.typed);
  const figures = head.withdrawn ? before?.figures : (kept?.figures ?? typed);
  if (!figures) throw refused('file', 'There are no samples in it.');
  const contradiction = captureContradiction(head.mains, figures);
  if (contradiction) throw refused('capture.mains', contradiction);
  const takenAt = new Date(head.takenAt);
  const body: Capture = {
    ...head,
    takenAt: takenAt.toISOString(),
    interval: kept?.trace.interval ?? before?.interval ?? 0,
    samples: kept?.trace.samples ?? 0,
    figures,
  };
  if (before) await strikeOut(tx, sampleId, before.id);
  if (kept) await nameTrace(tx, head.id);
  const pointId = kept && counts ? await idlePoint(tx, sampleId, body) : null;
  await tx.insert(captures).values({
    id: body.id,
    sampleId,
    body,
    deviceId: body.charge?.deviceId ?? null,
    pointId,
    takenAt,
    supersedes: body.supersedes,
    enteredAt: new Date(),
  });
  await changed(tx, sampleId, 'captures');
  return body;
}

/** The very capture, sent before. */
async function sentBefore(db: Queries, sampleId: string, id: string): Promise<Capture | null> {
  const [row] = await db
    .select({ body: captures.body, of: captures.sampleId })
    .from(captures)
    .where(eq(captures.id, id));
  return row?.of === sampleId ? row.body : null;
}

/**
 * Add a capture, or take one back.
 * @param from the file it was recorded in (text of any dialect, or a packed trace), or what a scope told
 */
export async function addCapture(
  db: Database,
  sampleId: string,
  capture: CaptureHead,
  from: Uint8Array | Trace | null,
): Promise<Capture> {
  const repeated = await sentBefore(db, sampleId, capture.id);
  if (repeated) return repeated;
  if (capture.withdrawn || from === null) return db.transaction((tx) => storeCapture(tx, sampleId, capture, null));
  // Whatever is wrong with the head is said before anything is written.
  await checkHead(db, sampleId, capture);
  const read = from instanceof Uint8Array ? (isPacked(from) ? unpackTrace(from) : readText(from)) : from;
  const kept = await writeCapture(db, capture, read);
  try {
    return await db.transaction((tx) => storeCapture(tx, sampleId, capture, kept));
  } catch (error) {
    await dropUnnamed(db, capture.id);
    throw error;
  }
}

async function bodyOf(db: Queries, id: string): Promise<Capture> {
  const [row] = await db.select({ body: captures.body }).from(captures).where(eq(captures.id, id));
  if (!row) throw notFound('capture');
  return row.body;
}

/** A stretch of its trace: lowest and highest of each bucket of each column. */
export async function captureTrace(
  db: Queries,
  id: string,
  { buckets, from, to }: { buckets: number; from: number | null; to: number | null },
): Promise<TraceWindow> {
  await bodyOf(db, id);
  return traceWindow(db, id, from, to, buckets);
}

/** What rides on an output in a stretch of its trace. */
export async function captureSpectrum(
  db: Queries,
  id: string,
  from: number | null,
  to: number | null,
): Promise<TraceSpectrum> {
  const { mains } = await bodyOf(db, id);
  return traceSpectrum(db, id, { from, to, mains: mains.kind === 'ac' ? mains.hertz : 0 });
}

/** Every sample as CSV. */
export async function captureFile(db: Queries, id: string): Promise<{ name: string; bytes: Uint8Array }> {
  const body = await bodyOf(db, id);
  return { name: `${body.kind} ${body.id.slice(-6)}.csv`, bytes: await traceCsv(db, id) };
}

export const capturesPart: DossierPart<'captures'> = {
  key: 'captures',
  load: (db, { sampleId }) => listCaptures(db, sampleId),
  have: samplesIn(captures),
  keeps: keptIn(captures, 'Captures were taken of'),
};
