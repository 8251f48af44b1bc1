// What the marker of a cable says, and what follows for chargers.
export * from './held-back.ts';
export * from './reading.ts';
export * from './station.ts';
