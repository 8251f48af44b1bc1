// Resistance of what lies in the line.
export * from './drop.ts';
export * from './fit.ts';
export * from './gauge.ts';
export * from './series.ts';
export * from './station.ts';
export * from './table.ts';
export * from './types.ts';
