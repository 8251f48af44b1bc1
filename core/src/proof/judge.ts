// Each step judged: volts within tolerance, amps as asked; and what a level does between no load and full load.

import type { DecisionRule, Limit } from '../decision/index.ts';
import {
  boundTest,
  CLAIM_STATES,
  type ClaimState,
  type ClaimTest,
  type Delivered,
  levelTolerance,
  settle,
  testOf,
  worstState,
} from '../evidence/index.ts';
import { formatMeasured } from '../quantity/index.ts';
import { mainsLabel, type OutputResult, sameOutputs } from '../reading/index.ts';
import type { ProofStep } from '../steps/steps.ts';
import { difference, expandedUncertainty, type Measured, ratio } from '../uncertainty/index.ts';

export interface ProofRules {
  readonly rule: DecisionRule;
  /** Fraction a current may miss what was asked and still count as set. */
  readonly allowance: number;
  /** Own voltage tolerance, fraction; null takes the standard's. */
  readonly tolerance: number | null;
}

export interface StepResult {
  readonly step: ProofStep;
  readonly state: ClaimState;
  /** As delivered, the newest first where several supplies were used. */
  readonly delivered: readonly Delivered[];
  /** At the receptacle, of the deciding delivery; empty while there is none. */
  readonly outputs: readonly OutputResult[];
  readonly tests: readonly ClaimTest[];
  readonly notes: readonly string[];
}

/** Permitted deviation of a programmable supply's current limit, A: it may fold back from here on. */
const foldBackFrom = (amps: number): number => amps - Math.max(0.15, amps > 3 ? amps * 0.05 : 0);

/** The tests a delivery puts a step to. */
export function testsOf(delivered: Delivered, load: 0 | 1, rules: ProofRules): readonly ClaimTest[] {
  const { evidence, conditions, sourceIds, outputs, asked, wall } = delivered;
  if (outputs.length === 0) {
    if (!wall || load === 0) return [];
    const watts = asked.reduce((all, { volts, amps }) => all + volts * amps, 0);
    const limit: Limit = { kind: 'at-least', low: watts * (1 - rules.allowance) };
    return [boundTest(limit, wall, evidence, conditions, sourceIds)];
  }
  return outputs.flatMap((output, index): ClaimTest[] => {
    const set = asked[index];
    if (!set) return [];
    const put = (quantity: 'voltage' | 'current', limit: Limit, result: Measured, kind = evidence) =>
      testOf(quantity, limit, result, kind, conditions, sourceIds, rules.rule);
    // A device limits the current, not the voltage it sees, so the voltage is two-sided either way.
    const voltage = put('voltage', levelTolerance(set.volts, rules.tolerance, set.supply), output.volts, 'load');
    if (load === 0) return [voltage];
    return [voltage, put('current', { kind: 'at-least', low: set.amps * (1 - rules.allowance) }, output.amps)];
  });
}

function judgeStep(step: ProofStep, all: readonly Delivered[], rules: ProofRules): StepResult {
  const ever = all.filter(
    (one) =>
      (one.load === 0) === (step.load === 0) && one.evidence !== 'device' && sameOutputs(one.asked, step.outputs),
  );
  // What was read after a stress stands for the sample as it is now.
  const now = Math.max(0, ...ever.map(({ epoch }) => epoch));
  const own = ever.filter(({ epoch }) => epoch === now);
  const judged = own.map((delivered) => {
    const tests = testsOf(delivered, step.load, rules);
    return {
      delivered,
      tests,
      state: worstState(
        tests.map(({ state }) => state),
        CLAIM_STATES,
      ),
    };
  });
  const { state, disagree } = settle(judged.map((one) => one.state));
  const deciding = judged.findLast((one) => one.state === state) ?? judged.at(-1);
  const outputs = deciding?.delivered.outputs ?? [];
  const [only] = outputs;
  const [set] = step.outputs;
  const atLimit =
    state === 'short' &&
    step.supply === 'pps' &&
    only &&
    set &&
    only.amps.value >= foldBackFrom(set.amps) &&
    only.volts.value < set.volts;
  return {
    step,
    state: atLimit ? 'borderline' : state,
    delivered: ever,
    outputs,
    tests: deciding?.tests ?? [],
    notes: [
      ...(disagree ? ['Runs disagree: one proves it, another refutes it. Repeat.'] : []),
      ...(atLimit
        ? ['It folds back at its current limit, as a programmable supply may: prove it at a little less.']
        : []),
      ...new Set(own.flatMap(({ notes }) => notes)),
    ],
  };
}

export const judgeSteps = (
  steps: readonly ProofStep[],
  delivered: readonly Delivered[],
  rules: ProofRules,
): readonly StepResult[] => steps.map((step) => judgeStep(step, delivered, rules));

/** A level between no load and full load. */
export interface Regulation {
  readonly port: string;
  /** V, nominal */
  readonly volts: number;
  readonly conditions: string;
  /** V without load */
  readonly noLoad: Measured;
  /** Fall of the voltage with current, V/A; negative when it rises. */
  readonly slope: Measured;
  readonly sentence: string;
}

/**
 * Load regulation of every level with both readings: (V₀ − V)/I. Nobody's spec says how much of one voltmeter's error
 * is the same at both, so none of it is taken to cancel.
 */
export function regulations(delivered: readonly Delivered[]): readonly Regulation[] {
  const single = delivered.filter(({ outputs, asked }) => outputs.length === 1 && asked.length === 1);
  return single.flatMap((full): Regulation[] => {
    const [set] = full.asked;
    const [output] = full.outputs;
    if (full.load === 0 || full.evidence !== 'load' || !set || !output || output.amps.value < 0.2) return [];
    const empty = single.findLast(
      ({ load, asked: [other], mains }) =>
        load === 0 &&
        other?.port === set.port &&
        other.supply === set.supply &&
        Math.abs(other.volts - set.volts) < 1e-3 &&
        mains !== null &&
        full.mains !== null &&
        mainsLabel(mains) === mainsLabel(full.mains),
    );
    const [without] = empty?.outputs ?? [];
    if (!without || full.mains === null) return [];
    const slope = (without.volts.value - output.volts.value) / output.amps.value;
    const result = ratio(difference(output.volts, without.volts), output.amps);
    const words = formatMeasured(Math.abs(slope) * 1000, expandedUncertainty(result) * 1000, 'voltage', 'V').replace(
      ' V',
      ' mV/A',
    );
    const clear = Math.abs(slope) > expandedUncertainty(result);
    return [
      {
        port: set.port,
        volts: set.volts,
        conditions: full.conditions,
        noLoad: without.volts,
        slope: result,
        sentence:
          slope < 0 && clear
            ? `Rises ${words} with load: it makes up for the drop of a cable.`
            : `Falls ${words} with load.`,
      },
    ];
  });
}
