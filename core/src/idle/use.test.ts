import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  ampHoursADay,
  batteryDays,
  circuitDraw,
  drainAmps,
  sunShare,
  surgeTogether,
  usageYear,
  yearlyKilowattHours,
} from './index.ts';

const nothing = { input: 0, output: 0 };

describe('a year of use', () => {
  it('of idle alone is the idle year', () => {
    const year = usageYear({ off: 0, idle: 24, light: 0, active: 0 }, 0.045, nothing, nothing);
    expect(year.taken).toBeCloseTo(yearlyKilowattHours(0.045), 12);
    expect(year.taken).toBeCloseTo(0.394, 3);
    expect(year.idlePart).toBe(1);
  });
  it('weighs the loss of work beside it: for a charger that works, idle is the smaller part', () => {
    const year = usageYear(
      { off: 12, idle: 8, light: 2, active: 2 },
      0.1,
      { input: 6, output: 4.5 },
      { input: 50, output: 45 },
    );
    expect(year.taken).toBeCloseTo(((0.1 * 8 + 6 * 2 + 50 * 2) * 365) / 1000, 9);
    expect(year.lost).toBeCloseTo(((0.1 * 8 + 1.5 * 2 + 5 * 2) * 365) / 1000, 9);
    expect(year.idlePart).toBeCloseTo(0.8 / 13.8, 9);
  });
  it('refuses a day that is not one', () => {
    expect(() => usageYear({ off: 12, idle: 8, light: 2, active: 3 }, 0.1, nothing, nothing)).toThrow('add up to 24');
    expect(() => usageYear({ off: 25, idle: -1, light: 0, active: 0 }, 0.1, nothing, nothing)).toThrow('not negative');
    expect(() => usageYear({ off: 0, idle: 24, light: 0, active: 0 }, Number.NaN, nothing, nothing)).toThrow(
      RangeError,
    );
  });
  it('never loses more than it takes, while outputs stay below inputs', () => {
    const power = fc.double({ min: 0, max: 100, noNaN: true });
    fc.assert(
      fc.property(power, power, power, fc.double({ min: 0, max: 24, noNaN: true }), (idle, light, active, hours) => {
        const year = usageYear(
          { off: 0, idle: hours, light: 0, active: 24 - hours },
          idle,
          { input: light, output: 0 },
          { input: active, output: active / 2 },
        );
        expect(year.lost).toBeLessThanOrEqual(year.taken + 1e-9);
      }),
    );
  });
});

describe('off the grid', () => {
  it('a vehicle battery of 60 Ah falls to half in 33 days by 38 mA', () => {
    expect(batteryDays(60, 0.038, 1, 0.5)).toBeCloseTo(32.9, 1);
    expect(() => batteryDays(60, 0, 1, 0.5)).toThrow(RangeError);
    expect(() => batteryDays(60, 0.1, 0.4, 0.5)).toThrow(RangeError);
  });
  it('a small store gives what the charger takes, and what the inverter takes for itself', () => {
    expect(ampHoursADay(0.5, 12, 0.85, 5)).toBeCloseTo(((0.5 / 0.85 + 5) * 24) / 12, 12);
  });
});

describe('many on one circuit', () => {
  it('load the wire with volts × amps, not with watts', () => {
    expect(circuitDraw(20, 46, 0.5, 230, 16)).toEqual({ watts: 920, voltAmps: 1840, amps: 8, share: 0.5 });
    expect(circuitDraw(0, 46, 0.5, 230, 16)).toEqual({ watts: 0, voltAmps: 0, amps: 0, share: 0 });
  });
  it('need a power factor that is one', () => {
    expect(() => circuitDraw(1, 46, 0, 230, 16)).toThrow(RangeError);
    expect(() => circuitDraw(1, 46, 1.2, 230, 16)).toThrow(RangeError);
    expect(() => circuitDraw(1, 46, 0.9, 0, 16)).toThrow(RangeError);
    expect(() => circuitDraw(1, 46, 0.9, 230, 0)).toThrow('more than 0 A');
  });
  it('switched on at once surge by the highest peak of one, for each of them', () => {
    expect(surgeTogether(31, [22, 44])).toBe(1364);
    expect(surgeTogether(31, [])).toBe(0);
    expect(() => surgeTogether(-1, [44])).toThrow(RangeError);
  });
});

describe('what a draw is of', () => {
  it('12 Ah at 12 V are 24 % of 600 Wh of sun, and without sun it cannot be told', () => {
    expect(sunShare(12, 12, 600)).toBeCloseTo(0.24, 12);
    expect(() => sunShare(12, 12, 0)).toThrow('more than 0 Wh');
  });
  it('half a watt at 13.8 V drains 36 mA', () => {
    expect(drainAmps(0.5, 13.8)).toBeCloseTo(0.036_23, 5);
    expect(() => drainAmps(0.5, 0)).toThrow(RangeError);
  });
});
