// What a good plan takes in the world of a drill: the bench time it has is made of that.
import { CABLE_FAULTS, CHARGER_FAULTS, seededCharger } from '@lastmark/bench/sim';
import type { DrillPartRow } from '@lastmark/contract';
import { type DrillLevel, type Effort, goodPlan } from '@lastmark/core/drill';
import { wholeSheet } from '@lastmark/core/next';
import { methodOf, stepSeconds } from '@lastmark/core/plan';
import type { Database } from '../db/database.ts';
import type { DrawnDrill } from '../db/schema/practice.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';

/** Methods a good plan takes its steps of. */
const METHODS = { charger: 'local-mains', cable: 'line' } as const;
/** Half as much again as a good plan takes, in whole quarters of an hour. */
const ROOM = 1.5;
const QUARTER = 900;

/** The bench time of a drill whose good plan takes so long, s. */
export const budgetOf = ({ seconds }: Effort): number => Math.ceil((ROOM * seconds) / QUARTER) * QUARTER;

/** A plan that shows whatever may hide at this level, not only what does. */
export async function goodPlanOf(
  db: Database,
  parts: readonly DrillPartRow[],
  level: DrillLevel,
  drawn: DrawnDrill,
): Promise<Effort> {
  let steps = 0;
  let seconds = 0;
  for (const [at, { id, of }] of parts.entries()) {
    const method = of === 'rig' ? undefined : methodOf(METHODS[of]);
    if (!method) continue;
    const dossier = toJudge(await getDossier(db, id));
    const ports = dossier.sample.ports.map(({ label }) => label);
    const charger = of === 'charger' ? drawn.chargers[at] : undefined;
    const truth = charger && seededCharger({ seed: charger.seed }).truth;
    const may = truth
      ? CHARGER_FAULTS.filter((fault) => level.among.includes(fault.id) && fault.fits(truth)).map((fault) => fault.id)
      : CABLE_FAULTS;
    const plan = goodPlan(wholeSheet(method, dossier), ports, may);
    steps += plan.length;
    seconds += plan.reduce((sum, step) => sum + stepSeconds(step), 0);
  }
  return { steps, seconds };
}
