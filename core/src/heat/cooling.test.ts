import { describe, expect, it } from 'vitest';
import { coolStep } from '../plan/index.ts';
import { coolingSeconds, type SoakRecord } from './index.ts';

const soak = (id: string, sensors: readonly (readonly [name: string, ...taus: number[]])[], part: object = {}) =>
  ({
    id,
    kind: 'soak',
    mains: { kind: 'ac', volts: 230, hertz: 50 },
    takenAt: '2026-03-02T09:00:00.000Z',
    figures: { kind: 'soak', sensors: sensors.map(([name, ...timeConstants]) => ({ name, timeConstants })) },
    supersedes: null,
    withdrawn: false,
    ...part,
  }) as unknown as SoakRecord;

describe('cooling', () => {
  it('takes three slowest time constants, whichever soak and sensor has it; the room does not count', () => {
    // ln 20 = 2.99573
    const both = [
      soak('a', [
        ['front', 840, 60],
        ['room', 9000],
      ]),
      soak('b', [['back', 300]]),
    ];
    expect(coolingSeconds(both)).toBeCloseTo(840 * 2.99573, 1);
  });
  it('is not known without a soak that was fitted', () => {
    expect(coolingSeconds([])).toBeNull();
    expect(coolingSeconds([soak('a', [['front']])])).toBeNull();
    expect(coolingSeconds([soak('a', [['front', Number.NaN, 0, -3]])])).toBeNull();
    expect(coolingSeconds([{ ...soak('a', []), figures: { kind: 'ripple' } }])).toBeNull();
    expect(coolingSeconds([soak('a', [['front', 840]], { withdrawn: true })])).toBeNull();
  });
  it('is what a sheet waits for, within reason, and says where it has it from', () => {
    expect(coolStep('instruments')).toMatchObject({ dwell: 600, title: 'Loads off, let it cool 10 min' });
    expect(coolStep('instruments', 2516.4)).toMatchObject({
      dwell: 2520,
      title: 'Loads off, let it cool 42 min, by its own soak',
    });
    expect(coolStep('instruments', 20).dwell).toBe(600);
    expect(coolStep('instruments', 1e9).dwell).toBe(14_400);
  });
});
