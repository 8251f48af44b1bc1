import { describe, expect, it } from 'vitest';
import { eveningWith, type PlugCharger, type PlugDevice, plugDevice } from './index.ts';

const brick = (...watts: readonly number[]): PlugCharger => ({
  ports: watts.map((_one, at) => ({ label: `C${at + 1}`, volts: [5, 9, 15, 20], connector: 'C' })),
  shares: (occupied) => Object.fromEntries(occupied.map((label) => [label, watts[Number(label.slice(1)) - 1] ?? null])),
  drops: () => false,
});
const device = (name: string, watts: number, wattHours: number | null): PlugDevice => ({
  ...plugDevice({
    id: name,
    name,
    ceilings: [{ connector: 'C', lead: '', watts, volts: null }],
    baseline: null,
    battery: wattHours === null ? null : wattHours * 3600,
  }),
  // Takes its most to the end, so that hours can be told by hand.
  profile: [
    { level: 0, part: 1 },
    { level: 1, part: 1 },
  ],
});

describe('an evening with a kit', () => {
  const laptop = device('laptop', 45, 45);
  const phone = device('phone', 18, 9);
  it('two chargers serve two devices at once; one of them alone lets the lesser wait', () => {
    const both = eveningWith(
      [
        { id: 'large', charger: brick(45) },
        { id: 'small', charger: brick(18) },
      ],
      [laptop, phone],
      4 * 3600,
    );
    expect(both.map(({ id, charger }) => [id, charger])).toEqual([
      ['laptop', 'large'],
      ['phone', 'small'],
    ]);
    // 45 Wh at 45 W, of which nine tenths reach the battery: 1.11 h; told to the minute.
    expect(both[0]?.fullAt).toBeGreaterThan(3960);
    expect(both[0]?.fullAt).toBeLessThanOrEqual(4080);
    expect(both[1]?.level).toBeCloseTo(1, 6);
    const alone = eveningWith([{ id: 'large', charger: brick(45) }], [laptop, phone], 4 * 3600);
    expect(alone[1]).toEqual({ id: 'phone', charger: null, fullAt: null, level: 0, unknown: false });
  });
  it('what nobody read is not told as full', () => {
    const dark: PlugCharger = {
      ...brick(45),
      shares: (occupied) => Object.fromEntries(occupied.map((one) => [one, null])),
    };
    expect(eveningWith([{ id: 'dark', charger: dark }], [phone], 3600)).toEqual([
      { id: 'phone', charger: 'dark', fullAt: null, level: null, unknown: true },
    ]);
  });
  it('a device without a battery is never full, and without chargers everything waits', () => {
    const radio = device('radio', 12, null);
    expect(eveningWith([{ id: 'a', charger: brick(45) }], [radio], 3600)).toMatchObject([
      { charger: 'a', fullAt: null, level: null, unknown: false },
    ]);
    expect(eveningWith([], [phone], 3600)).toMatchObject([{ charger: null, level: 0 }]);
    expect(() => eveningWith([], [phone], 0)).toThrow('lasts for some time');
    expect(() => eveningWith([], [phone], Number.NaN)).toThrow(RangeError);
  });
});
