import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Mains, Point, Rig, Setup } from '../reading/index.ts';
import { aPoint, aReading, aRig } from '../testing/reading.ts';
import { expandedUncertainty, standardUncertainty } from '../uncertainty/index.ts';
import { efficiencyPoint, efficiencySeries, nameplateWatts, sharedLoadFactor } from './index.ts';

const setup: Setup = {
  id: 's1',
  name: 'C1 20 V',
  outputs: [{ port: 'C1', volts: 20, amps: 3.25 }],
  evidence: 'load',
  purpose: 'efficiency',
  rigId: 'rig',
};
const rig = aRig();
const us: Mains = { kind: 'ac', volts: 115, hertz: 60 };
const eu: Mains = { kind: 'ac', volts: 230, hertz: 50 };

const complete = (point: Point, where: Rig = rig, how: Setup = setup) => {
  const result = efficiencyPoint(point, how, where);
  if ('missing' in result) throw new Error(`incomplete: ${result.missing.join()}`);
  return result;
};

describe('one point', () => {
  const worked = aPoint({ watts: 71.62, out: { C1: [20.043, 3.248] } });
  const withU: Point = {
    ...worked,
    readings: worked.readings.map((reading, index) => ({
      ...reading,
      u: [0.119763, 0.0080948, 0.0036073][index] ?? 0,
    })),
  };

  it('reproduces the worked 65 W example', () => {
    const result = complete(withU);
    expect(result.output.value).toBeCloseTo(65.0997, 4);
    expect(standardUncertainty(result.output)).toBeCloseTo(0.07693, 5);
    expect(result.efficiency.value).toBeCloseTo(0.90896, 5);
    expect(expandedUncertainty(result.efficiency)).toBeCloseTo(0.0037, 4);
    expect(result.loss.value).toBeCloseTo(6.5203, 4);
    expect(result.findings).toEqual([]);
  });

  it('takes the lead off when the voltage was sensed at the load end', () => {
    const far: Rig = { ...rig, outputPlace: 'load-end', leadOhms: 0.05, leadUOhms: 0.001 };
    const readings = [
      aReading({ quantity: 'power', value: 71.62, u: 0.12 }),
      aReading({ quantity: 'voltage', place: 'load-end', port: 'C1', value: 19.8806, u: 0.008 }),
      aReading({ quantity: 'current', place: 'load-end', port: 'C1', value: 3.248, u: 0.0036 }),
    ];
    const result = complete(aPoint({ readings }), far);
    expect(result.outputs[0]?.volts.value).toBeCloseTo(20.043, 4);
    expect(result.output.value).toBeCloseTo(65.0997, 3);
    const expected = Math.hypot(3.248 * 0.008, (19.8806 + 2 * 3.248 * 0.05) * 0.0036, 3.248 ** 2 * 0.001);
    expect(standardUncertainty(result.output)).toBeCloseTo(expected, 9);
  });

  it('says what is missing instead of guessing', () => {
    expect(efficiencyPoint(aPoint({ out: { C1: [20, 3.25] } }), setup, rig)).toMatchObject({
      missing: ['input watts'],
    });
    expect(efficiencyPoint(aPoint({ watts: 70 }), setup, rig)).toMatchObject({
      missing: ['output volts of C1', 'output amps of C1'],
    });
    expect(efficiencyPoint(aPoint({ watts: 0, out: { C1: [20, 0] } }), setup, rig)).toMatchObject({
      missing: ['input watts above zero'],
    });
  });

  it('does not take a load-end reading for a port reading', () => {
    const far: Rig = { ...rig, outputPlace: 'load-end' };
    expect(efficiencyPoint(worked, setup, far)).toHaveProperty('missing');
  });

  it('notes a current off the load point', () => {
    const findings = complete(aPoint({ watts: 60, out: { C1: [20, 2.6] } })).findings;
    expect(findings[0]).toContain('C1 carried 2.6 A; 100 % is 3.25 A');
  });

  it('uses the mean of per-sample powers from a meter file, not the product of means', () => {
    const readings = [
      ...worked.readings,
      aReading({ quantity: 'power', place: 'port', port: 'C1', value: 64.5, count: 100, spread: 2, u: 0.08 }),
    ];
    const result = complete({ ...worked, readings });
    expect(result.output.value).toBe(64.5);
    expect(result.output.uRepeat).toBeCloseTo(0.2, 9);
  });
});

