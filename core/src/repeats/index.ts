// Repeats, differences, and several differences at once.
export * from './holm.ts';
export * from './repeats.ts';
