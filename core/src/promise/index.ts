// Promises, and how labels print them.

export * from './cable-line.ts';
export * from './describe.ts';
export * from './label.ts';
export * from './parse.ts';
export * from './types.ts';