describe('a series', () => {
  const efficiencies: readonly [number, number][] = [
    [0.1, 0.8],
    [0.25, 0.88],
    [0.5, 0.9],
    [0.75, 0.91],
    [1, 0.905],
  ];
  const run = (mains: Mains, shift = 0) =>
    efficiencies.map(([load, eta]) =>
      aPoint({ mains, load, u: 0.001, watts: (65 * load) / (eta + shift), out: { C1: [20, 3.25 * load] } }),
    );
  const points = [...run(us, -0.01), ...run(eu)];

  it('averages the four efficiencies, not the powers, per mains', () => {
    const series = efficiencySeries(setup, points, [rig]);
    expect(series.byMains.map((one) => one.mains)).toEqual([us, eu]);
    expect(series.byMains[1]?.average?.value).toBeCloseTo((0.88 + 0.9 + 0.91 + 0.905) / 4, 9);
    expect(series.byMains[1]?.lightLoad?.value).toBeCloseTo(0.8, 9);
    expect(series.nameplateWatts).toBe(65);
  });

  it('names the conditions of best and worst', () => {
    const series = efficiencySeries(setup, points, [rig]);
    expect(series.best).toMatchObject({ mains: eu, load: 0.75 });
    expect(series.worst).toMatchObject({ mains: us, load: 0.1 });
  });

  it('has no average while a point is missing and says which', () => {
    const series = efficiencySeries(
      setup,
      points.filter((point) => point.load !== 0.5),
      [rig],
    );
    expect(series.byMains[0]).toMatchObject({ average: null, missing: [0.5] });
  });

  it('combines repeats of one point and keeps their spread', () => {
    const series = efficiencySeries(setup, [...run(eu), ...run(eu, 0.004)], [rig]);
    const full = series.byMains[0]?.loads.at(-1);
    expect(full?.runs).toBe(2);
    expect(full?.efficiency.value).toBeCloseTo(0.907, 9);
    expect(full?.efficiency.uRepeat).toBeCloseTo(0.002, 9);
  });

  it('is empty without readings and leaves other loadings out', () => {
    expect(efficiencySeries(setup, [], [rig])).toMatchObject({ byMains: [], best: null, worst: null });
    expect(efficiencySeries({ ...setup, id: 'other' }, points, [rig]).byMains).toEqual([]);
    expect(efficiencySeries(setup, points, []).incomplete[0]?.missing).toEqual(['its rig']);
  });

  it('keeps the average between its worst and best point', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ noNaN: true, min: 0.05, max: 0.99 }), { minLength: 4, maxLength: 4 }),
        (etas) => {
          const four = [0.25, 0.5, 0.75, 1].map((load, index) =>
            aPoint({ load, watts: (65 * load) / (etas[index] ?? 1), out: { C1: [20, 3.25 * load] } }),
          );
          const mean = efficiencySeries(setup, four, [rig]).byMains[0]?.average?.value ?? Number.NaN;
          expect(mean).toBeGreaterThanOrEqual(Math.min(...etas) - 1e-9);
          expect(mean).toBeLessThanOrEqual(Math.max(...etas) + 1e-9);
        },
      ),
    );
  });
});

describe('several ports together', () => {
  const outputs = [
    { port: 'C1', volts: 20, amps: 3.25 },
    { port: 'C2', volts: 20, amps: 1.5 },
  ];
  it('are scaled to the nameplate when they ask for more', () => {
    expect(nameplateWatts(outputs)).toBe(95);
    expect(sharedLoadFactor(outputs, 75)).toBeCloseTo(75 / 95, 12);
    expect(sharedLoadFactor(outputs, 130)).toBe(1);
    expect(sharedLoadFactor([], 130)).toBe(1);
  });

  it('add up their powers', () => {
    const both = complete(aPoint({ watts: 110, out: { C1: [20, 3.25], C2: [20, 1.5] } }), rig, { ...setup, outputs });
    expect(both.output.value).toBeCloseTo(95, 9);
  });
});
