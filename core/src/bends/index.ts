// Bends: planned, looked at, and what they did.
export * from './plan.ts';
export * from './station.ts';
