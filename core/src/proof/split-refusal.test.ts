// What cannot be true of the devices on a combination.
import { describe, expect, it } from 'vitest';
import { aRig } from '../testing/reading.ts';
import { runRefusal } from './runs.ts';

const on = (port: string, deviceId: string) => ({
  port,
  volts: 5,
  amps: 1,
  light: false,
  device: { deviceId, charge: 0.4, tries: 1 },
});
const refusal = (shares: ReturnType<typeof on>[], evidence: 'device' | 'load' = 'device') =>
  runRefusal(
    {
      kind: 'split',
      id: 's',
      port: 'C1',
      rigId: 'rig',
      takenAt: '2026-05-01T10:00:00Z',
      note: '',
      supersedes: null,
      withdrawn: false,
      order: ['C1', 'A1'],
      mains: { kind: 'ac', volts: 230, hertz: 50 },
      shares,
      mainsWatts: null,
      evidence,
      drops: [],
    },
    {
      rig: aRig(),
      devices: ['phone', 'tablet'].map((id) => ({ id, ceilings: [] })),
      overRating: { on: false, step: 0.05, seconds: 10 },
    },
  );

describe('devices on a combination', () => {
  it('are taken as named', () => expect(refusal([on('C1', 'phone'), on('A1', 'tablet')])).toBeNull());
  it.each([
    [
      'one on two ports',
      [on('C1', 'phone'), on('A1', 'phone')],
      'device',
      'One device cannot be on C1 and A1 at once.',
    ],
    ['one gone from the bench', [on('C1', 'radio')], 'device', 'The device on C1 is not on the bench any more.'],
    [
      'beside electronic loads',
      [on('C1', 'phone')],
      'load',
      'Devices are named, yet electronic loads are said to load it.',
    ],
  ] as const)('%s are refused', (_name, shares, evidence, says) => expect(refusal([...shares], evidence)).toBe(says));
});
