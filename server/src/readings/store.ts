// Where entered values become readings: parsed, given their uncertainty, checked for contradictions, added for good.
import type { PointInput, ReadingInput } from '@lastmark/contract';
import { digitStep, parseQuantity } from '@lastmark/core/quantity';
import {
  aboveRange,
  accept,
  calibrationOverdue,
  contradictions,
  currentReadings,
  type Entry,
  lineRefusal,
  type Place,
  type Point,
  type Reading,
  type Rig,
  type Setup,
  type Taken,
  unlikely,
} from '@lastmark/core/reading';
import { and, eq, isNull } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { people, points, readings, samples } from '../db/schema.ts';
import { askReally, conflict, notFound, refused } from '../http/problem.ts';
import { listSetups, loadingFor } from '../setups/store.ts';
import { wasRepeated } from '../who/who.ts';
import { type Conditions, readingRow, type Stored, storedPoints } from './stored.ts';

/** A reading an instrument took: the mean of several looks, written out in full. */
export type TakenReading = ReadingInput;
export type TakenPoint = Omit<PointInput, 'readings'> & {
  readonly readings: readonly TakenReading[];
  /** How it was taken, where a run watched it. */
  readonly taken?: Taken;
};

/** What readings of a sample are taken with. */
interface Bench {
  readonly rigs: Awaited<ReturnType<typeof listRigs>>;
  readonly instruments: Awaited<ReturnType<typeof listInstruments>>;
  readonly setups: Awaited<ReturnType<typeof listSetups>>;
}

/** A point ready to be stored: its conditions, what stood before, and what is new. */
interface Prepared {
  readonly conditions: Conditions;
  readonly isNew: boolean;
  readonly fresh: readonly Reading[];
}

const isOutput = (input: ReadingInput): boolean => input.place !== 'mains';

/** Value in SI, or null for a strike-out. */
function typedValue(input: ReadingInput, path: string): number | null {
  if (input.typed.trim() === '') {
    if (!input.supersedes) throw refused(path, 'Nothing typed.');
    return null;
  }
  const parsed = parseQuantity(input.typed, input.quantity);
  if (!parsed.ok) throw refused(path, parsed.reason);
  return parsed.value;
}

/** A correction must correct a standing reading of the same thing; a new value must not stand beside an old one. */
function checkCorrection(input: ReadingInput, standing: readonly Reading[]): void {
  const same = (reading: Reading) =>
    reading.quantity === input.quantity && reading.place === input.place && reading.port === input.port;
  const before = standing.find(same);
  if (input.supersedes) {
    if (before?.id !== input.supersedes)
      throw conflict('Someone corrected this reading meanwhile. Reload to see their value, then correct it again.');
  } else if (before) {
    throw conflict('There is a reading here already. Reload to see it; a correction supersedes it.');
  }
}

/** Places a rig can read outputs at; a charger's own display needs no meter. */
const placesOf = ({ outputPlace, meters }: Rig): readonly Place[] => [
  // A rig that reads at the socket only has no meter at the output.
  ...(meters.outputVolts === null ? [] : [outputPlace]),
  ...(outputPlace === 'port' && meters.loadEnd ? (['load-end'] as const) : []),
  'display',
];

/** A step beyond what the line may carry is refused; a reason given lets it through and stays with the point. */
function checkLine(rig: Rig, setup: Setup | undefined, load: number, override: string | null, path: string): void {
  if (override || load === 0) return;
  for (const { volts, amps } of setup?.outputs ?? []) {
    const refusal = lineRefusal(rig.elements, volts, amps * load);
    if (refusal) throw refused(path, `${refusal} Take a line that carries it, or give a reason to go beyond.`);
  }
}

const sameConditions = (row: Stored['conditions'], wanted: Conditions): boolean =>
  row.sampleId === wanted.sampleId &&
  row.setupId === wanted.setupId &&
  row.load === wanted.load &&
  row.attached === wanted.attached &&
  row.rigId === wanted.rigId &&
  JSON.stringify(row.mains) === JSON.stringify(wanted.mains);

/**
 * Two who begin the same row at once make two halves of one run. The second is told, and the first one's stays.
 * @param standing points under these conditions that whoever types knows of
 * @throws 409 where there is another
 */
