// Changes of a series from one level to another.
export * from './steps.ts';
