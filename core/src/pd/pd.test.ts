import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  checkOffers,
  decodeCable,
  decodeIdentity,
  decodeRequest,
  decodeSource,
  describeOffer,
  encodeCable,
  encodeRequest,
  encodeSource,
  explain,
  explainHeader,
  parseOffer,
  readHex,
  requestKind,
  sourceLayout,
  wordOf,
  wordText,
} from './index.ts';

const word = fc.integer({ min: 0, max: 0xffffffff });
const offer = (text: string) => describeOffer(decodeSource(wordOf(text)));

describe('source objects', () => {
  it.each([
    ['0801912C', '5 V 3 A'],
    ['0002D12C', '9 V 3 A'],
    ['0004B12C', '15 V 3 A'],
    ['00064145', '20 V 3.25 A'],
    ['000641F4', '20 V 5 A'],
    ['0008C1F4', '28 V 5 A'],
    ['C0DC323C', 'PPS 5–11 V 3 A'],
    ['C1A42141', 'PPS 3.3–21 V 3.25 A'],
    ['D230968C', 'EPR AVS 15–28 V 140 W'],
    ['E004B0E1', 'SPR AVS 3 A to 15 V, 2.25 A to 20 V'],
    ['E004B145', 'SPR AVS 3 A to 15 V, 3.25 A to 20 V'],
    ['E004B000', 'SPR AVS 3 A to 15 V'],
    ['00000000', 'place holder'],
    ['F0000001', 'unknown type'],
  ])('%s is %s', (text, words) => expect(offer(text)).toBe(words));

  it('carry their flags', () => {
    expect(decodeSource(wordOf('0801912C'))).toMatchObject({ flags: ['unconstrained'], peak: 0 });
    expect(decodeSource(wordOf('2F91912C'))).toMatchObject({
      flags: ['dualRolePower', 'unconstrained', 'usbComms', 'dualRoleData', 'unchunked', 'eprCapable'],
      peak: 1,
    });
  });

  it('encode to exactly the word they came from, whatever the word', () => {
    fc.assert(
      fc.property(word, (value) => encodeSource(decodeSource(value)) === value),
      { numRuns: 2000 },
    );
  });

  it('are described by fields that cover every bit once', () => {
    fc.assert(
      fc.property(word, (value) => {
        const layout = sourceLayout(value);
        const bits = layout.flatMap(({ high, low }) => Array.from({ length: high - low + 1 }, (_, at) => low + at));
        expect([...bits].sort((a, b) => a - b)).toEqual(Array.from({ length: 32 }, (_, at) => at));
        expect(explain(layout, value)).toHaveLength(layout.length);
      }),
    );
  });

  it('refuse what no word can hold', () => {
    expect(() => decodeSource(-1)).toThrow(RangeError);
    expect(() => decodeSource(Number.NaN)).toThrow(RangeError);
    expect(() => wordOf('12')).toThrow(RangeError);
    const plain = { kind: 'fixed', peak: 0, flags: [], reserved: 0 } as const;
    expect(() => encodeSource({ ...plain, volts: 60, amps: 3 })).toThrow('Voltage does not fit');
    expect(() => encodeSource({ ...plain, volts: Number.NaN, amps: 3 })).toThrow('finite');
  });

  it('are read back from the words that describe them', () => {
    for (const text of ['00064145', 'C0DC323C', 'D230968C', 'E004B0E1', 'E004B000', '9902D0C8', '5902D0B4']) {
      const parsed = parseOffer(offer(text));
      expect(parsed.ok && wordText(encodeSource(parsed.object))).toBe(text);
    }
  });

  it.each([
    ['9V 3A', '9 V 3 A'],
    ['9 v 3000 mA', '9 V 3 A'],
    ['20 V, 2,25 A', '20 V 2.25 A'],
    ['pps 3.3-21V 3A', 'PPS 3.3–21 V 3 A'],
    ['AVS 15 to 28 V 140 W', 'EPR AVS 15–28 V 140 W'],
    ['3.3-11V 5A PPS', 'PPS 3.3–11 V 5 A'],
    ['PDO5: PPS1 5-11V 3A', 'PPS 5–11 V 3 A'],
    ['5-11V 3A APDO', 'PPS 5–11 V 3 A'],
    ['15-28V 140W APDO', 'EPR AVS 15–28 V 140 W'],
    ['AVS 9-20V 3A/2.25A', describeOffer({ kind: 'spr-avs', amps: 3, ampsAbove: 2.25, peak: 0, reserved: 0 })],
  ])('typed as %s mean %s', (typed, words) => {
    const parsed = parseOffer(typed);
    expect(parsed.ok && describeOffer(parsed.object)).toBe(words);
  });

  it.each([
    ['', 'Nothing typed'],
    ['9 V', 'amps are missing'],
    ['3 A', 'volts are missing'],
    ['PPS 3 A', 'Give the range'],
    ['5-9 V 3 A', 'say which'],
    ['AVS 15–28 V 5 A', 'by its power'],
    ['PPS 21–5 V 3 A', 'from the lower'],
    ['SPR AVS', 'has a current'],
  ])('typed as "%s" are refused with a reason', (typed, reason) => {
    expect(parseOffer(typed)).toMatchObject({ ok: false, reason: expect.stringContaining(reason) });
  });
});

