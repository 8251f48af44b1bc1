import { describe, expect, it } from 'vitest';
import { expandedUncertainty, type Measured, measured, NO_SPEC, standardUncertainty } from '../uncertainty/index.ts';
import {
  atDevice,
  contactShare,
  type DropAccuracy,
  type DropReading,
  dropAt,
  fateOf,
  gaugeOf,
  leastAt,
  resistanceOf,
} from './index.ts';

const NOT_STATED: DropAccuracy = { amps: null, far: null };
const EXACT: DropAccuracy = { amps: NO_SPEC, far: NO_SPEC };
const reading = (amps: number, drop: number, more: Partial<DropReading> = {}): DropReading => ({
  amps,
  drop,
  celsius: 20,
  ...more,
});
const kinds = (readings: readonly DropReading[], accuracy = EXACT) =>
  resistanceOf(readings, accuracy)?.findings.map(({ kind }) => kind) ?? [];
const half = (of: Measured | null | undefined) => (of ? expandedUncertainty(of) : Number.NaN);

describe('one current', () => {
  it('gives R, and R at 20 °C', () => {
    const found = resistanceOf([reading(3, 20.043 - 19.311, { celsius: 31 })], NOT_STATED);
    expect(found?.ohms.value).toBeCloseTo(0.244, 6);
    expect(found?.at20?.value).toBeCloseTo(0.2339, 4);
    expect(found?.ohms.unstated.map(({ quantity }) => quantity)).toEqual(['current', 'voltage']);
  });

  it('counts the whole of every spec', () => {
    // By hand: near 20.043 V ±(0.05 % + 4 mV) → 8.095 mV, far 19.311 V → 7.884 mV, 3.000 A ±(0.1 % + 3 mA) → 3.464 mA.
    const volts = { ...NO_SPEC, readingPercent: 0.05, offset: 0.004 };
    const accuracy = { amps: { ...NO_SPEC, readingPercent: 0.1, offset: 0.003 }, near: volts, far: volts };
    const found = resistanceOf([reading(3, 0.732, { near: 20.043 })], accuracy);
    const byHand = Math.hypot(Math.hypot(0.008095, 0.007884) / 3, (0.244 * 0.0034641) / 3);
    expect(found ? standardUncertainty(found.ohms) : 0).toBeCloseTo(byHand, 6);
  });
});

describe('several currents', () => {
  const line = [0, 1, 3, 5].flatMap((amps) =>
    [0.0004, -0.0003, 0.0001].map((off) => reading(amps, 0.15 * amps + 0.003 + off)),
  );
  it('give the slope, whatever the meters differ by', () => {
    const found = resistanceOf(line, EXACT);
    expect(found?.ohms.value).toBeCloseTo(0.15, 4);
    expect(found?.offset).toBeCloseTo(0.003, 3);
    expect(found?.curvature?.value).toBeCloseTo(0, 4);
    expect(half(found?.ohms)).toBeGreaterThan(1e-4);
    expect(half(found?.ohms)).toBeLessThan(1e-3);
  });

  it('as scipy has it: offset, slope and warming', () => {
    const drops = [0.0021, 0.1532, 0.4611, 0.7804, 0.0017, 0.1529, 0.4618, 0.7799];
    const found = resistanceOf(
      [0, 1, 3, 5, 0, 1, 3, 5].map((amps, at) => reading(amps, drops[at] ?? 0)),
      EXACT,
    );
    expect(found?.ohms.value).toBeCloseTo(0.15182073, 7);
    expect(found?.ohms.uRepeat).toBeCloseTo(2.42411453e-4, 8);
    expect(found?.curvature?.value).toBeCloseTo(1.5213e-4, 7);
    expect(found?.findings.map(({ kind }) => kind)).toContain('warms up');
  });

  it('count the gain of the meters, not their offset', () => {
    const accuracy = {
      amps: { ...NO_SPEC, readingPercent: 0.3, offset: 0.05 },
      far: { ...NO_SPEC, readingPercent: 0.4, offset: 1 },
    };
    expect(resistanceOf(line, accuracy)?.ohms.uInstrument).toBeCloseTo((0.15 * 0.005) / Math.sqrt(3), 6);
  });

  it('with two meters count both over what they moved by: the source sags too', () => {
    const two = line.map((one) => ({ ...one, near: 20 - 0.35 * one.amps }));
    const volts = { ...NO_SPEC, readingPercent: 0.1 };
    const u = 0.001 / Math.sqrt(3);
    expect(resistanceOf(two, { amps: NO_SPEC, near: volts, far: volts })?.ohms.uInstrument).toBeCloseTo(
      Math.hypot(0.35 * u, 0.5 * u),
      6,
    );
  });

  it('each at its own temperature come to one', () => {
    const warming = [1, 2, 3, 4, 5].flatMap((amps) =>
      [0, 1].map((again) =>
        reading(amps, 0.2 * (1 + 0.00393 * 3 * amps) * amps + 1e-5 * again, { celsius: 20 + 3 * amps }),
      ),
    );
    const found = resistanceOf(warming, EXACT);
    expect(found?.at20?.value).toBeCloseTo(0.2, 4);
    expect(found?.ohms.value).toBeCloseTo(0.2 * (1 + 0.00393 * 9), 4);
    expect(found?.celsius).toBe(29);
  });

  it('that are two do not show warming; one reading each counts the whole specs', () => {
    expect(kinds([reading(1, 0.15), reading(3, 0.45)])).toContain('two currents');
    const accuracy = { amps: NO_SPEC, far: { ...NO_SPEC, offset: 0.003 } };
    expect(resistanceOf([reading(1, 0.15), reading(3, 0.45)], accuracy)?.ohms.uInstrument).toBeCloseTo(
      (0.003 * Math.SQRT2) / Math.sqrt(3) / 2,
      8,
    );
  });
});

