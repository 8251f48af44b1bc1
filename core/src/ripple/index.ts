// Ripple: from a record of an output to its peaks, its rms and the lines it is made of.
export * from './load-steps.ts';
export * from './names.ts';
export * from './ripple.ts';
export * from './spread.ts';
export * from './station.ts';
