// Logs and chargers as other analysers write them: acknowledgements in between, SPR lists of EPR sources, odd figures.
import { describe, expect, it } from 'vitest';
import {
  checkOffers,
  checkPowerRules,
  decodeCable,
  decodeIdentity,
  decodeSource,
  encodeSource,
  type RuleConditions,
  readHex,
  type SourceObject,
} from './index.ts';

const WORDS = ['0801912C', '0002D12C', '0004B12C', '00064145', 'C1A42141'];
const wire = (digits: string): string => (digits.match(/../g) ?? []).reverse().join('');
/** GoodCRC of a sink and of a source, Accept, PS_RDY: revision 3, no objects. */
const CONTROLS = ['0081', '0181', '0183', '0186'];

describe('a log with acknowledgements in it', () => {
  const message = ['51A1', ...WORDS];
  const logs: [string, string[][]][] = [
    ['one before', [['0081'], message]],
    ['two before', [['0081'], ['0181'], message]],
    ['one after', [message, ['0081']]],
    ['two after', [message, ['0081'], ['0183']]],
    ['all around', [['0081'], message, ...CONTROLS.map((one) => [one])]],
  ];
  it.each(logs)('%s, line by line and in one go, in either byte order', (_name, log) => {
    const skipped = log.filter((one) => one !== message).length;
    const texts = [
      [log.map((line) => line.join(' ')).join('\n'), 'value'],
      [log.map((line) => line.map(wire).join('')).join('\n'), 'wire'],
      [log.flat().map(wire).join(''), 'wire'],
      [log.map((line) => line.map((one) => `0x${one}`).join(', ')).join('\n'), 'value'],
    ] as const;
    for (const [text, order] of texts) {
      const read = readHex(text, order);
      expect(read.form).toBe('messages');
      expect(read.messages.map(({ kind }) => kind)).toEqual(['offers']);
      expect(read.words).toEqual(WORDS.map((word) => Number.parseInt(word, 16)));
      expect(read.findings.map(({ grade, sentence }) => `${grade}: ${sentence}`)).toEqual([
        `note: ${skipped} ${skipped === 1 ? 'message' : 'messages'} without objects passed over: acknowledgements and control messages.`,
      ]);
    }
  });

  it('that asks for chunks is put together without the asking', () => {
    // Extended type 17, one padded object, chunk 1 asked for.
    const ask = '9190008C0000';
    const read = readHex(`${wire('51A1')}${WORDS.map(wire).join('')}\n${ask}\n${wire('0081')}`, 'wire');
    expect(read.words).toHaveLength(5);
    expect(read.messages).toHaveLength(1);
    expect(read.findings[0]?.sentence).toContain('2 messages');
  });

  it('with EPR mode, alerts and battery status in it is still a log', () => {
    // EPR_Mode (type 10), Alert (6), Battery_Status (5): one object each, revision 3.
    const other = ['108A 01000000', '1186 02000000', '1285 12340200'];
    for (const one of other) {
      const read = readHex(`0081\n${one}\n51A1 ${WORDS.join(' ')}\n0181`, 'value');
      expect(read.form).toBe('messages');
      expect(read.messages.filter(({ kind }) => kind === 'offers')).toHaveLength(1);
      expect(read.findings.every(({ grade }) => grade === 'note')).toBe(true);
    }
  });

  it('of nothing but acknowledgements holds no words, however many', () => {
    for (const count of [1, 2, 3, 4]) {
      const read = readHex(CONTROLS.slice(0, count).join('\n'), 'value');
      expect(read).toMatchObject({ form: 'messages', words: [] });
      expect(read.findings[0]?.sentence).toContain('passed over');
    }
    // 16 V 3 A is a level, though its halves would do for headers.
    expect(readHex('0005012C', 'value')).toMatchObject({ form: 'words', words: [0x0005012c] });
  });

  it('of plain words stays words', () => {
    const read = readHex(WORDS.join(' '), 'value');
    expect(read).toMatchObject({ form: 'words', findings: [] });
    expect(read.words).toHaveLength(5);
  });
});

const fixed = (volts: number, amps: number): SourceObject =>
  decodeSource(Math.round(volts / 0.05) * 1024 + Math.round(amps / 0.01));
const SPR_140 = [fixed(5, 3), fixed(9, 3), fixed(15, 3), fixed(20, 5)];
const rules = (objects: readonly SourceObject[], part: Partial<RuleConditions> = {}) =>
  checkPowerRules(objects, { watts: 140, declared: null, fiveAmpCable: true, invisible: [], ...part });
const faults = (found: ReturnType<typeof rules>) =>
  found.filter(({ grade }) => grade === 'fault').map(({ kind }) => kind);

