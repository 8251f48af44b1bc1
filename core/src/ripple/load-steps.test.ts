import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import { loadSteps } from './index.ts';

const INTERVAL = 1e-5;
const COUNT = 40_000;
const STEP = 15_000;
const BACK = 30_000;

/** 20 V that dips by 0.6 V as 2.5 A come on and is back with a time constant of 1 ms; 0.4 V up as they go. */
function record(noise: number) {
  const normal = seededNormal(seededRandom(8));
  const amps = Float64Array.from({ length: COUNT }, (_, at) => (at >= STEP && at < BACK ? 3 : 0.5) + 0.01 * normal());
  const volts = Float64Array.from({ length: COUNT }, (_, at) => {
    const loaded = at >= STEP && at < BACK;
    const level = loaded ? 19.9 : 20;
    const dip = loaded ? -0.6 * Math.exp((-(at - STEP) * INTERVAL) / 1e-3) : 0;
    const up = at >= BACK ? 0.4 * Math.exp((-(at - BACK) * INTERVAL) / 1e-3) : 0;
    return level + dip + up + noise * normal();
  });
  return { volts, amps };
}

describe('a stepped load', () => {
  it('is found with its undershoot, its overshoot and how long it took to come back', () => {
    const { volts, amps } = record(0.002);
    const [on, off, ...more] = loadSteps(volts, amps, INTERVAL);
    expect(more).toEqual([]);
    expect(on).toMatchObject({ from: expect.closeTo(0.5, 1), to: expect.closeTo(3, 1) });
    expect(on?.at).toBeCloseTo(STEP * INTERVAL, 4);
    expect(on?.excursion).toBeCloseTo(0.6, 1);
    // 0.6 V fall into ± 0.1 V (0.5 % of 19.9 V) after τ·ln(6.03) = 1.80 ms.
    expect((on?.recovery ?? 0) * 1e3).toBeCloseTo(1.8, 0);
    expect(off?.excursion).toBeCloseTo(0.4, 1);
    expect(off?.at).toBeCloseTo(BACK * INTERVAL, 4);
  });

  it.each([0.1, 1, 5])('that takes %d ms from one current to the other is one step', (ms) => {
    const normal = seededNormal(seededRandom(9));
    const ramp = (ms * 1e-3) / INTERVAL;
    const share = (at: number) =>
      Math.min(1, Math.max(0, (at - STEP) / ramp)) - Math.min(1, Math.max(0, (at - BACK) / ramp));
    const current = Float64Array.from({ length: COUNT }, (_, at) => 0.5 + 2.5 * share(at));
    // 0.12 V for each ampere it moves by, gone with a time constant of 1 ms: a ramp of d takes 0.3 V·(1 ms/d)·(1 − e^(−d/1 ms)).
    let away = 0;
    const volts = current.map((amps, at) => {
      away += (-away * INTERVAL) / 1e-3 - 0.12 * (amps - (current[at - 1] ?? amps));
      return 20 - 0.04 * amps + away + 0.001 * normal();
    });
    const found = loadSteps(
      volts,
      current.map((amps) => amps + 0.005 * normal()),
      INTERVAL,
    );
    expect(found).toHaveLength(2);
    const [on, off] = found;
    expect(on).toMatchObject({ from: expect.closeTo(0.5, 2), to: expect.closeTo(3, 2) });
    expect(off).toMatchObject({ from: expect.closeTo(3, 2), to: expect.closeTo(0.5, 2) });
    expect(((on?.at ?? 0) - (STEP + ramp / 2) * INTERVAL) * 1e3).toBeCloseTo(0, 1);
    const most = (0.3 / ms) * (1 - Math.exp(-ms));
    for (const step of found) expect(Math.abs(step.excursion / most - 1)).toBeLessThan(0.1);
  });

  it('that is none has no step, nor has a record too short to tell', () => {
    const steady = new Float64Array(COUNT).fill(2);
    expect(loadSteps(new Float64Array(COUNT).fill(20), steady, INTERVAL)).toEqual([]);
    expect(loadSteps(new Float64Array(4), new Float64Array(4), INTERVAL)).toEqual([]);
    expect(loadSteps(steady, steady, Number.NaN)).toEqual([]);
    expect(
      loadSteps(
        steady,
        steady.map(() => Number.NaN),
        INTERVAL,
      ),
    ).toEqual([]);
  });
});
