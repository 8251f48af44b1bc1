// Practice on simulated samples with hidden faults: what may hide, what shows it, and how a verdict fares.
export * from './faults.ts';
export * from './judge.ts';
export * from './levels.ts';
export * from './types.ts';
