// Plans: methods, run sheets, what settles, what must not be passed, and how a rig proves itself.

export { ONE_PERCENT_RULE, type SettleRule } from '../procedure/index.ts';
export * from './branches.ts';
export * from './by-hand.ts';
export * from './capture-steps.ts';
export {
  CONDITION_KINDS,
  type Condition,
  type ConditionKind,
  conditionOf,
  conditionProblems,
  conditionWords,
  settleUnder,
  USUAL_CONDITIONS,
} from './conditions.ts';
export { type FollowUp, followUp, NOTHING_FOUND, type StepFound, withFollowUp } from './follow-up.ts';
export * from './gaps.ts';
export * from './generate.ts';
export * from './level.ts';
export * from './limits.ts';
export * from './line-sheet.ts';
export * from './method-words.ts';
export * from './methods.ts';
export * from './rig-check.ts';
export * from './settle.ts';
export * from './steps.ts';
export * from './types.ts';
export * from './warm.ts';
