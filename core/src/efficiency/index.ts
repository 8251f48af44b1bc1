// Conversion efficiency: one point, a loading, the four-point average.
export * from './budget.ts';
export * from './compare.ts';
export * from './limits.ts';
export * from './nameplate.ts';
export * from './point.ts';
export * from './series.ts';
export * from './station.ts';
export * from './surface.ts';
export * from './wall.ts';
export * from './wanted.ts';