describe('requests', () => {
  it('of the fixed kind', () => {
    expect(decodeRequest(wordOf('41051545'), 'fixed')).toMatchObject({
      position: 4,
      operating: 3.25,
      most: 3.25,
      flags: ['noSuspend'],
    });
  });
  it('of PPS and AVS ask for a voltage', () => {
    expect(decodeRequest(wordOf('6103843C'), 'pps')).toMatchObject({ position: 6, volts: 9, operating: 3 });
    expect(decodeRequest(wordOf('B148C064'), 'avs')).toMatchObject({
      position: 11,
      volts: 28,
      operating: 5,
      flags: ['noSuspend', 'epr'],
    });
  });
  it('take their layout from the object asked for', () => {
    expect(
      ['0801912C', 'C0DC323C', 'D230968C', 'E004B0E1', '5902D0B4'].map((text) =>
        requestKind(decodeSource(wordOf(text))),
      ),
    ).toEqual(['fixed', 'pps', 'avs', 'avs', 'battery']);
  });
  it('encode to exactly the word they came from', () => {
    fc.assert(
      fc.property(
        word,
        fc.constantFrom('fixed', 'battery', 'pps', 'avs'),
        (value, kind) => encodeRequest(decodeRequest(value, kind)) === value,
      ),
      { numRuns: 2000 },
    );
  });
});

describe('a cable marker', () => {
  it.each([
    ['000A2640', 5, 48, true],
    ['000A2643', 5, 48, true],
    ['00082020', 3, 20, false],
  ])('%s carries %d A at %d V', (text, amps, volts, epr) => {
    expect(decodeCable(wordOf(text)).rating).toEqual({ amps, volts, epr });
  });

  it('is not a 240 W cable unless 5 A, 50 V and EPR capable stand together', () => {
    expect(decodeCable(wordOf('000A2440')).rating).toEqual({ amps: 5, volts: 20, epr: false });
    expect(decodeIdentity([wordOf('000A2440')]).findings.map(({ kind }) => kind)).toContain('cable-epr');
  });

  const reply = ['FF00A041', '1C000000', '00000000', '00000000', '000A2640'].map(wordOf);
  it('is read from a whole reply', () => {
    const { cable, words, findings } = decodeIdentity(reply);
    expect(cable).toMatchObject({ kind: 'passive', rating: { amps: 5, epr: true } });
    expect(words.map(({ title }) => title)).toEqual([
      'Message',
      'Identity header',
      'Certification',
      'Product',
      'Cable',
    ]);
    expect(findings).toEqual([]);
  });

  it('that speaks version 1.0 states no voltage', () => {
    const { cable } = decodeIdentity([wordOf('FF008041'), ...reply.slice(1)]);
    expect(cable).toMatchObject({ kind: 'old', rating: { amps: 5, volts: 20, epr: false } });
  });

  it('that is active or no cable at all is told apart', () => {
    expect(decodeIdentity([...reply.slice(0, 1), wordOf('20000000'), ...reply.slice(2)]).cable?.kind).toBe('active');
    expect(decodeIdentity([...reply.slice(0, 1), 0, ...reply.slice(2)]).findings[0]?.kind).toBe('not-cable');
    expect(decodeIdentity([wordOf('FF00A081')]).findings).toHaveLength(2);
    expect(decodeIdentity([wordOf('FF00A081'), 0]).findings[0]?.sentence).toContain('refused');
  });

  it('encodes to exactly the word it came from', () => {
    fc.assert(
      fc.property(
        word,
        fc.constantFrom('passive', 'active', 'old'),
        (value, kind) => encodeCable(decodeCable(value, kind)) === value,
      ),
    );
  });
});

