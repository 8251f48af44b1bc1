import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeSource, describeOffer, type Sees, wordText } from '../pd/index.ts';
import { aReadOut } from '../testing/read-out.ts';
import {
  bestReadOut,
  compareReadOuts,
  currentReadOuts,
  interpret,
  type Marker,
  offersOf,
  type ReadOutContext,
  readList,
  readOutFindings,
} from './index.ts';

const FULL = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A'];
const context = (part: Partial<ReadOutContext> = {}): ReadOutContext => ({
  ports: [{ label: 'C1', twin: null }],
  claims: [],
  seesOf: () => null,
  ...part,
});
const line = (port: string, volts: number, amps: number) => ({
  promise: { kind: 'port-line' as const, port, volts, amps },
});
const sees = (...supplies: Sees['supplies'][number][]): Sees => ({ supplies, signals: [] });
const said = (text: string) =>
  interpret(text, 'value', 'offers').offers.map((word) => describeOffer(decodeSource(word)));

describe('what people paste', () => {
  it.each<[string, string, string]>([
    ['bare words', '0801912C 0002D12C', 'words'],
    ['words with anything between', '[1] 0x0801912C; 2: 0002D12Ch', 'words'],
    ['a message with its header', '21A1 0801912C 0002D12C', 'messages'],
    ['lines in words', '5 V 3 A\n9 V 3 A', 'lines'],
    ['a label’s way of writing', '5V 3A / 9V 3A', 'lines'],
    ['a CSV list', 'kind,volts,amps\nfixed,5,3\nfixed,9,3', 'list'],
    ['a CSV list with decimal commas', 'kind;volts;amps\nfixed;5,0;3,0\nfixed;9,0;3,0', 'list'],
    ['a JSON list', '[{"kind":"fixed","volts":5,"amps":3},{"kind":"fixed","volts":9,"amps":3}]', 'list'],
    ['the open form', JSON.stringify(aReadOut(['5 V 3 A', '9 V 3 A'])), 'open form'],
  ])('%s says 5 V and 9 V', (_what, text, form) => {
    expect(interpret(text, 'value', 'offers').form).toBe(form);
    expect(said(text)).toEqual(['5 V 3 A', '9 V 3 A']);
  });

  it.each<[string, readonly string[]]>([
    ['Fixed: 5V@3A, 9V@3A, 20V@3.25A', ['5 V 3 A', '9 V 3 A', '20 V 3.25 A']],
    ['5V/3A, 9V/2.77A / 12V/2A', ['5 V 3 A', '9 V 2.77 A', '12 V 2 A']],
    ['5V 3A | 9V 3A | PPS 3.3V-21V 3.25A', ['5 V 3 A', '9 V 3 A', 'PPS 3.3–21 V 3.25 A']],
    [
      '5V 3A; 9V 2,77A; PPS 3,3-11V 3A; EPR AVS 15-28V 140W',
      ['5 V 3 A', '9 V 2.77 A', 'PPS 3.3–11 V 3 A', ...Array(4).fill('place holder'), 'EPR AVS 15–28 V 140 W'],
    ],
    ['5V3A 9V3A 20V3.25A PPS 3.3-21V3.25A', ['5 V 3 A', '9 V 3 A', '20 V 3.25 A', 'PPS 3.3–21 V 3.25 A']],
    ['(1) 5V/3A (2) 9V/3A [3] 20V/3.25A', ['5 V 3 A', '9 V 3 A', '20 V 3.25 A']],
    ['5V 3A 9V 3A', ['5 V 3 A', '9 V 3 A']],
    ['SPR AVS 3 A / 2.25 A', ['SPR AVS 3 A to 15 V, 2.25 A to 20 V']],
    ['SPR AVS 9-15V 3A, 15-20V 2.25A', ['SPR AVS 3 A to 15 V, 2.25 A to 20 V']],
    ['SPR AVS 9.0–20.0 V 5 A', ['SPR AVS 5 A to 15 V, 5 A to 20 V']],
    ['SPR AVS 9–15 V 3 A', ['SPR AVS 3 A to 15 V']],
    ['5.0V3.0A 9.0V2.2A', ['5 V 3 A', '9 V 2.2 A']],
    ['20V 3.25A 65W max; PPS1: 3.3~11V 5A; PPS2: 3.3~21V 3A', ['20 V 3.25 A', 'PPS 3.3–11 V 5 A', 'PPS 3.3–21 V 3 A']],
    ['1) Fixed Supply, 5000mV, 3000mA\n2) APDO PPS 3300mV - 11000mV, 3000mA', ['5 V 3 A', 'PPS 3.3–11 V 3 A']],
    ['[1] Fixed: 5 V @ 3 A (15 W)\n[2] Programmable 3.3 V to 16 V at 3 A', ['5 V 3 A', 'PPS 3.3–16 V 3 A']],
  ])('in one line is taken apart: %s', (text, offers) => {
    expect(interpret(text, 'value', 'offers')).toMatchObject({ form: 'lines', findings: [] });
    expect(said(text)).toEqual(offers);
  });

  it('of which two cannot be told apart is refused, not cut to the first', () => {
    const read = interpret('5 V and 9 V at 3 A', 'value', 'offers');
    expect(read.offers).toEqual([]);
    expect(read.findings[0]?.sentence).toBe('Line 1: That is more than one offer: give each a line of its own.');
  });

  it.each([
    ['2C910108 2CD10200', 'value'],
    ['A1 21 2C 91 01 08 2C D1 02 00', 'value'],
    ['0801912C 0002D12C', 'wire'],
  ] as const)('in the other order of digits is told: %s', (text, order) => {
    expect(interpret(text, order, 'offers').findings).toContainEqual({
      kind: 'byte-order',
      grade: 'fault',
      sentence: 'In the other order of digits it begins with 5 V 3 A, 9 V 3 A: choose that order.',
      positions: [],
    });
    const other = order === 'wire' ? 'value' : 'wire';
    expect(interpret(text, other, 'offers').findings).toEqual([]);
  });

  it('as bytes on the wire reads the same', () => {
    expect(interpret('2C 91 01 08', 'wire', 'offers').offers.map(wordText)).toEqual(['0801912C']);
  });

  it('a request finds the offer it names', () => {
    const known = [0x0801912c, 0x0002d12c, 0x0004b12c, 0x00064145];
    const [request] = interpret('41051545', 'value', 'request', known).requests;
    expect(request).toMatchObject({ kind: 'fixed', offer: 0x00064145 });
  });

  it('in lists every kind of offer has its columns', () => {
    const rows = [
      'kind,min_volts,max_volts,amps,watts,amps_above',
      'pps,3.3,21,3.25,,',
      'epr-avs,15,28,,140,',
      'spr-avs,,,3,,2.25',
      'variable,5,12,2,,',
      'battery,5,20,,60,',
    ];
    expect(readList(rows.join('\n')).words.map((word) => describeOffer(decodeSource(word)))).toEqual([
      'PPS 3.3–21 V 3.25 A',
      'EPR AVS 15–28 V 140 W',
      'SPR AVS 3 A to 15 V, 2.25 A to 20 V',
      'variable 5–12 V 2 A',
      'battery 5–20 V 60 W',
    ]);
  });

  it.each<[string, string, readonly string[]]>([
    [
      'a table that counts, in thousandths',
      '#,Type,Voltage (mV),Current (mA)\n1,Fixed,5000,3000\n2,Fixed,9000,2220',
      ['5 V 3 A', '9 V 2.22 A'],
    ],
    [
      'ends of ranges in columns',
      'Index;Type;Min V;Max V;Max A;PDP W\n1;Fixed;5;5;3;\n2;PPS;3,3;11;3;-\n3;AVS;15;28;;140\n4;AVS;9;20;5;',
      ['5 V 3 A', 'PPS 3.3–11 V 3 A', 'EPR AVS 15–28 V 140 W', 'SPR AVS 5 A to 15 V, 5 A to 20 V'],
    ],
    [
      'ranges in one cell, and watts nobody needs',
      'Type,Voltage,Current,Power\nFixed,9,3,27\nPPS,3.3-11,3,33',
      ['9 V 3 A', 'PPS 3.3–11 V 3 A'],
    ],
    ['raw words', 'No.,Raw value,Meaning\n1,0x0801912C,5 V\n2,0x0002D12C,9 V', ['5 V 3 A', '9 V 3 A']],
    [
      'JSON of another program',
      '{"port":1,"pdos":[{"type":"fixed","voltage_mv":5000,"max_current_ma":3000},{"type":"pps","min_voltage_mv":3300,"max_voltage_mv":11000,"max_current_ma":3000}]}',
      ['5 V 3 A', 'PPS 3.3–11 V 3 A'],
    ],
  ])('in lists of other programs: %s', (_what, text, offers) => {
    expect(interpret(text, 'value', 'offers')).toMatchObject({ form: 'list', findings: [] });
    expect(said(text)).toEqual(offers);
  });

  it('with words marked as such needs nothing of what stands around them', () => {
    const text = 'Source Capabilities\n  Object 1: 0x0801912C (5V/3A)\n  Object 2: 0x0002D12C (9V/3A)';
    expect(interpret(text, 'value', 'offers')).toMatchObject({ form: 'words', findings: [] });
    expect(said(text)).toEqual(['5 V 3 A', '9 V 3 A']);
  });

  it('in lists may carry units, be words with 0x before them, or plain numbers', () => {
    const words = (text: string) => readList(text).words.map((word) => describeOffer(decodeSource(word)));
    expect(words('kind;volts;amps\nfixed;9 V;2770 mA\nfixed;"15,0 V";"3,0 A"')).toEqual(['9 V 2.77 A', '15 V 3 A']);
    expect(words('{"words":["0x0002D12C",184620,"0004B12C"]}')).toEqual(['9 V 3 A', '9 V 3 A', '15 V 3 A']);
  });

  it('that is wrong is told by its line', () => {
    expect(
      readList('kind,volts,amps\nfixed,5,3\nplasma,9,3\nfixed,500,3').findings.map(({ sentence }) => sentence),
    ).toEqual([expect.stringContaining('Line 3: "plasma" is no kind of offer'), expect.stringContaining('Line 4')]);
    expect(readList('{"words":').findings[0]?.sentence).toBe('This is not sound JSON.');
    const two = readList('{"readOuts":[{"port":"C1","words":[]},{"port":"C2","words":[]}]}');
    expect(two.findings[0]?.sentence).toContain('2 read-outs are in this text');
    expect(two.several.map(({ port }) => port)).toEqual(['C1', 'C2']);
  });

  it('whatever it is, gives findings and never an exception', () => {
    const texts = fc.oneof(
      fc.string(),
      fc.json(),
      fc.string({ unit: fc.constantFrom(...'0123456789ABCDEF ,;:\n[]{}"VA.') }),
    );
    fc.assert(
      fc.property(
        texts,
        fc.constantFrom('value' as const, 'wire' as const),
        fc.constantFrom('offers' as const, 'request' as const, 'identity' as const),
        (text, byteOrder, are) => {
          const { offers, findings } = interpret(text, byteOrder, are);
          expect(offers.every((word) => Number.isInteger(word) && word >= 0 && word <= 0xffffffff)).toBe(true);
          expect(findings.every(({ sentence }) => sentence.length > 0)).toBe(true);
        },
      ),
      { numRuns: 400 },
    );
  });
});

