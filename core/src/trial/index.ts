// Fair trials: planned, run in a drawn order, and concluded in a sentence.
export * from './blocks.ts';
export * from './matrix.ts';
export * from './order.ts';
export * from './types.ts';
export * from './words.ts';
