import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  decimalsFor,
  digitStep,
  findUnit,
  formatInterval,
  formatMeasured,
  formatPlain,
  formatProbability,
  formatUncertainty,
  formatValue,
  fromSi,
  parseCelsius,
  parseDecimal,
  parseQuantity,
  QUANTITIES,
  quantityOf,
  ROOM_RANGE,
  SURFACE_RANGE,
  toSi,
} from './index.ts';

describe('typed values', () => {
  it.each([
    ['3250 mA', 'current', 3.25],
    ['3250mA', 'current', 3.25],
    ['19,8', 'voltage', 19.8],
    ['.5', 'voltage', 0.5],
    ['-3', 'voltage', -3],
    ['−3', 'voltage', -3],
    ['45 mW', 'power', 0.045],
    ['45 w', 'power', 45],
    ['1.5e-3 A', 'current', 0.0015],
    ['1 234,5', 'power', 1234.5],
    ['1,234.5 W', 'power', 1234.5],
    ['1.234.567', 'power', 1234567],
    ['2 Wh', 'energy', 7200],
    ['10', 'duration', 600],
    ['91,5', 'efficiency', 0.915],
    ['77 °F', 'temperature', 298.15],
    ['25', 'temperature', 298.15],
    ['4 in', 'length', 0.1016],
    ['6 ft', 'length', 1.8288],
    ['0.5 lb', 'mass', 0.226796185],
    ['3 Ampere', 'current', 3],
    ['45 ºC', 'temperature', 318.15],
    ['1 h 30 min', 'duration', 5400],
    ['1h30', 'duration', 5400],
    ['1,5 h 10 min', 'duration', 6000],
    ['90 min 30 s', 'duration', 5430],
    ['1:02:03.5', 'duration', 3723.5],
    ['30 s', 'duration', 30],
    ['3 ms', 'duration', 0.003],
    ['2 h', 'duration', 7200],
  ] as const)('reads %s as %s', (text, quantity, si) => {
    const parsed = parseQuantity(text, quantity);
    expect(parsed.ok && parsed.value).toBeCloseTo(si, 9);
  });

  it.each([
    ['', 'voltage', 'Nothing typed.'],
    ['abc', 'voltage', 'not a number'],
    ['1..2', 'voltage', 'not a number'],
    ['12 W', 'voltage', '"W" is not a unit of voltage'],
    ['5 MW', 'power', '"MW" is not a unit of power'],
    ['NaN', 'power', 'not a number'],
    ['Infinity', 'power', 'not a number'],
    ['1e999', 'power', 'not a number'],
    ['1:30', 'duration', 'write 1 h 30 min or 1 min 30 s'],
    ['5 min 5', 'duration', 'not a number'],
    [`${'9'.repeat(400)}:00:00`, 'duration', 'not a number'],
  ] as const)('refuses %j as %s and says why', (text, quantity, reason) => {
    const parsed = parseQuantity(text, quantity);
    expect(parsed).toMatchObject({ ok: false, reason: expect.stringContaining(reason) });
  });

  it('never throws and never yields a number that is not finite, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...QUANTITIES), (text, quantity) => {
        const parsed = parseQuantity(text, quantity.id);
        return parsed.ok ? Number.isFinite(parsed.value) : parsed.reason.length > 0;
      }),
    );
  });

  it('reads back every number it can write, with either decimal sign', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), fc.boolean(), (value, comma) => {
        const text = value.toFixed(4);
        expect(parseDecimal(comma ? text.replace('.', ',') : text)).toBeCloseTo(value, 3);
      }),
    );
  });
});

describe('units', () => {
  it('convert there and back', () => {
    const anyUnit = fc.constantFrom(...QUANTITIES.flatMap((quantity) => quantity.units));
    fc.assert(
      fc.property(anyUnit, fc.double({ noNaN: true, min: -1e4, max: 1e4 }), (unit, value) => {
        expect(fromSi(toSi(value, unit), unit)).toBeCloseTo(value, 6);
      }),
    );
  });

  it('keep milli and mega apart', () => {
    expect(findUnit('power', 'mW')?.factor).toBe(1e-3);
    expect(findUnit('power', 'MW')).toBeUndefined();
  });

  it('refuse a quantity that does not exist', () => {
    expect(() => quantityOf('charm' as never)).toThrow(RangeError);
  });
});

