// Claims and how evidence settles them.

export { type Bound, type Known, NOTHING_KNOWN, shownTest } from './claim-test.ts';
export * from './describe.ts';
export * from './evidence.ts';
export * from './judge.ts';
export * from './parse.ts';
export * from './tolerance.ts';
export * from './types.ts';
