// What a source states of its power, out of what was pasted and held against label and offers.
import { describe, expect, it } from 'vitest';
import { aReadOut } from '../testing/read-out.ts';
import {
  compareReadOuts,
  interpret,
  judgedWatts,
  type ReadOut,
  type ReadOutContext,
  readInfo,
  readOutFindings,
  statedWords,
} from './index.ts';

const OFFERS = 'A1 41 2C 91 01 08 2C D1 02 00 2C B1 04 00 E1 40 06 00';
const INFO = 'AB 13 2D 2D 41 00';
const REVISION = 'AC 15 00 00 11 32';
const EXTENDED = 'A1 F7 18 80 00 FF 02 01 0C 0B 0A 00 07 03 05 0C 03 06 4A A6 00 00 00 00 01 03 21 41 00 00';
const LONGER = 'A1 F7 19 80 00 FF 02 01 0C 0B 0A 00 07 03 05 0C 03 06 4A A6 00 00 00 00 01 03 21 64 8C 00';

describe('a conversation in which the source speaks of itself', () => {
  it('has its info, its revision and its extended capabilities beside the offers', () => {
    const read = interpret([OFFERS, INFO, REVISION, EXTENDED].join('\n'), 'wire', 'offers');
    expect(read.offers).toHaveLength(4);
    expect(read.info).toBe(0x00412d2d);
    expect(read.declared).toBe('3.2');
    expect(read.extended).toHaveLength(24);
    expect(read.extended.at(-1)).toBe(65);
    expect(read.findings).toEqual([]);
    expect(read.messages.map(({ title }) => title)).toEqual([
      'source capabilities',
      'source info',
      'revision',
      'extended source capabilities',
    ]);
  });

  it('may have a block that ends with no whole word, in a chunk or not', () => {
    for (const line of [LONGER, LONGER.replace('19 80', '19 00')]) {
      const { extended, findings } = interpret(`${OFFERS}\n${line}`, 'wire', 'offers');
      expect(extended.slice(-2)).toEqual([100, 140]);
      expect(findings).toEqual([]);
    }
  });

  it('is picked out of a log with times and names', () => {
    const text = [
      `0.10 s SOP Source_Capabilities "${OFFERS}"`,
      '0.11 s SOP GoodCRC "41 00"',
      `0.20 s SOP Source_Info "${INFO}"`,
      `0.30 s SOP Source_Capabilities_Extended "${EXTENDED}"`,
      `0.40 s SOP Revision "${REVISION}"`,
    ].join('\n');
    const { offers, info, extended, declared } = interpret(text, 'value', 'offers');
    expect([offers.length, info, extended.length, declared]).toEqual([4, 0x00412d2d, 24, '3.2']);
  });

  it('in words tells its powers beside offers in words', () => {
    const said = 'Port Type: Managed\nPort Maximum PDP: 65 W\nPort Present PDP: 45 W\nPort Reported PDP: 45 W';
    for (const list of ['5V 3A\n9V 3A\n15V 3A', '0801912C\n0002D12C\n0004B12C'])
      for (const text of [`${list}\n${said}`, `${said}\n${list}`]) {
        const { offers, info, findings } = interpret(text, 'value', 'offers');
        expect([offers.length, info, findings], text).toEqual([3, 0x00412d2d, []]);
      }
    // By itself it is no read-out, and nothing wrong.
    expect(interpret(said, 'value', 'offers')).toMatchObject({
      form: 'info',
      offers: [],
      info: 0x00412d2d,
      findings: [],
    });
  });

  it('of a revision there is none of declares nothing', () => {
    expect(interpret(`${OFFERS}\nAC 15 00 00 00 90`, 'wire', 'offers').declared).toBeNull();
  });

  it('is nothing that bare offers are taken for', () => {
    for (const order of ['value', 'wire'] as const) {
      const { info, extended, form } = interpret('0801912C 0002D12C 0004B12C 00064145', order, 'offers');
      expect([info, extended, form]).toEqual([null, [], 'words']);
    }
  });
});

describe('source info typed by itself', () => {
  it.each<[string, 'value' | 'wire', number | null]>([
    ['00412D2D', 'value', 0x00412d2d],
    ['0x00412d2d', 'value', 0x00412d2d],
    ['2D 2D 41 00', 'wire', 0x00412d2d],
    [INFO, 'wire', 0x00412d2d],
    ['max 65 W, present 45 W, reported 45 W', 'value', 0x00412d2d],
    ['', 'value', null],
    ['65 W', 'value', null],
    ['00412D2D 00412D2D', 'value', null],
  ])('%s, %s', (text, order, word) => {
    expect(readInfo(text, order)).toBe(word);
  });
});

const line = (volts: number, amps: number) => ({
  promise: { kind: 'port-line' as const, port: 'C1', volts, amps },
});
const about = (readOut: ReadOut, part: Partial<ReadOutContext> = {}) =>
  readOutFindings([readOut], {
    ports: [
      { label: 'C1', twin: null },
      { label: 'C2', twin: null },
    ],
    claims: [],
    seesOf: () => null,
    ...part,
  })
    .filter(({ grade }) => grade === 'fault')
    .map(({ sentence }) => sentence);
const SIXTY_FIVE = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A'];
const FORTY_FIVE = ['5 V 3 A', '9 V 3 A', '15 V 3 A'];
const rated = (watts: number) => `${'00'.repeat(23)}${watts.toString(16).toUpperCase().padStart(2, '0')}00`;

