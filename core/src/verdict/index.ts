// The verdict on a sample.
export * from './judge.ts';
export * from './types.ts';