describe('numbers as shown', () => {
  it('carry the digits the uncertainty supports', () => {
    expect(formatMeasured(65.0997, 0.1539, 'power')).toBe('65.10 ± 0.16 W');
    expect(formatMeasured(61.83, 0.31, 'power')).toBe('61.8 ± 0.4 W');
    expect(formatMeasured(0.90896, 0.003722, 'efficiency')).toBe('90.9 ± 0.4 %');
    expect(formatMeasured(0.0452, 0.0011, 'power')).toBe('0.0452 ± 0.0011 W');
    expect(formatMeasured(20, 0, 'power')).toBe('20 W');
    expect(formatMeasured(1234, 250, 'power')).toBe('1234 ± 250 W');
  });

  it('round bounds outwards', () => {
    expect(formatInterval(113.2 * 0.885, 113.2 * 0.915, 'power', 1)).toBe('100.1…103.6 W');
    expect(formatInterval(52.84, Number.POSITIVE_INFINITY, 'power', 1)).toBe('at least 52.8 W');
    expect(formatInterval(Number.NEGATIVE_INFINITY, 0.0101, 'power', 2)).toBe('at most 0.02 W');
  });

  it('never show a minus zero or a NaN', () => {
    expect(formatValue(-0.0001, 'power', 1)).toBe('0.0 W');
    expect(formatValue(Number.NaN, 'power', 1)).toBe('– W');
    expect(formatPlain(Number.NaN, 'power')).toBe('–');
    expect(decimalsFor(Number.NaN)).toBe(3);
  });

  it('probabilities never claim certainty', () => {
    expect([1, 0.97725, 0, Number.NaN].map(formatProbability)).toEqual(['> 99.9 %', '97.7 %', '< 0.1 %', '–']);
  });

  it('plain values drop noise digits', () => {
    expect(formatPlain(3.25, 'current')).toBe('3.25 A');
    expect(formatPlain(0.1 + 0.2, 'power')).toBe('0.3 W');
  });
});

describe('thousands', () => {
  it.each([
    ["1'234", 1234],
    ['1 234 567,25', 1234567.25],
    ['12,345,678', 12345678],
  ])('%s is %s', (text, value) => expect(parseDecimal(text)).toBe(value));

  it.each(['1 2', '1,23,4', '1.234.5', '12,34.5'])('%s is nothing anyone means', (text) => {
    expect(parseDecimal(text)).toBeNaN();
  });
});

describe('a field in °C', () => {
  it('takes °C and refuses other units with the value they would be', () => {
    expect(parseCelsius('24.6', ROOM_RANGE, 'room')).toMatchObject({ ok: true, value: 297.75 });
    expect(parseCelsius('76 °F', ROOM_RANGE, 'room')).toMatchObject({
      ok: false,
      reason: expect.stringContaining('24.4'),
    });
    expect(parseCelsius('300 K', ROOM_RANGE, 'room').ok).toBe(false);
  });
  it('asks about a number that looks like one read in °F', () => {
    expect(parseCelsius('76', ROOM_RANGE, 'room')).toMatchObject({
      ok: false,
      reason: '76.0 °C for the room? If the meter shows °F, that is 24.4 °C.',
    });
    expect(parseCelsius('81', SURFACE_RANGE, 'hottest spot').ok).toBe(true);
    expect(parseCelsius('warm', ROOM_RANGE, 'room').ok).toBe(false);
  });
});

it.each([
  ['20.4', 'voltage', 0.1],
  ['20', 'voltage', 1],
  ['3250 mA', 'current', 0.001],
  ['3,25', 'current', 0.01],
  ['3.250 A', 'current', 0.001],
  ['nothing', 'current', 0],
] as const)('the last digit of %s %s is worth %d', (text, id, step) =>
  expect(digitStep(text, id)).toBeCloseTo(step, 12),
);

describe('an uncertainty by itself', () => {
  it('is rounded up to two digits', () => {
    expect(formatUncertainty(0.001_732, 'power')).toBe('0.0018 W');
    expect(formatUncertainty(0.1291, 'power', 'mW')).toBe('130 mW');
    expect(formatUncertainty(0.005, 'power', 'mW')).toBe('5 mW');
    expect(formatUncertainty(0, 'power')).toBe('0 W');
    expect(formatUncertainty(Number.NaN, 'power')).toBe('–');
  });
});
