// Files as meters write them: recognised, mapped, read line by line.
export * from './read.ts';
export * from './running.ts';
export * from './slices.ts';
export * from './sniff.ts';
