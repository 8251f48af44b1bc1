import { describe, expect, it } from 'vitest';
import { aPoint, aReading } from '../testing/reading.ts';
import { standardUncertainty } from '../uncertainty/index.ts';
import { ampHoursADay, idleResults, yearlyCost, yearlyKilowattHours } from './index.ts';

const idle = (part: Parameters<typeof aPoint>[0]) => aPoint({ load: 0, setupId: null, ...part });
const byEnergy = (wattHours: number, minutes: number) =>
  idle({
    readings: [
      aReading({ quantity: 'energy', value: wattHours * 3600, u: 3.6 }),
      aReading({ quantity: 'duration', value: minutes * 60, u: 0.1 }),
    ],
  });

describe('a year of idle', () => {
  it('is watts times 8.760 in kWh', () => {
    expect(yearlyKilowattHours(0.045)).toBeCloseTo(0.394, 3);
    expect(yearlyCost(0.045, 0.3)).toBeCloseTo(0.11826, 5);
    expect(() => yearlyKilowattHours(Number.NaN)).toThrow(RangeError);
  });

  it('off the grid is amp-hours a day, the inverter included', () => {
    expect(ampHoursADay(0.5, 12, 0.85, 4)).toBeCloseTo(((0.5 / 0.85 + 4) * 24) / 12, 12);
    expect(() => ampHoursADay(0.5, 12, 0, 4)).toThrow(RangeError);
    expect(() => ampHoursADay(0.5, 0, 0.9, 4)).toThrow(RangeError);
  });
});

describe('idle power', () => {
  it('is energy over time with the uncertainty of both', () => {
    const [result] = idleResults([byEnergy(0.0075, 10)], () => 0);
    expect(result?.watts.value).toBeCloseTo(0.045, 9);
    expect(result && standardUncertainty(result.watts)).toBeCloseTo(0.006, 4);
    expect(result?.findings).toEqual([]);
  });

  it('averaged over less than ten minutes says so', () => {
    expect(idleResults([byEnergy(0.005, 5)], () => 0)[0]?.findings[0]).toContain('Averaged over 5 min');
  });

  it('under the meter’s floor is "below"', () => {
    expect(idleResults([idle({ watts: 0.02 })], () => 0.1)[0]?.below).toBe(0.1);
    expect(idleResults([idle({ watts: 0.2 })], () => 0.1)[0]?.below).toBeNull();
  });

  it('above a watt with nothing attached is asked about before it is believed', () => {
    expect(idleResults([idle({ watts: 2.4 })], () => 0)[0]?.doubts[0]).toContain('is something plugged in?');
    const withCable = idleResults([idle({ watts: 2.4, attached: 'cable and meter' })], () => 0)[0];
    expect(withCable?.doubts.join()).not.toContain('plugged in');
  });

  it('is kept apart by mains and by what is attached, repeats combined', () => {
    const results = idleResults(
      [
        idle({ watts: 0.04 }),
        idle({ watts: 0.05 }),
        idle({ watts: 0.06, attached: 'cable' }),
        idle({ watts: 0.03, mains: { kind: 'ac', volts: 115, hertz: 60 } }),
        aPoint({ watts: 70, out: { C1: [20, 3] } }),
        idle({}),
      ],
      () => 0,
    );
    expect(results.map((result) => [result.attached, result.watts.value, result.runs])).toEqual([
      ['nothing', 0.045, 2],
      ['cable', 0.06, 1],
      ['nothing', 0.03, 1],
    ]);
  });
});
