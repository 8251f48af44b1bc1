// Works out the key figures of samples that changed, some at a time, on a thread of its own.
import { type Dossier, FIGURES_FORM, judgeSample, type KeyFigures, UNSETTLED } from '@lastmark/core/verdict';
import { eq, gt, inArray, lt, ne, or, sql } from 'drizzle-orm';
import { EVERYONE, revisionsOf, sharedRevision } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { figures, type measures, samples } from '../db/schema.ts';
import { dossiersOf, loadShared } from '../dossier/dossier.ts';
import { keepMeasures, measureRows, sinceOf } from './measures.ts';
import { foundBy, wordsBeside } from './words.ts';

/** A sample whose figures are wanted, with how often it had been changed. */
interface Wanted {
  readonly id: string;
  readonly modelId: string;
  readonly changes: number;
}

/** What JSON and the database would turn into nothing. */
const allFinite = (value: unknown): boolean =>
  typeof value === 'number'
    ? Number.isFinite(value)
    : typeof value !== 'object' || value === null || Object.values(value).every(allFinite);

/** Samples that changed since their figures were made, or whose figures were made with what does not hold any more. */
async function wanted(db: Queries, shared: number, most: number): Promise<readonly Wanted[]> {
  const columns = { id: samples.id, modelId: samples.modelId, changes: samples.changes };
  const changed = await db.select(columns).from(samples).where(eq(samples.stale, true)).limit(most);
  if (changed.length >= most) return changed;
  const before = await db
    .select(columns)
    .from(figures)
    .innerJoin(samples, eq(figures.sampleId, samples.id))
    // Two ranges of an index each, where "not the same" would look at every row.
    .where(or(lt(figures.shared, shared), gt(figures.shared, shared), ne(figures.form, FIGURES_FORM)))
    .limit(most - changed.length);
  return [...new Map([...changed, ...before].map((one) => [one.id, one])).values()];
}

/** Figures of one sample and its values of measures; nothing when something in it cannot be worked out: that costs its own row only. */
function figuresOf(id: string, dossier: Dossier): Pick<Made, 'body' | 'values'> {
  try {
    const verdict = judgeSample(dossier);
    if (!allFinite(verdict.figures)) return { body: null, values: [] };
    return { body: verdict.figures, values: measureRows(id, dossier, verdict) };
  } catch {
    return { body: null, values: [] };
  }
}

const rowOf = (
  { id: sampleId, body, values = [], ports = 0, since = null, unitGroup = '', words = '' }: Made,
  shared: number,
): typeof figures.$inferInsert => ({
  sampleId,
  body,
  shared,
  form: FIGURES_FORM,
  watts: body?.watts ?? null,
  efficiency: body?.efficiency?.value ?? null,
  idle: body?.idle?.value ?? null,
  massPerWatt: body?.massPerWatt ?? null,
  short: body?.claims.short ?? 0,
  open: UNSETTLED.reduce((sum, state) => sum + (body?.claims[state] ?? 0), 0),
  borderline: body?.claims.borderline ?? 0,
  judged: body !== null,
  ports,
  since,
  measured: values.length,
  unitGroup,
  words,
});

export interface Made extends Pick<Wanted, 'id' | 'changes'> {
  readonly body: KeyFigures | null;
  readonly values?: readonly (typeof measures.$inferInsert)[];
  readonly ports?: number;
  /** ISO day it was first paid for. */
  readonly since?: string | null;
  /** Revision and date code. */
  readonly unitGroup?: string;
  /** What it is found by beside its name. */
  readonly words?: string;
}

/**
 * Keep figures of samples that did not change while they were worked out; the others stay wanted.
 * @param shared how often what all are judged with had been changed when it was read
 */
export async function keepFigures(db: Database, made: readonly Made[], shared: number): Promise<void> {
  if (made.length === 0) return;
  await db.transaction(async (tx) => {
    const now = await tx
      .select({ id: samples.id, changes: samples.changes })
      .from(samples)
      .where(
        inArray(
          samples.id,
          made.map(({ id }) => id),
        ),
      )
      .orderBy(samples.id)
      .for('update');
    const same = made.filter(({ id, changes }) => now.some((one) => one.id === id && one.changes === changes));
    if (same.length === 0) return;
    const ids = same.map(({ id }) => id);
    await tx.update(samples).set({ stale: false }).where(inArray(samples.id, ids));
    await tx
      .insert(figures)
      .values(same.map((one) => rowOf(one, shared)))
      .onDuplicateKeyUpdate({
        set: {
          body: sql`VALUES(${figures.body})`,
          shared: sql`VALUES(${figures.shared})`,
          form: sql`VALUES(${figures.form})`,
          watts: sql`VALUES(${figures.watts})`,
          efficiency: sql`VALUES(${figures.efficiency})`,
          idle: sql`VALUES(${figures.idle})`,
          massPerWatt: sql`VALUES(${figures.massPerWatt})`,
          short: sql`VALUES(${figures.short})`,
          open: sql`VALUES(${figures.open})`,
          borderline: sql`VALUES(${figures.borderline})`,
          judged: sql`VALUES(${figures.judged})`,
          ports: sql`VALUES(${figures.ports})`,
          since: sql`VALUES(${figures.since})`,
          measured: sql`VALUES(${figures.measured})`,
          unitGroup: sql`VALUES(${figures.unitGroup})`,
          words: sql`VALUES(${figures.words})`,
        },
      });
    await keepMeasures(
      tx,
      ids,
      same.flatMap(({ values = [] }) => values),
    );
  });
}

/**
 * Work out some figures.
 * @param most samples at a time
 * @param milliseconds no further sample is begun after so long: a few may have as much in them as hundreds of others
 * @returns whether there is more to do
 */
export async function workOutFigures(
  db: Database,
  most: number,
  milliseconds = Number.POSITIVE_INFINITY,
): Promise<boolean> {
  const begun = performance.now();
  // Counted before it is read: what changes in between is worked out once more, never missed.
  const shared = sharedRevision(await revisionsOf(db, [EVERYONE]));
  const behind = await wanted(db, shared, most);
  if (behind.length === 0) return false;
  const parts = await loadShared(db);
  const changes = new Map(behind.map((one) => [one.id, one.changes]));
  const refs = behind.map(({ id, modelId }) => ({ sampleId: id, modelId }));
  const beside = await wordsBeside(
    db,
    behind.map(({ id }) => id),
  );
  const made: Made[] = [];
  let cut = false;
  for await (const { of, dossier } of dossiersOf(db, refs, parts)) {
    made.push({
      id: of.sampleId,
      changes: changes.get(of.sampleId) ?? 0,
      ...figuresOf(of.sampleId, dossier),
      ports: dossier.sample.ports.length,
      since: sinceOf(dossier),
      unitGroup: beside.get(of.sampleId)?.group ?? '',
      words: foundBy(dossier, beside.get(of.sampleId)?.words ?? ''),
    });
    cut = performance.now() - begun > milliseconds;
    if (cut) break;
  }
  await keepFigures(db, made, shared);
  return cut || behind.length >= most;
}
