// Traces: long series against time, from any file, in little memory.
export * from './binary.ts';
export * from './reader.ts';
export * from './types.ts';
