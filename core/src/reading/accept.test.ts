import { describe, expect, it } from 'vitest';
import { aRig } from '../testing/reading.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { aboveRange, accept, type Entry, type Instrument, specFor } from './index.ts';

const instruments: Instrument[] = [
  {
    id: 'wattmeter',
    name: 'Power meter',
    sees: null,
    specs: { power: { ...NO_SPEC, readingPercent: 0.15, offset: 0.1, floor: 0.01 } },
  },
  {
    id: 'voltmeter',
    name: 'Voltmeter',
    sees: null,
    specs: { voltage: { ...NO_SPEC, readingPercent: 0.05, offset: 0.004 } },
  },
  {
    id: 'ammeter',
    name: 'Ammeter',
    sees: null,
    specs: { current: { ...NO_SPEC, readingPercent: 0.1, offset: 0.003 } },
  },
];
const entry = (part: Partial<Entry> & Pick<Entry, 'quantity' | 'value'>): Entry => ({
  place: 'mains',
  port: null,
  count: 1,
  spread: 0,
  step: 0,
  ...part,
});
const volts = entry({ quantity: 'voltage', place: 'port', port: 'C1', value: 20.043 });
const amps = entry({ quantity: 'current', place: 'port', port: 'C1', value: 3.248 });

describe('an accepted value', () => {
  it('takes instrument and uncertainty from the rig', () => {
    const watts = entry({ quantity: 'power', value: 71.62 });
    expect(accept(watts, [watts], aRig(), instruments)).toEqual({
      instrumentId: 'wattmeter',
      u: expect.closeTo(0.11976, 5),
    });
    expect(accept(volts, [volts], aRig(), instruments)).toEqual({
      instrumentId: 'voltmeter',
      u: expect.closeTo(0.008095, 6),
    });
    expect(accept(amps, [amps], aRig(), instruments)).toEqual({
      instrumentId: 'ammeter',
      u: expect.closeTo(0.003607, 6),
    });
  });

  it('of energy follows the mean power over its time', () => {
    const energy = entry({ quantity: 'energy', value: 27 });
    const together = [energy, entry({ quantity: 'duration', value: 600 })];
    expect(accept(energy, together, aRig(), instruments).u).toBeCloseTo(
      ((0.045 * 0.0015 + 0.1) / Math.sqrt(3)) * 600,
      6,
    );
    expect(accept(energy, [energy], aRig(), instruments).u).toBeNull();
  });

  it('of output power follows the volts and amps beside it', () => {
    const watts = entry({ quantity: 'power', place: 'port', port: 'C1', value: 65.1 });
    expect(accept(watts, [volts, amps, watts], aRig(), instruments).u).toBeCloseTo(0.07693, 5);
  });

  it('without a stated accuracy is unknown, not exact', () => {
    expect(accept(volts, [volts], aRig(), [{ id: 'voltmeter', name: 'V', sees: null, specs: {} }])).toEqual({
      instrumentId: 'voltmeter',
      u: null,
    });
    expect(accept(volts, [volts], aRig(), []).u).toBeNull();
    const watts = entry({ quantity: 'power', place: 'port', port: 'C1', value: 65.1 });
    expect(accept(watts, [watts], aRig(), instruments).u).toBeNull();
  });

  it('that is counted, never judged or struck out needs none', () => {
    expect(accept(entry({ quantity: 'power-factor', value: 0.95 }), [], aRig(), instruments).u).toBe(0);
    expect(accept(entry({ quantity: 'power', value: null }), [], aRig(), instruments).u).toBe(0);
    expect(accept(volts, [volts], aRig(), []).instrumentId).toBeNull();
  });

  it('can be asked for its spec', () => {
    expect(specFor('power', 'mains', aRig(), instruments)?.floor).toBe(0.01);
    expect(specFor('temperature', 'mains', aRig(), instruments)).toBeUndefined();
  });
});

describe('a reading above the top range', () => {
  const meter = (range: number, finer: number[] = []): Instrument => ({
    id: 'top',
    name: 'Mill meter',
    sees: null,
    specs: {
      power: {
        ...NO_SPEC,
        readingPercent: 0.1,
        range,
        finer: finer.map((one) => ({ ...NO_SPEC, readingPercent: 0.1, range: one })),
      },
    },
  });
  const rig = { ...aRig(), meters: { ...aRig().meters, mains: 'top' } };
  const watts = (value: number | null): Entry => ({
    quantity: 'power',
    place: 'mains',
    port: null,
    value,
    count: 1,
    spread: 0,
    step: 0,
  });

  it('is none of its meter’s, and says so', () => {
    expect(aboveRange(watts(151), rig, [meter(150, [15])])).toBe(
      '151 W is above the top range of "Mill meter", 150 W: it cannot have read that.',
    );
    expect(aboveRange(watts(-151), rig, [meter(150)])).toContain('above the top range');
  });
  it('is taken up to full scale, where no range is stated, and when it is struck out', () => {
    expect(aboveRange(watts(150.05), rig, [meter(150)])).toBeNull();
    expect(aboveRange(watts(5000), rig, [meter(0)])).toBeNull();
    expect(aboveRange(watts(null), rig, [meter(150)])).toBeNull();
    expect(aboveRange(watts(151), rig, [])).toBeNull();
  });
});