describe('read-outs that stand', () => {
  it('are neither corrected nor withdrawn', () => {
    const first = aReadOut(FULL);
    const better = aReadOut(FULL, { supersedes: first.id });
    const gone = aReadOut(FULL);
    const back = aReadOut([], { supersedes: gone.id, withdrawn: true });
    expect(currentReadOuts([first, better, gone, back]).map(({ id }) => id)).toEqual([better.id]);
  });

  it('show a port best alone, over the ablest cable, by the analyser that saw most', () => {
    const shared = aReadOut(['5 V 3 A'], { occupied: ['C2'] });
    const poor = aReadOut(FULL, { marker: '3 A' });
    const blind = aReadOut([...FULL, '–']);
    const full = aReadOut([...FULL, 'SPR AVS 3 A / 3.25 A']);
    expect(bestReadOut([full, shared, poor, blind], 'C1')?.id).toBe(full.id);
    expect(bestReadOut([], 'C1')).toBeUndefined();
  });

  it('keep positions past place holders', () => {
    expect(offersOf(aReadOut(['5 V 3 A', '–', '28 V 5 A'])).map(({ position }) => position)).toEqual([1, 3]);
  });
});

describe('two read-outs side by side', () => {
  it('tell what changed and with what', () => {
    const alone = aReadOut(FULL);
    const shared = aReadOut([...FULL.slice(0, 3), '20 V 2.25 A'], { occupied: ['C2'] });
    const { offers, conditions, sameOffers } = compareReadOuts(alone, shared);
    expect(sameOffers).toBe(false);
    expect(offers.filter(({ same }) => !same)).toHaveLength(1);
    expect(conditions).toEqual([{ name: 'occupied', a: 'alone', b: 'with C2 in use' }]);
  });

  it('count a temperature or a time only when they differ enough, and a missing note explains nothing', () => {
    const at = (temperature: number | null, elapsed: number | null) => aReadOut(FULL, { temperature, elapsed });
    expect(compareReadOuts(at(297, 10), at(299, 40)).conditions).toEqual([]);
    expect(compareReadOuts(at(297, 10), at(340, 900)).conditions.map(({ name }) => name)).toEqual([
      'temperature',
      'elapsed',
    ]);
    expect(compareReadOuts(at(null, 10), at(340, null)).conditions).toEqual([]);
  });

  it('leave out what one analyser cannot see', () => {
    const both = [aReadOut([...FULL, 'SPR AVS 3 A / 3.25 A']), aReadOut(FULL)] as const;
    expect(compareReadOuts(...both).sameOffers).toBe(false);
    expect(compareReadOuts(...both, ['spr-avs']).sameOffers).toBe(true);
  });
});

