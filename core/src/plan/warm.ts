// How far a run is, and how long a sample was warmed up before a step of it.
import { mainsLabel } from '../reading/index.ts';
import { mainsOf } from './steps.ts';
import type { SheetStep } from './types.ts';

/** What came of a step, as far as warming up goes. */
export interface WarmOutcome {
  readonly state: 'done' | 'skipped' | 'failed';
  /** Time under load, s. */
  readonly seconds?: number | undefined;
}

/**
 * How far a run came, by its own steps: its sheet may have been edited since.
 * @returns steps done, and steps that were to be done; one left out before the start counts in neither
 * @example stepsDone([{ id: 'a', skip: null }, { id: 'b', skip: null }], { a: { state: 'failed' } }) // { done: 0, steps: 2 }
 */
export function stepsDone(
  steps: readonly Pick<SheetStep, 'id' | 'skip'>[],
  outcomes: Readonly<Record<string, WarmOutcome>>,
): { readonly done: number; readonly steps: number } {
  return {
    done: steps.filter(({ id }) => outcomes[id]?.state === 'done').length,
    steps: steps.filter(({ skip }) => skip === null).length,
  };
}

/**
 * Time at full load at the same supply before a step, s. Cooling down, idle, or another supply undo it.
 * @param outcomes by step id
 * @returns 0 when nothing warmed it up
 */
export function warmUpBefore(
  steps: readonly SheetStep[],
  outcomes: Readonly<Record<string, WarmOutcome>>,
  before: SheetStep,
): number {
  const mains = mainsOf(before);
  let warm = 0;
  for (const step of steps) {
    if (step.id === before.id) return warm;
    const outcome = outcomes[step.id];
    if (outcome?.state !== 'done') continue;
    const own = mainsOf(step);
    const same = own && mains && mainsLabel(own) === mainsLabel(mains);
    if (step.kind === 'cool' || step.kind === 'idle' || (own && !same)) warm = 0;
    else if (step.kind === 'warm-up' || step.kind === 'hold') warm = Math.max(warm, outcome.seconds ?? step.dwell);
  }
  return warm;
}
