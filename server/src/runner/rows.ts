// What the database knows of runs: their row, what was asked of them, what was told, and who owns which instrument.

import type { RunTrace, SheetRun, StartInput, StoredInstrument, StoredRig } from '@lastmark/contract';
import { limitsInForce } from '@lastmark/core/plan';
import { and, asc, desc, eq, lt, sql } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import { type Database, isDatabaseError, type Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { leases, runAsks, runParts, samples, sheetRuns } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { closeAsks } from '../leases/asks.ts';
import { listLeases } from '../leases/leases.ts';
import { getProfile } from '../profile/store.ts';
import { getSample, tagOf } from '../samples/store.ts';
import { seen } from '../seen/seen.ts';
import { getSheet } from '../sheets/store.ts';

/** The epoch a run begins in. */
export const FIRST_EPOCH = 1;

export type RunRow = typeof sheetRuns.$inferSelect;

/** Every instrument a rig uses, each once. */
export function instrumentsOf(
  { meters, drives }: Pick<StoredRig, 'meters' | 'drives'>,
  instruments: readonly StoredInstrument[],
): StoredInstrument[] {
  const ids = new Set([...Object.values(meters), ...Object.values(drives ?? {})]);
  return instruments.filter(({ id }) => ids.has(id));
}

export async function rowOf(db: Queries, id: string): Promise<RunRow> {
  const [row] = await db.select().from(sheetRuns).where(eq(sheetRuns.id, id));
  if (!row) throw notFound('run');
  return row;
}

/** A run as it is now. */
export async function getRun(db: Queries, id: string): Promise<SheetRun> {
  const row = await rowOf(db, id);
  const sample = await getSample(db, row.sampleId);
  const rig = (await listRigs(db)).find((one) => one.id === row.rigId);
  const own = rig ? instrumentsOf(rig, await listInstruments(db)) : [];
  const said = await db.select().from(runAsks).where(eq(runAsks.runId, id)).orderBy(asc(runAsks.id));
  return {
    id,
    sheetId: row.sheetId,
    sample: {
      id: sample.id,
      maker: sample.model.maker,
      model: sample.model.model,
      serial: sample.unit.serial,
      tag: sample.tag,
    },
    rigId: row.rigId,
    title: row.title,
    person: row.person,
    state: row.state,
    says: row.says,
    stepId: row.stepId,
    steps: row.steps,
    conditions: row.conditions ?? [],
    outcomes: row.outcomes,
    progress: row.progress,
    watched: row.watched,
    limits: limitsInForce(
      (await getProfile(db)).limits,
      sample.limits,
      own.map(({ ratings }) => ratings),
    ),
    notes: said.flatMap(({ body, askedAt }) =>
      body.kind === 'note' ? [{ at: askedAt.toISOString(), text: body.text }] : [],
    ),
    instrumentIds: own.map((one) => one.id),
    startedAt: row.startedAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
  };
}

/** A tag as printed, typed or scanned. */
const plainTag = (text: string): string =>
  text
    .trim()
    .toUpperCase()
    .replace(/^LASTMARK[:\s-]*/, '');

async function checkTag(db: Queries, sampleId: string, typed: string): Promise<void> {
  const tag = plainTag(typed);
  if (tag === tagOf(sampleId)) return;
  const all = await db.select({ id: samples.id }).from(samples).where(seen());
  const other = all.find(({ id }) => tagOf(id) === tag);
  if (!other) throw refused('tag', `No sample has the tag "${tag}". The sheet is for ${tagOf(sampleId)}.`);
  const { model, unit } = await getSample(db, other.id);
  throw refused(
    'tag',
    `"${tag}" is ${model.maker} ${model.model}${unit.serial && `, serial ${unit.serial}`}: the wrong sample stands on the bench. The sheet is for ${tagOf(sampleId)}.`,
  );
}

/** Take the instruments of a rig for a run. @throws 409 with who has them */
async function takeInstruments(
  db: Database,
  rig: StoredRig,
  runId: string,
  write: (tx: Queries) => Promise<void>,
): Promise<void> {
  const own = instrumentsOf(rig, await listInstruments(db)).filter(({ address }) => address !== null);
  try {
    await db.transaction(async (tx) => {
      await write(tx);
      if (own.length > 0) await tx.insert(leases).values(own.map(({ id: instrumentId }) => ({ instrumentId, runId })));
    });
  } catch (error) {
    if (!isDatabaseError(error, 'ER_DUP_ENTRY')) throw error;
    const taken = (await listLeases(db)).find(({ instrumentId }) => own.some((one) => one.id === instrumentId));
    const name = own.find((one) => one.id === taken?.instrumentId)?.name ?? 'an instrument';
    throw conflict(
      `"${name}" belongs to ${taken?.person ?? 'someone'}'s run "${taken?.title ?? ''}". Wait for its end, or stop it there.`,
    );
  }
}

async function rigOf(db: Queries, id: string): Promise<StoredRig> {
  const rig = (await listRigs(db)).find((one) => one.id === id);
  if (!rig) throw refused('rigId', 'The rig of this sheet is not on the bench any more. Choose another.');
  return rig;
}

/**
 * Take a stopped run up again in its next epoch: what was done stays done.
 * @returns that epoch, and the sample it is of
 * @throws 409 when it is not stopped, or with who has the instruments; 422 for a wrong tag
 */
export async function takeUpAgain(
  db: Database,
  runId: string,
  input: StartInput,
  owner: string,
): Promise<{ readonly epoch: number; readonly sampleId: string }> {
  const row = await rowOf(db, runId);
  if (row.state !== 'stopped') throw conflict('Only a stopped run is taken up again.');
  await checkTag(db, row.sampleId, input.tag);
  const epoch = row.epoch + 1;
  await takeInstruments(db, await rigOf(db, row.rigId), runId, async (tx) => {
    const [taken] = await tx
      .update(sheetRuns)
      .set({
        state: 'running',
        says: '',
        endedAt: null,
        person: input.person,
        watched: input.watched,
        epoch,
        owner,
        aliveAt: sql`UTC_TIMESTAMP(3)` as never,
        hereAt: sql`UTC_TIMESTAMP(3)` as never,
      })
      .where(and(eq(sheetRuns.id, runId), eq(sheetRuns.state, 'stopped'), eq(sheetRuns.epoch, row.epoch)));
    if (taken.affectedRows === 0) throw conflict('Someone took this run up meanwhile.');
    await closeAsks(tx, runId);
  });
  return { epoch, sampleId: row.sampleId };
}

/**
 * Begin a run: the tag is the sample's, its instruments are free.
 * @param owner the server that carries it out, in its first epoch
 * @returns its id, and the sample it is of
 * @throws 409 with who has them, 422 for a wrong tag
 */
export async function insertRun(
  db: Database,
  sheetId: string,
  input: StartInput,
  owner: string,
): Promise<{ readonly id: string; readonly sampleId: string }> {
  const sheet = await getSheet(db, sheetId);
  await checkTag(db, sheet.sampleId, input.tag);
  const rig = await rigOf(db, sheet.rigId);
  const sample = await getSample(db, sheet.sampleId);
  const id = newId();
  await takeInstruments(db, rig, id, async (tx) => {
    await tx.insert(sheetRuns).values({
      id,
      sheetId,
      sampleId: sheet.sampleId,
      rigId: rig.id,
      title: `${sample.model.model} ${sample.unit.serial || sample.tag}: ${sheet.title}`.slice(0, 120),
      person: input.person,
      state: 'running',
      says: '',
      stepId: null,
      steps: sheet.steps,
      conditions: sheet.conditions,
      outcomes: {},
      progress: null,
      watched: input.watched,
      hereAt: sql`UTC_TIMESTAMP(3)`,
      aliveAt: sql`UTC_TIMESTAMP(3)`,
      epoch: FIRST_EPOCH,
      owner,
      startedAt: new Date(),
      endedAt: null,
    });
  });
  return { id, sampleId: sheet.sampleId };
}

export const here = async (db: Queries, runId: string): Promise<void> => {
  await db
    .update(sheetRuns)
    .set({ hereAt: sql`UTC_TIMESTAMP(3)` as never })
    .where(eq(sheetRuns.id, runId));
};

/** Parts told at a time: some minutes of four instruments. */
const MOST_PARTS = 500;

/**
 * What was told during a step, or during the whole run.
 * @param before tells what came before this part; the newest without it
 */
export async function listTrace(
  db: Queries,
  runId: string,
  { step, before }: { readonly step?: string; readonly before?: string },
): Promise<RunTrace> {
  const parts = await db
    .select({ id: runParts.id, body: runParts.body })
    .from(runParts)
    .where(
      and(
        eq(runParts.runId, runId),
        step ? eq(runParts.stepId, step) : undefined,
        before ? lt(runParts.id, before) : undefined,
      ),
    )
    .orderBy(desc(runParts.id))
    .limit(MOST_PARTS);
  const oldest = parts.length === MOST_PARTS ? (parts.at(-1)?.id ?? null) : null;
  return { items: parts.reverse().flatMap(({ body }) => body), before: oldest };
}