describe('messages', () => {
  const five = '51A1 0801912C 0002D12C 0004B12C 00064145 C1A42141';
  it('have headers that say what they are', () => {
    const says = (header: number) =>
      Object.fromEntries(explainHeader(header).map(({ title, says: words }) => [title, words]));
    expect(says(0x51a1)).toMatchObject({
      'Number of data objects': '5',
      Revision: '3.x',
      'Data role': 'downstream (DFP)',
    });
    expect(says(0xf1b1)).toMatchObject({ 'Extended message': 'yes', 'Message type': '17' });
  });

  it('are read as numbers and as they travel', () => {
    const byValue = readHex(five, 'value');
    expect(byValue).toMatchObject({ form: 'messages', messages: [{ kind: 'offers', revision: '3.x' }], findings: [] });
    expect(byValue.words.map(wordText)).toEqual(five.split(' ').slice(1));
    const wire = 'A1 51 2C 91 01 08 2C D1 02 00 2C B1 04 00 45 41 06 00 41 21 A4 C1';
    expect(readHex(wire, 'wire').words).toEqual(byValue.words);
    expect(readHex(wire.replaceAll(' ', ''), 'wire').words).toEqual(byValue.words);
  });

  it('with a request and the object it copies', () => {
    const { messages } = readHex('2089 B148C064 D230968C', 'value');
    expect(messages[0]).toMatchObject({ kind: 'epr-request', words: [wordOf('B148C064'), wordOf('D230968C')] });
  });

  /** An EPR list as a source sends it: chunks of 26 bytes, each with its headers, padded to whole objects. */
  const eprWords = [
    '0981912C',
    '0002D12C',
    '0004B12C',
    '000641F4',
    'C1A42164',
    '00000000',
    '00000000',
    '0008C1F4',
    'D230968C',
  ].map(wordOf);
  const chunks = (padded: boolean): string[] => {
    const bytes = eprWords.flatMap((value) => [0, 1, 2, 3].map((at) => Math.floor(value / 256 ** at) % 256));
    return Array.from({ length: Math.ceil(bytes.length / 26) }, (_, chunk) => {
      const data = bytes.slice(chunk * 26, chunk * 26 + 26);
      const count = Math.ceil((data.length + 2) / 4);
      const header = 0x8000 + count * 0x1000 + 0x01b1;
      const extended = 0x8000 + chunk * 0x800 + bytes.length;
      const all = [header % 256, header >> 8, extended % 256, extended >> 8, ...data];
      while (padded && (all.length - 2) % 4 !== 0) all.push(0);
      return all.map((byte) => byte.toString(16).padStart(2, '0')).join(' ');
    });
  };

  it.each([
    ['padded, a line a chunk', chunks(true).join('\n')],
    ['padded, in one run', chunks(true).join(' ')],
    ['without padding, a line a chunk', chunks(false).join('\n')],
    ['out of order', [chunks(true)[0], chunks(true)[1]].join('\n')],
  ])('in chunks are put together again: %s', (_name, text) => {
    const read = readHex(text, 'wire');
    expect(read.findings).toEqual([]);
    expect(read.messages).toHaveLength(1);
    expect(read.messages[0]).toMatchObject({ kind: 'epr-offers', words: eprWords });
    expect(checkOffers(read.words, true)).toEqual([]);
  });

  it('with a chunk missing say so and keep what came before', () => {
    const read = readHex(chunks(true)[0] ?? '', 'wire');
    expect(read.findings[0]?.sentence).toBe('Chunk 2 of 2 is missing; what follows it is left out.');
    expect(read.words).toEqual(eprWords.slice(0, 6));
  });

  it('cut short say so', () => {
    expect(readHex('51A1 0801912C', 'value').findings[0]?.sentence).toContain('ends early');
    expect(readHex('2C 91 01', 'wire').findings[0]?.sentence).toContain('no whole word');
  });
});

