// What a source says of itself beside its offers. The words and blocks here were put together by another program.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  checkExtended,
  checkInfo,
  decodeExtended,
  decodeInfo,
  encodeInfo,
  explainExtended,
  infoInWords,
} from './index.ts';

const bytes = (digits: string): number[] => (digits.match(/../g) ?? []).map((byte) => Number.parseInt(byte, 16));
/** Before EPR: 24 bytes, 65 W. */
const SPR = bytes('00FF02010C0B0A000703050C03064AA60000000001032141');
/** With EPR: 25 bytes, 100 W and 140 W. */
const EPR = bytes('00FF02010C0B0A000703050C03064AA600000000010321648C');

describe('source info', () => {
  it('has whole watts of the port, and whether they are its own', () => {
    expect(decodeInfo(0x00412d2d)).toEqual({ guaranteed: false, maximum: 65, present: 45, reported: 45 });
    expect(decodeInfo(0x808c8c64)).toEqual({ guaranteed: true, maximum: 140, present: 140, reported: 100 });
    expect(() => decodeInfo(-1)).toThrow(RangeError);
    expect(() => encodeInfo({ guaranteed: true, maximum: 256, present: 1, reported: 1 })).toThrow(RangeError);
  });

  it('comes back from its words, whatever they are', () => {
    fc.assert(
      fc.property(fc.boolean(), fc.nat(255), fc.nat(255), fc.nat(255), (guaranteed, maximum, present, reported) => {
        const info = { guaranteed, maximum, present, reported };
        expect(decodeInfo(encodeInfo(info))).toEqual(info);
      }),
    );
  });

  it.each<[number, readonly string[]]>([
    [0x00412d2d, []],
    [0x80414141, []],
    [0x01414141, ['The source info has reserved bits set.']],
    [0x00000000, ['The source info states no maximum power.']],
    [0x00416464, ['The source states 100 W at present; the port is built for 65 W.']],
    [0x00412d41, ['The source says it advertises 65 W; it has 45 W at present.']],
    [0x80412d2d, ['The port is guaranteed, and has 45 W at present of the 65 W it is built for.']],
  ])('%s is sound, or says what contradicts', (word, sentences) => {
    expect(checkInfo(word).map(({ sentence }) => sentence)).toEqual(sentences);
  });

  it.each<[string, number | null]>([
    ['Port Type: Managed, Port Maximum PDP: 65 W, Port Present PDP: 45 W, Port Reported PDP: 45 W', 0x00412d2d],
    ['port_maximum_pdp=140\nport_present_pdp=140\nport_reported_pdp=100\nport_type=guaranteed', 0x808c8c64],
    ['max 65, present 45, reported 45', 0x00412d2d],
    ['Guaranteed; Max PDP 65W; Present PDP 65W; Reported PDP 65W', 0x80414141],
    // One that is not named, no whole watts, more than fits, and what is no power.
    ['Port Maximum PDP: 65 W, Port Present PDP: 45 W', null],
    ['max 65.5, present 45, reported 45', null],
    ['max 300, present 45, reported 45', null],
    ['max 5 A, present 20 V, reported 3 A', null],
    ['', null],
  ])('in words: %s', (text, word) => {
    expect(infoInWords(text)).toBe(word);
  });
});

describe('extended source capabilities', () => {
  it('have the powers the source rates itself', () => {
    expect(decodeExtended(SPR)).toEqual({ sprWatts: 65, eprWatts: null });
    expect(decodeExtended(EPR)).toEqual({ sprWatts: 100, eprWatts: 140 });
    expect(decodeExtended([])).toEqual({ sprWatts: null, eprWatts: null });
  });

  it('are told field by field', () => {
    const said = Object.fromEntries(explainExtended(EPR).map(({ title, says }) => [title, says]));
    expect(said).toEqual({
      Vendor: '0xFF00',
      Product: '0x0102',
      Certificate: '0x000A0B0C',
      'Firmware version': '7',
      'Hardware version': '3',
      'Voltage regulation': 'load steps of 90 % at 500 mA/µs',
      'Hold-up': '12 ms',
      'Limited power': 'limited power source, PS1',
      'Touch current': 'has a ground pin, ground pin is protective earth',
      'Peak current 1': '100 % over for 1000 ms, 20 % of the time; the voltage may droop',
      'Peak current 2': 'none',
      'Peak current 3': 'none',
      'Touch temperature': 'IEC 62368-1 TS1',
      'Fed by': 'an outside supply, unconstrained',
      Batteries: '1 fixed, 2 slots',
      'SPR power rating': '100 W',
      'EPR power rating': '140 W',
    });
    expect(
      explainExtended(EPR)
        .map(({ bits }) => bits)
        .slice(0, 4),
    ).toEqual(['bytes 0–1', 'bytes 2–3', 'bytes 4–7', 'byte 8']);
    // Sources of before have no byte for it.
    expect(explainExtended(SPR).at(-1)?.title).toBe('SPR power rating');
  });

  const changed = (at: number, value: number) => EPR.map((byte, index) => (index === at ? value : byte));
  it.each<[string, readonly number[], readonly string[]]>([
    ['24 bytes', SPR, []],
    ['25 bytes', EPR, []],
    ['no block', [], []],
    ['23 bytes, as once', SPR.slice(0, 23), []],
    ['one cut short', SPR.slice(0, 12), ['The extended capabilities end after 12 bytes; there are 25, 23 at least.']],
    [
      'one of a later revision',
      [...EPR, 1, 2],
      ['2 bytes beyond the 25 known ones of the extended capabilities are passed over.'],
    ],
    ['reserved bits', changed(12, 0x80), ['Limited power in the extended capabilities has reserved bits set.']],
    ['too much without EPR', changed(23, 140), ['The SPR power rating is 140 W; without EPR there are at most 100 W.']],
    ['EPR of 60 W', changed(24, 60), ['The EPR power rating is 60 W; EPR goes from 101 to 240 W.']],
  ])('%s', (_what, block, sentences) => {
    expect(checkExtended(block).map(({ sentence }) => sentence)).toEqual(sentences);
  });

  it('never fail, whatever the bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 40 }), (array) => {
        const block = [...array];
        for (const { says } of explainExtended(block)) expect(says).not.toMatch(/NaN|undefined/);
        expect(Array.isArray(checkExtended(block))).toBe(true);
      }),
    );
  });
});
