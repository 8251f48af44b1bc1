// Readings, the points they make up, and the rules every reading obeys.

export * from './accept.ts';
export * from './bounds.ts';
export * from './contradictions.ts';
export * from './corrections.ts';
export * from './current.ts';
export * from './line.ts';
export * from './loads.ts';
export * from './lookup.ts';
export * from './mains.ts';
export * from './output.ts';
export * from './stated-later.ts';
export * from './thermometer.ts';
export * from './types.ts';
