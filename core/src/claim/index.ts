// Claims and how evidence settles them.
export * from '../evidence/index.ts';
export * from '../promise/index.ts';
export * from './judge.ts';
export { type Known, NOTHING_KNOWN } from './known.ts';
export * from './types.ts';