describe('an SPR list of a 140 W source', () => {
  it('read over a 5 A cable that is no EPR cable is conforming: a note, no fault', () => {
    for (const epr of [false, undefined]) {
      const found = rules(SPR_140, { epr });
      expect(faults(found)).toEqual([]);
      expect(found.map(({ kind }) => kind)).toContain('epr-not-read');
    }
  });
  it('in an EPR list that lacks 28 V and AVS is short of both', () => {
    expect(faults(rules(SPR_140, { epr: true }))).toEqual(['missing-level', 'missing-avs']);
  });
});

describe('AVS figures', () => {
  const epr = (watts: number): SourceObject => ({
    kind: 'epr-avs',
    minVolts: 15,
    maxVolts: 28,
    watts,
    peak: 0,
    reserved: 0,
  });
  const spr = (amps: number, ampsAbove: number): SourceObject => ({
    kind: 'spr-avs',
    amps,
    ampsAbove,
    peak: 0,
    reserved: 0,
  });
  it('of EPR are held against the power claimed', () => {
    const with_ = (watts: number) => faults(rules([...SPR_140, fixed(28, 5), epr(watts)], { epr: true }));
    expect(with_(140)).toEqual([]);
    expect(with_(100)).toEqual(['avs-power']);
  });
  it.each([
    // 45 W: 3 A at 15 V. 65 W: 3 A at 15 V and 3.25 A at 20 V, 3 A without a 5 A cable. 100 W: 5 A at 20 V.
    [45, [fixed(5, 3), fixed(9, 3), fixed(15, 3)], spr(3, 0), true, []],
    [45, [fixed(5, 3), fixed(9, 3), fixed(15, 3)], spr(2, 0), true, ['low-avs-current']],
    [65, [fixed(5, 3), fixed(9, 3), fixed(15, 3), fixed(20, 3.25)], spr(3, 3.25), true, []],
    [65, [fixed(5, 3), fixed(9, 3), fixed(15, 3), fixed(20, 3)], spr(3, 3), false, []],
    [65, [fixed(5, 3), fixed(9, 3), fixed(15, 3), fixed(20, 3.25)], spr(3, 2), true, ['low-avs-current']],
    [100, [fixed(5, 3), fixed(9, 3), fixed(15, 3), fixed(20, 5)], spr(3, 3), true, ['low-avs-current']],
    [60, [fixed(5, 3), fixed(9, 3), fixed(15, 3), fixed(20, 3)], spr(2.5, 3), true, ['low-avs-current']],
  ] as const)('of SPR at %i W are held against its class', (watts, objects, avs, fiveAmpCable, expected) => {
    expect(faults(rules([...objects, avs], { watts, fiveAmpCable, epr: false }))).toEqual(expected);
  });
});

describe('values that cannot be', () => {
  const list = (...objects: SourceObject[]) => objects.map(encodeSource);
  const kinds = (words: readonly number[], epr = false) => checkOffers(words, epr).map(({ kind }) => kind);
  it('24 V among SPR levels', () => {
    const found = checkOffers(list(fixed(5, 3), fixed(24, 3)), false);
    expect(found).toEqual([
      expect.objectContaining({ kind: 'epr-place', grade: 'fault', sentence: expect.stringContaining('end at 20 V') }),
    ]);
  });
  it('more than 5 A, of adjustable ranges too', () => {
    expect(kinds(list(fixed(5, 3), fixed(20, 6)))).toContain('too-much');
    expect(kinds(list(fixed(5, 3), { kind: 'spr-avs', amps: 3, ampsAbove: 6, peak: 0, reserved: 0 }))).toContain(
      'too-much',
    );
  });
  it('AVS before the fixed EPR levels', () => {
    const avs: SourceObject = { kind: 'epr-avs', minVolts: 15, maxVolts: 36, watts: 180, peak: 0, reserved: 0 };
    const spr = list(fixed(5, 3), fixed(9, 3), fixed(15, 3), fixed(20, 5));
    const head = [...spr, 0, 0, 0];
    expect(kinds([...head, ...list(fixed(28, 5), fixed(36, 5), avs)], true)).not.toContain('type-order');
    expect(kinds([...head, ...list(fixed(28, 5), avs, fixed(36, 5))], true)).toContain('type-order');
  });
});

describe('an active cable', () => {
  // Type-C plug, 50 V, 5 A, EPR: bits 19:18 = 10, 17 = 1, 10:9 = 11, 6:5 = 10; bit 4 is VBUS through.
  const word = 0x000a0000 | 0x600 | 0x40;
  it('with VBUS through carries what it states', () => {
    expect(decodeCable(word | 0x10, 'active').rating).toEqual({ amps: 5, volts: 48, epr: true });
  });
  it('without carries no power, and its figures rate nothing', () => {
    expect(decodeCable(word, 'active').rating).toEqual({ amps: 0, volts: 0, epr: false });
    const identity = decodeIdentity([0xff00a041, 0x24000000, 0, 0, word]);
    expect(identity.cable?.kind).toBe('active');
    expect(identity.findings.map(({ kind }) => kind)).toEqual(['cable-no-power']);
  });
});

