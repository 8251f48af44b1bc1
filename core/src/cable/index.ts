// What sits in the line: how it is taken in, and what is done with it.
export * from './facts.ts';
export * from './runs.ts';
export * from './wiggle.ts';
