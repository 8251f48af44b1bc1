import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LOAD_POINTS } from '../efficiency/index.ts';
import { REGULATORY_PAIR } from '../reading/index.ts';
import {
  type FileContext,
  type FilePlan,
  guessColumn,
  headerKey,
  MeterFileReader,
  planProblems,
  readMeterFile,
  slicesOf,
  sniffFile,
} from './index.ts';

const context: FileContext = {
  outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
  mains: REGULATORY_PAIR,
  wholeFileMains: null,
  loads: LOAD_POINTS,
};
const plan = (text: string): FilePlan => {
  const found = sniffFile(text, ['C1']);
  if ('reason' in found) throw new Error(found.reason);
  return found;
};
const read = (text: string, over: Partial<FileContext> = {}) =>
  readMeterFile(text, plan(text), { ...context, ...over });

const semicolon = [
  'Power log;;;;',
  '',
  'Load [%];Vin [V];P_in (mW);Vout / V;Iout [mA]',
  '100;115,1;50120;20,02;2250',
  '100;115,0;50140;20,03;2251',
  '75;115,0;37500;20,05;1687',
  '0;115,0;48;5,1;0',
].join('\r\n');

describe('recognising a file', () => {
  it('finds delimiter, decimal sign, header below a preamble, and columns', () => {
    expect(plan(semicolon)).toEqual({
      delimiter: ';',
      decimal: ',',
      headerLine: 3,
      columns: [
        { name: 'Load', role: 'load', unit: '%', port: null },
        { name: 'Vin', role: 'mains-volts', unit: 'V', port: null },
        { name: 'P_in', role: 'input-watts', unit: 'mW', port: null },
        { name: 'Vout', role: 'output-volts', unit: 'V', port: 'C1' },
        { name: 'Iout', role: 'output-amps', unit: 'mA', port: 'C1' },
      ],
    });
  });

  it.each([
    ['load,pin [W],vout [V],iout [A]\n100,50.1,20,2.25\n', ',', '.'],
    ['load\tpin [W]\tvout [V]\tiout [A]\n100\t50,1\t20\t2,25\n', '\t', ','],
    ['load;pin [W];vout [V];iout [A]\n100;50.1;20;2.25\n', ';', '.'],
  ])('%j', (text, delimiter, decimal) => expect(plan(text)).toMatchObject({ delimiter, decimal }));

  it('ties a column to the port it names', () => {
    expect(guessColumn('C2 Vout [V]', ['C1', 'C2'])).toMatchObject({ role: 'output-volts', port: 'C2' });
    expect(guessColumn('Vout_C2 [mV]', ['C1', 'C2'])).toMatchObject({ role: 'output-volts', port: 'C2', unit: 'mV' });
    expect(guessColumn('Vout [V]', ['C1', 'C2'])).toMatchObject({ port: 'C1' });
  });

  it('does not guess what it cannot know', () => {
    expect(guessColumn('Comment', ['C1']).role).toBe('ignore');
    expect(guessColumn('Vin [bananas]', ['C1']).role).toBe('ignore');
  });

  it.each([
    ['', 'empty'],
    ['hello\nworld\n', 'No table found'],
    ['1;2;3\n4;5;6\n', 'No header line'],
  ])('says why %j is no table', (text, reason) => {
    expect(sniffFile(text, [])).toMatchObject({ reason: expect.stringContaining(reason) });
  });

  it('remembers a mapping by the header', () => {
    expect(headerKey([{ name: ' Vin ' }, { name: 'P_in' }])).toBe('vin|p_in');
  });
});

