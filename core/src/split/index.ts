// Port splits: promises, sweep, rule, interruptions, where to plug, and the evening.

export type { Drop, Return } from '../run/index.ts';
export { RETURNS } from '../run/index.ts';
export * from './assign.ts';
export * from './delivered.ts';
export * from './devices.ts';
export * from './drops.ts';
export * from './evening.ts';
export * from './list.ts';
export * from './of-device.ts';
export * from './plug.ts';
export * from './promises.ts';
export * from './readings.ts';
export * from './rule.ts';
export * from './sets.ts';
export * from './several.ts';
export * from './source.ts';
export * from './station.ts';
export * from './types.ts';
export * from './with-kit.ts';
