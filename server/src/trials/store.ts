// Trials: planned once, run in the order drawn for them, blind as long as nobody may know.

import { randomInt } from 'node:crypto';
import type { StoredTrial, TrialInput, TrialRow } from '@lastmark/contract';
import { standingRuns, type Trial, type TrialRun, trialOrder, trialRunRefusal, trialWords } from '@lastmark/core/trial';
import { and, desc, eq, exists, inArray, not, notExists, type SQL } from 'drizzle-orm';
import { ulid } from 'ulid';
import type { Database, Queries } from '../db/database.ts';
import { samples, trialRuns, trialSamples, trials } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { keptIn, type SamplePart } from '../samples/part.ts';
import { ofSeen } from '../seen/seen.ts';
import { scopeNow } from '../who/scope.ts';

const MOST_LISTED = 200;

type Row = typeof trials.$inferSelect;

async function runsOf(db: Queries, trialId: string): Promise<TrialRun[]> {
  const rows = await db
    .select({ body: trialRuns.body })
    .from(trialRuns)
    .where(eq(trialRuns.trialId, trialId))
    .orderBy(trialRuns.takenAt, trialRuns.id);
  return rows.map(({ body }) => body);
}

const isBlind = (trial: Trial): boolean => trial.kind === 'blocks' && trial.blind;

const toTrial = (row: Row, runs: TrialRun[]): StoredTrial => ({
  id: row.id,
  trial: row.body,
  runs,
  letters: isBlind(row.body) && row.revealedAt === null ? null : row.letters,
  revealedAt: row.revealedAt?.toISOString() ?? null,
  keyOpenedAt: row.keyOpenedAt?.toISOString() ?? null,
  version: row.version,
  createdAt: row.createdAt.toISOString(),
});

async function rowOf(db: Queries, id: string, lock = false): Promise<Row> {
  const query = db.select().from(trials).where(eq(trials.id, id));
  const [row] = await (lock ? query.for('update') : query);
  if (!row) throw notFound('trial');
  return row;
}

/** @throws 404 */
export const getTrial = async (db: Queries, id: string): Promise<StoredTrial> =>
  toTrial(await rowOf(db, id), await runsOf(db, id));

/** Samples of the demo a trial compares, while it is put away: such a trial is away with them. */
const ofTheDemoAway = (db: Queries) =>
  db
    .select({ id: samples.id })
    .from(trialSamples)
    .innerJoin(samples, eq(samples.id, trialSamples.sampleId))
    .where(and(eq(trialSamples.trialId, trials.id), eq(samples.demo, 'away')));

/** Trials all whose samples are seen. Guests see none that is of no sample. */
function onlySeen(db: Queries): SQL | undefined {
  const scope = scopeNow();
  if (scope === null) return undefined;
  const own = eq(trialSamples.trialId, trials.id);
  const all = db.select({ id: trialSamples.id }).from(trialSamples).where(own);
  const unseen = db
    .select({ id: trialSamples.id })
    .from(trialSamples)
    .where(and(own, not(ofSeen(db, trialSamples.sampleId) as SQL)));
  return scope.rest ? notExists(unseen) : and(exists(all), notExists(unseen));
}

/** Trials, the newest first. */
export async function listTrials(db: Queries, sampleId: string | undefined): Promise<TrialRow[]> {
  const rows = sampleId
    ? (
        await db
          .select({ trial: trials })
          .from(trials)
          .innerJoin(trialSamples, eq(trialSamples.trialId, trials.id))
          .where(and(eq(trialSamples.sampleId, sampleId), onlySeen(db)))
          .orderBy(desc(trials.id))
          .limit(MOST_LISTED)
      ).map(({ trial }) => trial)
    : await db
        .select()
        .from(trials)
        .where(and(notExists(ofTheDemoAway(db)), onlySeen(db)))
        .orderBy(desc(trials.id))
        .limit(MOST_LISTED);
  const ids = rows.map(({ id }) => id);
  const runs =
    ids.length === 0
      ? []
      : await db
          .select({ trialId: trialRuns.trialId, body: trialRuns.body })
          .from(trialRuns)
          .where(inArray(trialRuns.trialId, ids));
  return rows.map(({ id, body, createdAt }) => ({
    id,
    question: body.question,
    kind: body.kind,
    words: trialWords(body),
    done: standingRuns(runs.filter(({ trialId }) => trialId === id).map((one) => one.body)).length,
    planned: trialOrder(body).length,
    createdAt: createdAt.toISOString(),
  }));
}

const samplesIn = (trial: Trial): readonly string[] => {
  const arms = trial.kind === 'blocks' ? trial.arms : trial.factors.flatMap(({ levels }) => levels);
  return [...new Set(arms.flatMap(({ sampleId }) => sampleId ?? []))];
};

const MOST_RUNS = 2000;

