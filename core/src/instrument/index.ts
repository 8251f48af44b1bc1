// Instruments: what each class can be asked, and the profiles that say how.
export * from './actions.ts';
export * from './address.ts';
export * from './builtin.ts';
export * from './line.ts';
export * from './live.ts';
export * from './number.ts';
export * from './pattern.ts';
export * from './problem.ts';
export * from './profile.ts';
export * from './reply.ts';
