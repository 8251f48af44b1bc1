// Replies as instruments of other makes write them; what each means was worked out by hand.
import { describe, expect, it } from 'vitest';
import { numberFrom, parsePattern, readPattern } from './index.ts';

const read = (pattern: string, reply: string) => {
  const parsed = parsePattern(pattern);
  if (!parsed.ok) throw new Error(parsed.reason);
  const { values, problems } = readPattern(parsed, reply);
  return problems.length > 0 ? problems.join(' ') : Object.fromEntries(values);
};

describe('a reply is read by a pattern', () => {
  it.each<[string, string, Record<string, number>]>([
    ['{volts},{amps}', '20.021,2.2498', { volts: 20.021, amps: 2.2498 }],
    ['{volts};{amps}', '2.0021E+01;+2.2498E+00', { volts: 20.021, amps: 2.2498 }],
    ['{volts} {amps} {watts}', '20.02 V  2.25 A  45.04 W', { volts: 20.02, amps: 2.25, watts: 45.04 }],
    ['{volts},{amps},{watts}', '20.02V,2250mA,0.04504kW', { volts: 20.02, amps: 2.25, watts: 45.04 }],
    ['{volts},*,{watts}', '20.02,"OK, fine",45.04', { volts: 20.02, watts: 45.04 }],
    ['U={volts}; I={amps}; P={watts}', 'P=45.04 W; U=20.02 V; I=2.25 A', { volts: 20.02, amps: 2.25, watts: 45.04 }],
    ['U={volts}, I={amps}', 'u:20.02V,i:2.25A,f:50.0Hz', { volts: 20.02, amps: 2.25 }],
    ['U={volts}, I={amps}', 'U=20.02 I=2.25', { volts: 20.02, amps: 2.25 }],
    ['{volts*0.001},{amps*0.0001-0.02}', '20021,22698', { volts: 20.021, amps: 2.2498 }],
    ['{volts+0.5}', '19.521', { volts: 20.021 }],
    ['{on:ON=1|OFF=0}', 'ON', { on: 1 }],
    ['{on:ON=1|OFF=0}', 'off', { on: 0 }],
    ['STATE={on:CC=1|CV=1|IDLE=0}', 'STATE=IDLE', { on: 0 }],
    ['{volts1},{amps1},{volts2},{amps2}', '5.1,0.5,9.0,1.5', { volts1: 5.1, amps1: 0.5, volts2: 9, amps2: 1.5 }],
    ['{watts}', '+9.9E37', { watts: Number.POSITIVE_INFINITY }],
    ['{watts}', '-9.9E+37', { watts: Number.NEGATIVE_INFINITY }],
    ['{watts}', '9.91E37', { watts: Number.NaN }],
    ['{watts}', 'OVLD', { watts: Number.POSITIVE_INFINITY }],
    ['{watts}', '----', { watts: Number.NaN }],
    ['{celsius}', '41.7 C', { celsius: 41.7 }],
    ['{time},{watts}', '12 min,3', { time: 720, watts: 3 }],
    ['{powerFactor}', '58 %', { powerFactor: 0.58 }],
    ['{value}', '12m', { value: 0.012 }],
  ])('%s reads "%s"', (pattern, reply, values) => expect(read(pattern, reply)).toEqual(values));

  it.each([
    ['{volts}', '2.25 A', '{volts}: "A" is no unit of {volts}, which is in V.'],
    ['{watts}', '53 VA', '{watts}: "VA" is no unit of {watts}, which is in W.'],
    ['{volts},{amps}', '20.02', '{amps}: the reply has no part 2.'],
    ['U={volts}', 'I=2', '{volts}: nothing behind "U".'],
    ['{volts}', 'twenty', '{volts}: "twenty" is no number.'],
    ['{on:ON=1|OFF=0}', 'MAYBE', '{on}: "MAYBE" is no number.'],
    ['{volts}', '', '{volts}: the reply has no part 1.'],
  ])('%s does not understand "%s", and says so', (pattern, reply, says) => expect(read(pattern, reply)).toBe(says));

  it.each([
    ['', 'no field'],
    ['*', 'no field'],
    ['{furlongs}', '{furlongs} is not known'],
    ['{volts},{volts}', 'stands there twice'],
    ['{volts*0}', 'are none'],
    ['{on:ON}', 'stands for no number'],
    ['volts', 'is no field'],
    ['{volts', 'is no field'],
  ])('"%s" is no pattern', (pattern, says) => {
    const parsed = parsePattern(pattern);
    expect(parsed.ok ? '' : parsed.reason).toContain(says);
  });
});

it.each<[string, number | null]>([
  ['1.5', 1.5],
  ['-.5e-3', -0.0005],
  ['OL', Number.POSITIVE_INFINITY],
  ['-OVLD', Number.NEGATIVE_INFINITY],
  ['NAN', Number.NaN],
  ['0x1F', null],
  ['1e999', Number.POSITIVE_INFINITY],
  ['', null],
])('"%s" as a number is %d', (text, value) => expect(numberFrom(text)).toEqual(value));
