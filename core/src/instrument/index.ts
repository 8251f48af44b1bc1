// Instruments: what each class can be asked, and the profiles that say how.
export * from './actions.ts';
export * from './builtin.ts';
export * from './line.ts';
export * from './live.ts';
export * from './number.ts';
export * from './profile.ts';
