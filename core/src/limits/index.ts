// Efficiency and no-load limits as data, and how results are held against them.
export * from './evaluate.ts';
export * from './sets.ts';
export * from './types.ts';