describe('reading a file', () => {
  it('makes one point of the lines at one load and mains, in SI, V·I per line', () => {
    const { points, goodLines, badLines } = read(semicolon);
    expect(goodLines).toBe(4);
    expect(badLines).toEqual([]);
    expect(points.map((point) => [point.load, point.lines, point.firstLine, point.lastLine])).toEqual([
      [1, 2, 4, 5],
      [0.75, 1, 6, 6],
      [0, 1, 7, 7],
    ]);
    const value = (role: string) => points[0]?.values.find((candidate) => candidate.role === role);
    expect(value('input-watts')).toMatchObject({ mean: expect.closeTo(50.13, 9), count: 2 });
    expect(value('output-watts')?.mean).toBeCloseTo((20.02 * 2.25 + 20.03 * 2.251) / 2, 9);
    expect(points[1]?.values.map((one) => one.role)).not.toContain('output-watts');
    expect(points[2]?.values.map((one) => one.role)).toEqual(['input-watts']);
  });

  it('lists every bad line with its number and reason and keeps the others', () => {
    const text = [
      'Load [%],Vin [V],Pin [W],PF,Vout [V],Iout [A]',
      '100,230,50.1,0.95,20,2.25',
      '75,230,overload,0.95,20,1.69',
      '50,230,25.3',
      '50,230,,0.9,20,1.125',
      '60,230,30,0.9,20,1.35',
      '50,180,25.3,0.9,20,1.125',
      '50,230,20.3,0.9,20,1.125',
      '50,230,25.3,1.4,20,1.125',
      '50,230,25.3,0.9,-20,1.125',
      '25,230,12.9,0.8,20,0.5625',
    ].join('\n');
    const { badLines, goodLines } = read(text);
    expect(goodLines).toBe(2);
    expect(badLines.map(({ line, reason }) => `${line}: ${reason}`)).toEqual([
      '3: Pin is out of the meter’s range (overload).',
      '4: 3 values where the header has 6.',
      '5: Pin is empty.',
      '6: Not at a load point: further than 2 points of nameplate from every one.',
      '7: Mains 180 V is none of 115 V 60 Hz, 230 V 50 Hz.',
      '8: Output 22.5 W is above input 20.3 W: columns swapped, or a wrong unit?',
      '9: A power factor of 1.4 is above 1.',
      '10: Vout is negative (-20).',
    ]);
  });

  it('counts lines by the file even when a quoted cell spans two', () => {
    const text = 'note,load,vin,pin,vout,iout\n"two\nlines",100,230,50,20,2.25\nx,100,230,bad,20,2.25\n';
    expect(read(text).badLines[0]?.line).toBe(4);
  });

  it('finds the load from the current when no column says it', () => {
    const text = 'Pin [W],Vout [V],Iout [A]\n25.2,20,1.13\n35.2,20,1.4\n';
    const result = read(text, { wholeFileMains: { kind: 'ac', volts: 230, hertz: 50 } });
    expect(result.points[0]).toMatchObject({ load: 0.5, mains: { volts: 230 } });
    expect(result.badLines[0]?.reason).toContain('Not at a load point');
  });

  it('gives the same result in pieces as at once', () => {
    const lines = semicolon.split('\r\n');
    const reader = new MeterFileReader(plan(semicolon), context);
    for (let at = 0; at < lines.length; at += 2) reader.add(`${lines.slice(at, at + 2).join('\r\n')}\r\n`);
    expect(reader.result()).toEqual(read(semicolon));
  });

  it('of any length is cut at line ends only', () => {
    const rows = Array.from({ length: 40_000 }, (_, index) => `100;230;50,${index % 10};20;2,25`);
    const text = [semicolon.split('\r\n')[2], ...rows].join('\n');
    const slices = [...slicesOf(text)];
    expect(slices.length).toBeGreaterThan(2);
    expect(slices.join('')).toBe(text);
    expect(slices.slice(0, -1).every((slice) => slice.endsWith('\n'))).toBe(true);
    expect([...slicesOf('')]).toEqual([]);
  });

  it('keeps a cell in quotes whole over its lines, and cuts at a quote that has no end', () => {
    const cell = `"a\n"";b\n${'c\n'.repeat(50)}"`;
    const whole = [...slicesOf(`x;${cell};y\n`.repeat(40), 60)];
    expect(whole.length).toBeGreaterThan(5);
    for (const slice of whole) expect((slice.match(/"/g) ?? []).length % 2).toBe(0);
    const endless = [...slicesOf(`"${'1;2\n'.repeat(500_000)}`)];
    expect(Math.max(...endless.map(({ length }) => length))).toBeLessThan(400_000);
    const oneLine = [...slicesOf('1;'.repeat(1_000_000))];
    expect(Math.max(...oneLine.map(({ length }) => length))).toBeLessThan(400_000);
    expect(oneLine.join('')).toHaveLength(2_000_000);
  });

  it('counts bad lines without keeping them all, and gives a hopeless file up', () => {
    const plan = sniffFile('a;b;c\n1;2;3', ['C1']);
    if ('reason' in plan) throw new Error(plan.reason);
    const roles = ['input-watts', 'output-volts', 'output-amps'] as const;
    const columns = roles.map((role, index) => ({
      name: 'abc'[index] ?? '',
      role,
      unit: 'WVA'[index] ?? '',
      port: index > 0 ? 'C1' : null,
    }));
    const mains = { kind: 'ac', volts: 230, hertz: 50 } as const;
    const context = {
      outputs: [{ port: 'C1', volts: 20, amps: 3 }],
      mains: [mains],
      wholeFileMains: mains,
      loads: [1],
    };
    const read = readMeterFile(`a;b;c\n${'1\n'.repeat(400_000)}`, { ...plan, columns }, context);
    expect(read.goodLines).toBe(0);
    expect(read.badLines).toHaveLength(2000);
    expect(read.badCount).toBeGreaterThanOrEqual(50_000);
    expect(read.badCount).toBeLessThan(400_000);
  });

  it('recomputes the efficiency a file states and counts what differs', () => {
    const text = 'load,vin,pin,vout,iout,eff\n100,230,50,20,2.25,90.0\n100,230,50,20,2.25,93\n';
    expect(read(text)).toMatchObject({ goodLines: 2, efficiencyDiffers: 1 });
  });

  it('refuses an incomplete plan and says what it lacks', () => {
    const text = 'a;b\n1;2\n';
    expect(planProblems(plan(text), context)).toEqual([
      'Say which column holds the input watts.',
      'Say which column holds the output volts of C1.',
      'Say which column holds the output amps of C1.',
      'Say at which mains the file was taken.',
    ]);
    expect(() => read(text)).toThrow(RangeError);
    const strange = plan('load;pin;vin;vout;iout\n100;50;230;20;2.25\n');
    const inUnits = (...units: string[]) =>
      planProblems(
        { ...strange, columns: strange.columns.map((column, at) => ({ ...column, unit: units[at] ?? column.unit })) },
        context,
      );
    expect(inUnits('A', 'V')).toEqual([
      'load is in "A", which is not a unit of load point.',
      'pin is in "V", which is not a unit of input watts.',
    ]);
    expect(inUnits('', 'mW')).toEqual([]);
    const twice = plan('pin;pin;vin;vout;iout\n1;2;230;5;6\n');
    expect(planProblems(twice, context)).toEqual(['Input watts is given by two columns.']);
  });
});

describe('whatever the file', () => {
  const cell = fc.oneof(
    fc.double({ noNaN: true }).map(String),
    fc.constantFrom('', '"', '20,1', '115', '-1', 'NaN', '1e400', '\u0000', '"a;b"'),
    fc.string({ maxLength: 6 }),
  );
  const file = fc
    .tuple(
      fc.constantFrom(',', ';', '\t'),
      fc.array(fc.array(cell, { minLength: 1, maxLength: 8 }), { maxLength: 30 }),
      fc.constantFrom('\n', '\r\n'),
    )
    .map(([delimiter, rows, end]) =>
      [
        'Load,Vin [V],Pin [W],Vout [V],Iout [A]'.replaceAll(',', delimiter),
        ...rows.map((row) => row.join(delimiter)),
      ].join(end),
    );

  it('recognising and reading never throw, and only finite numbers come out', () => {
    fc.assert(
      fc.property(fc.oneof(file, fc.string()), (text) => {
        const found = sniffFile(text, ['C1']);
        if ('reason' in found) return found.reason.length > 0;
        if (planProblems(found, context).length > 0) return true;
        const { points } = readMeterFile(text, found, context);
        return points.every((point) =>
          point.values.every((value) => Number.isFinite(value.mean) && Number.isFinite(value.spread)),
        );
      }),
      { numRuns: 400 },
    );
  });

  it('every line after the header is good, bad or blank', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 0, max: 300 }), { minLength: 4, maxLength: 6 }), {
          minLength: 1,
          maxLength: 20,
        }),
        (rows) => {
          const text = ['Load,Vin,Pin,Vout,Iout', ...rows.map((row) => row.join(','))].join('\n');
          const fixedPlan: FilePlan = { ...plan('Load,Vin,Pin,Vout,Iout\n1,2,3,4,5\n') };
          const { goodLines, badLines } = readMeterFile(text, fixedPlan, context);
          expect(goodLines + badLines.length).toBe(rows.length);
        },
      ),
    );
  });
});
