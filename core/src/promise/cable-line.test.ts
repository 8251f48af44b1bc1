import { describe, expect, it } from 'vitest';
import { parseCableLabel, parseCableLine } from './cable-line.ts';
import { describePromise } from './describe.ts';

const said = (text: string) => {
  const line = parseCableLine(text);
  return 'promises' in line
    ? [line.promises.map(describePromise).join(' · '), ...(line.unused ?? []).map((one) => `!${one}`)].join(' ')
    : `? ${line.reason}`;
};

describe('what is printed on a cable', () => {
  it.each([
    ['240 W', 'Carries 240 W: 5 A at 48 V'],
    ['100W 5A', 'Carries 100 W: 5 A at 20 V'],
    ['60 W', 'Carries 60 W: 3 A at 20 V'],
    ['3 A', 'Carries 60 W: 3 A at 20 V'],
    ['5A/48V', 'Carries 240 W: 5 A at 48 V'],
    ['PD 140W', 'Carries 140 W: 5 A at 28 V'],
    ['480 Mbps', 'Data at 480 Mbit/s'],
    ['10Gbps, 240W', 'Data at 10 Gbit/s · Carries 240 W: 5 A at 48 V'],
    ['USB 2.0', 'Data at 480 Mbit/s'],
    ['10 000 bends', '10000 bends'],
    ['30,000+ bend cycles', '30000 bends'],
    ['tested 10k bends', '10000 bends'],
    ['100 W, 20 Gbit/s, 12.000 bends', '12000 bends · Data at 20 Gbit/s · Carries 100 W: 5 A at 20 V'],
    ['240 W 5A 50V', 'Carries 240 W: 5 A at 48 V'],
    ['60W, 20V/3A', 'Carries 60 W: 3 A at 20 V'],
    ['USB4 Gen 3 cable, 40Gbps, 240W, 0.8 m', 'Data at 40 Gbit/s · Carries 240 W: 5 A at 48 V !0.8 m'],
    ['PD 100W 20V/5A 480Mbps 2M', 'Data at 480 Mbit/s · Carries 100 W: 5 A at 20 V !2M'],
    ['USB-C to USB-C, 60 W max, silicone, 8K@60Hz', 'Carries 60 W: 3 A at 20 V !8K !60Hz'],
    ['240 W 3A 20V', '? 240 W are not 3 A at 20 V. Give two of the three, or each rating in a line of its own.'],
    ['480 MB/s', '? “480 MB/s” are bytes, and cables are told in bits: write 480 Mbit/s, or eight times as much.'],
    ['“lightning braid”', '“lightning braid”'],
  ])('%s', (text, meaning) => expect(said(text)).toBe(meaning));

  it.each(['', 'quality', '900 W', '0 A 5 V'])('%j is not understood, and says why', (text) =>
    expect(said(text)).toMatch(/^\? .+\./),
  );

  it('a label is read line by line', () => expect(parseCableLabel('240 W\n\n5 Gbps\n')).toHaveLength(2));
});
