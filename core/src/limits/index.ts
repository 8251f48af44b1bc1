// Efficiency and no-load limits as data, and how results are held against them.
export * from './check.ts';
export * from './class.ts';
export * from './evaluate.ts';
export * from './sets.ts';
export * from './types.ts';
