// Runs and devices: data that proof and splits conclude from.
export * from './current.ts';
export * from './describe.ts';
export * from './soak-hold.ts';
export * from './types.ts';
