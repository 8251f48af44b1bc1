// Conversion efficiency: one point, a loading, the four-point average.
export * from './point.ts';
export * from './series.ts';