async function requireFirst(db: Queries, conditions: Conditions, standing: readonly string[]): Promise<void> {
  const { sampleId, setupId, load, attached, mains } = conditions;
  // One after the other: without this lock both would find nothing.
  await db.select({ id: samples.id }).from(samples).where(eq(samples.id, sampleId)).for('update');
  const rows = await db
    .select({ id: points.id, mains: points.mains, who: people.name })
    .from(points)
    .innerJoin(readings, eq(readings.pointId, points.id))
    .leftJoin(people, eq(readings.author, people.id))
    .where(
      and(
        eq(points.sampleId, sampleId),
        setupId === null || setupId === undefined ? isNull(points.setupId) : eq(points.setupId, setupId),
        eq(points.load, load),
        eq(points.attached, attached),
      ),
    )
    .for('update');
  const other = rows.find(
    ({ id, mains: own }) => !standing.includes(id) && JSON.stringify(own) === JSON.stringify(mains),
  );
  if (other)
    throw conflict(
      `${other.who ?? 'Somebody else'} began this row a moment ago. It is shown now: Enter once more adds yours to it, or corrects what stands there.`,
    );
}

async function preparePoint(
  db: Queries,
  sampleId: string,
  input: TakenPoint,
  path: string,
  bench: Bench,
  source: string,
  stored: Stored | null,
): Promise<Prepared> {
  const rig = bench.rigs.find(({ id }) => id === input.rigId);
  if (!rig) throw refused(`${path}.rigId`, 'This rig is not on the bench any more. Choose another.');
  const setup = input.outputs
    ? await loadingFor(db, sampleId, input.outputs, rig.id, 'proof')
    : input.setupId
      ? bench.setups.find(({ id }) => id === input.setupId)
      : undefined;
  if (input.setupId && !setup)
    throw refused(`${path}.setupId`, 'This loading is not there any more. Reload and choose again.');
  const override = stored ? stored.conditions.override : input.override?.trim() || null;
  if (!stored) checkLine(rig, setup, input.load, override, `${path}.override`);
  if (!setup && input.load !== 0)
    throw refused(`${path}.load`, 'A load point belongs to a loading; only idle has none.');
  const conditions = {
    sampleId,
    setupId: setup?.id ?? null,
    mains: input.mains,
    load: input.load,
    attached: input.attached,
    evidence: setup?.evidence ?? ('load' as const),
    rigId: rig.id,
    override,
    taken: input.taken ?? null,
    takenAt: new Date(input.takenAt),
  };
  if (stored && !sameConditions(stored.conditions, conditions))
    throw conflict('This point was taken under other conditions. Reload to see it.');
  if (!stored && input.pointsSeen) await requireFirst(db, conditions, input.pointsSeen);
  let known: readonly Reading[] = stored?.readings ?? [];
  const fresh: Reading[] = [];
  const inputs = input.readings.map((one, index) => ({ one, at: `${path}.readings[${index}]` }));
  const entries = inputs.map(({ one, at }): Entry => {
    const value = typedValue(one, `${at}.typed`);
    // A person is asked about what is hardly ever meant; a run has nobody to ask.
    const asks = 'really' in one && one.really === false ? unlikely({ ...one, value }) : null;
    if (asks) throw askReally(`${at}.typed`, asks);
    if (isOutput(one)) {
      if (!placesOf(rig).includes(one.place))
        throw refused(`${at}.place`, `The rig "${rig.name}" has no meter at the ${one.place}.`);
      if (!setup?.outputs.some(({ port }) => port === one.port))
        throw refused(`${at}.port`, `"${one.port ?? ''}" is not an output of this loading.`);
    } else if (one.port !== null) {
      throw refused(`${at}.port`, 'A mains reading has no port.');
    }
    return {
      quantity: one.quantity,
      place: one.place,
      port: one.port,
      value,
      count: one.count ?? 1,
      spread: one.spread ?? 0,
      step: digitStep(one.typed, one.quantity),
    };
  });
  for (const [index, { one }] of inputs.entries()) {
    const entry = entries[index];
    const repeated = known.find(({ id }) => id === one.id);
    if (!entry) continue;
    // The same id again is the same reading sent twice, after a lost answer.
    if (repeated) {
      if (repeated.typed !== one.typed || repeated.quantity !== one.quantity)
        throw conflict('Another reading has this id.');
      continue;
    }
    checkCorrection(one, currentReadings(known));
    const over = aboveRange(entry, rig, bench.instruments);
    if (over) throw refused(`${inputs[index]?.at}.typed`, over);
    const { step: _, ...value } = entry;
    const accepted = accept(entry, [...currentReadings(known), ...entries], rig, bench.instruments);
    const instrument = bench.instruments.find(({ id }) => id === accepted.instrumentId);
    const reading: Reading = {
      ...value,
      ...accepted,
      id: one.id,
      typed: one.typed.trim(),
      takenAt: input.takenAt,
      source: one.source?.trim() || source,
      because: one.because?.trim() || null,
      supersedes: one.supersedes ?? null,
      overdue: instrument !== undefined && calibrationOverdue(instrument, input.takenAt),
    };
    known = [...known, reading];
    fresh.push(reading);
  }
  const [contradiction] = contradictions({ load: input.load, attached: input.attached, readings: known });
  const strikesOut = fresh.every(({ value }) => value === null);
  if (contradiction && fresh.length > 0 && !strikesOut)
    throw refused(`${path}.readings[${input.readings.length - 1}].typed`, contradiction);
  return { conditions, isNew: stored === null, fresh };
}

