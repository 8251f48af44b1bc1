// What to measure next, and what would decide where measuring would not.
export * from './chance.ts';
export * from './meters.ts';
export * from './next.ts';
export type { Outlook, Remedy } from './outlook.ts';
export { outlookFor } from './outlook.ts';
export { stepsFor } from './settles.ts';
export { usualWay } from './usual.ts';
export { wholeSheet } from './whole.ts';