async function keepSamples(tx: Queries, trialId: string, trial: Trial): Promise<void> {
  const wanted = samplesIn(trial);
  if (trialOrder(trial).length > MOST_RUNS)
    throw refused('trial.blocks', `That would be ${trialOrder(trial).length} runs; a trial has ${MOST_RUNS} at most.`);
  const found =
    wanted.length === 0
      ? []
      : await tx
          .select({ id: samples.id })
          .from(samples)
          .where(inArray(samples.id, [...wanted]));
  if (found.length < wanted.length)
    throw refused('trial', 'One of the samples is not on the shelf any more. Choose another.');
  await tx.delete(trialSamples).where(eq(trialSamples.trialId, trialId));
  if (wanted.length > 0)
    await tx.insert(trialSamples).values(wanted.map((sampleId) => ({ id: ulid(), trialId, sampleId })));
}

/** Letters in an order nobody can work out from what is sent. */
function drawLetters(trial: Trial): number[] {
  if (trial.kind !== 'blocks') return [];
  const letters = trial.arms.map((_, at) => at);
  if (!trial.blind) return letters;
  for (let at = letters.length - 1; at > 0; at -= 1) {
    const other = randomInt(at + 1);
    [letters[at], letters[other]] = [letters[other] as number, letters[at] as number];
  }
  return letters;
}

export const createTrial = (db: Database, { trial }: TrialInput): Promise<StoredTrial> =>
  db.transaction(async (tx) => {
    const id = ulid();
    await tx.insert(trials).values({ id, body: trial, letters: drawLetters(trial), createdAt: new Date() });
    await keepSamples(tx, id, trial);
    return getTrial(tx, id);
  });

const NOTHING_RUN = 'Runs were taken of this trial: what they were taken for stays as it was. Plan another.';

async function untouched(tx: Queries, id: string, seen: string | null): Promise<Row> {
  const row = await rowOf(tx, id, true);
  requireMatch(seen, etagOf(row.version), 'trial');
  if ((await runsOf(tx, id)).length > 0) throw conflict(NOTHING_RUN);
  return row;
}

export const updateTrial = (
  db: Database,
  id: string,
  { trial }: TrialInput,
  seen: string | null,
): Promise<StoredTrial> =>
  db.transaction(async (tx) => {
    const row = await untouched(tx, id, seen);
    await tx
      .update(trials)
      .set({ body: trial, letters: drawLetters(trial), keyOpenedAt: null, revealedAt: null, version: row.version + 1 })
      .where(eq(trials.id, id));
    await keepSamples(tx, id, trial);
    return getTrial(tx, id);
  });

export const deleteTrial = (db: Database, id: string, seen: string | null): Promise<void> =>
  db.transaction(async (tx) => {
    await untouched(tx, id, seen);
    await tx.delete(trialSamples).where(eq(trialSamples.trialId, id));
    await tx.delete(trials).where(eq(trials.id, id));
  });

/** Add a run. Sending the same id again changes nothing. @throws 422 with the reason when it is none of this trial */
export const addTrialRun = (db: Database, id: string, input: TrialRun): Promise<StoredTrial> =>
  db.transaction(async (tx) => {
    const row = await rowOf(tx, id, true);
    const ways = {
      table: trialRuns,
      what: 'run',
      at: 'run.',
      list: runsOf,
      current: standingRuns<TrialRun>,
    };
    const { repeated } = await beforeAdding(tx, id, input, ways);
    if (repeated) return getTrial(tx, id);
    const refusal = trialRunRefusal(row.body, await runsOf(tx, id), input);
    if (refusal) throw refused('run', refusal);
    if (isBlind(row.body) && row.revealedAt !== null && !input.withdrawn && input.supersedes === null)
      throw refused(
        'run',
        'The letters were opened: what is run from now on is not blind any more. Plan another trial.',
      );
    const body = { ...input, takenAt: new Date(input.takenAt).toISOString() };
    await tx.insert(trialRuns).values({
      id: body.id,
      trialId: id,
      body,
      takenAt: new Date(body.takenAt),
      supersedes: body.supersedes,
      enteredAt: new Date(),
    });
    return getTrial(tx, id);
  });

/** For whoever labels: which letter is which. That it was opened stays in the record. */
export const openTrialKey = (db: Database, id: string): Promise<{ letters: number[] }> =>
  db.transaction(async (tx) => {
    const row = await rowOf(tx, id, true);
    if (row.keyOpenedAt === null) await tx.update(trials).set({ keyOpenedAt: new Date() }).where(eq(trials.id, id));
    return { letters: row.letters };
  });

/** Open the letters to all. */
export const revealTrial = (db: Database, id: string): Promise<StoredTrial> =>
  db.transaction(async (tx) => {
    const row = await rowOf(tx, id, true);
    if (row.revealedAt === null) await tx.update(trials).set({ revealedAt: new Date() }).where(eq(trials.id, id));
    return getTrial(tx, id);
  });

export const trialsPart: SamplePart = { keeps: keptIn(trialSamples, 'A trial is made with') };
