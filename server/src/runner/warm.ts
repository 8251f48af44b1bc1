// Points that a warm-up was planned for and that it was not done for: they are taken only on purpose.
import { mainsOf, type PointStep, type SheetStep } from '@lastmark/core/plan';
import { mainsLabel } from '@lastmark/core/reading';
import type { Hands } from './hands.ts';
import { Turn } from './turns.ts';

/** The last warm-up before a point at its supply that was tried and is not done; null when there is none. */
export function missedWarmUp(
  steps: readonly SheetStep[],
  outcomes: ReturnType<Hands['outcomes']>,
  point: PointStep,
): SheetStep<'warm-up'> | null {
  let missed: SheetStep<'warm-up'> | null = null;
  for (const step of steps) {
    if (step.id === point.id) break;
    const mains = mainsOf(step);
    if (!mains || mainsLabel(mains) !== mainsLabel(point.mains) || step.skip !== null) continue;
    const state = outcomes[step.id]?.state;
    if (step.kind === 'warm-up' && state !== undefined) missed = state === 'done' ? null : step;
    if (step.kind === 'hold' && state === 'done') missed = null;
  }
  return missed;
}

/**
 * Ask whether a point is to be taken cold, once a warm-up.
 * @param agreed warm-ups that people agreed to go without
 * @returns the warm-up when it is to be done now; null to go on
 */
export async function coldOnPurpose(hands: Hands, step: SheetStep, agreed: Set<string>): Promise<SheetStep | null> {
  if (step.kind !== 'point' || step.station !== 'efficiency' || step.load === 0 || step.by === 'keypad') return null;
  const missed = missedWarmUp(hands.run.steps, hands.outcomes(), step);
  if (!missed || agreed.has(missed.id)) return null;
  try {
    await hands.driver.off();
    await hands.person(
      'The warm-up before this is not done. Repeat does it now; Go on takes this and what follows without it, and each says so.',
    );
    agreed.add(missed.id);
    return null;
  } catch (error) {
    if (error instanceof Turn && error.ask.kind === 'repeat') return missed;
    throw error;
  }
}
