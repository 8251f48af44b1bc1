// What is done with things that sit in the line: only ever added, with the accuracies of the meters that read it.
import type { CableRunInput, StoredCableRun } from '@lastmark/contract';
import { type CableRun, cableRunRefusal } from '@lastmark/core/cable';
import { specFor } from '@lastmark/core/reading';
import { currentRuns } from '@lastmark/core/run';
import { eq } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { cableRuns } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { type DossierPart, keptIn, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

/** All of a sample, corrected ones included, oldest first. */
export async function listCableRuns(db: Queries, sampleId: string): Promise<StoredCableRun[]> {
  const rows = await db
    .select({ body: cableRuns.body })
    .from(cableRuns)
    .where(eq(cableRuns.sampleId, sampleId))
    .orderBy(cableRuns.takenAt, cableRuns.id);
  return rows.map(({ body }) => body);
}

/** A run with what the bench says of its meters at this moment. @throws 422 for a rig that is gone or has no meter for it */
async function accepted(tx: Queries, input: CableRunInput): Promise<CableRun> {
  const takenAt = new Date(input.takenAt).toISOString();
  if (input.kind !== 'resistance') return { ...input, takenAt };
  const rig = (await listRigs(tx)).find(({ id }) => id === input.rigId);
  if (!rig) throw refused('run.rigId', 'This rig is not on the bench any more. Choose another.');
  const two = input.how === 'two meters';
  if (two && !input.withdrawn && rig.meters.loadEnd === null)
    throw refused(
      'run.rigId',
      `“${rig.name}” has no second meter at the far end. Choose a rig with two, or four wires.`,
    );
  const instruments = await listInstruments(tx);
  const at = (quantity: 'current' | 'voltage', place: 'port' | 'load-end') =>
    specFor(quantity, place, rig, instruments) ?? null;
  return {
    ...input,
    takenAt,
    accuracy: {
      amps: at('current', 'port'),
      near: two ? at('voltage', 'port') : null,
      far: at('voltage', two ? 'load-end' : 'port'),
    },
  };
}

/** Add a run. Sending the same id again changes nothing. @throws 422 with the sentence when it contradicts itself */
export const addCableRun = (db: Database, sampleId: string, input: CableRunInput): Promise<StoredCableRun> =>
  db.transaction((tx) => storeCableRun(tx, sampleId, input));

/** The same inside a transaction. */
export async function storeCableRun(tx: Queries, sampleId: string, input: CableRunInput): Promise<StoredCableRun> {
  const { model } = await getSample(tx, sampleId);
  if (model.kind !== 'cable') throw refused('run.kind', 'This is a charger: drops, copies and bends are of cables.');
  const ways = {
    table: cableRuns,
    what: 'run',
    at: 'run.',
    list: listCableRuns,
    current: currentRuns<StoredCableRun>,
  };
  const { repeated } = await beforeAdding(tx, sampleId, input, ways);
  if (repeated) return repeated;
  const refusal = cableRunRefusal(input, currentRuns(await listCableRuns(tx, sampleId)));
  if (refusal) throw refused('run', refusal);
  const body = await accepted(tx, input);
  await tx.insert(cableRuns).values({
    id: body.id,
    sampleId,
    kind: body.kind,
    rigId: body.kind === 'resistance' ? body.rigId : null,
    body,
    takenAt: new Date(body.takenAt),
    supersedes: body.supersedes,
    enteredAt: new Date(),
  });
  await changed(tx, sampleId, 'cableRuns');
  return body;
}

export const cableRunsPart: DossierPart<'cableRuns'> = {
  key: 'cableRuns',
  load: (db, { sampleId }) => listCableRuns(db, sampleId),
  have: samplesIn(cableRuns),
  keeps: keptIn(cableRuns, 'Runs were done with'),
};
