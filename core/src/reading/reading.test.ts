import { describe, expect, it } from 'vitest';
import { aPoint, aReading } from '../testing/reading.ts';
import { asMeasured, contradictions, currentReadings, mainsLabel, mainsMatches, readingAt } from './index.ts';

describe('corrections', () => {
  const first = aReading({ id: 'a', quantity: 'power', value: 71.26 });
  const second = aReading({ id: 'b', quantity: 'power', value: 71.62, supersedes: 'a' });
  const strike = aReading({ id: 'c', quantity: 'power', value: null, supersedes: 'b' });

  it('supersede, and a correction of a correction stands alone', () => {
    expect(currentReadings([first, second]).map((r) => r.id)).toEqual(['b']);
    expect(readingAt({ readings: [first, second] }, 'power', 'mains')?.value).toBe(71.62);
  });

  it('strike out without a trace in the result, the raw readings staying', () => {
    const all = [first, second, strike];
    expect(currentReadings(all)).toEqual([]);
    expect(all).toHaveLength(3);
    expect(() => asMeasured(strike)).toThrow(RangeError);
  });
});

it('a mean of samples carries its spread', () => {
  const result = asMeasured(aReading({ quantity: 'power', value: 10, u: 0.01, count: 25, spread: 0.5 }));
  expect(result).toMatchObject({ uInstrument: 0.01, uRepeat: 0.1, degrees: 24 });
});

describe('contradictions', () => {
  it('none in a sound point', () => {
    expect(contradictions(aPoint({ watts: 71.62, out: { C1: [20.043, 3.248] } }))).toEqual([]);
  });

  it('no load beside amps', () => {
    expect(contradictions(aPoint({ load: 0, watts: 71, out: { C1: [20, 3.25] } }))[0]).toContain('No load, yet 3.25 A');
  });

  it('a few milliamps of meter error are no load', () => {
    expect(contradictions(aPoint({ load: 0, watts: 0.05, out: { C1: [5, 0.002] } }))).toEqual([]);
  });

  it('more out than in, beyond what the meters could be wrong by', () => {
    expect(contradictions(aPoint({ watts: 60, out: { C1: [20, 3.25] } }))[0]).toContain('is above input 60 W');
    expect(contradictions(aPoint({ watts: 64.9, u: 0.5, out: { C1: [20, 3.25] } }))).toEqual([]);
  });

  it('watts that are not volts times amps', () => {
    const point = aPoint({ watts: 71, out: { C1: [20, 3.25] } });
    const readings = [
      ...point.readings,
      aReading({ quantity: 'power', place: 'port', port: 'C1', value: 45, typed: '45 W' }),
    ];
    expect(contradictions({ ...point, readings })[0]).toContain('45 W on C1 at the port is not volts × amps');
  });

  it.each([
    [aReading({ quantity: 'power', value: -3, typed: '-3 W' }), 'wired backwards'],
    [aReading({ quantity: 'power-factor', value: 1.2, typed: '1.2' }), 'above 1'],
    [aReading({ quantity: 'voltage', value: Number.NaN, typed: 'NaN' }), 'not a finite value'],
    [aReading({ quantity: 'current', value: -0.1, place: 'port', port: 'C1', typed: '-0.1' }), 'polarity'],
  ])('impossible values', (reading, sentence) => {
    expect(contradictions({ load: 1, attached: 'nothing', readings: [reading] })[0]).toContain(sentence);
  });
});

describe('mains', () => {
  const at = (volts: number, hertz: number) => ({ kind: 'ac', volts, hertz }) as const;
  it('are labelled and matched within one per cent', () => {
    expect(mainsLabel(at(115, 60))).toBe('115 V 60 Hz');
    expect(mainsLabel({ kind: 'dc', volts: 13.8 })).toBe('13.8 V DC');
    expect(mainsMatches(at(229, 50), at(230, 50))).toBe(true);
    expect(mainsMatches(at(220, 50), at(230, 50))).toBe(false);
    expect(mainsMatches(at(115, 50), at(115, 60))).toBe(false);
    expect(mainsMatches({ kind: 'dc', volts: 115 }, at(115, 60))).toBe(false);
  });
});
