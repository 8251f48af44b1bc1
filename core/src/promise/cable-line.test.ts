import { describe, expect, it } from 'vitest';
import { parseCableLabel, parseCableLine } from './cable-line.ts';
import { describePromise } from './describe.ts';

const said = (text: string) => {
  const line = parseCableLine(text);
  return 'promises' in line ? line.promises.map(describePromise).join(' · ') : `? ${line.reason}`;
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
    ['“lightning braid”', '“lightning braid”'],
  ])('%s', (text, meaning) => expect(said(text)).toBe(meaning));

  it.each(['', 'quality', '900 W', '0 A 5 V'])('%j is not understood, and says why', (text) =>
    expect(said(text)).toMatch(/^\? .+\./),
  );

  it('a label is read line by line', () => expect(parseCableLabel('240 W\n\n5 Gbps\n')).toHaveLength(2));
});
