import { describe, expect, it } from 'vitest';
import {
  ACTIONS,
  BUILT_IN,
  commandFor,
  type InstrumentProfile,
  numbersFrom,
  profileProblems,
  readReply,
  replyOf,
} from './index.ts';

const load = BUILT_IN.find((one) => one.class === 'DC load') as InstrumentProfile;

describe('a profile', () => {
  it('puts values into its command', () => {
    expect(commandFor(load, 'amps', { amps: 2.25 })).toBe('CURR 2.25');
    expect(commandFor(load, 'requestVolts', { position: 5, volts: 9.5 })).toBe('SINK:REQ 5,9.5');
    expect(commandFor(load, 'amps', { amps: 0.1 + 0.2 })).toBe('CURR 0.3');
  });

  it('refuses what it was not given, what is no number, and a word that smuggles in a command', () => {
    expect(() => commandFor(load, 'amps')).toThrow('needs amps');
    expect(() => commandFor(load, 'amps', { amps: Number.NaN })).toThrow('not a finite number');
    expect(() => commandFor(load, 'fly')).toThrow('no action "fly"');
    expect(() => commandFor({ ...load, commands: {} }, 'amps', { amps: 1 })).toThrow('cannot do "amps"');
    const imager = BUILT_IN.find((one) => one.class === 'thermal imager') as InstrumentProfile;
    expect(() => commandFor(imager, 'hottest', { face: 'FRONT;*RST' })).toThrow('no plain word');
  });

  it.each<[string, Record<string, string>, string]>([
    ['an action its class does not have', { fly: 'FLY' }, 'no action "fly"'],
    ['a place it is not given', { amps: 'CURR {amps},{volts}' }, 'has {volts}, which it is not given'],
    ['a value left out', { amps: 'CURR' }, 'lacks {amps}'],
    ['nothing to send', { off: ' ' }, 'has no command'],
    ['an empty line', { off: 'INP OFF\n\nCURR 5' }, 'empty line or a return'],
    ['a return in it', { off: 'INP OFF\rCURR 5' }, 'empty line or a return'],
    ['a query that asks nothing', { volts: 'MEAS:VOLT' }, 'asks nothing'],
  ])('with %s has a problem', (_what, commands, sentence) => {
    expect(profileProblems({ ...load, commands }).join()).toContain(sentence);
  });

  it('that ships has no problem, and can do everything its class can', () => {
    for (const profile of BUILT_IN) {
      expect(profileProblems(profile)).toEqual([]);
      expect(Object.keys(profile.commands).sort()).toEqual(Object.keys(ACTIONS[profile.class]).sort());
    }
  });
});

describe('a reply', () => {
  it('is read as its action wants it', () => {
    expect(readReply('number', '5.02')).toBe(5.02);
    expect(readReply('numbers', '1,2,9.91E37')).toEqual([1, 2, Number.NaN]);
    expect(readReply('words', '0801912c, 0002D12C')).toEqual(['0801912C', '0002D12C']);
    expect(readReply('words', '0')).toEqual([]);
    expect(readReply('text', 'as it is')).toBe('as it is');
    expect(replyOf(load, 'all')).toBe('numbers');
  });
  it('that does not fit is refused', () => {
    expect(() => readReply('number', '##.#')).toThrow('no number');
    expect(() => readReply('number', '1,2')).toThrow('no number');
    expect(() => readReply('words', 'XYZ')).toThrow('no list of words');
  });
});

it.each([
  ['+1.234E+00', 1.234],
  ['9.91E37', Number.NaN],
  ['9.9E37', Number.POSITIVE_INFINITY],
  ['-9.9E37', Number.NEGATIVE_INFINITY],
  ['', Number.NaN],
  ['##.#', Number.NaN],
  ['OVLD', Number.POSITIVE_INFINITY],
  [' -overload ', Number.NEGATIVE_INFINITY],
  ['0x1F', Number.NaN],
  ['1e999', Number.POSITIVE_INFINITY],
  ['1.5 V', Number.NaN],
])('%s is read as %d', (text, value) => expect(numbersFrom(text)).toEqual([value]));

it('numbers between commas keep their places', () =>
  expect(numbersFrom('20.01, OL,,-1E-3')).toEqual([20.01, Number.POSITIVE_INFINITY, Number.NaN, -0.001]));