describe('a cable that gets hot', () => {
  it('is told cold, whatever it comes to at its highest current', () => {
    // R/(1 − q·I²) with 25 % more at 5 A: a cube alone would read 0.6 % too little.
    const hot = [0, 1, 2, 3, 4, 5].flatMap((amps) =>
      [1e-5, -1e-5].map((off) => reading(amps, (0.2 * amps) / (1 - 0.01 * amps ** 2) + off)),
    );
    expect(resistanceOf(hot, EXACT)?.ohms.value).toBeCloseTo(0.2, 4);
    expect(kinds(hot)).toContain('warms up');
  });
  it('that would run away is still told by its first term', () =>
    expect(
      resistanceOf(
        [0, 1, 2, 3, 4, 5].flatMap((amps) =>
          [0, 1e-4].map((off) => reading(amps, 0.1 * amps + 0.05 * amps ** 3 + off)),
        ),
        EXACT,
      )?.ohms.value,
    ).toBeCloseTo(0.1, 3));
});

describe('last digits', () => {
  const rounded = (digit: number, noise: number) =>
    [0, 1, 2, 3].flatMap((amps) =>
      [-1, 0, 1].map((sign) => reading(amps, Math.round((0.1507 * amps + noise * sign) / digit) * digit)),
    );
  const u = (readings: readonly DropReading[], digit: number) =>
    resistanceOf(readings, { amps: NO_SPEC, far: { ...NO_SPEC, resolution: digit } })?.ohms.uInstrument ?? 0;
  it('hide where every reading is the same, and show themselves where readings scatter', () => {
    expect(u(rounded(0.01, 0), 0.01)).toBeGreaterThan(0.0015);
    expect(u(rounded(0.0001, 0.002), 0.0001)).toBeLessThan(1e-9);
  });
});

describe('pluggings', () => {
  const plugged = (slopes: readonly number[]) =>
    slopes.flatMap((slope, at) => [0, 1, 3, 5].map((amps) => reading(amps, slope * amps, { plugging: `p${at}` })));
  it('that differ count as they differ, and are told as contacts', () => {
    const found = resistanceOf(plugged([0.14, 0.152, 0.158]), EXACT);
    expect(found?.ohms.value).toBeCloseTo(0.15, 6);
    expect(found?.spread).toBeCloseTo(0.0091652, 6);
    expect(found?.ohms.uRepeat).toBeCloseTo(0.0091652 / Math.sqrt(3), 6);
    expect(found?.findings.map(({ kind }) => kind)).toContain('pluggings differ');
    expect(found?.findings.map(({ kind }) => kind)).not.toContain('plugged once');
  });
  it('of one reading each are one series', () =>
    expect(
      resistanceOf(
        [1, 3, 5].map((amps) => reading(amps, 0.1 * amps, { plugging: `${amps}` })),
        EXACT,
      )?.ohms.value,
    ).toBeCloseTo(0.1, 9));
});

