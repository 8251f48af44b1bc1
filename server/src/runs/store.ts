// Runs: only ever added, each with the uncertainty its rig gives it and checked for what cannot be.
import type { RunInput, StoredRun } from '@lastmark/contract';
import { currentRuns, runRefusal, runUncertainty } from '@lastmark/core/proof';
import { eq } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { runs } from '../db/schema.ts';
import { listDevices } from '../devices/store.ts';
import { refused } from '../http/problem.ts';
import { getProfile } from '../profile/store.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { type DossierPart, keptIn, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

/** All runs of a sample, corrected ones included, oldest first. */
export async function listRuns(db: Queries, sampleId: string): Promise<StoredRun[]> {
  const rows = await db.select().from(runs).where(eq(runs.sampleId, sampleId)).orderBy(runs.takenAt, runs.id);
  return rows.map(({ body }) => body);
}

/** Add a run. Sending the same id again changes nothing. @throws 422 with the sentence when it contradicts itself */
export const addRun = (db: Database, sampleId: string, input: RunInput): Promise<StoredRun> =>
  db.transaction((tx) => storeRun(tx, sampleId, input));

/** The same inside a transaction. */
export async function storeRun(tx: Queries, sampleId: string, input: RunInput): Promise<StoredRun> {
  const sample = await getSample(tx, sampleId);
  if (!sample.model.ports.some(({ label }) => label === input.port))
    throw refused('run.port', `There is no port "${input.port}".`);
  const rig = (await listRigs(tx)).find(({ id }) => id === input.rigId);
  if (!rig) throw refused('run.rigId', 'This rig is not on the bench any more. Choose another.');
  const ways = { table: runs, what: 'run', at: 'run.', list: listRuns, current: currentRuns<StoredRun> };
  const { repeated } = await beforeAdding(tx, sampleId, input, ways);
  if (repeated) return repeated;
  const { overRating } = await getProfile(tx);
  const refusal = runRefusal(input, { rig, devices: await listDevices(tx), overRating });
  if (refusal) throw refused('run', refusal);
  const u = runUncertainty(input, rig, await listInstruments(tx));
  const body = { ...input, takenAt: new Date(input.takenAt).toISOString(), u } as StoredRun;
  await tx.insert(runs).values({
    id: body.id,
    sampleId,
    rigId: body.rigId,
    deviceId: body.kind === 'device' ? body.deviceId : null,
    body,
    takenAt: new Date(body.takenAt),
    supersedes: body.supersedes,
    enteredAt: new Date(),
  });
  await changed(tx, sampleId, 'runs');
  return body;
}

export const runsPart: DossierPart<'runs'> = {
  key: 'runs',
  load: (db, { sampleId }) => listRuns(db, sampleId),
  have: samplesIn(runs),
  keeps: keptIn(runs, 'Runs were done with'),
};
