// Short words for the steps and holds of the demo.
import { ZERO_CELSIUS } from '@lastmark/core/quantity';
import type { RangeSupply } from '@lastmark/core/reading';
import type { DemoRun } from './proof-world.ts';

const both = [0, 1] as const;
export const level = (port: string, volts: number, amps: number, loads: readonly (0 | 1)[] = both) => ({
  outputs: [{ port, volts, amps }],
  loads,
});
export const set = (port: string, supply: RangeSupply, volts: number, amps: number) => ({
  outputs: [{ port, volts, amps, supply }],
  loads: [1] as const,
});
export const hold = (
  port: string,
  [volts, amps]: readonly [number, number],
  [planned, held]: readonly [number, number],
  part: Partial<Extract<DemoRun, { kind: 'hold' }>> = {},
): DemoRun => ({
  rig: 'proof',
  kind: 'hold',
  port,
  volts,
  amps,
  others: [],
  planned: planned * 60,
  held: held * 60,
  end: 'held to the end',
  hottest: null,
  ambient: 297.75,
  after: null,
  note: '',
  ...part,
});
export const celsius = (value: number): number => value + ZERO_CELSIUS;