describe('the power a read-out is judged by', () => {
  const shared = { occupied: ['C2'] };
  it('is the power present of a shared port, the claim of one alone, and what it offers where nobody says', () => {
    expect(judgedWatts(aReadOut(FORTY_FIVE, { ...shared, info: '00412D2D' }), 65)).toBe(45);
    expect(judgedWatts(aReadOut(FORTY_FIVE, { ...shared, info: '00413C2D' }), 65)).toBe(60);
    expect(judgedWatts(aReadOut(FORTY_FIVE, shared), 65)).toBe(45);
    expect(judgedWatts(aReadOut(SIXTY_FIVE, { info: '00646464' }), 65)).toBe(65);
    expect(judgedWatts(aReadOut(SIXTY_FIVE, { info: '00646464' }), null)).toBe(100);
    expect(judgedWatts(aReadOut(SIXTY_FIVE, { extended: rated(100) }), null)).toBe(100);
    expect(judgedWatts(aReadOut(SIXTY_FIVE), null)).toBe(65);
    // Nought states nothing.
    expect(judgedWatts(aReadOut(SIXTY_FIVE, { ...shared, info: '00000000' }), null)).toBe(65);
  });

  it('finds a shared port that has 60 W and holds a level back', () => {
    // By its own offers alone a list that stops at 15 V is a sound 45 W source.
    expect(about(aReadOut(FORTY_FIVE, shared))).toEqual([]);
    expect(about(aReadOut(FORTY_FIVE, { ...shared, info: '00413C2D' }))).toEqual([
      '20 V is missing: a 60 W source offers 3 A there.',
    ]);
  });
});

describe('what a source states', () => {
  const claims = [line(20, 3.25)];
  it('agrees with a label of as much, whole watts rounded down', () => {
    expect(about(aReadOut(SIXTY_FIVE, { info: '80414141', extended: rated(65) }), { claims })).toEqual([]);
    const odd = ['5 V 3 A', '9 V 2.5 A'];
    expect(about(aReadOut(odd, { info: '80161616', extended: rated(22) }), { claims: [line(9, 2.5)] })).toEqual([]);
    // 9 V 2.22 A is a 20 W source, one step of 10 mA short of it.
    expect(about(aReadOut(['5 V 3 A', '9 V 2.22 A'], { info: '80141414' }))).toEqual([]);
  });

  it('is held against what the label promises of the port', () => {
    expect(about(aReadOut(SIXTY_FIVE, { info: '003C3C3C' }), { claims })).toContain(
      'The label promises 65 W; the source states 60 W as the port’s maximum.',
    );
    expect(about(aReadOut(FORTY_FIVE, { info: '00412D2D' }), { claims })).toContain(
      'The label promises 65 W; alone the source states 45 W at present.',
    );
    expect(about(aReadOut(SIXTY_FIVE, { extended: rated(60) }), { claims })).toEqual([
      'The label promises 65 W; the source rates itself 60 W.',
    ]);
  });

  it('is held to no more than the cable in use lets through, and to nothing of the port’s most while others are used', () => {
    const hundred = [line(20, 5)];
    const three = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3 A'];
    expect(about(aReadOut(three, { marker: '3 A', info: '00643C3C' }), { claims: hundred })).toEqual([]);
    expect(about(aReadOut(FORTY_FIVE, { occupied: ['C2'], info: '00412D2D' }), { claims })).not.toContain(
      'The label promises 65 W; alone the source states 45 W at present.',
    );
  });

  it('is held against what it offers', () => {
    expect(about(aReadOut(SIXTY_FIVE, { info: '80414139' }))).toEqual([
      'The source says it advertises 57 W; its offers come to 65 W.',
    ]);
    expect(about(aReadOut(SIXTY_FIVE, { info: '80646464' }), { claims })).toContain(
      'The source says it advertises 100 W; its offers come to 65 W.',
    );
    // What an SPR list does not show of an EPR source cannot contradict it.
    expect(
      about(aReadOut(['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A'], { info: '808C8C8C' })).filter((one) =>
        one.includes('advertises'),
      ),
    ).toEqual([]);
  });

  it('contradicts itself where rating and maximum differ', () => {
    expect(about(aReadOut(SIXTY_FIVE, { info: '80414141', extended: rated(60) }))).toContain(
      'The source rates itself 60 W, and states 65 W as the port’s maximum.',
    );
  });

  it('is told in a line', () => {
    expect(statedWords({ info: '00412D2D', extended: rated(65) })).toBe(
      '45 W at present of 65 W, shared out anew as ports are used; rated 65 W',
    );
    expect(statedWords({ info: '80414141', extended: null })).toBe('65 W at present of 65 W, guaranteed');
    expect(statedWords({ info: null, extended: null })).toBe('');
  });

  it('is nothing in what was kept before anybody asked, and no guess where it cannot be', () => {
    const { info: _i, extended: _e, ...before } = aReadOut(SIXTY_FIVE);
    expect(about(before, { claims })).toEqual([]);
    expect([judgedWatts(before, null), statedWords({})]).toEqual([65, '']);
    for (const part of [{ info: '41' }, { extended: '0G' }, { extended: '000' }])
      expect(() => about(aReadOut(SIXTY_FIVE, part))).toThrow(RangeError);
  });

  it('is a change, though the offers stay', () => {
    const alone = aReadOut(FORTY_FIVE, { info: '00414141' });
    const with2 = aReadOut(FORTY_FIVE, { info: '00412D2D', occupied: ['C2'] });
    expect(compareReadOuts(alone, with2)).toMatchObject({ sameOffers: true, same: false, present: { a: 65, b: 45 } });
    expect(compareReadOuts(alone, { ...with2, info: null }).same).toBe(true);
    const sentences = readOutFindings([alone, with2], { ports: [], claims: [], seesOf: () => null }).map(
      ({ sentence }) => sentence,
    );
    expect(sentences).toContain('alone → with C2 in use: 65 W at present becomes 45 W.');
  });
});
