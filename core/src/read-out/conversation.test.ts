// A conversation as an analyser writes it down whole, put together by other means than what reads it.
import { describe, expect, it } from 'vitest';
import { checkOffers, decodeSource, describeOffer, wordText } from '../pd/index.ts';
import { interpret } from './interpret.ts';
import { decimalWords, messagesIn, offersInLog, propertiesIn } from './log.ts';

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

  it('in which the source changes its offer says so, and takes the last; the same told again is no change', () => {
    const less = 'A1 23 2C 91 01 08 C8 D0 02 00';
    const { offers, findings } = read(OFFERS, OFFERS, less);
    expect(offers.map((word) => describeOffer(decodeSource(word)))).toEqual(['5 V 3 A', '9 V 2 A']);
    expect(findings.map(({ sentence }) => sentence)).toEqual([
      '2 different lists of offers stand here; the last one counts. Enter each with its conditions.',
    ]);
    expect(read(OFFERS, OFFERS).findings).toEqual([]);
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

const offersOf = (text: string, order: 'value' | 'wire' = 'value') =>
  interpret(text, order, 'offers').offers.map((word) => describeOffer(decodeSource(word)));
const FOUR = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A'];
const FIVE = [...FOUR, 'PPS 5–11 V 3 A'];

describe('a log', () => {
  it.each([
    [
      'of columns with the bytes quoted',
      'Time,SOP,Type,Raw\n1.234,SOP,Source_Capabilities,"A1 51 2C 91 01 08 2C D1 02 00 2C B1 04 00 45 41 06 00 3C 32 DC C0"\n1.240,SOP,GoodCRC,"41 00"',
    ],
    [
      'of tabs, with directions and a checksum behind the bytes',
      '0.001\tSRC>SNK\tSource_Capabilities\tA1512C9101082CD102002CB10400454106003C32DCC0DEADBEEF\n0.002\tSNK>SRC\tGoodCRC\t4100',
    ],
    [
      'of headers and words as numbers',
      '0001 00:00:01.234 SOP Source_Capabilities 51A1 0801912C 0002D12C 0004B12C 00064145 C0DC323C\n0002 00:00:01.240 SOP GoodCRC 0041',
    ],
    ['of bytes in groups', '1.2 s SOP A151 2C910108 2CD10200 2CB10400 45410600 3C32DCC0\n1.3 s SOP 4100'],
    [
      'that is a dump with letters beside it',
      '0000  A1 51 2C 91 01 08 2C D1 02 00 2C B1 04 00 45 41   .Q,...,...,...EA\n0010  06 00 3C 32 DC C0                                 ..<2..',
    ],
  ])('%s holds its messages, in whatever order digits are expected', (_, text) => {
    expect(offersOf(text)).toEqual(FIVE);
    expect(offersOf(text, 'wire')).toEqual(FIVE);
    expect(interpret(text, 'value', 'offers').findings.filter(({ grade }) => grade === 'fault')).toEqual([]);
  });

  it('that names who was spoken to has the identity of the plug', () => {
    const text =
      "SOP' 538F FF00A041 18000000 00000000 00000000 000A2640\nSOP 51A1 0801912C 0002D12C 0004B12C 00064145 C0DC323C\nSOP 57AF FF00A041 18000000 00000000 00000000 00082020";
    const { offers, identity } = interpret(text, 'value', 'offers');
    expect(offers).toHaveLength(5);
    expect(words(identity).at(-1)).toBe('000A2640');
  });

  it('of lines in words holds offers of every type; its times are none', () => {
    const text = [
      '[    2.163045] PD RX, header: 0x51a1 [1]',
      '[    2.163050]  PDO 0: type 0, 5000 mV, 3000 mA [E]',
      '[    2.163055]  PDO 1: type 0, 9000 mV, 3000 mA []',
      '[    2.163060]  PDO 2: type 1, 5000-12000 mV, 15000 mW',
      '[    2.163065]  PDO 3: type 2, 8000-12000 mV, 2000 mA',
      '[    2.163070]  PDO 4: type 3, 3300-11000 mV, 3000 mA',
    ].join('\n');
    expect(offersOf(text)).toEqual([
      '5 V 3 A',
      '9 V 3 A',
      'battery 5–12 V 15 W',
      'variable 8–12 V 2 A',
      'PPS 3.3–11 V 3 A',
    ]);
    expect(interpret(text, 'value', 'offers').findings.map(({ sentence }) => sentence)).toEqual([
      '1 line of a log passed over: no offer, request or identity stands there.',
    ]);
  });

  it('of properties has an offer for each number', () => {
    const text = [
      'caps/2:fixed_supply/maximum_current:3000mA',
      'caps/1:fixed_supply/voltage:5000mV',
      'caps/1:fixed_supply/maximum_current:3000mA',
      'caps/1:fixed_supply/dual_role_power:0',
      'caps/2:fixed_supply/voltage:9000mV',
      'caps/10:programmable_supply/minimum_voltage:3300mV',
      'caps/10:programmable_supply/maximum_voltage:11000mV',
      'caps/10:programmable_supply/maximum_current:3000mA',
    ].join('\n');
    expect(offersOf(text)).toEqual(['5 V 3 A', '9 V 3 A', 'PPS 3.3–11 V 3 A']);
  });

  it('of decimal numbers is words only where the first is 5 V', () => {
    expect(offersOf('135369004\n184620\n307500\n409925')).toEqual(FOUR);
    expect(offersOf('[135369004, 184620, 307500, 409925]')).toEqual(FOUR);
    expect(decimalWords('184620 307500')).toBeNull();
    expect(decimalWords('0801912C')).toBeNull();
    expect(decimalWords('')).toBeNull();
  });

  it('with an offer that is not understood says so, and passes none over', () => {
    const { offers, findings } = interpret('5 V 3 A\n9 V some amps\nPDO count: 2', 'value', 'offers');
    expect(offers).toHaveLength(0);
    expect(findings.filter(({ grade }) => grade === 'fault')).not.toEqual([]);
    // A range of what is not said, and two levels with one unit, are no level at their end.
    for (const line of ['3.3 up to 11 V 3 A', '3,3 bis 11 V 3 A', '5 and 9 V 3 A', '5 + 9 V at 3 A'])
      expect(interpret(`5 V 3 A\n${line}`, 'value', 'offers').findings[0]?.sentence, line).toContain('Line 2');
    expect(offersOf('5 V 3 A\nPPS 3,3 bis 11 V 3 A')).toEqual(['5 V 3 A', 'PPS 3.3–11 V 3 A']);
  });

  it('in which nothing counts is told as before', () => {
    for (const text of [
      'SOP GoodCRC 0041',
      'hello world',
      '12:00 nothing here',
      '[1.0] PDO 0: type 0, 9000 mV, 3000 mA',
    ]) {
      expect(messagesIn(text), text).toBeNull();
      expect(offersInLog(text), text).toBeNull();
      expect(propertiesIn(text), text).toBeNull();
    }
    // A line too long to tell one offer is not looked through for one.
    expect(offersInLog(`${'1'.repeat(1_000_000)} V x\n5 V 3 A`)?.lines).toEqual(['5 V 3 A']);
    expect(interpret('hello world', 'value', 'offers').findings[0]?.sentence).toBe('"hello" is not hexadecimal.');
  });
});

describe('a list in words', () => {
  it('has its EPR offers where they stand in a message, and says by them that it is EPR capable', () => {
    const text = '5 V 3 A\n9 V 3 A\n15 V 3 A\n20 V 5 A\n28 V 5 A\nEPR AVS 15-28 V 140 W';
    const { offers, epr } = interpret(text, 'value', 'offers');
    expect(epr).toBe(true);
    expect(offers.map(wordText)).toEqual([
      '0081912C',
      '0002D12C',
      '0004B12C',
      '000641F4',
      '00000000',
      '00000000',
      '00000000',
      '0008C1F4',
      'D230968C',
    ]);
    expect(checkOffers(offers, epr)).toEqual([]);
  });

  it('stays as it is where its order is no message’s, or noughts stand there already', () => {
    expect(offersOf('5 V 3 A\n28 V 5 A\n20 V 5 A')).toEqual(['5 V 3 A', '28 V 5 A', '20 V 5 A']);
    // Words say where they stand: an EPR level among the first seven of a message is a fault to be found.
    for (const text of ['["0801912C","0008C1F4"]', '{"readOuts":[{"epr":false,"words":["0801912C","0008C1F4"]}]}'])
      expect(interpret(text, 'value', 'offers').offers.map(wordText), text).toEqual(['0801912C', '0008C1F4']);
    const own = '["0801912C","000641F4","00000000","00000000","00000000","00000000","00000000","0008C1F4"]';
    expect(interpret(own, 'value', 'offers').offers.map(wordText)).toEqual(JSON.parse(own));
  });
});
