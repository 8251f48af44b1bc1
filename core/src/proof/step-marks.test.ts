import { describe, expect, it } from 'vitest';
import { aSetup, aStep, METERS, proofRig } from '../testing/proof.ts';
import { aReadOut } from '../testing/read-out.ts';
import { marksOf, proofResult } from './index.ts';

const twenty = aSetup([{ port: 'C1', volts: 20, amps: 3.25 }]);
const five = aSetup([{ port: 'C1', volts: 5, amps: 3 }]);

/** The marks of the step of a title, with one reading or none. */
function marksAt(title: string, setup: typeof twenty, volts: number | null, u: number | null = 0.05) {
  const point =
    volts === null ? [] : [aStep(setup, { port: [volts, setup.outputs[0]?.amps ?? 3] }, u === null ? {} : { u })];
  const { steps } = proofResult({
    ports: ['C1'],
    claims: [],
    readOuts: [aReadOut(['5 V 3 A', '20 V 3.25 A'])],
    setups: [five, twenty],
    points: point,
    runs: [],
    devices: [],
    rigs: [proofRig],
    instruments: METERS,
    series: [],
    rules: { rule: 'guarded', allowance: 0.02, tolerance: null },
  });
  return steps.flatMap(marksOf).filter((mark) => mark.title === title);
}

describe('a step in its tolerance', () => {
  it.each([
    // 20 V ± 5 % is 19…21 V.
    ['at the level', 20, 0],
    ['half way down', 19.5, -50],
    ['at the upper end', 21, 100],
    ['beyond the lower end', 18.8, -120],
  ])('%s', (_what, volts, place) => expect(marksAt('C1 20 V 3.25 A', twenty, volts)[0]?.place).toBeCloseTo(place, 6));

  it('of 5 V lies in 4.75…5.50 V', () => {
    expect(marksAt('C1 5 V 3 A', five, 5.125)[0]?.place).toBeCloseTo(0, 6);
    expect(marksAt('C1 5 V 3 A', five, 4.75)[0]?.place).toBeCloseTo(-100, 6);
  });

  it('has its expanded uncertainty in the same measure: 2 × 0.05 V of 1 V is 10 %', () =>
    expect(marksAt('C1 20 V 3.25 A', twenty, 20)[0]?.u).toBeCloseTo(10, 3));

  it('that was not read has no place', () =>
    expect(marksAt('C1 20 V 3.25 A', twenty, null)).toMatchObject([{ volts: null, place: null, u: null }]));
});
