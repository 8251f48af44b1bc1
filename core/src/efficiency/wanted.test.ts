import { describe, expect, it } from 'vitest';
import { wantedLoadings } from './index.ts';

const LEVELS = [
  { port: 'C1', volts: 5, amps: 3 },
  { port: 'C1', volts: 9, amps: 3 },
  { port: 'C1', volts: 20, amps: 3.25 },
  { port: 'A1', volts: 5, amps: 2.4 },
];
const US = { title: 'US Level VI', volts: 5, amps: 2 };

describe('a complete result needs', () => {
  it('each adaptive port at its highest and lowest level, and what a text fixes for 5 V', () => {
    const wanted = wantedLoadings(['C1'], LEVELS, null, 65, [US], []);
    expect(wanted.map(({ outputs, why }) => [outputs[0]?.volts, outputs[0]?.amps, why])).toEqual([
      [20, 3.25, 'highest level'],
      [5, 3, 'lowest level'],
      [5, 2, 'lowest level, 2 A as US Level VI asks'],
    ]);
  });

  it('a port of one level once, and all ports together within the nameplate', () => {
    const wanted = wantedLoadings(['C1', 'A1'], LEVELS, null, 65, [], []);
    expect(wanted.map(({ why }) => why)).toEqual([
      'highest level',
      'lowest level',
      'its only level',
      'together, currents × 0.844',
    ]);
    const sum = wanted.at(-1)?.outputs.reduce((total, { volts, amps }) => total + volts * amps, 0) ?? 0;
    expect(sum).toBeLessThanOrEqual(65);
    expect(sum).toBeGreaterThan(64);
  });

  it('the maker’s own allocation where there is one, and names the loading that serves', () => {
    const combination = [
      { port: 'C1', volts: 20, amps: 2.25 },
      { port: 'A1', volts: 5, amps: 2.4 },
    ];
    const setup = {
      id: 's9',
      name: 'both',
      outputs: combination,
      evidence: 'load',
      rigId: 'rig',
      purpose: 'efficiency',
    } as const;
    const last = wantedLoadings(['C1', 'A1'], LEVELS, combination, 65, [], [setup]).at(-1);
    expect(last).toMatchObject({ why: 'together, as promised', setupId: 's9' });
  });

  it('nothing while no level is known', () => expect(wantedLoadings(['C1'], [], null, 0, [US], [])).toEqual([]));
});