/**
 * Add readings inside a transaction: all or none. Sending the same ids again changes nothing.
 * @param source where they come from, kept with each
 * @returns every point touched, with all its readings
 */
export async function storePoints(
  tx: Queries,
  sampleId: string,
  inputs: readonly TakenPoint[],
  source: string,
): Promise<Point[]> {
  const [sample] = await tx.select({ id: samples.id }).from(samples).where(eq(samples.id, sampleId)).for('update');
  if (!sample) throw notFound('sample');
  const bench: Bench = {
    rigs: await listRigs(tx),
    instruments: await listInstruments(tx),
    setups: await listSetups(tx, sampleId),
  };
  const ids = inputs.map(({ id }) => id);
  const standing = new Map<string, Stored>(
    (await storedPoints(tx, ids)).map((point) => [point.id, { conditions: point, readings: point.readings }]),
  );
  let newPoints: (typeof points.$inferInsert)[] = [];
  let newReadings: (typeof readings.$inferInsert)[] = [];
  let added = false;
  const keep = async () => {
    if (newPoints.length > 0) await tx.insert(points).values(newPoints);
    if (newReadings.length > 0) await tx.insert(readings).values(newReadings);
    added ||= newPoints.length > 0 || newReadings.length > 0;
    newPoints = [];
    newReadings = [];
  };
  for (const [index, input] of inputs.entries()) {
    const { id } = input;
    // Whoever begins a row is held against what stands, the points before this one among it.
    if (input.pointsSeen) await keep();
    const before = standing.get(id) ?? null;
    const path = `points[${index}]`;
    const { conditions, isNew, fresh } = await preparePoint(tx, sampleId, input, path, bench, source, before);
    if (isNew) newPoints.push({ id, ...conditions });
    newReadings.push(...fresh.map((reading) => readingRow(id, reading, new Date())));
    standing.set(id, {
      conditions: before?.conditions ?? conditions,
      readings: [...(before?.readings ?? []), ...fresh],
    });
  }
  await keep();
  if (added) await changed(tx, sampleId, 'points');
  else wasRepeated();
  const now = new Map((await storedPoints(tx, ids)).map((point) => [point.id, point]));
  return ids.flatMap((id) => now.get(id) ?? []);
}

/** Whoever did not say "yes, really" is asked about unlikely values. */
const asked = (point: PointInput): PointInput => ({
  ...point,
  readings: point.readings.map((one) => ({ ...one, really: one.really ?? false })),
});

/** Add what was typed, in one transaction. */
export const addReadings = (db: Database, sampleId: string, inputs: readonly PointInput[]): Promise<Point[]> =>
  db.transaction((tx) => storePoints(tx, sampleId, inputs.map(asked), 'keypad'));