// Words put together bit by bit from the tables of the standard, by other means than the layouts.
describe('the reply of a marker', () => {
  const HEADER = 0xff00a041;
  const ACTIVE = 0x20000000;
  const sentences = (words: readonly number[]) => decodeIdentity(words).findings.map(({ sentence }) => sentence);
  const says = (words: readonly number[], title: string) =>
    decodeIdentity(words)
      .words.find((one) => one.title === title)
      ?.fields.map((field) => [field.title, field.says]);

  it('of an active cable counts its latency in microseconds, and has a second word', () => {
    const words = [HEADER, ACTIVE, 0, 0, 0x126b1e5b, 0x46554e5d];
    const identity = decodeIdentity(words);
    expect(identity.cable?.rating).toEqual({ amps: 5, volts: 48, epr: true });
    expect(says(words, 'Cable')).toContainEqual(['Latency', '1000 ns, about 100 m']);
    expect(says(words, 'Cable, second word')).toEqual([
      ['Highest operating temperature inside', '70 °C'],
      ['Shuts down at', '85 °C'],
      ['Reserved', 'zero, as it should be'],
      ['Draw asleep', '0.2 to 0.5 mW'],
      ['Wakes', 'through a state between'],
      ['Medium', 'optical'],
      ['Active element', 'retimer'],
      ['USB4', 'yes'],
      ['USB 2.0 hub hops used', '1'],
      ['USB 2.0', 'yes'],
      ['USB 3.2', 'no'],
      ['Lanes', 'two'],
      ['Optically isolated', 'yes'],
      ['USB4 asymmetric mode', 'no'],
      ['Generation', 'Gen 2 or higher'],
    ]);
    expect(sentences(words)).toEqual(['By its marker the cable works up to 70 °C inside and shuts down at 85 °C.']);
  });

  it('that shuts down before it is as warm as it may be contradicts itself', () => {
    const [found] = decodeIdentity([HEADER, ACTIVE, 0, 0, 0x126b1e5b, 0x5a500000]).findings;
    expect(found).toMatchObject({ kind: 'cable-heat', grade: 'fault' });
    expect(found?.sentence).toBe('It shuts down at 80 °C, below the 90 °C it says it works at.');
  });

  it('of an active cable is incomplete without its second word, unless its layout had none', () => {
    expect(sentences([HEADER, ACTIVE, 0, 0, 0x126b1e5b])).toEqual([
      'The second word of this active cable is missing: nobody knows how warm it may be.',
    ]);
    expect(sentences([HEADER, ACTIVE, 0, 0, 0x120b1e5b])).toEqual([]);
    // A passive cable has one word; what follows is padding.
    expect(sentences([HEADER, 0x18000000, 0, 0, 0x000a2640, 0])).toEqual([]);
    expect(decodeIdentity([HEADER, 0x18000000, 0, 0, 0x000a2640, 0]).words).toHaveLength(5);
  });

  it('in the layout of version 1.0 has a receptacle where later ones have EPR', () => {
    const words = [0xff008041, 0x18000000, 0, 0, 0x11024031];
    expect(decodeIdentity(words).cable).toMatchObject({ kind: 'old', rating: { amps: 3, volts: 20, epr: false } });
    expect(says(words, 'Cable')).toContainEqual(['Other end', 'Type-A']);
    expect(says(words, 'Cable')).toContainEqual(['Receptacle', 'yes']);
    expect(sentences(words)).toEqual(['A version 1.0 marker states no voltage; take 20 V.']);
  });

  it('of a powered device on the cable, or of a port itself, rates no cable', () => {
    const device = [HEADER, 0x30000000, 0, 0, 0x10004ca9];
    expect(decodeIdentity(device).cable).toBeNull();
    expect(says(device, 'Powered device')).toEqual(
      expect.arrayContaining([
        ['Highest VBUS voltage', '20 V'],
        ['Charge-through current', '5 A'],
        ['VBUS resistance', '50 mΩ'],
        ['Ground resistance', '20 mΩ'],
        ['Charges through', 'yes'],
      ]),
    );
    expect(sentences(device)).toEqual([
      'A powered device on the cable answered: it rates no cable. Take 3 A until the cable answers.',
    ]);
    // A charger that was asked for itself: a power supply upstream and a power brick downstream, both coded 3.
    const charger = [HEADER, 0x19800000, 0, 0, 0x000a2640];
    expect(decodeIdentity(charger).cable).toBeNull();
    expect(sentences(charger)).toEqual(["A port answered for itself, not the plug of a cable. Ask the plug (SOP')."]);
    expect(sentences(charger.slice(0, 4))).toEqual(sentences(charger));
  });
});
