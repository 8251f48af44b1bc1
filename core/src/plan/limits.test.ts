import { describe, expect, it } from 'vitest';
import { aRig } from '../testing/reading.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import {
  calibrations,
  limitPassed,
  limitsInForce,
  limitsRefusal,
  lineCapacity,
  loadCapacity,
  meterZero,
  NO_LIMITS,
  type PointStep,
  proofPoint,
  referenceCable,
} from './index.ts';

const load = { name: 'Valley load', ratings: { volts: 60, amps: 6, watts: 300 } };
const at = (volts: number, amps: number, hottest: number | null = null) => ({
  ports: [{ port: 'C1', volts, amps }],
  hottest,
});
const asked = [{ port: 'C1', volts: 20, amps: 3 }];

describe('limits', () => {
  it('are the sample’s own where it has them, else the bench’s, and never above a rating', () => {
    const bench = { hottest: 363, volts: 80, amps: null, watts: null };
    expect(limitsInForce(bench, null, [load.ratings, null])).toEqual({ hottest: 363, volts: 60, amps: 6, watts: 300 });
    const own = { hottest: 340, volts: 22, amps: null, watts: 100 };
    expect(limitsInForce(bench, own, [load.ratings])).toEqual({ hottest: 340, volts: 22, amps: 6, watts: 100 });
    expect(limitsInForce(NO_LIMITS, null, [])).toEqual(NO_LIMITS);
  });

  it('cannot be set above what an instrument can take', () => {
    expect(limitsRefusal({ ...NO_LIMITS, volts: 61 }, [load])).toBe(
      '61 V is above what "Valley load" can take: 60 V. A limit stays at or below it.',
    );
    expect(limitsRefusal({ ...NO_LIMITS, volts: 60, watts: 300 }, [load])).toBeNull();
    expect(limitsRefusal({ ...NO_LIMITS, volts: 61 }, [{ name: 'unrated', ratings: null }])).toBeNull();
  });

  it.each([
    ['a hot spot', at(20, 1, 364), 'Hottest spot 90.9 °C: above the limit of 85.0 °C.'],
    ['a voltage', at(22.5, 1), 'C1 22.50 V: above the limit of 22 V.'],
    ['a current', at(20, 5.1), 'C1 5.10 A: above the limit of 5 A.'],
    ['a power', at(21, 4.9), 'C1 102.90 W: above the limit of 100 W.'],
  ])('%s that passes its limit is said', (_what, moment, sentence) => {
    const limits = { hottest: 358.15, volts: 22, amps: 5, watts: 100 };
    expect(limitPassed(limits, asked, moment)).toBe(sentence);
  });

  it('a port well above the level it was asked for is one too; within it nothing is said', () => {
    expect(limitPassed(NO_LIMITS, [{ port: 'C1', volts: 5, amps: 3 }], at(9, 1))).toBe(
      'C1 stands at 9.00 V; 5 V was asked for.',
    );
    expect(limitPassed(NO_LIMITS, [{ port: 'C1', volts: 5, amps: 3 }], at(5.5, 1))).toBeNull();
    expect(
      limitPassed(NO_LIMITS, asked, { ports: [{ port: 'C1', volts: null, amps: null }], hottest: null }),
    ).toBeNull();
  });
});

const step = (volts: number, amps: number, part: Partial<PointStep> = {}): PointStep => ({
  ...proofPoint('instruments', { kind: 'ac', volts: 230, hertz: 50 }, [{ port: 'C1', volts, amps }], 1),
  id: 's',
  ...part,
});

describe('the rig proves', () => {
  it('that the load takes every step', () => {
    expect(loadCapacity(load.name, load.ratings, 1, [step(20, 5)])).toMatchObject({ state: 'good' });
    expect(loadCapacity(load.name, load.ratings, 1, [step(48, 7)]).says).toBe(
      'The sheet asks for 7 A; "Valley load" takes 6 A.',
    );
    expect(loadCapacity(load.name, { ...load.ratings, watts: 100 }, 1, [step(36, 5)])).toMatchObject({ state: 'stop' });
    expect(loadCapacity(load.name, load.ratings, 1, [step(48, 7, { skip: 'not here' })])).toMatchObject({
      state: 'good',
    });
    expect(loadCapacity(load.name, null, 1, [step(20, 5)])).toMatchObject({ state: 'know' });
    const both = step(20, 1, { outputs: [...step(20, 1).outputs, { port: 'C2', volts: 5, amps: 1 }] });
    expect(loadCapacity(load.name, load.ratings, 1, [both]).says).toContain('has 1 channels');
  });

  it('that the line may carry every step', () => {
    const thin = aRig({ elements: [{ kind: 'cable', name: 'thin', amps: 3, volts: 20, basis: 'marker' }] });
    expect(lineCapacity(thin, [step(20, 3)])).toMatchObject({ state: 'good' });
    expect(lineCapacity(thin, [step(20, 5)])).toMatchObject({ state: 'stop' });
  });

  it('that its meters stand at zero', () => {
    const spec = { ...NO_SPEC, offset: 0.004, resolution: 0.001 };
    expect(meterZero('Voltmeter', 'voltage', 0.003, spec)).toMatchObject({ state: 'good' });
    expect(meterZero('Voltmeter', 'voltage', 0.05, spec).says).toContain('Null it, then repeat');
    expect(meterZero('Voltmeter', 'voltage', null, spec)).toMatchObject({ state: 'stop' });
    expect(meterZero('Voltmeter', 'voltage', 0.05, undefined)).toMatchObject({ state: 'know' });
  });

  it('that the cable is the one it names', () => {
    expect(referenceCable(0.116, 0.121, 0.006)).toMatchObject({ state: 'good' });
    expect(referenceCable(0.116, 0.24, 0.006).says).toContain('240 mΩ measured, 116 mΩ stated');
    expect(referenceCable(0.116, null, 0)).toMatchObject({ state: 'know' });
    expect(referenceCable(0, 0.1, 0)).toMatchObject({ state: 'know' });
  });

  it('that no calibration is overdue, or says whose is', () => {
    const meter = { id: 'm', name: 'Old analyser', sees: null, specs: {}, calibrationDue: '2026-05-31' };
    expect(calibrations([meter], '2026-05-31')).toMatchObject({ state: 'good' });
    expect(calibrations([meter], '2026-06-01')).toMatchObject({ state: 'know' });
    expect(calibrations([meter], '2026-06-01').says).toContain('"Old analyser" since 2026-05-31');
  });
});
