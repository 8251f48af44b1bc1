// Files as meters write them: recognised, mapped, read line by line.
export * from './encoding.ts';
export * from './newest.ts';
export * from './read.ts';
export * from './running.ts';
export * from './slices.ts';
export * from './sniff.ts';
