// Evaluates limit sets at a nameplate power and judges results against them.
import { type Decision, type DecisionRule, decide, type Limit } from '../decision/index.ts';
import { type Mains, mainsLabel, mainsMatches, type Output } from '../reading/index.ts';
import { type Measured, requireFinite } from '../uncertainty/index.ts';
import type { LimitedQuantity, LimitSet, NameplateClass } from './types.ts';

/**
 * The limit of a set at nameplate power P.
 * @param watts nameplate output power, W
 * @returns efficiency as a ratio or power in W; null when the set does not cover this quantity, class or power
 * @throws RangeError for a power that is not finite or not above zero
 */
export function limitAt(
  set: LimitSet,
  quantity: LimitedQuantity,
  nameplateClass: NameplateClass,
  watts: number,
): number | null {
  requireFinite('nameplate power', watts);
  if (watts <= 0) throw new RangeError('Nameplate power is above zero.');
  const found = set.formulas.find((f) => f.quantity === quantity && f.nameplateClass === nameplateClass);
  const piece = found?.pieces.find(
    ({ upTo, inclusive }) => upTo === null || watts < upTo || (inclusive && watts === upTo),
  );
  return piece ? piece.constant + piece.perWatt * watts + piece.perLog * Math.log(watts) : null;
}

/**
 * The class the outputs suggest: several voltages at once are multiple-voltage; under 6 V with 0.55 A or more is
 * low-voltage; the rest basic. The user confirms it.
 */
export function suggestClass(outputs: readonly Output[]): NameplateClass {
  if (new Set(outputs.map((output) => output.volts)).size > 1) return 'multiple-voltage';
  const lowest = outputs[0];
  const amps = outputs.reduce((total, output) => total + output.amps, 0);
  return lowest && lowest.volts < 6 && amps >= 0.55 ? 'low-voltage' : 'basic';
}

/** One result held against one limit of one set. */
export interface LimitLine {
  readonly setId: string;
  readonly title: string;
  readonly quantity: LimitedQuantity;
  readonly mains: Mains;
  readonly limit: Limit;
  readonly result: Measured;
  readonly decision: Decision;
  /** A verdict at the set's own supply, otherwise indicative. */
  readonly standing: 'verdict' | 'indicative';
  readonly why: string;
}

/**
 * Hold one result against every set that covers it.
 * Taken at the set's own mains it is a verdict (for one sample, never compliance); at any other, indicative.
 */
export function judgeAgainstSets(
  sets: readonly LimitSet[],
  quantity: LimitedQuantity,
  nameplateClass: NameplateClass,
  watts: number,
  mains: Mains,
  result: Measured,
  rule: DecisionRule,
): readonly LimitLine[] {
  return sets.flatMap((set) => {
    const at = limitAt(set, quantity, nameplateClass, watts);
    if (at === null) return [];
    const limit: Limit = quantity === 'no-load-power' ? { kind: 'at-most', high: at } : { kind: 'at-least', low: at };
    const own = mainsMatches(mains, set.mains);
    return [
      {
        setId: set.id,
        title: set.title,
        quantity,
        mains,
        limit,
        result,
        decision: decide(result, limit, rule),
        standing: own ? 'verdict' : 'indicative',
        why: own ? '' : `Taken at ${mainsLabel(mains)}; the set asks for ${mainsLabel(set.mains)}.`,
      } satisfies LimitLine,
    ];
  });
}
