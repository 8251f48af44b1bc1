// Takes a meter file into a loading: all of it, or nothing.
import { createHash } from 'node:crypto';
import type { ImportInput, ImportOutcome } from '@lastmark/contract';
import { LOAD_POINTS } from '@lastmark/core/efficiency';
import {
  type FileContext,
  type FilePoint,
  type FileReading,
  type FileValue,
  headerKey,
  isDrifting,
  momentOf,
  planProblems,
  readMeterFile,
} from '@lastmark/core/meter-file';
import { fixed, formatPlain } from '@lastmark/core/quantity';
import {
  aboveRange,
  accept,
  calibrationOverdue,
  contradictions,
  type Entry,
  mainsLabel,
  type Reading,
  type Rig,
  type Setup,
} from '@lastmark/core/reading';
import { decodeText } from '@lastmark/core/table';
import { and, eq } from 'drizzle-orm';
import { insertAttachment } from '../attachments/store.ts';
import { listInstruments, listRigs } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { attachments, columnMaps, points, readings } from '../db/schema.ts';
import { conflict, notFound, ProblemError, refused } from '../http/problem.ts';
import { getProfile } from '../profile/store.ts';
import { readingRow } from '../readings/stored.ts';
import { getSample } from '../samples/store.ts';
import { listSetups } from '../setups/store.ts';

const ENTRY_OF: Record<FileValue['role'], Pick<Entry, 'quantity'>> = {
  'input-watts': { quantity: 'power' },
  'power-factor': { quantity: 'power-factor' },
  'output-volts': { quantity: 'voltage' },
  'output-amps': { quantity: 'current' },
  'output-watts': { quantity: 'power' },
};

/** Lines of a point that drifts do not repeat one value: their mean is no better known than one of them. */
const toEntry = (value: FileValue, rig: Rig, drifts: boolean): Entry => ({
  ...ENTRY_OF[value.role],
  place: value.port === null ? 'mains' : rig.outputPlace,
  port: value.port,
  value: value.mean,
  count: drifts ? 1 : value.count,
  spread: value.spread,
  step: 0,
});

/** The readings of one file point. @throws 422 when they contradict each other */
function toReadings(
  point: FilePoint,
  rig: Rig,
  instruments: Awaited<ReturnType<typeof listInstruments>>,
  fileName: string,
  takenAt: string,
): Reading[] {
  const entries = point.values.map((value) => toEntry(value, rig, isDrifting(point)));
  const lines =
    point.lines === 1 ? `line ${point.firstLine}` : `${point.lines} lines, ${point.firstLine}–${point.lastLine}`;
  for (const entry of entries) {
    const over = aboveRange(entry, rig, instruments);
    if (over)
      throw refused('text', `${mainsLabel(point.mains)}, ${Math.round(point.load * 100)} % (${lines}): ${over}`);
  }
  const made = entries.map((entry): Reading => {
    const accepted = accept(entry, entries, rig, instruments);
    const instrument = instruments.find(({ id }) => id === accepted.instrumentId);
    return {
      ...entry,
      ...accepted,
      overdue: instrument !== undefined && calibrationOverdue(instrument, takenAt),
      id: newId(),
      typed: formatPlain(entry.value ?? 0, entry.quantity, entry.quantity === 'power-factor' ? '' : undefined),
      takenAt,
      source: `${fileName}, ${lines}${isDrifting(point) ? `, drifting ${fixed((point.drift ?? 0) * 100, 1)} %` : ''}`,
      supersedes: null,
    };
  });
  const [contradiction] = contradictions({ load: point.load, attached: 'nothing', readings: made });
  if (contradiction)
    throw refused('text', `${mainsLabel(point.mains)}, ${Math.round(point.load * 100)} % (${lines}): ${contradiction}`);
  return made;
}

async function rememberColumns(db: Queries, plan: ImportInput['plan']): Promise<void> {
  const key = headerKey(plan.columns).slice(0, 2000);
  const headerHash = createHash('sha256').update(key).digest('hex');
  const usedAt = new Date();
  await db
    .insert(columnMaps)
    .values({ headerHash, headerKey: key, plan, usedAt })
    .onDuplicateKeyUpdate({ set: { plan, usedAt } });
}

/** Remembered plans by header, last used first. */
export async function listColumnMaps(db: Queries): Promise<{ headerKey: string; plan: ImportInput['plan'] }[]> {
  const rows = await db.select().from(columnMaps);
  return rows
    .sort((a, b) => b.usedAt.getTime() - a.usedAt.getTime())
    .map(({ headerKey: key, plan }) => ({ headerKey: key, plan }));
}

