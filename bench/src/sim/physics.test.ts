import { seededRandom } from '@lastmark/core/random';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  CHARGERS,
  cableOhms,
  heatAfter,
  heatSteady,
  idleMean,
  idleWatts,
  lossWatts,
  powerFactor,
  rippleVolts,
} from './index.ts';
import { meterOf } from './meter.ts';

const [ember] = CHARGERS;
if (!ember) throw new Error('no charger');
const monolith = CHARGERS.find(({ name }) => name === 'Monolith 180') ?? ember;

describe('loss', () => {
  it('is fixed, proportional and resistive, more at low mains and at low levels', () => {
    const loss = { fixed: 0.2, proportional: 0.05, resistive: 0.04, lowMains: 0.5, perVoltBelow20: 0.001 };
    expect(lossWatts(loss, [], 45, 230)).toBe(0.2);
    expect(lossWatts(loss, [{ volts: 20, watts: 45 }], 45, 230)).toBeCloseTo(0.2 + 2.25 + 1.8, 9);
    expect(lossWatts(loss, [{ volts: 20, watts: 45 }], 45, 115)).toBeCloseTo(0.2 + 2.25 + 2.7, 9);
    expect(lossWatts(loss, [{ volts: 5, watts: 15 }], 45, 230)).toBeCloseTo(0.2 + 0.75 + 0.2 + 0.225, 9);
  });

  it('leaves every charger an efficiency between 80 and 97 % at its nameplate', () => {
    for (const { loss, nameplate } of CHARGERS) {
      const lost = lossWatts(loss, [{ volts: 20, watts: nameplate }], nameplate, 230);
      expect(nameplate / (nameplate + lost)).toBeGreaterThan(0.8);
      expect(nameplate / (nameplate + lost)).toBeLessThan(0.97);
    }
  });
});

describe('idle', () => {
  it('bursts, and its mean is what energy over many bursts finds', () => {
    const idle = { floor: 0.03, burst: 0.6, period: 20, length: 0.5 };
    expect([idleWatts(idle, 0.2), idleWatts(idle, 5), idleWatts(idle, 20.4)]).toEqual([0.6, 0.03, 0.6]);
    let energy = 0;
    for (let at = 0; at < 2000; at += 0.01) energy += idleWatts(idle, at) * 0.01;
    expect(energy / 2000).toBeCloseTo(idleMean(idle), 3);
  });
});

describe('heat', () => {
  const { heat } = monolith;
  it('rises to its steady value and stays there', () => {
    const steady = heatSteady(heat, 9, 298);
    const late = heatAfter({ inside: 298, shell: 298 }, heat, 9, 298, 40_000);
    expect(late.inside).toBeCloseTo(steady.inside, 2);
    expect(late.shell).toBeCloseTo(steady.shell, 2);
    expect(heatAfter(steady, heat, 9, 298, 600).inside).toBeCloseTo(steady.inside, 6);
  });

  it('is the same in one stretch or in many, and never leaves the bounds of its ends', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 40, noNaN: true }), fc.integer({ min: 1, max: 50 }), (loss, pieces) => {
        const start = { inside: 298, shell: 298 };
        const whole = heatAfter(start, heat, loss, 298, 600);
        let state = start;
        for (let piece = 0; piece < pieces; piece += 1) state = heatAfter(state, heat, loss, 298, 600 / pieces);
        expect(state.inside).toBeCloseTo(whole.inside, 0);
        expect(whole.inside).toBeLessThanOrEqual(heatSteady(heat, loss, 298).inside + 1e-6);
        expect(whole.inside).toBeGreaterThanOrEqual(298 - 1e-6);
      }),
    );
  });
});

it('copper rises by 0.393 % per kelvin, contacts do not', () => {
  expect(cableOhms(0.1, 0.05, 20)).toBeCloseTo(0.15, 9);
  expect(cableOhms(0.1, 0.05, 31)).toBeCloseTo(0.1 * 1.04323 + 0.05, 9);
});

it('a corrected input is near a sine, an uncorrected one is peaks', () => {
  expect(powerFactor(100, 100, true)).toBeGreaterThan(0.95);
  expect(powerFactor(100, 100, false)).toBeLessThan(0.6);
});

describe('ripple', () => {
  const { ripple } = monolith;
  const peakToPeak = (share: number) => {
    const values = Array.from({ length: 20_000 }, (_, index) => rippleVolts(ripple, share, 50, index * 3.1e-6));
    return Math.max(...values) - Math.min(...values);
  };
  it('bursts at light load far above what it is at full load', () => {
    expect(peakToPeak(0.05)).toBeGreaterThan(2.5 * peakToPeak(1));
    expect(peakToPeak(1)).toBeLessThan(ripple.mains + ripple.switching + 1e-6);
  });
});

it('a meter has a gain and an offset of its own for life, within its limits', () => {
  const errors = { gain: 0.001, offset: 0.01, noise: 0, step: 0 };
  const one = meterOf(errors, seededRandom(1));
  expect(one(20)).toBe(meterOf(errors, seededRandom(1))(20));
  expect(one(20)).not.toBe(meterOf(errors, seededRandom(2))(20));
  for (let seed = 1; seed < 200; seed += 1)
    expect(Math.abs(meterOf(errors, seededRandom(seed))(20) - 20)).toBeLessThanOrEqual(0.03);
  expect(meterOf({ ...errors, step: 0.1 }, seededRandom(3))(20) * 10).toBeCloseTo(200, 6);
});