describe('findings of a sample', () => {
  const found = (part: Parameters<typeof readOutFindings>[0], more: Partial<ReadOutContext> = {}) =>
    readOutFindings(part, context(more));
  const kindsOf = (...args: Parameters<typeof found>) => found(...args).map(({ kind }) => kind);

  it('a label that promises what is not offered, and the reverse', () => {
    const claims = [line('C1', 20, 3.25), line('C1', 12, 3)];
    const kinds = kindsOf([aReadOut(FULL)], { claims });
    expect(kinds).toContain('label-lacks');
    expect(found([aReadOut(FULL)], { claims }).find(({ kind }) => kind === 'not-on-label')?.sentence).toBe(
      'Offered and not on the label: 5 V 3 A, 9 V 3 A, 15 V 3 A.',
    );
    expect(kindsOf([aReadOut([...FULL.slice(0, 3), '20 V 2 A'])], { claims: [line('C1', 20, 3.25)] })).toContain(
      'label-less',
    );
  });

  it('a promise above 3 A is not held against a read-out without a 5 A cable', () => {
    const held = aReadOut([...FULL.slice(0, 3), '20 V 3 A'], { marker: '3 A' });
    expect(kindsOf([held], { claims: [line('C1', 20, 5)] })).not.toContain('label-less');
  });

  it('a marker that is noted as another than its reply tells', () => {
    const noted = (marker: Marker, ...cableWords: string[]) =>
      found([aReadOut(FULL, { marker, cableWords })]).find(({ kind }) => kind === 'marker-noted')?.sentence;
    expect(noted('5 A', '00082020')).toBe(
      'The cable marker is noted as 5 A; its reply says 3 A. Correct the read-out.',
    );
    expect(noted('none', '000A2640')).toContain('noted as none; its reply says 5 A EPR');
    for (const [marker, ...words] of [['3 A', '00082020'], ['captive', '00082020'], ['5 A']] as const)
      expect(noted(marker, ...words), marker).toBeUndefined();
  });

  it('an offer that changes with one condition is put down to it', () => {
    const alone = aReadOut(FULL);
    const shared = aReadOut([...FULL.slice(0, 3), '20 V 1.5 A'], { occupied: ['C2'] });
    const change = found([alone, shared]).find(({ kind }) => kind === 'changes-occupied');
    expect(change?.sentence).toBe('alone → with C2 in use: 20 V 3.25 A becomes 20 V 1.5 A.');
    expect(kindsOf([aReadOut(FULL), aReadOut(FULL.slice(0, 3))])).toContain('changes-unexplained');
  });

  it('an analyser that cannot see a kind explains its absence', () => {
    const seesOf = (id: string) => (id === 'old' ? sees('fixed', 'pps') : null);
    const pair = [
      aReadOut([...FULL, 'SPR AVS 3 A / 3.25 A']),
      aReadOut(FULL, { instrumentId: 'old', askedWith: '3.0' }),
    ];
    expect(kindsOf(pair, { seesOf })).not.toContain('changes-askedWith');
    expect(kindsOf(pair)).toContain('changes-askedWith');
  });

  it('ports that should be alike but are not', () => {
    const ports = [
      { label: 'C1', twin: null },
      { label: 'C2', twin: 'C1' },
    ];
    const other = aReadOut([...FULL.slice(0, 3), '20 V 1.5 A'], { port: 'C2' });
    expect(found([aReadOut(FULL), other], { ports }).find(({ kind }) => kind === 'twins-differ')?.sentence).toBe(
      'C2 should be like C1, but has 20 V 1.5 A instead of 20 V 3.25 A.',
    );
  });

  it('a level that is advertised but unreachable, with its reason', () => {
    const refused = aReadOut(FULL, { unreachable: [{ position: 3, reason: 'Every request is refused.' }] });
    expect(found([refused]).find(({ kind }) => kind === 'unreachable')?.sentence).toBe(
      '15 V 3 A is advertised but unreachable: Every request is refused.',
    );
  });
});
