// Test procedures as data, and whether a result was taken by one.
export * from './deviations.ts';
export * from './meter.ts';
export * from './procedures.ts';
export * from './settle-rule.ts';
export * from './types.ts';
