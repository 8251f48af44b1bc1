// Quantities and units: what a number means, how it is typed and how it is shown.
export * from './amps.ts';
export * from './format.ts';
export * from './money.ts';
export * from './parse.ts';
export * from './prefixes.ts';
export * from './units.ts';
