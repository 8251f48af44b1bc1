// Stations: what they are called, and what each must bring.
export * from './about.ts';
export * from './look.ts';
export * from './types.ts';
export * from './words.ts';