async function contextOf(
  db: Queries,
  sampleId: string,
  input: ImportInput,
): Promise<{ context: FileContext; setup: Setup; rig: Rig }> {
  await getSample(db, sampleId);
  const setup = (await listSetups(db, sampleId)).find(({ id }) => id === input.setupId);
  if (!setup) throw notFound('loading');
  const rig = (await listRigs(db)).find(({ id }) => id === setup.rigId);
  if (!rig) throw notFound('rig');
  const { mains } = await getProfile(db);
  const { wholeFileMains } = input;
  if (wholeFileMains && !mains.some((one) => mainsLabel(one) === mainsLabel(wholeFileMains))) {
    throw refused('wholeFileMains', `${mainsLabel(wholeFileMains)} is not among the mains of the profile.`);
  }
  return { setup, rig, context: { outputs: setup.outputs, mains, wholeFileMains, loads: LOAD_POINTS } };
}

/** How far ahead of this machine's clock a meter's may be, ms. */
const AHEAD = 86_400_000;

/** When a point was taken: as its last line says, else when the file was written. @throws 422 for a time yet to come */
function takenAtOf(
  { taken, lastLine }: FilePoint,
  clock: FileReading['clock'],
  { takenAt, offsetMinutes = 0 }: ImportInput,
): string {
  if (!taken || !clock) return takenAt;
  const at = momentOf(taken.to, clock.base, clock.last, takenAt, offsetMinutes);
  if (Date.parse(at) > Date.now() + AHEAD)
    throw refused(
      'plan.columns',
      `Line ${lastLine} is of ${at.slice(0, 10)}, which is yet to come: the meter’s clock is wrong. Set its time to “Not used”.`,
    );
  return at;
}

/** The same bytes on the same sample are the same measurement. @throws 409 with when they came */
async function refuseTwice(db: Queries, sampleId: string, file: Uint8Array): Promise<void> {
  const sha256 = createHash('sha256').update(file).digest('hex');
  const [known] = await db
    .select({ name: attachments.name, createdAt: attachments.createdAt })
    .from(attachments)
    .where(and(eq(attachments.sampleId, sampleId), eq(attachments.sha256, sha256)))
    .limit(1);
  if (known)
    throw conflict(
      `This very file was taken in on ${known.createdAt.toISOString().slice(0, 10)} as "${known.name}". Taken in again it would count twice: agree to that, or leave it.`,
    );
}

/**
 * Import a meter file in one transaction: its points, the file itself, and the column mapping for next time.
 * @throws 409 for a file that was taken in before, unless that is agreed to; 422 with the bad lines while `keepGood` is not set, or when no line is good
 */
export async function importFile(
  db: Database,
  sampleId: string,
  input: ImportInput,
  file: Uint8Array,
): Promise<ImportOutcome> {
  if (file.length === 0) throw refused('file', 'The file is empty.');
  const { context, setup, rig } = await contextOf(db, sampleId, input);
  const problems = planProblems(input.plan, context);
  if (problems.length > 0) throw refused('plan.columns', problems.join(' '));
  const text = decodeText(file);
  const { points: found, goodLines, badLines: shown, badCount, clock } = readMeterFile(text, input.plan, context);
  if (goodLines === 0) {
    throw new ProblemError(422, 'Nothing to keep', `None of ${badCount} lines could be read.`, {
      badLines: shown,
    });
  }
  if (badCount > 0 && !input.keepGood) {
    throw new ProblemError(
      422,
      'Bad lines',
      `${badCount} of ${goodLines + badCount} lines could not be read. Agree to keep the others, or mend the file.`,
      { badLines: shown },
    );
  }
  if (!input.again) await refuseTwice(db, sampleId, file);
  const instruments = await listInstruments(db);
  const made = found.map((point) => {
    const takenAt = takenAtOf(point, clock, input);
    return { point, takenAt, readings: toReadings(point, rig, instruments, input.fileName, takenAt) };
  });
  return db.transaction(async (tx) => {
    const kept = await insertAttachment(tx, { kind: 'sample', id: sampleId }, input.fileName, {
      bytes: Buffer.from(file),
      type: 'text/csv',
      thumbnail: null,
    });
    const enteredAt = new Date();
    for (const { point, takenAt, readings: own } of made) {
      const id = newId();
      await tx.insert(points).values({
        id,
        sampleId,
        setupId: point.load === 0 ? null : setup.id,
        mains: point.mains,
        load: point.load,
        attached: 'nothing',
        evidence: setup.evidence,
        rigId: rig.id,
        fileId: kept.id,
        takenAt: new Date(takenAt),
      });
      await tx.insert(readings).values(own.map((reading) => readingRow(id, reading, enteredAt)));
    }
    await rememberColumns(tx, input.plan);
    await changed(tx, sampleId, 'points');
    return { points: made.length, goodLines, badLines: shown, attachmentId: kept.id };
  });
}
