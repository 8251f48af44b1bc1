// What may follow from the steps of a sheet, before the run.
import type { Condition, ConditionKind } from './condition-types.ts';
import { conditionOf, minutesWords, percentWords } from './conditions.ts';
import { isRepeated, pairsOf, provedAgain, restOfLevel } from './follow-up.ts';
import { loadOf, mainsOf, outputsOf, splitStep, stepSeconds } from './steps.ts';
import type { NewStep, SheetStep } from './types.ts';

/** A branch of a sheet: what may follow from a step. */
export interface Branch {
  readonly kind: ConditionKind;
  readonly when: string;
  readonly then: string;
  /** How much longer the run may take by it, s; below zero where steps are left out. */
  readonly seconds: number;
}

const numbersIn = (steps: readonly SheetStep[], some: readonly SheetStep[]): string => {
  const numbers = some.map((one) => steps.indexOf(one) + 1);
  return `step${numbers.length === 1 ? '' : 's'} ${numbers.join(', ')}`;
};
const sum = (steps: readonly (SheetStep | NewStep)[]): number =>
  steps.reduce((all, step) => all + stepSeconds({ id: '', ...step } as SheetStep), 0);

/**
 * What may follow from a step, before the run.
 * @returns branches in the order of CONDITION_KINDS; empty for a step nothing depends on
 */
export function branchesOf(
  conditions: readonly Condition[],
  steps: readonly SheetStep[],
  step: SheetStep,
): readonly Branch[] {
  if (step.skip !== null) return [];
  const branches: Branch[] = [];
  const add = (kind: ConditionKind, when: string, then: string, seconds: number) =>
    branches.push({ kind, when, then, seconds });
  const repeat = conditionOf(conditions, 'repeat');
  if (repeat && isRepeated(step))
    add(
      'repeat',
      `U is more than ${percentWords(repeat.within)}`,
      `read again, ${repeat.most - 1 === 1 ? 'once' : `${repeat.most - 1} times`} more at most`,
      sum([step]) * (repeat.most - 1),
    );
  const unsettled = conditionOf(conditions, 'unsettled');
  if (unsettled && step.kind === 'point' && step.settle)
    add(
      'unsettled',
      `it has not settled after ${minutesWords(step.settle.average)}`,
      `go on for ${minutesWords(unsettled.longest)} at most`,
      step.settle.average - step.settle.over + unsettled.longest,
    );
  const folded = conditionOf(conditions, 'folded');
  const rest =
    folded && loadOf(step) > 0
      ? restOfLevel(
          steps,
          step,
          outputsOf(step).map(({ port }) => port),
        )
      : [];
  if (folded && rest.length > 0)
    add(
      'folded',
      `it gives less than ${percentWords(folded.share)}`,
      `leave out ${numbersIn(steps, rest)}`,
      -sum(rest),
    );
  if (conditionOf(conditions, 'dropped') && step.kind === 'split' && step.order.length > 2) {
    const pairs = pairsOf(steps, step.order, step.order).map((pair) => splitStep(step.by, step.mains, pair));
    if (pairs.length > 0)
      add('dropped', 'a port drops out', `read it in pairs, ${pairs.length} more at most`, sum(pairs));
  }
  if (conditionOf(conditions, 'gone') && loadOf(step) > 0 && mainsOf(step)) {
    const proofs = provedAgain(
      step,
      outputsOf(step).map(({ port }) => port),
    );
    add('gone', 'an output goes away', 'prove it again', sum(proofs.map((one) => one.step)));
  }
  return branches;
}

/** How much longer a sheet may take by its conditions, s: everything that adds happens, nothing is left out. */
export const mostSeconds = (conditions: readonly Condition[], steps: readonly SheetStep[]): number =>
  steps.reduce(
    (all, step) =>
      all + branchesOf(conditions, steps, step).reduce((own, { seconds }) => own + Math.max(0, seconds), 0),
    0,
  );
