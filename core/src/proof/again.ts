// After stress every port is proved again: a dead or weakened port is a finding.

import type { ClaimState } from '../evidence/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { currentRuns, type Run } from '../run/index.ts';
import type { ProofStep } from '../steps/steps.ts';
import { expandedUncertainty } from '../uncertainty/index.ts';
import type { StepResult } from './judge.ts';

/** One port's short re-proof. */
export interface AgainLine {
  readonly step: ProofStep;
  /** True once it was read after the last stress. */
  readonly done: boolean;
  readonly state: ClaimState;
  readonly sentence: string;
}

export interface Again {
  /** When the last stress was over. */
  readonly since: string;
  readonly lines: readonly AgainLine[];
}

/** Runs that stress a sample: anything over the rating, and every hold that ended early or lasted ten minutes. */
export const isStress = (run: Run): boolean =>
  run.kind === 'over' || (run.kind === 'hold' && (run.end !== 'held to the end' || run.held >= 600));

const powerOf = ({ outputs }: ProofStep): number => outputs.reduce((total, { volts, amps }) => total + volts * amps, 0);

function lineFor(result: StepResult, since: string): AgainLine {
  const { step, delivered } = result;
  const after = delivered.filter(({ takenAt }) => takenAt > since).at(-1);
  const before = delivered.filter(({ takenAt }) => takenAt <= since).at(-1);
  if (!after) return { step, done: false, state: 'not tested', sentence: 'Due: read it once more.' };
  const [now] = after.outputs;
  const [then] = before?.outputs ?? [];
  if (!now) return { step, done: true, state: result.state, sentence: 'Read at the socket only.' };
  if (!then) return { step, done: true, state: result.state, sentence: 'Read; nothing from before to compare.' };
  const fall = then.volts.value - now.volts.value;
  const lost = then.amps.value - now.amps.value;
  const clearFall = fall > Math.hypot(expandedUncertainty(then.volts), expandedUncertainty(now.volts));
  const clearLoss =
    lost > Math.hypot(expandedUncertainty(then.amps), expandedUncertainty(now.amps)) && lost > 0.03 * then.amps.value;
  if (now.amps.value < 0.05 * then.amps.value || now.volts.value < 1)
    return { step, done: true, state: 'short', sentence: 'Dead: it gives nothing any more.' };
  if (clearLoss)
    return {
      step,
      done: true,
      state: 'short',
      sentence: `Weaker: ${formatPlain(now.amps.value, 'current')} where it gave ${formatPlain(then.amps.value, 'current')}.`,
    };
  return {
    step,
    done: true,
    state: result.state,
    sentence: clearFall ? `${formatPlain(fall, 'voltage', 'mV')} lower than before.` : 'As before.',
  };
}

/** The re-proof the last stress calls for: each port once, at its strongest level; null while there was no stress. */
export function proofAgain(results: readonly StepResult[], runs: readonly Run[]): Again | null {
  const since = currentRuns(runs).filter(isStress).at(-1)?.takenAt;
  if (since === undefined) return null;
  const single = results.filter(({ step }) => step.load === 1 && step.outputs.length === 1 && step.reason !== 'range');
  const ports = [...new Set(single.map(({ step }) => step.outputs[0]?.port))];
  const lines = ports.flatMap((port) => {
    const own = single.filter(({ step }) => step.outputs[0]?.port === port);
    // Rather a level that was read before: only then is there something to compare with.
    const known = own.filter(({ delivered }) => delivered.some(({ takenAt }) => takenAt <= since));
    const strongest = (known.length > 0 ? known : own).reduce<StepResult | null>(
      (a, b) => (a && powerOf(a.step) >= powerOf(b.step) ? a : b),
      null,
    );
    return strongest ? [lineFor(strongest, since)] : [];
  });
  return { since, lines };
}
