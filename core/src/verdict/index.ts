// The verdict on a sample.

export { limitsOfSetups, nameplateOf, type SetupFacts, type SetupLimits } from '../efficiency/index.ts';
export { classOfSample, limitsOfIdle } from '../idle/index.ts';
export { chosenSets } from '../limits/index.ts';
export type { SplitResult } from '../split/index.ts';
export type { StationId } from '../station/index.ts';
export * from './complete.ts';
export * from './glance.ts';
export * from './judge.ts';
export { type Results, STATIONS } from './stations.ts';
export * from './types.ts';
