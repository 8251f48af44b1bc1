// Captures: mains waveforms, inrush, idle over time, fading outputs, dips and sweeps of the supply.
export type { ScopeSpecs } from './accuracy.ts';
export * from './bursts.ts';
export * from './contradiction.ts';
export * from './correction.ts';
export { needsFixedRate } from './evened.ts';
export * from './evenly.ts';
export * from './events.ts';
export * from './figures.ts';
export * from './file.ts';
export * from './kept.ts';
export * from './says.ts';
export * from './types.ts';
export * from './waveform.ts';
