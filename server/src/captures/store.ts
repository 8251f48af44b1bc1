// Captures: only ever added, raw samples kept, figures worked out once; idle captures count as idle readings too.

import type { CaptureTrace } from '@lastmark/contract';
import {
  type Capture,
  type CaptureHead,
  captureContradiction,
  captureFigures,
  captureTable,
  currentCaptures,
  minMax,
  readCapture,
  type ScopeSpecs,
  type Trace,
} from '@lastmark/core/capture';
import { currentReadings } from '@lastmark/core/reading';
import { csvText } from '@lastmark/core/table';
import { eq } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { captures, points, readings, samples, setups } from '../db/schema.ts';
import { notFound, refused } from '../http/problem.ts';
import { toReading } from '../readings/reading-row.ts';
import { storePoints } from '../readings/store.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { type DossierPart, keptIn, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';
import { asKept, type Columns, columnsOf, insertColumns } from './columns.ts';

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
  const ofPort = head.kind === 'fading' || head.kind === 'dip' || head.kind === 'sweep';
  if (ofPort && head.port === null) throw refused('capture.port', 'Say which port it was recorded at.');
  if (head.kind === 'waveform' && head.mains.kind === 'dc')
    throw refused('capture.mains', 'A DC supply has no waveform: power factor is for AC.');
  if (head.kind === 'sweep' && head.mains.kind === 'ac')
    throw refused('capture.mains', 'A sweep lowers a DC supply; this one is AC.');
  if (head.setupId === null) return;
  const [setup] = await tx.select({ of: setups.sampleId }).from(setups).where(eq(setups.id, head.setupId));
  if (setup?.of !== sampleId) throw refused('capture.setupId', 'This loading is not there any more. Reload.');
}

/** Accuracy of what recorded the mains side: the scope of the rig, where its makers state one. */
async function scopeSpecs(tx: Queries, rigId: string): Promise<ScopeSpecs> {
  const rig = (await listRigs(tx)).find(({ id }) => id === rigId);
  const scope = (await listInstruments(tx)).find(({ id }) => id === rig?.drives?.scope);
  return { volts: scope?.specs.voltage, amps: scope?.specs.current };
}

/** Keep a capture inside a transaction. @param trace null to take one back @param counts whether an idle one is a reading too @throws 422 with the sentence */
export async function storeCapture(
  tx: Queries,
  sampleId: string,
  head: CaptureHead,
  trace: Trace | null,
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
  if (!head.withdrawn && !trace) throw refused('file', 'There are no samples in it.');
  await checkHead(tx, sampleId, head);
  const takenAt = new Date(head.takenAt);
  const columns: Columns = trace ? asKept(trace.columns) : {};
  const figures = trace
    ? captureFigures(
        head.kind,
        { interval: trace.interval, columns, ...(trace.gaps ? { gaps: trace.gaps } : {}) },
        await scopeSpecs(tx, head.rigId),
      )
    : before?.figures;
  if (!figures) throw refused('file', 'There are no samples in it.');
  if ('reason' in figures) throw refused('file', figures.reason);
  const contradiction = captureContradiction(head.mains, figures);
  if (contradiction) throw refused('capture.mains', contradiction);
  const body: Capture = {
    ...head,
    takenAt: takenAt.toISOString(),
    interval: trace?.interval ?? before?.interval ?? 0,
    samples: Object.values(columns)[0]?.length ?? 0,
    figures,
  };
  if (before) await strikeOut(tx, sampleId, before.id);
  const pointId = trace && counts ? await idlePoint(tx, sampleId, body) : null;
  await tx.insert(captures).values({
    id: body.id,
    sampleId,
    body,
    pointId,
    takenAt,
    supersedes: body.supersedes,
    enteredAt: new Date(),
  });
  await insertColumns(tx, body.id, columns);
  await changed(tx, sampleId, 'captures');
  return body;
}

/**
 * Add a capture, or take one back.
 * @param from the file it was recorded in, or what a scope told
 */
export async function addCapture(
  db: Database,
  sampleId: string,
  capture: CaptureHead,
  from: Uint8Array | Trace | null,
): Promise<Capture> {
  let trace: Trace | null = null;
  if (from instanceof Uint8Array) {
    const read = readCapture(capture.kind, from);
    if (!read.ok) throw refused('file', read.reason);
    trace = read.trace;
  } else trace = from;
  return db.transaction((tx) => storeCapture(tx, sampleId, capture, capture.withdrawn ? null : trace));
}

async function stored(db: Queries, id: string): Promise<{ body: Capture; columns: Columns }> {
  const [row] = await db.select({ body: captures.body }).from(captures).where(eq(captures.id, id));
  if (!row) throw notFound('capture');
  return { body: row.body, columns: await columnsOf(db, id, row.body.kind) };
}

/** Lowest and highest of each bucket of each column. */
export async function captureTrace(db: Queries, id: string, buckets: number): Promise<CaptureTrace> {
  const { body, columns } = await stored(db, id);
  const names = Object.keys(columns) as (keyof Columns)[];
  return {
    columns: names.map((name) => ({
      name,
      points: minMax(columns[name] ?? new Float64Array(), body.interval, buckets),
    })),
  };
}

/** Every sample as CSV. */
export async function captureFile(db: Queries, id: string): Promise<{ name: string; text: string }> {
  const { body, columns } = await stored(db, id);
  const text = csvText(captureTable({ interval: body.interval, columns }));
  return { name: `${body.kind} ${body.id.slice(-6)}.csv`, text };
}

export const capturesPart: DossierPart<'captures'> = {
  key: 'captures',
  load: (db, { sampleId }) => listCaptures(db, sampleId),
  have: samplesIn(captures),
  keeps: keptIn(captures, 'Captures were taken of'),
};
