// Traces: long series against time, from any file, in little memory.
export * from './reader.ts';
export * from './types.ts';
