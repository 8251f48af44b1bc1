// Run sheets: made by a method, changed by people, kept once they ran.
import type { SheetInput, SheetRow, StoredRig, StoredSheet } from '@lastmark/contract';
import { makeSheet, methodOf, methodsFor, portsOf, type SheetStep, sheetSeconds, stepsDone } from '@lastmark/core/plan';
import { and, desc, eq } from 'drizzle-orm';
import { listRigs } from '../bench/store.ts';
import { listClaims } from '../claims/store.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { models, runSheets, samples, sheetRuns } from '../db/schema.ts';
import { listDevices } from '../devices/store.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { listReadOuts } from '../read-outs/store.ts';
import { keptIn, removedFrom, type SamplePart } from '../samples/part.ts';
import { getSample, tagOf } from '../samples/store.ts';
import { listSetups } from '../setups/store.ts';

const MOST_LISTED = 200;

const toSheet = (row: typeof runSheets.$inferSelect): StoredSheet => ({
  ...row,
  createdAt: row.createdAt.toISOString(),
});

/** A step that needs a scope is left out on a rig without one, and says so. */
const withoutScope = (step: SheetStep, { drives }: StoredRig): SheetStep =>
  step.needs.includes('oscilloscope') && !drives?.scope ? { ...step, skip: 'The rig has no oscilloscope.' } : step;

/** Make a sheet for a sample. @throws 422 when the method does not fit, or nothing is known to measure */
export async function createSheet(
  db: Database,
  sampleId: string,
  { methodId, rigId }: { methodId: string; rigId: string },
): Promise<StoredSheet> {
  return db.transaction(async (tx) => {
    const sample = await getSample(tx, sampleId);
    const { kind, ports } = sample.model;
    const method = methodOf(methodId);
    const fitting = methodsFor(kind);
    if (!method || !fitting.includes(method))
      throw refused(
        'methodId',
        `This method is not for a ${kind} charger. Choose ${fitting.map(({ title }) => title).join(', ')}.`,
      );
    if (ports.length === 0) throw refused('methodId', 'No port is entered. Enter the ports at Intake first.');
    const rig = (await listRigs(tx)).find(({ id }) => id === rigId);
    if (!rig) throw refused('rigId', 'This rig is not on the bench any more. Choose another.');
    if (method.by === 'instruments' && !rig.drives?.load)
      throw refused(
        'rigId',
        `The rig "${rig.name}" has no load that runs by itself. Choose one at Bench, or the desk method.`,
      );
    const steps = makeSheet(method, {
      ports: ports.map(({ label }) => label),
      claims: await listClaims(tx, sample.modelId),
      readOuts: await listReadOuts(tx, sampleId),
      loadings: (await listSetups(tx, sampleId))
        .filter(({ purpose, evidence }) => purpose === 'efficiency' && evidence === 'load')
        .map(({ outputs }) => outputs),
      devices: await listDevices(tx),
    });
    const row = {
      id: newId(),
      sampleId,
      methodId,
      rigId,
      title: method.title,
      steps: steps.map((step) => withoutScope(step, rig)),
      version: 1,
      createdAt: new Date(),
    };
    await tx.insert(runSheets).values(row);
    return toSheet(row);
  });
}

export async function getSheet(db: Queries, id: string): Promise<StoredSheet> {
  const [row] = await db.select().from(runSheets).where(eq(runSheets.id, id));
  if (!row) throw notFound('run sheet');
  return toSheet(row);
}

/** Sheets, newest first, of one sample or of all. */
export async function listSheets(db: Queries, sampleId: string | undefined): Promise<SheetRow[]> {
  const rows = await db
    .select({ sheet: runSheets, model: models, serial: samples.serial })
    .from(runSheets)
    .innerJoin(samples, eq(runSheets.sampleId, samples.id))
    .innerJoin(models, eq(samples.modelId, models.id))
    .where(sampleId ? eq(runSheets.sampleId, sampleId) : undefined)
    .orderBy(desc(runSheets.id))
    .limit(MOST_LISTED);
  const runs = await db
    .select({
      id: sheetRuns.id,
      sheetId: sheetRuns.sheetId,
      state: sheetRuns.state,
      person: sheetRuns.person,
      outcomes: sheetRuns.outcomes,
      steps: sheetRuns.steps,
    })
    .from(sheetRuns)
    .where(sampleId ? eq(sheetRuns.sampleId, sampleId) : undefined)
    .orderBy(desc(sheetRuns.id));
  return rows.map(({ sheet, model, serial }) => {
    const run = runs.find(({ sheetId }) => sheetId === sheet.id);
    return {
      id: sheet.id,
      sample: { id: sheet.sampleId, maker: model.maker, model: model.model, serial, tag: tagOf(sheet.sampleId) },
      title: sheet.title,
      methodId: sheet.methodId,
      steps: sheet.steps.filter(({ skip }) => skip === null).length,
      seconds: sheetSeconds(sheet.steps),
      createdAt: sheet.createdAt.toISOString(),
      run: run ? { id: run.id, state: run.state, person: run.person, ...stepsDone(run.steps, run.outcomes) } : null,
    };
  });
}

async function lockedSheet(tx: Queries, id: string, seen: string | null): Promise<typeof runSheets.$inferSelect> {
  const [row] = await tx.select().from(runSheets).where(eq(runSheets.id, id)).for('update');
  if (!row) throw notFound('run sheet');
  requireMatch(seen, etagOf(row.version), 'run sheet');
  return row;
}

/** Change a sheet. A run that is on keeps the steps it started with. */
export async function updateSheet(
  db: Database,
  id: string,
  input: SheetInput,
  seen: string | null,
): Promise<StoredSheet> {
  return db.transaction(async (tx) => {
    const row = await lockedSheet(tx, id, seen);
    if (!(await listRigs(tx)).some(({ id: rigId }) => rigId === input.rigId))
      throw refused('rigId', 'This rig is not on the bench any more. Choose another.');
    const labels = (await getSample(tx, row.sampleId)).model.ports.map(({ label }) => label);
    for (const [index, step] of input.steps.entries()) {
      const stray = portsOf(step).find((port) => !labels.includes(port));
      if (stray !== undefined) throw refused(`steps[${index}]`, `There is no port "${stray}".`);
    }
    const changed = { ...row, ...input, version: row.version + 1 };
    await tx.update(runSheets).set(changed).where(eq(runSheets.id, id));
    return toSheet(changed);
  });
}

export async function deleteSheet(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    await lockedSheet(tx, id, seen);
    const [ran] = await tx
      .select({ id: sheetRuns.id })
      .from(sheetRuns)
      .where(and(eq(sheetRuns.sheetId, id)))
      .limit(1);
    if (ran) throw conflict('This sheet ran. What was measured keeps the sheet it was measured by.');
    await tx.delete(runSheets).where(eq(runSheets.id, id));
  });
}

export const sheetsPart: SamplePart = {
  keeps: keptIn(sheetRuns, 'A run sheet was run on'),
  remove: removedFrom(runSheets),
};
