// Truths drawn apart from any simulator: does value ± U hold the truth as often as it says?
import { describe, expect, it } from 'vitest';
import { conformity } from '../decision/index.ts';
import { efficiencyPoint } from '../efficiency/point.ts';
import { reconcile, regulations } from '../proof/index.ts';
import { seededNormal, seededRandom } from '../random/index.ts';
import { aSetup, aStep, proofRig } from '../testing/proof.ts';
import { aPoint, aReading, aRig } from '../testing/reading.ts';
import {
  combineRepeats,
  difference,
  expandedUncertainty,
  type Measured,
  meanOfCommon,
  measured,
  product,
  ratio,
  sum,
} from './index.ts';

const TRIALS = 4000;

/**
 * A meter as nobody's spec describes it: a part of its error lasts, the rest is drawn anew each time, and how much of
 * it lasts is drawn with the meter.
 * @param most part of the variance that lasts at most
 */
function meterOf(draw: () => number, uniform: () => number, most = 1) {
  const lasting = most * uniform();
  const fixed = draw();
  return (truth: number, u: number): Measured =>
    measured(truth + u * (Math.sqrt(lasting) * fixed + Math.sqrt(1 - lasting) * draw()), u);
}

/** Part of many trials in which the truth lies within value ± U. */
function coverage(
  seed: number,
  trial: (draw: () => number, uniform: () => number) => readonly [Measured, number],
): number {
  const draw = seededNormal(seededRandom(seed));
  const uniform = seededRandom(seed + 1000);
  let inside = 0;
  for (let index = 0; index < TRIALS; index += 1) {
    const [result, truth] = trial(draw, uniform);
    if (Math.abs(result.value - truth) <= expandedUncertainty(result)) inside += 1;
  }
  return inside / TRIALS;
}

const within = (share: number) => {
  expect(share).toBeGreaterThanOrEqual(0.92);
  expect(share).toBeLessThanOrEqual(0.99);
};

