// Holds a stated verdict against what was hidden, and against what was really measured.
import { type SheetStep, stepSeconds } from '../plan/index.ts';
import { drillFault } from './faults.ts';
import type { DrillFault, DrillPart, DrillResult, Effort, Slip, StatedPart } from './types.ts';

/** What one reading by hand takes, s: set it, wait, read it, type it. */
export const BY_HAND_SECONDS = 120;

/** Whether a fault was measured: by steps a run carried out, or by readings typed. */
export const wasMeasured = ({ caught, byHand }: DrillFault, { tried, ports, typed }: DrillPart): boolean =>
  caught(tried, ports).length > 0 || (typed !== null && (byHand?.(typed, ports) ?? false));

/** How many typed points a part has: those no run took. */
const typedPoints = ({ typed }: DrillPart): number =>
  typed?.points.filter(({ readings }) => readings.some(({ source }) => source === 'keypad')).length ?? 0;

/** What was done on the bench. The rig's own steps are steps of its samples, so they count once. */
export function effortOf(parts: readonly DrillPart[]): Effort {
  const samples = parts.filter(({ of }) => of !== 'rig');
  const steps = samples.flatMap(({ tried }) => tried);
  const typed = samples.reduce((sum, part) => sum + typedPoints(part), 0);
  return {
    steps: steps.length + typed,
    seconds: steps.reduce((sum, step) => sum + stepSeconds(step), 0) + typed * BY_HAND_SECONDS,
  };
}

/**
 * A good plan: of a whole sheet the steps that would show any of some faults, and the rig check, each once.
 * @param steps the whole sheet of a method for the part @param faults ids of what may hide in it
 * @example goodPlan(wholeSheet(method, dossier), ['C1'], ['timer']).map(({ kind }) => kind) // ['rig', 'warm-up']
 */
export function goodPlan(
  steps: readonly SheetStep[],
  ports: readonly string[],
  faults: readonly string[],
): readonly SheetStep[] {
  const done = steps.filter(({ skip }) => skip === null);
  const wanted = new Set(faults.flatMap((id) => drillFault(id)?.caught(done, ports) ?? []));
  // What a longer step shows as well needs no shorter one.
  for (const step of [...wanted]) {
    const without = [...wanted].filter((other) => other !== step);
    const all = faults.every((id) => {
      const fault = drillFault(id);
      return !fault || fault.caught(done, ports).length === 0 || fault.caught(without, ports).length > 0;
    });
    if (all) wanted.delete(step);
  }
  return done.filter((step) => step.kind === 'rig' || wanted.has(step));
}

const sentence = (text: string): string => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}.`;

/** What a part was said to be, against what it is. */
function slipsOf(part: DrillPart, stated: StatedPart['faults'], rigFaults: readonly string[]): Slip[] {
  const slips: Slip[] = [];
  const add = (slip: Omit<Slip, 'partId'>) => slips.push({ ...slip, partId: part.id });
  for (const id of part.faults) {
    const fault = drillFault(id);
    if (!fault || stated.some((own) => own.id === id)) continue;
    const measured = wasMeasured(fault, part);
    add({
      kind: 'missed',
      faultId: id,
      says: `${part.name}: ${fault.says} ${measured ? 'It was measured, and not seen.' : 'It was not measured.'}`,
      caughtBy: measured ? `Look at the result of ${fault.caughtBy}.` : sentence(fault.caughtBy),
    });
  }
  for (const { id, basis } of stated) {
    const fault = drillFault(id);
    if (!fault) continue;
    const measured = wasMeasured(fault, part);
    const there = part.faults.includes(id);
    if (!there) {
      const rig = part.of === 'rig' ? undefined : rigFaults.map(drillFault).find((one) => one !== undefined);
      add({
        kind: 'not there',
        faultId: id,
        says: `${part.name}: “${fault.title}” was said, and it is not so.${rig ? ` The rig was wrong: ${rig.says}` : ''}`,
        caughtBy: rig ? sentence(rig.caughtBy) : sentence(fault.caughtBy),
      });
    } else if (basis === 'measured' && !measured)
      add({
        kind: 'called measured',
        faultId: id,
        says: `${part.name}: “${fault.title}” is so, but it was called measured and nothing was measured that shows it.`,
        caughtBy: sentence(fault.caughtBy),
      });
    else if (basis !== 'measured' && !measured)
      add({
        kind: 'guessed',
        faultId: id,
        says: `${part.name}: “${fault.title}” is so, and it was a guess.`,
        caughtBy: sentence(fault.caughtBy),
      });
    else if (basis !== 'measured')
      add({
        kind: 'called unmeasured',
        faultId: id,
        says: `${part.name}: “${fault.title}” was measured, and stated as if it were not.`,
        caughtBy: '',
      });
  }
  return slips;
}

/** Whether a run loaded a sample before a rig check stood. @param runs steps of each run, in order */
export const loadedUnproven = (runs: readonly (readonly SheetStep[])[]): boolean => {
  const first = runs
    .flat()
    .find((step) => step.kind === 'rig' || step.kind === 'split' || ('load' in step && step.load > 0));
  return first !== undefined && first.kind !== 'rig';
};

/**
 * Hold a verdict against the truth.
 * @param stated what is wrong with which part; a part that is left out is said to be sound
 * @param runs steps carried out, run by run, in order of time
 */
export function judgeDrill(
  parts: readonly DrillPart[],
  stated: readonly StatedPart[],
  {
    good,
    budget,
    runs,
  }: { readonly good: Effort; readonly budget: number; readonly runs: readonly (readonly SheetStep[])[] },
): DrillResult {
  const used = effortOf(parts);
  const rigFaults = parts.filter(({ of }) => of === 'rig').flatMap(({ faults }) => faults);
  const said = (part: DrillPart) => stated.find(({ partId }) => partId === part.id)?.faults ?? [];
  const slips = parts.flatMap((part) => slipsOf(part, said(part), rigFaults));
  if (used.seconds > budget)
    slips.push({
      kind: 'late',
      partId: null,
      faultId: null,
      says: 'It took more bench time than there was.',
      caughtBy: 'Take the steps that settle most for their time first: Verdict, What to measure next.',
    });
  if (loadedUnproven(runs))
    slips.push({
      kind: 'rig unproven',
      partId: null,
      faultId: null,
      says: 'A sample was loaded before the rig had proven itself.',
      caughtBy: 'The rig check as the first step of the sheet.',
    });
  const hidden = parts.reduce((sum, { faults }) => sum + faults.length, 0);
  const found = parts.reduce(
    (sum, part) =>
      sum +
      part.faults.filter((id) => {
        const fault = drillFault(id);
        return fault && said(part).some((own) => own.id === id) && wasMeasured(fault, part);
      }).length,
    0,
  );
  return { found, hidden, slips, used, good, budget, passed: slips.length === 0 };
}
