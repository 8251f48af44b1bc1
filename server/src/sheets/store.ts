// Run sheets: made by a method, changed by people, kept once they ran.

import type { SheetInput, SheetRow, StoredSheet } from '@lastmark/contract';
import { conditionProblems, loadedPlaces, methodOf, portsOf, sheetSeconds, stepsDone } from '@lastmark/core/plan';
import { and, desc, eq } from 'drizzle-orm';
import { listRigs } from '../bench/store.ts';
import type { Database, Queries } from '../db/database.ts';
import { methodVersions, models, runSheets, samples, sheetRuns } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { keptIn, removedFrom, type SamplePart } from '../samples/part.ts';
import { getSample, tagOf } from '../samples/store.ts';
import { seen } from '../seen/seen.ts';

const MOST_LISTED = 200;

export const toSheet = (row: typeof runSheets.$inferSelect): StoredSheet => ({
  ...row,
  conditions: row.conditions ?? [],
  createdAt: row.createdAt.toISOString(),
});

export async function getSheet(db: Queries, id: string): Promise<StoredSheet> {
  const [row] = await db.select().from(runSheets).where(eq(runSheets.id, id));
  if (!row) throw notFound('run sheet');
  return toSheet(row);
}

/** Sheets, newest first, of one sample or of all. */
export async function listSheets(db: Queries, sampleId: string | undefined): Promise<SheetRow[]> {
  const rows = await db
    .select({
      sheet: runSheets,
      model: models,
      unit: { serial: samples.serial, facts: samples.facts },
      method: methodVersions.body,
    })
    .from(runSheets)
    .innerJoin(samples, eq(runSheets.sampleId, samples.id))
    .innerJoin(models, eq(samples.modelId, models.id))
    .leftJoin(
      methodVersions,
      and(eq(methodVersions.methodId, runSheets.methodId), eq(methodVersions.version, runSheets.methodVersion)),
    )
    .where(and(sampleId ? eq(runSheets.sampleId, sampleId) : undefined, seen()))
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
  return rows.map(({ sheet, model, unit, method }) => {
    const run = runs.find(({ sheetId }) => sheetId === sheet.id);
    return {
      id: sheet.id,
      sample: {
        id: sheet.sampleId,
        maker: model.maker,
        model: model.model,
        serial: unit.serial,
        tag: tagOf(sheet.sampleId),
        returnBy: unit.facts.returnBy ?? null,
      },
      title: sheet.title,
      methodId: sheet.methodId,
      methodVersion: sheet.methodVersion,
      methodTitle: method?.title ?? methodOf(sheet.methodId)?.title ?? sheet.methodId,
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
    const labels = loadedPlaces((await getSample(tx, row.sampleId)).model);
    for (const [index, step] of input.steps.entries()) {
      const stray = portsOf(step).find((port) => !labels.includes(port));
      if (stray !== undefined) throw refused(`steps[${index}]`, `There is no port "${stray}".`);
    }
    const problems = conditionProblems(input.conditions ?? []);
    if (problems.length > 0) throw refused('conditions', problems.join(' '));
    const conditions = input.conditions ?? row.conditions;
    const changed = { ...row, ...input, conditions, version: row.version + 1 };
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
