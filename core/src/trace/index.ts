// Traces: long series against time, from any file, in little memory.
export * from './binary.ts';
export * from './choose.ts';
export * from './doubt.ts';
export * from './levels.ts';
export { AMBIENT_NAME, assumedSays, words } from './names.ts';
export * from './packed.ts';
export * from './range.ts';
export * from './read.ts';
export * from './reader.ts';
export * from './types.ts';
