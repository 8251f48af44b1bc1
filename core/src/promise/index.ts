// Promises, and how labels print them.
export * from './describe.ts';
export * from './parse.ts';
export * from './types.ts';