describe('what nobody sane would enter', () => {
  it('says nothing, or what is wrong', () => {
    expect(resistanceOf([], EXACT)).toBeNull();
    expect(resistanceOf([reading(0, 0.1), reading(0, 0.2)], EXACT)).toBeNull();
    expect(resistanceOf([reading(Number.NaN, 1)], EXACT)).toBeNull();
    expect(kinds([reading(1, -0.1), reading(2, -0.2), reading(3, -0.3)])).toContain('less than nothing');
    expect(kinds([reading(1, 0.1), reading(2, Number.NaN)])).toContain('not a number');
    expect(kinds([reading(1, 0.1, { celsius: null })])).toContain('temperature missing');
    expect(resistanceOf([reading(1, 0.1, { celsius: null })], EXACT)?.at20).toBeNull();
  });
  it('flags the one reading that stands apart, and too good a line', () => {
    const some = [1, 2, 3, 4, 5].flatMap((amps) => [1, -1].map((sign) => reading(amps, 0.15 * amps + sign * 2e-4)));
    expect(kinds(some)).not.toContain('one off');
    expect(kinds([...some, reading(3, 1.3)])).toContain('one off');
    expect(kinds([1, 2, 3, 4, 5].map((amps) => reading(amps, 0.125 * amps)))).toContain('no scatter');
  });
});

describe('what it means', () => {
  it('for a device at its ceiling', () => {
    expect(atDevice(20, 60, 0.2)?.volts).toBeCloseTo(19.3808, 4);
    expect(atDevice(20, 60, 0.2)?.loss).toBeCloseTo(1.9168, 3);
    expect(atDevice(20, 60, 0.2)?.part).toBeCloseTo(0.03096, 4);
    expect(atDevice(5, 15, 0.6)).toBeNull();
    expect(atDevice(5, 0, 0.6)).toMatchObject({ volts: 5, amps: 0, loss: 0, part: 0 });
    expect(atDevice(Number.NaN, 1, 1)).toBeNull();
    expect(leastAt(5)).toBe(4);
    expect([fateOf(5, 4.2), fateOf(5, 3.9), fateOf(5, null)]).toEqual(['stays', 'may step down', 'cannot get through']);
  });

  it('against the limits of a Type-C cable', () => {
    expect(dropAt(measured(0.2, 0.001), 3, 'loop').decision.outcome).toBe('proven');
    expect(dropAt(measured(0.25, 0.001), 3, 'loop').decision.outcome).toBe('borderline');
    expect(dropAt(measured(0.2, 0.001), 5, 'loop').decision.outcome).toBe('short');
    expect(dropAt(measured(0.09, 0.001), 3, 'ground').decision.outcome).toBe('short');
    expect(dropAt(measured(0.09, 0.001), 3, 'vbus').decision.outcome).toBe('proven');
  });

  it('as a gauge, between the whole ones and beyond', () => {
    expect(gaugeOf(0.0842)).toBeCloseTo(24, 9);
    expect(gaugeOf(0.0668)).toBeCloseTo(23, 1);
    expect(gaugeOf(0.5384)).toBeCloseTo(32, 0);
    expect(gaugeOf(0.0209)).toBeCloseTo(18, 0);
    expect([gaugeOf(0), gaugeOf(Number.NaN), gaugeOf(-1)]).toEqual([null, null, null]);
  });

  it('as contact and wire, by length', () => {
    const found = contactShare([1, 2, 3].map((length) => ({ length, ohms: 0.03 + 0.08 * length })));
    expect(found?.contact).toBeCloseTo(0.03, 9);
    expect(found?.perMetre).toBeCloseTo(0.08, 9);
    expect(contactShare([{ length: 1, ohms: 0.1 }])).toBeNull();
    expect(
      contactShare([
        { length: 1, ohms: 0.1 },
        { length: 1, ohms: 0.1 },
      ]),
    ).toBeNull();
    expect(
      contactShare([
        { length: 1, ohms: 0.2 },
        { length: 2, ohms: 0.1 },
      ]),
    ).toBeNull();
    expect(
      contactShare([
        { length: 1, ohms: 0.1 },
        { length: 2, ohms: 0.18 },
      ])?.uContact,
    ).toBeNull();
  });
});
