import { seededRandom } from '@lastmark/core/random';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ChargerPhysics, meter, operate } from './simulate.ts';
import { SHELF } from './world.ts';

const physics: ChargerPhysics = {
  fixedLoss: 0.2,
  proportionalLoss: 0.05,
  resistiveLoss: 0.03,
  lowMainsPenalty: 0.3,
  sourceOhms: 0.02,
  warmFoldBack: 1,
  foldBackFrom: Number.POSITIVE_INFINITY,
  idle: 0.04,
  correctionFrom: 60,
};
const outputs = [{ port: 'C1', volts: 20, amps: 3.25 }];

describe('the charger behind the demo', () => {
  it('never gives more than it takes, and takes more at low mains', () => {
    const load = fc.double({ noNaN: true, min: 0, max: 1 });
    fc.assert(
      fc.property(load, (at) => {
        const high = operate(physics, outputs, 65, at, 230);
        const low = operate(physics, outputs, 65, at, 115);
        const output = high.outputs.reduce((total, { volts, amps }) => total + volts * amps, 0);
        expect(high.inputWatts).toBeGreaterThan(output);
        expect(low.inputWatts).toBeGreaterThanOrEqual(high.inputWatts);
      }),
    );
  });

  it('sags in voltage with current and folds back only when asked for much', () => {
    const weak = { ...physics, warmFoldBack: 0.9, foldBackFrom: 60 };
    expect(operate(weak, outputs, 65, 1, 230).outputs[0]?.amps).toBeCloseTo(3.25 * 0.9, 9);
    expect(operate(weak, outputs, 65, 0.75, 230).outputs[0]?.amps).toBeCloseTo(3.25 * 0.75, 9);
    const [full, half] = [1, 0.5].map((load) => operate(physics, outputs, 65, load, 230).outputs[0]?.volts ?? 0);
    expect(full).toBeLessThan(half ?? 0);
  });

  it('wakes its power-factor correction at a power, not before', () => {
    expect(operate(physics, outputs, 65, 0.9, 230).powerFactor).toBeLessThan(0.7);
    expect(operate(physics, outputs, 65, 1, 230).powerFactor).toBeGreaterThan(0.9);
  });
});

describe('the meters behind the demo', () => {
  it('are the same for the same seed and differ for another', () => {
    const series = (seed: number) => Array.from({ length: 5 }, seededRandom(seed));
    expect(series(7)).toEqual(series(7));
    expect(series(7)).not.toEqual(series(8));
    expect(series(7).every((value) => value >= 0 && value < 1)).toBe(true);
  });

  it('stay within their gain error and noise and show their digits', () => {
    fc.assert(
      fc.property(fc.integer(), fc.double({ noNaN: true, min: 0.1, max: 100 }), (seed, value) => {
        const shown = meter(seededRandom(seed), 0.1, 0.01, 3)(value);
        expect(shown).toMatch(/^\d+\.\d{3}$/);
        expect(Math.abs(Number(shown) - value)).toBeLessThanOrEqual(value * 0.001 + 0.011);
      }),
    );
  });
});

it('the shelf speaks only of ports its chargers have', () => {
  for (const { model, claims, units } of SHELF) {
    const labels = model.ports.map(({ label }) => label);
    for (const { promise } of claims) {
      if (promise.kind === 'port-line') expect(labels).toContain(promise.port);
      if (promise.kind === 'combination') for (const { port } of promise.shares) expect(labels).toContain(port);
    }
    for (const { loadings } of units)
      for (const { outputs: used } of loadings) for (const { port } of used) expect(labels).toContain(port);
  }
});
