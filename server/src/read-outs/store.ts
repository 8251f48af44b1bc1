// Read-outs: only ever added; a correction names the one it takes the place of.
import type { ReadOutInput, StoredReadOut } from '@lastmark/contract';
import { placesOf } from '@lastmark/core/cable';
import { currentReadOuts } from '@lastmark/core/read-out';
import { eq } from 'drizzle-orm';
import { listInstruments } from '../bench/store.ts';
import { changed } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { readOuts } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { beforeAdding } from '../samples/append-only.ts';
import { type DossierPart, keptIn, samplesIn } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

const toReadOut = ({ body, takenAt, ...row }: typeof readOuts.$inferSelect): StoredReadOut => ({
  ...body,
  // Kept before sources were asked for them.
  info: body.info ?? null,
  extended: body.extended ?? null,
  id: row.id,
  port: row.port,
  instrumentId: row.instrumentId,
  takenAt: takenAt.toISOString(),
  supersedes: row.supersedes,
});

/** All read-outs of a sample, corrected ones included, oldest first. */
export async function listReadOuts(db: Queries, sampleId: string): Promise<StoredReadOut[]> {
  const rows = await db
    .select()
    .from(readOuts)
    .where(eq(readOuts.sampleId, sampleId))
    .orderBy(readOuts.takenAt, readOuts.id);
  return rows.map(toReadOut);
}

function checkPlaces(input: ReadOutInput, labels: readonly string[], cable: boolean): void {
  const ports = labels.join(', ') || 'not entered yet';
  if (!labels.includes(input.port))
    throw refused(
      'port',
      `There is no ${cable ? 'end' : 'port'} "${input.port}". The ${cable ? 'ends' : 'ports'} are ${ports}.`,
    );
  const stray = input.occupied.find((port) => !labels.includes(port) || port === input.port);
  if (stray !== undefined)
    throw refused(
      'occupied',
      stray === input.port ? `${stray} is the port read out; name the others.` : `There is no port "${stray}".`,
    );
  const beyond = input.unreachable.find(({ position }) => position > input.words.length);
  if (beyond) throw refused('unreachable', `There is no position ${beyond.position} in this list.`);
  // A cable that does not answer has no marker: that is what was read.
  if (!cable && !input.withdrawn && input.words.length === 0 && input.signals.length === 0)
    throw refused('words', 'Nothing read out: enter the offers, or what was seen outside PD.');
}

/** Add a read-out. Sending the same id again changes nothing. */
export const addReadOut = (db: Database, sampleId: string, input: ReadOutInput): Promise<StoredReadOut> =>
  db.transaction((tx) => storeReadOut(tx, sampleId, input));

/** The same inside a transaction. */
export async function storeReadOut(tx: Queries, sampleId: string, input: ReadOutInput): Promise<StoredReadOut> {
  const sample = await getSample(tx, sampleId);
  checkPlaces(input, placesOf(sample.model), sample.model.kind === 'cable');
  if (!(await listInstruments(tx)).some(({ id }) => id === input.instrumentId))
    throw refused('instrumentId', 'This analyser is not on the bench any more. Choose another.');
  const ways = { table: readOuts, what: 'read-out', list: listReadOuts, current: currentReadOuts };
  const { repeated } = await beforeAdding(tx, sampleId, input, ways);
  if (repeated) return repeated;
  const { id, port, instrumentId, takenAt, supersedes, ...body } = input;
  await tx.insert(readOuts).values({
    id,
    sampleId,
    port,
    instrumentId,
    supersedes,
    body,
    takenAt: new Date(takenAt),
    enteredAt: new Date(),
  });
  await changed(tx, sampleId, 'readOuts');
  return { ...input, takenAt: new Date(takenAt).toISOString() };
}

export const readOutsPart: DossierPart<'readOuts'> = {
  key: 'readOuts',
  load: (db, { sampleId }) => listReadOuts(db, sampleId),
  have: samplesIn(readOuts),
  keeps: keptIn(readOuts, 'Read-outs were taken of'),
};
