// The safety look of a sample: checks, only ever added.
import { currentRuns } from '@lastmark/core/run';
import { CHECK_WORDS, type SafetyCheck, safetyRefusal } from '@lastmark/core/safety';
import { eq } from 'drizzle-orm';
import { listInstruments } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { safetyChecks } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { type DossierPart, keptIn, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

/** All of a sample, corrected ones included, oldest first. */
export async function listChecks(db: Queries, sampleId: string): Promise<SafetyCheck[]> {
  const rows = await db
    .select({ body: safetyChecks.body })
    .from(safetyChecks)
    .where(eq(safetyChecks.sampleId, sampleId))
    .orderBy(safetyChecks.takenAt, safetyChecks.id);
  return rows.map(({ body }) => body);
}

/** A check as it is kept: with what the bench says of its meter, where nobody said it. @throws 422 for a meter that is gone */
async function accepted(tx: Queries, input: SafetyCheck): Promise<SafetyCheck> {
  const takenAt = new Date(input.takenAt).toISOString();
  if (!('instrumentId' in input) || input.instrumentId === null) return { ...input, takenAt };
  const meter = (await listInstruments(tx)).find(({ id }) => id === input.instrumentId);
  if (!meter) throw refused('check.instrumentId', 'This meter is not on the bench any more. Choose another.');
  const own = input.kind === 'touch' ? meter.specs.current : undefined;
  return { ...input, takenAt, accuracy: input.accuracy ?? own ?? null };
}

/** Add a check. Sending the same id again changes nothing. @throws 422 with the sentence when it cannot be so */
export const addCheck = (db: Database, sampleId: string, input: SafetyCheck): Promise<SafetyCheck> =>
  db.transaction(async (tx) => {
    const { model } = await getSample(tx, sampleId);
    const { repeated, superseded } = await beforeAdding(tx, sampleId, input, {
      table: safetyChecks,
      what: 'check',
      at: 'check.',
      list: listChecks,
      current: currentRuns<SafetyCheck>,
    });
    if (repeated) return repeated;
    if (superseded && superseded.kind !== input.kind)
      throw refused('check.kind', `It corrects one of another kind: ${CHECK_WORDS[superseded.kind]}.`);
    const refusal = safetyRefusal(input, model);
    if (refusal) throw refused('check', refusal);
    const body = await accepted(tx, input);
    await tx.insert(safetyChecks).values({
      id: body.id,
      sampleId,
      kind: body.kind,
      body,
      takenAt: new Date(body.takenAt),
      supersedes: body.supersedes,
      enteredAt: new Date(),
    });
    await changed(tx, sampleId, 'checks');
    return body;
  });

export const checksPart: DossierPart<'checks'> = {
  key: 'checks',
  load: (db, { sampleId }) => listChecks(db, sampleId),
  have: samplesIn(safetyChecks),
  keeps: keptIn(safetyChecks, 'Safety checks were done on'),
};
