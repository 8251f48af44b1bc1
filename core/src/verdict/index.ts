// The verdict on a sample.
export * from './judge.ts';
export * from './limits.ts';
export type { SplitResult } from './splits.ts';
export * from './types.ts';
