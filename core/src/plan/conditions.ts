// What a run does by itself when a step turns out in some way, as sentences.

import type { SettleRule } from '../procedure/index.ts';
import { formatPlain } from '../quantity/index.ts';
import type { Condition, ConditionKind } from './condition-types.ts';

export { CONDITION_KINDS, type Condition, type ConditionKind } from './condition-types.ts';

/** A condition of each kind as it is usually wanted. */
export const USUAL_CONDITIONS: { readonly [Kind in ConditionKind]: Condition & { readonly kind: Kind } } = {
  repeat: { kind: 'repeat', within: 0.005, most: 4 },
  unsettled: { kind: 'unsettled', longest: 1800 },
  folded: { kind: 'folded', share: 0.95 },
  dropped: { kind: 'dropped' },
  gone: { kind: 'gone' },
};

export const percentWords = (part: number): string => `${Number((part * 100).toPrecision(3))} %`;
export const minutesWords = (seconds: number): string => formatPlain(seconds, 'duration', seconds < 120 ? 's' : 'min');

/**
 * A condition as a sentence.
 * @example conditionWords({ kind: 'repeat', within: 0.005, most: 4 })
 * // 'Until U is at most 0.5 % of what is read, read again, 4 times altogether.'
 */
export function conditionWords(condition: Condition): string {
  switch (condition.kind) {
    case 'repeat':
      return `Until U is at most ${percentWords(condition.within)} of what is read, read again, ${condition.most} times altogether.`;
    case 'unsettled':
      return `If a load point has not settled by its rule, go on for ${minutesWords(condition.longest)} at most.`;
    case 'folded':
      return `If a port gives less than ${percentWords(condition.share)} of what is asked, leave out the rest of this level.`;
    case 'dropped':
      return 'If a port drops out of a combination, read it with each of the others, two at a time.';
    case 'gone':
      return 'If an output goes away under load, prove it again, without load and at its rated current.';
  }
}

/** What is wrong with a list of conditions, each with what to do; empty for a good one. */
export function conditionProblems(conditions: readonly Condition[]): readonly string[] {
  const kinds = conditions.map(({ kind }) => kind);
  return [
    ...(new Set(kinds).size < kinds.length ? ['A condition stands twice.'] : []),
    ...conditions.flatMap((one) => {
      if (one.kind === 'repeat' && !(one.within > 0 && one.within < 1))
        return ['U to be reached lies above 0 % and below 100 %.'];
      if (one.kind === 'repeat' && !(Number.isInteger(one.most) && one.most >= 2 && one.most <= 50))
        return ['Readings altogether are 2 to 50.'];
      if (one.kind === 'folded' && !(one.share > 0 && one.share < 1))
        return ['The share a port must give lies above 0 % and below 100 %.'];
      if (one.kind === 'unsettled' && !(one.longest > 0 && one.longest <= 14_400))
        return ['Going on takes more than nothing and at most four hours.'];
      return [];
    }),
  ];
}

export const conditionOf = <Kind extends ConditionKind>(
  conditions: readonly Condition[],
  kind: Kind,
): (Condition & { readonly kind: Kind }) | null =>
  conditions.find((one): one is Condition & { readonly kind: Kind } => one.kind === kind) ?? null;

/** A settling rule with the time a condition adds before it is averaged; no rule stays none. */
export function settleUnder(rule: SettleRule | null, conditions: readonly Condition[]): SettleRule | null {
  const unsettled = conditionOf(conditions, 'unsettled');
  return rule && unsettled ? { ...rule, longest: rule.average + unsettled.longest } : rule;
}