describe('text with words', () => {
  it.each([
    '0801912C 00064145',
    '0x0801912C, 0x00064145',
    '1: 0801912c\n2: 00064145',
    'PDO1 = 0801912Ch; PDO2 = 00064145h',
    '[0801912C][00064145]',
    '08 01 91 2C 00 06 41 45',
    '0801912C00064145',
  ])('%s', (text) => {
    expect(readHex(text, 'value')).toMatchObject({ form: 'words', words: [0x0801912c, 0x00064145], findings: [] });
  });

  it.each([
    ['2C:91:01:08', 'wire'],
    ['1: 0801912C', 'value'],
    ['[1] 0801912C', 'value'],
    ['PDO 1 = 0801912C', 'value'],
    ['word[3]=0801912C', 'value'],
    ['2) 0x0801912C', 'value'],
    ['(1): 0801912Ch', 'value'],
  ] as const)('passes over labels and separators: %s', (text, order) => {
    expect(readHex(text, order).words.map(wordText)).toEqual(['0801912C']);
  });

  it('complains about what is not hexadecimal, naming it', () => {
    const { words, findings } = readHex('0801912C 08O1912C 123', 'value');
    expect(words).toEqual([0x0801912c]);
    expect(findings.map(({ sentence }) => sentence)).toEqual([
      '"08O1912C" is not hexadecimal.',
      '"123" has an odd number of digits.',
    ]);
  });

  it('of any length is read: 100 000 words give their findings', () => {
    let state = 7;
    const words = Array.from({ length: 100_000 }, () => {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      return state;
    });
    const read = readHex(words.map(wordText).join('\n'), 'value');
    expect(read.words).toEqual(words);
    expect(checkOffers(words, false).length).toBeGreaterThan(1000);
    expect(readHex(words.map(wordText).join(''), 'value').words).toEqual(words);
    expect(readHex('nonsense '.repeat(50_000), 'value').findings.at(-1)?.sentence).toContain(
      'more that could not be read',
    );
  }, 30_000);

  it('is empty when empty, and any text gives findings, never an exception', () => {
    expect(readHex('', 'value')).toEqual({ form: 'words', words: [], messages: [], findings: [] });
    const anyText = fc.oneof(
      fc.string(),
      fc.uint8Array({ maxLength: 80 }).map((bytes) => Buffer.from(bytes).toString('hex')),
    );
    fc.assert(
      fc.property(anyText, fc.constantFrom('value', 'wire'), (text, order) => {
        const { words, messages } = readHex(text, order);
        for (const epr of [false, true]) checkOffers(words, epr);
        decodeIdentity(words);
        return (
          words.every((value) => Number.isInteger(value) && value >= 0 && value <= 0xffffffff) && messages.length >= 0
        );
      }),
      { numRuns: 1000 },
    );
  });
});
