// A conversation as an analyser writes it down whole, put together by other means than what reads it.
import { describe, expect, it } from 'vitest';
import { interpret } from './interpret.ts';

const ASKED = '8F 12 01 A0 00 FF';
const CABLE = '8F 53 41 A0 00 FF 00 00 00 18 00 00 00 00 00 00 00 00 40 26 0A 00';
const OFFERS = 'A1 21 2C 91 01 08 2C D1 02 00';
const CHARGER = 'AF 47 41 A0 00 FF 00 00 80 19 00 00 00 00 00 00 00 00';
const OTHER = ['8F 18 02 A0 00 FF', 'AF 1B 82 A0 00 FF'];

const read = (...lines: readonly string[]) => interpret(lines.join('\n'), 'wire', 'offers');
const words = (identity: readonly number[]) => identity.map((word) => word.toString(16).toUpperCase().padStart(8, '0'));

describe('a whole conversation', () => {
  it('has the answer of the cable, though the charger is asked for itself later, and both for other things', () => {
    const { offers, identity } = read(ASKED, CABLE, OFFERS, ASKED, CHARGER, ...OTHER);
    expect(offers).toHaveLength(2);
    expect(words(identity)).toEqual(['FF00A041', '18000000', '00000000', '00000000', '000A2640']);
  });

  it('in which no cable answers has what the port said of itself, and nothing of other things', () => {
    expect(words(read(OFFERS, ASKED, CHARGER, ...OTHER).identity)).toEqual([
      'FF00A041',
      '19800000',
      '00000000',
      '00000000',
    ]);
    expect(read(OFFERS, ...OTHER).identity).toEqual([]);
  });
});
