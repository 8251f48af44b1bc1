// Laws that hold for every charger, whatever the numbers.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Setup } from '../reading/index.ts';
import { aPoint, aReading, aRig } from '../testing/reading.ts';
import { expandedUncertainty, standardUncertainty } from '../uncertainty/index.ts';
import { type EfficiencyPoint, efficiencyPoint } from './index.ts';

const setup: Setup = {
  id: 's1',
  name: 'C1',
  outputs: [{ port: 'C1', volts: 20, amps: 3 }],
  evidence: 'load',
  purpose: 'efficiency',
  rigId: 'rig',
};
const volts = fc.double({ noNaN: true, min: 3, max: 50 });
const amps = fc.double({ noNaN: true, min: 0.01, max: 5 });
const efficiency = fc.double({ noNaN: true, min: 0.2, max: 0.99 });
const small = fc.double({ noNaN: true, min: 1e-5, max: 0.05 });

const solved = (result: ReturnType<typeof efficiencyPoint>): EfficiencyPoint => {
  if ('missing' in result) throw new Error(result.missing.join());
  return result;
};

/** A point read at the port, or at the far end of a lead. */
const point = (place: 'port' | 'load-end', v: number, i: number, watts: number, u: readonly [number, number, number]) =>
  aPoint({
    readings: [
      aReading({ quantity: 'power', value: watts, u: u[0] }),
      aReading({ quantity: 'voltage', place, port: 'C1', value: v, u: u[1] }),
      aReading({ quantity: 'current', place, port: 'C1', value: i, u: u[2] }),
    ],
  });

describe('output, input, loss', () => {
  it('input is output plus loss, and efficiency times input is output', () => {
    fc.assert(
      fc.property(volts, amps, efficiency, (v, i, eta) => {
        const result = solved(efficiencyPoint(point('port', v, i, (v * i) / eta, [0.1, 0.01, 0.01]), setup, aRig()));
        expect(result.output.value + result.loss.value).toBeCloseTo(result.input.value, 6);
        expect(result.efficiency.value * result.input.value).toBeCloseTo(result.output.value, 6);
        expect(result.efficiency.value).toBeCloseTo(eta, 9);
      }),
    );
  });

  it('U of the efficiency grows with the uncertainty of any of the three meters', () => {
    fc.assert(
      fc.property(volts, amps, efficiency, fc.nat(2), small, (v, i, eta, which, extra) => {
        const base: [number, number, number] = [0.01, 0.001, 0.001];
        const worse = base.map((u, index) => (index === which ? u + extra : u)) as [number, number, number];
        const at = (u: [number, number, number]) =>
          expandedUncertainty(solved(efficiencyPoint(point('port', v, i, (v * i) / eta, u), setup, aRig())).efficiency);
        expect(at(worse)).toBeGreaterThan(at(base));
      }),
    );
  });
});

describe('the lead between port and load', () => {
  it('taken off gives the same power as sensing at the port', () => {
    fc.assert(
      fc.property(volts, amps, fc.double({ noNaN: true, min: 0.001, max: 0.3 }), (v, i, ohms) => {
        fc.pre(v - i * ohms > 1);
        const atPort = solved(efficiencyPoint(point('port', v, i, v * i * 1.2, [0, 0, 0]), setup, aRig()));
        const far = aRig({ outputPlace: 'load-end', leadOhms: ohms });
        const corrected = solved(
          efficiencyPoint(point('load-end', v - i * ohms, i, v * i * 1.2, [0, 0, 0]), setup, far),
        );
        expect(corrected.output.value).toBeCloseTo(atPort.output.value, 6);
        expect(corrected.outputs[0]?.volts.value).toBeCloseTo(v, 9);
      }),
    );
  });

  it('adds its own uncertainty, I²·u_R in power', () => {
    fc.assert(
      fc.property(volts, amps, small, (v, i, u) => {
        const far = aRig({ outputPlace: 'load-end', leadOhms: 0.05, leadUOhms: u });
        const result = solved(efficiencyPoint(point('load-end', v, i, v * i * 2, [0, 0, 0]), setup, far));
        expect(standardUncertainty(result.output)).toBeCloseTo(i ** 2 * u, 9);
      }),
    );
  });
});