describe('value ± U holds the truth of', () => {
  it('an average over points of one meter', () =>
    within(
      coverage(1, (draw, uniform) => {
        const read = meterOf(draw, uniform);
        const truths = [0.88, 0.9, 0.91, 0.905];
        return [meanOfCommon(truths.map((truth) => read(truth, 0.002))), truths.reduce((a, b) => a + b, 0) / 4];
      }),
    ));

  it('a sum over two ports on one meter', () =>
    within(
      coverage(2, (draw, uniform) => {
        const read = meterOf(draw, uniform);
        return [sum([read(45, 0.2), read(18, 0.1)], 'm'), 63];
      }),
    ));

  it('a ratio with one analyser on both sides', () =>
    within(
      coverage(3, (draw, uniform) => {
        const read = meterOf(draw, uniform);
        return [ratio(read(65, 0.08), read(71.6, 0.12)), 65 / 71.6];
      }),
    ));

  it('a difference of two results', () =>
    within(
      coverage(4, (draw, uniform) => {
        const read = meterOf(draw, uniform);
        return [difference(read(0.9, 0.002), read(0.91, 0.002)), 0.01];
      }),
    ));

  it('a product of two meters', () =>
    within(
      coverage(5, (draw, uniform) => {
        const volts = meterOf(draw, uniform);
        const amps = meterOf(draw, uniform);
        return [product(volts(20, 0.01), amps(3, 0.005)), 60];
      }),
    ));

  it.each([2, 3, 5])('the mean of %i repeats that scatter', (runs) =>
    within(
      coverage(10 + runs, (draw) => {
        const all = Array.from({ length: runs }, () => measured(10 + 0.3 * draw(), 0.01));
        return [combineRepeats(all), 10];
      }),
    ),
  );

  it('load regulation between two readings of one voltmeter', () =>
    within(
      coverage(6, (draw, uniform) => {
        const volts = meterOf(draw, uniform);
        const amps = meterOf(draw, uniform);
        const part = {
          evidence: 'load',
          mains: { kind: 'dc', volts: 12 },
          takenAt: '',
          wall: null,
          runs: 1,
          notes: [],
        } as const;
        const at = (load: number, v: Measured, a: Measured) => ({
          ...part,
          sourceIds: [],
          asked: [{ port: 'C1', volts: 20, amps: 3 }],
          load,
          outputs: [{ port: 'C1', volts: v, amps: a, watts: product(v, a) }],
          watts: null,
          conditions: '',
          epoch: 0,
        });
        const [found] = regulations([
          at(0, volts(20.1, 0.008), measured(0, 0)),
          at(1, volts(19.95, 0.008), amps(3, 0.004)),
        ]);
        return [found?.slope ?? measured(99, 0), 0.05];
      }),
    ));

  const level = (amps: number) => aSetup([{ port: 'C1', volts: 20, amps }]);
  const chain = (currents: readonly number[]) => (draw: () => number, uniform: () => number) => {
    // Two steps of two meters: where all of the error lasted, nothing at all would be off.
    const near = meterOf(draw, uniform, 0.5);
    const far = meterOf(draw, uniform, 0.5);
    const setups = currents.map(level);
    const points = currents.map((amps, index) => {
      const setup = setups[index] ?? level(amps);
      const step = aStep(setup, {
        port: [near(20, 0.008).value, amps],
        end: [far(20 - 0.12 * amps, 0.008).value, amps],
      });
      return {
        ...step,
        readings: step.readings.map((one) => ({ ...one, u: one.quantity === 'voltage' ? 0.008 : 0.0001 })),
      };
    });
    return [reconcile(proofRig, setups, points).resistance ?? measured(99, 0), 0.12] as const;
  };
  it('the line between two meters, from one current', () => within(coverage(7, chain([3]))));
  it('the line between two meters, from two currents', () => within(coverage(8, chain([1, 3]))));
  it('the line between two meters, from three currents', () => within(coverage(19, chain([0.5, 1.5, 3]))));
  it('the line between two meters, from five currents', () => within(coverage(9, chain([0.5, 1, 2, 3, 4]))));
});

describe('one analyser on both sides', () => {
  it('leaves U of an efficiency at what the two readings say: 0.35 %, not the 0.25 % that half in common would give', () => {
    const u = 0.00175 / Math.SQRT2;
    const point = aPoint({
      readings: [
        aReading({ quantity: 'power', value: 100, u: 100 * u, instrumentId: 'analyser' }),
        aReading({
          quantity: 'voltage',
          place: 'port',
          port: 'C1',
          value: 20,
          u: (20 * u) / Math.SQRT2,
          instrumentId: 'analyser',
        }),
        aReading({
          quantity: 'current',
          place: 'port',
          port: 'C1',
          value: 5,
          u: (5 * u) / Math.SQRT2,
          instrumentId: 'analyser',
        }),
      ],
    });
    const setup = aSetup([{ port: 'C1', volts: 20, amps: 5 }]);
    const result = efficiencyPoint(point, setup, aRig());
    expect('efficiency' in result ? expandedUncertainty(result.efficiency) : 0).toBeCloseTo(0.0035, 4);
  });
});

describe('the probability of conformity', () => {
  it('is Student’s with few repeats: three runs 2 u above the limit are 90.8 %, not 97.7 %', () => {
    // scipy.stats.t.cdf(2, 2) = 0.9082483
    const few = measured(1.2, 0, 0.1, 2);
    expect(conformity(few, { kind: 'at-least', low: 1 })).toBeCloseTo(0.9082483, 6);
    expect(conformity(measured(1.2, 0.1), { kind: 'at-least', low: 1 })).toBeCloseTo(0.9772499, 6);
  });
  it('of unknown accuracy is none', () => {
    const unknown = measured(1.2, 0, 0, Number.POSITIVE_INFINITY, [{ meter: null, quantity: 'power' }]);
    expect(conformity(unknown, { kind: 'at-least', low: 1 })).toBeNull();
  });
});
