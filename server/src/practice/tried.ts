// What was done in the world of a drill: steps runs carried out, readings typed by hand.
import type { DrillPartRow } from '@lastmark/contract';
import type { DrillPart } from '@lastmark/core/drill';
import type { SheetStep } from '@lastmark/core/plan';
import type { Database } from '../db/database.ts';
import { sheetRuns } from '../db/schema.ts';
import { getDossier } from '../dossier/dossier.ts';

export interface Done {
  readonly parts: readonly DrillPart[];
  /** Steps carried out, run by run in order of time. */
  readonly runs: readonly (readonly SheetStep[])[];
}

const RIG = 'rig';

/**
 * Gather what was done.
 * @param faultsOf what hides in each part, in the order of the parts
 */
export async function whatWasDone(
  db: Database,
  rows: readonly DrillPartRow[],
  faultsOf: (part: DrillPartRow) => readonly string[],
): Promise<Done> {
  const found = await db
    .select({
      sampleId: sheetRuns.sampleId,
      steps: sheetRuns.steps,
      outcomes: sheetRuns.outcomes,
      stepId: sheetRuns.stepId,
    })
    .from(sheetRuns)
    .orderBy(sheetRuns.startedAt, sheetRuns.id);
  const runs = found.map(({ sampleId, steps, outcomes, stepId }) => ({
    sampleId,
    steps: steps.filter(({ id, kind }) => {
      const outcome = outcomes[id];
      // A rig check that did not pass holds the run where it stands: that is what it is for.
      return outcome ? outcome.state !== 'skipped' : kind === 'rig' && id === stepId;
    }),
  }));
  const parts: DrillPart[] = [];
  for (const row of rows) {
    const { id, name, of } = row;
    const base = { id, name, of, faults: faultsOf(row) };
    if (id === RIG) {
      const checks = runs.flatMap(({ steps }) => steps.filter(({ kind }) => kind === 'rig'));
      parts.push({ ...base, ports: [], tried: checks, typed: null });
      continue;
    }
    const tried = runs.filter(({ sampleId }) => sampleId === id).flatMap(({ steps }) => steps);
    const dossier = await getDossier(db, id);
    parts.push({
      ...base,
      ports: dossier.sample.model.ports.map(({ label }) => label),
      tried,
      // Of what a person typed; a run's own points are its steps.
      typed: {
        setups: dossier.setups,
        points: dossier.points.filter(({ readings }) => readings.some(({ source }) => source === 'keypad')),
      },
    });
  }
  return { parts, runs: runs.map(({ steps }) => steps) };
}
