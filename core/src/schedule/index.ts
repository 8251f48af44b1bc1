// The bench day: when each step begins, on what and with whom; how good that is; and what holds it up.
export * from './bound.ts';
export * from './check.ts';
export * from './of-sheets.ts';
export { headsOf, inPrecedence, tailsOf } from './order.ts';
export * from './plan.ts';
export * from './types.ts';
