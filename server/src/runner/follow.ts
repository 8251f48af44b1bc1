// What follows from a step that ended: what it turned out as, read from what it made, and the steps a run then has.
import type { StepOutcome } from '@lastmark/contract';
import { efficiencySeries } from '@lastmark/core/efficiency';
import { idleResults } from '@lastmark/core/idle';
import {
  followUp,
  NOTHING_FOUND,
  type PointStep,
  type SheetStep,
  type StepFound,
  withFollowUp,
} from '@lastmark/core/plan';
import { type Point, readingAt } from '@lastmark/core/reading';
import { expandedUncertainty, isStated, type Measured } from '@lastmark/core/uncertainty';
import type { Queries } from '../db/database.ts';
import { storedPoints } from '../readings/stored.ts';
import { listSetups } from '../setups/store.ts';
import type { Hands } from './hands.ts';

type Needs = Pick<Hands, 'run' | 'rig' | 'own'>;
type Outcomes = Readonly<Record<string, Pick<StepOutcome, 'madeIds'>>>;

/** U over the value, with the part that repeats do not take away; unknown while an accuracy is not stated. */
function sureness(result: Measured | undefined): Pick<StepFound, 'relative' | 'floor'> {
  if (!result || !isStated(result) || !(result.value > 0)) return { relative: null, floor: null };
  const own = { ...result, uRepeat: 0, degrees: Number.POSITIVE_INFINITY };
  return { relative: expandedUncertainty(result) / result.value, floor: expandedUncertainty(own) / result.value };
}

/** What each port gave of what was asked, by the meters at the output. */
function givenAt(point: Point, step: PointStep, place: Needs['rig']['outputPlace']): StepFound['given'] {
  return step.outputs.flatMap(({ port, volts, amps }) => {
    const [v, a] = (['voltage', 'current'] as const).map((quantity) => readingAt(point, quantity, place, port)?.value);
    return v == null || a == null ? [] : [{ port, share: (v * a) / (volts * amps * step.load) }];
  });
}

/** What the readings of a step say, with those of the same step read before in this run. */
async function readFound(
  tx: Queries,
  { run, rig, own }: Needs,
  step: SheetStep,
  outcomes: Outcomes,
): Promise<Partial<StepFound>> {
  if (step.kind !== 'point' && step.kind !== 'idle') return {};
  const root = step.repeats ?? step.id;
  const ids = run.steps
    .filter((one) => (one.repeats ?? one.id) === root)
    .flatMap(({ id }) => outcomes[id]?.madeIds ?? []);
  const points = await storedPoints(tx, ids);
  const last = points.at(-1);
  if (!last) return {};
  if (step.kind === 'idle') {
    const floor = own.find(({ id }) => id === rig.meters.mains)?.specs.power?.floor ?? 0;
    return sureness(idleResults(points, () => floor)[0]?.watts);
  }
  if (step.load === 0) return {};
  const setup = (await listSetups(tx, run.sample.id)).find(({ id }) => id === last.setupId);
  const [at] = setup ? efficiencySeries(setup, points, [rig]).byMains.flatMap(({ loads }) => loads) : [];
  return { ...sureness(at?.efficiency), given: givenAt(last, step, rig.outputPlace) };
}

/** The steps a run has after one of them ended, null while they stay as they are; and what is said besides. */
export async function followedBy(
  tx: Queries,
  needs: Needs,
  step: SheetStep,
  outcomes: Outcomes,
  seen: Partial<StepFound>,
): Promise<{ readonly steps: readonly SheetStep[] | null; readonly says: string | null }> {
  const { conditions, steps } = needs.run;
  if (conditions.length === 0) return { steps: null, says: null };
  // Of an output that went away nothing was read.
  const read = seen.gone ? {} : await readFound(tx, needs, step, outcomes);
  const given = [...(read.given ?? []), ...(seen.given ?? [])];
  const then = followUp(conditions, steps, step, { ...NOTHING_FOUND, ...read, ...seen, given });
  const changed = then.add.length > 0 || then.leave.length > 0;
  return { steps: changed ? withFollowUp(steps, step.id, then) : null, says: then.says };
}
