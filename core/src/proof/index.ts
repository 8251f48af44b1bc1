// Proof: what each port really delivers.

export * from '../efficiency/wall.ts';
export type { Delivered } from '../evidence/index.ts';
export * from '../run/index.ts';
export * from '../steps/index.ts';
export * from './again.ts';
export * from './chain.ts';
export * from './delivered.ts';
export * from './devices.ts';
export * from './holds.ts';
export * from './judge.ts';
export * from './list.ts';
export * from './offers.ts';
export * from './result.ts';
export * from './runs.ts';
export * from './station.ts';
export * from './step-marks.ts';
