// Measures: what samples are compared by, and their values of one sample.
export * from './about.ts';
export * from './change.ts';
export * from './life.ts';
export * from './of-sample.ts';
