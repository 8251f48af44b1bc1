import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aSetup, aStep, METERS, proofRig } from '../testing/proof.ts';
import { expandedUncertainty, measured } from '../uncertainty/index.ts';
import { reconcile } from './index.ts';

const level = (volts: number, amps: number) => aSetup([{ port: 'C1', volts, amps }]);
const five = level(5, 3);
const nine = level(9, 3);
const twenty = level(20, 3.25);
const setups = [five, nine, twenty];

/** Steps over a line of some resistance, with the load's voltmeter off by a fixed amount. */
const over = (ohms: number, offset = 0) => [
  aStep(five, { port: [5.02, null], end: [5.02 - offset, null] }, { load: 0 }),
  aStep(five, { port: [4.96, 3], end: [4.96 - 3 * ohms - offset, 3] }),
  aStep(nine, { port: [8.97, 2], end: [8.97 - 2 * ohms - offset, 2] }),
  aStep(twenty, { port: [20.0, 3.25], end: [20.0 - 3.25 * ohms - offset, 3.25] }),
];

describe('the meter chain', () => {
  it('finds the loop resistance from one current as (Vin − Vout)/I', () => {
    // 20.043 V and 19.311 V at 3.000 A make 0.2440 Ω
    const step = aStep(twenty, { port: [20.043, 3], end: [19.311, 3] });
    const { resistance, offset } = reconcile(proofRig, setups, [step], METERS);
    expect(resistance?.value).toBeCloseTo(0.244, 4);
    expect(offset).toBeNull();
    // Both voltmeters' specs count in full: ±(0.05 % of 20 V + 4 mV) each, the two parts added, rectangular, over 3 A.
    const each = (0.0005 / Math.sqrt(3)) * 20.043;
    const fixed = 0.004 / Math.sqrt(3);
    expect(resistance?.uInstrument).toBeCloseTo((Math.SQRT2 * (each + fixed)) / 3, 3);
    expect(reconcile(proofRig, setups, [step]).resistance?.uInstrument).toBeCloseTo((Math.SQRT2 * 0.004) / 3, 4);
  });

  it('from two steps counts each of the four readings in full', () => {
    const steps = [
      aStep(five, { port: [5, 1], end: [4.88, 1] }, { u: 0.005 }),
      aStep(five, { port: [5, 3], end: [4.64, 3] }, { u: 0.005 }),
    ];
    const { resistance } = reconcile(proofRig, setups, steps);
    expect(resistance?.value).toBeCloseTo(0.12, 9);
    // Four voltages and, through the slope, two currents, over the 2 A between the steps.
    expect(resistance?.uInstrument).toBeCloseTo(Math.hypot(2 * 0.005, Math.SQRT2 * 0.12 * 0.005) / 2, 9);
  });

  it('finds it from several currents whatever the voltmeters differ by without current', () => {
    for (const offset of [0, 0.004]) {
      const chain = reconcile(proofRig, setups, over(0.116, offset), METERS);
      expect(chain.resistance?.value).toBeCloseTo(0.116, 6);
      expect(chain.offset?.value).toBeCloseTo(offset, 6);
      expect(chain.findings).toEqual([]);
      expect(chain.drops.every(({ residual }) => Math.abs(residual) < 1e-9)).toBe(true);
    }
  });

  it('recovers any resistance and offset exactly from exact readings', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        fc.double({ min: -0.01, max: 0.01, noNaN: true }),
        (ohms, offset) => {
          const { resistance, offset: found } = reconcile(proofRig, setups, over(ohms, offset));
          expect(resistance?.value).toBeCloseTo(ohms, 9);
          expect(found?.value).toBeCloseTo(offset, 9);
        },
      ),
    );
  });

  it('carries the scatter about the line as its repeat part', () => {
    const points = over(0.116).map((point, index) => ({
      ...point,
      readings: point.readings.map((reading) =>
        reading.place === 'load-end' && reading.quantity === 'voltage'
          ? { ...reading, value: (reading.value ?? 0) + (index % 2 ? 0.003 : -0.003) }
          : reading,
      ),
    }));
    const { resistance } = reconcile(proofRig, setups, points);
    expect(resistance?.uRepeat).toBeGreaterThan(0);
    expect(resistance?.degrees).toBe(2);
    expect(Math.abs((resistance?.value ?? 0) - 0.116)).toBeLessThan(expandedUncertainty(resistance ?? measured(0, 0)));
  });

  it('of coarse meters that happen to show no scatter still has their rounding', () => {
    const coarse = METERS.map((one) => {
      const { voltage } = one.specs;
      return voltage ? { ...one, specs: { ...one.specs, voltage: { ...voltage, resolution: 0.01 } } } : one;
    });
    const { resistance } = reconcile(proofRig, setups, over(0.1), coarse);
    // 10 mV on each of two meters: √2·10 mV/√12, over √Σ(I − Ī)².
    const currents = [0, 3, 2, 3.25];
    const mean = currents.reduce((a, b) => a + b, 0) / 4;
    const spread = Math.sqrt(currents.reduce((all, one) => all + (one - mean) ** 2, 0));
    expect(resistance?.uRepeat).toBeCloseTo((Math.SQRT2 * 0.01) / Math.sqrt(12) / spread, 9);
  });

  it('says when the voltmeters differ without current by more than their specs', () => {
    const { findings } = reconcile(proofRig, setups, over(0.1, 0.09));
    expect(findings[0]).toContain('Without current the two voltmeters differ by 90');
  });

  it('says when the two meters seem swapped', () => {
    expect(reconcile(proofRig, setups, over(-0.12)).findings[0]).toContain('are the two meters swapped?');
  });

  it('names the meter that stands alone among three, where and by how much', () => {
    const step = aStep(twenty, { port: [20, 3.25], end: [19.6, 3.251], display: [20.5, 3.3] });
    const { findings } = reconcile(proofRig, setups, [...over(0.123), step]);
    expect(findings).toEqual([
      'C1 20 V, 3.25 A: the meter at the port and the display differ by 500 mV in voltage, their specs allow 58 mV; the display stands alone against the other two.',
    ]);
  });

  it('cannot tell which of two is off', () => {
    const step = aStep(twenty, { port: [20, 3.25], end: [19.6, 3.4] });
    const { findings } = reconcile(proofRig, setups, [step]);
    expect(findings[0]).toMatch(/the load differ by 150 mA in current, .* which of the two is off cannot be told/);
  });

  it('of no readings concludes nothing', () => {
    expect(reconcile(proofRig, setups, [])).toEqual({
      rigId: 'rig',
      resistance: null,
      offset: null,
      drops: [],
      findings: [],
    });
  });
});
