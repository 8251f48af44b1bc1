// The load steps a sample calls for, from offers and promises.
export * from './steps.ts';
