// Files as meters write them: recognised, mapped, read line by line.
export * from './clock.ts';
export * from './line-clock.ts';
export * from './newest.ts';
export { type FileContext, type FilePoint, type FileValue, isDrifting } from './points.ts';
export * from './read.ts';
export * from './recall.ts';
export * from './running.ts';
export * from './slices.ts';
export * from './sniff.ts';
