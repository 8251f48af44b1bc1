// Long series in constant memory.
export * from './long-series.ts';
export * from './means.ts';
export * from './statistics.ts';
