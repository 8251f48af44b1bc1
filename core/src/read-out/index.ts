// What the ports say they offer.
export * from './compare.ts';
export * from './findings.ts';
export * from './interpret.ts';
export * from './list.ts';
export * from './marker.ts';
export * from './offers.ts';
export * from './stated.ts';
export * from './station.ts';
export * from './types.ts';
