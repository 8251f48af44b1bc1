// Comparison: sets of samples, like with like, who is first, and how sure that is.
export * from './bridge.ts';
export * from './edge.ts';
export * from './fates.ts';
export * from './keep.ts';
export * from './kit.ts';
export * from './past.ts';
export * from './set.ts';
export * from './standing.ts';
export * from './units.ts';
export * from './values.ts';
export * from './weights.ts';
export * from './winner.ts';
