// Files as many programs write them, all of one measurement: each is understood without a hand on the mapping, or
// after one choice.
import { describe, expect, it } from 'vitest';
import { LOAD_POINTS } from '../efficiency/index.ts';
import { REGULATORY_PAIR } from '../reading/index.ts';
import { decodeText } from '../table/index.ts';
import { type FileContext, planProblems, readMeterFile, sniffFile } from './index.ts';

const MAINS = REGULATORY_PAIR[1] ?? { kind: 'ac' as const, volts: 230, hertz: 50 };
const context: FileContext = {
  outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
  mains: REGULATORY_PAIR,
  wholeFileMains: null,
  loads: LOAD_POINTS,
};

/** Two lines a load point at 230 V: mains volts, input watts, power factor, output volts and amps. */
const ROWS = [1, 0.75, 0.5, 0.25].flatMap((load) =>
  [0, 1].map((turn) => {
    const amps = 2.25 * load + turn * 0.0004;
    const volts = 20.05 - load * 0.02;
    return {
      mains: 230.1 + turn * 0.2,
      watts: (volts * amps) / 0.92 + turn * 0.003,
      pf: 0.58 + load * 0.02,
      volts,
      amps,
    };
  }),
);
type Row = (typeof ROWS)[number];

type Cell = (row: Row, index: number) => string;
const dot =
  (pick: (row: Row) => number, digits: number, tail = ''): Cell =>
  (row) =>
    `${pick(row).toFixed(digits)}${tail}`;
const COLUMN = {
  mains: dot(({ mains }) => mains, 2),
  watts: dot(({ watts }) => watts, 3),
  pf: dot(({ pf }) => pf, 3),
  volts: dot(({ volts }) => volts, 3),
  amps: dot(({ amps }) => amps, 4),
  milliwatts: dot(({ watts }) => watts * 1000, 0),
  millivolts: dot(({ volts }) => volts * 1000, 0),
  milliamps: dot(({ amps }) => amps * 1000, 1),
  out: dot(({ volts, amps }) => volts * amps, 3),
  index: (_row: Row, index: number) => String(index + 1),
  clock: (_row: Row, index: number) => `09:${String(index).padStart(2, '0')}:00`,
  iso: (_row: Row, index: number) => `2026-03-02T09:${String(index).padStart(2, '0')}:00Z`,
  epoch: (_row: Row, index: number) => String(1_772_442_000 + index * 60),
} as const;

interface Dialect {
  readonly sign?: ',' | ';' | '\t' | '|';
  readonly comma?: boolean;
  readonly before?: readonly string[];
  readonly units?: readonly string[];
  /** The header comes again after so many lines. */
  readonly again?: number;
  readonly end?: string;
}

function file(
  heads: readonly string[],
  cells: readonly Cell[],
  { sign = ',', comma = false, before = [], units, again, end = '\n' }: Dialect = {},
): string {
  const header = [heads.join(sign), ...(units ? [units.join(sign)] : [])];
  const lines = ROWS.map((row, index) => cells.map((cell) => cell(row, index)).join(sign)).map((line) =>
    comma ? line.replace(/(\d)\.(\d)/g, '$1,$2') : line,
  );
  const body = again ? [...lines.slice(0, again), ...header, ...lines.slice(again)] : lines;
  return [...before, ...header, ...body, ''].join(end);
}

const utf16 = (text: string, mark: boolean): Uint8Array => {
  const bytes = new Uint8Array((text.length + (mark ? 1 : 0)) * 2);
  const view = new DataView(bytes.buffer);
  for (const [at, sign] of [...(mark ? '\ufeff' : ''), ...text].entries())
    view.setUint16(at * 2, sign.charCodeAt(0), true);
  return bytes;
};
const latin1 = (text: string): Uint8Array => Uint8Array.from(text, (sign) => sign.charCodeAt(0) & 0xff);
const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);

const C = COLUMN;
const FIVE = [C.mains, C.watts, C.pf, C.volts, C.amps];
const NAMES = ['Vin [V]', 'Pin [W]', 'PF', 'Vout [V]', 'Iout [A]'];
const suffixed = [
  dot(({ mains }) => mains, 1, ' V'),
  dot(({ watts }) => watts, 2, ' W'),
  C.pf,
  dot(({ volts }) => volts, 3, ' V'),
  dot(({ amps }) => amps * 1000, 1, ' mA'),
];

/** Name, bytes, and how many choices it needs of a person. */
const FILES: readonly (readonly [name: string, bytes: Uint8Array, choices: 0 | 1])[] = [
  ['plain commas', utf8(file(NAMES, FIVE)), 0],
  ['semicolons and decimal commas', utf8(file(NAMES, FIVE, { sign: ';', comma: true })), 0],
  ['tabs', utf8(file(NAMES, FIVE, { sign: '\t' })), 0],
  ['tabs and decimal commas', utf8(file(NAMES, FIVE, { sign: '\t', comma: true })), 0],
  ['lines ended twice', utf8(file(NAMES, FIVE, { end: '\r\n' })), 0],
  ['a mark at the beginning', utf8(`\ufeff${file(NAMES, FIVE)}`), 0],
  ['UTF-16 with its mark', utf16(file(NAMES, FIVE, { sign: '\t' }), true), 0],
  ['UTF-16 without', utf16(file(NAMES, FIVE, { sign: '\t' }), false), 0],
  ['Latin-1 with a micro sign', latin1(file(['Vin [V]', 'Pin [W]', 'Note µ', 'Vout [V]', 'Iout [A]'], FIVE)), 0],
  ['three lines before', utf8(file(NAMES, FIVE, { before: ['Power log', 'Serial;X-1', ''] })), 0],
  ['a line of facts before', utf8(file(NAMES, FIVE, { before: ['# started 2026-03-02 09:00'] })), 0],
  [
    'units in a second line',
    utf8(file(['Vin', 'Pin', 'PF', 'Vout', 'Iout'], FIVE, { units: ['V', 'W', '', 'V', 'A'] })),
    0,
  ],
  [
    'units in brackets below',
    utf8(
      file(['Vin', 'Pin', 'PF', 'Vout', 'Iout'], [C.mains, C.milliwatts, C.pf, C.millivolts, C.milliamps], {
        sign: ';',
        units: ['[V]', '[mW]', '[-]', '[mV]', '[mA]'],
      }),
    ),
    0,
  ],
  ['the header again in the middle', utf8(file(NAMES, FIVE, { again: 4 })), 0],
  [
    'header and units again',
    utf8(file(['Vin', 'Pin', 'PF', 'Vout', 'Iout'], FIVE, { units: ['V', 'W', '-', 'V', 'A'], again: 2 })),
    0,
  ],
  ['cells with their units', utf8(file(['Vin', 'Pin', 'PF', 'Vout', 'Iout'], suffixed)), 0],
  [
    'cells with units, decimal commas',
    utf8(file(['Vin', 'Pin', 'PF', 'Vout', 'Iout'], suffixed, { sign: ';', comma: true })),
    0,
  ],
  [
    'prefixes without units',
    utf8(
      file(NAMES, [
        C.mains,
        C.watts,
        C.pf,
        dot(({ volts }) => volts * 1000, 0, 'm'),
        dot(({ amps }) => amps * 1000, 1, 'm'),
      ]),
    ),
    0,
  ],
  ['kilo in a cell', utf8(file(NAMES, [dot(({ mains }) => mains / 1000, 5, 'k'), C.watts, C.pf, C.volts, C.amps])), 0],
  [
    'units in the names',
    utf8(
      file(['vin_V', 'pin_mW', 'pf', 'vout_mV', 'iout_mA'], [C.mains, C.milliwatts, C.pf, C.millivolts, C.milliamps]),
    ),
    0,
  ],
  [
    'units after a slash',
    utf8(file(['Vin / V', 'Pin / W', 'PF', 'Vout / V', 'Iout / mA'], [C.mains, C.watts, C.pf, C.volts, C.milliamps])),
    0,
  ],
  [
    'numbered channels of an analyser',
    utf8(file(['U1 [V]', 'P1 [W]', 'PF1', 'U2 [V]', 'I2 [A]', 'P2 [W]'], [...FIVE, C.out])),
    0,
  ],
  [
    'names of both sides',
    utf8(file(['AC Volts (V)', 'AC Watts (W)', 'Power Factor', 'DC Volts (V)', 'DC Amps (A)'], FIVE)),
    0,
  ],
  [
    'bus names',
    utf8(file(['Line Voltage [V]', 'Input Power [W]', 'Lambda', 'Bus Voltage [V]', 'Bus Current [A]'], FIVE)),
    0,
  ],
  [
    'units in columns of their own',
    utf8(
      file(
        ['Vin', 'Unit', 'Pin', 'Unit', 'Vout', 'Unit', 'Iout', 'Unit'],
        [C.mains, () => 'V', C.milliwatts, () => 'mW', C.volts, () => 'V', C.milliamps, () => 'mA'],
        { sign: ';' },
      ),
    ),
    0,
  ],
  [
    'a range chosen line by line, and its unit beside',
    utf8(
      file(
        ['Vin [V]', 'Pin [W]', 'Vout [V]', 'Iout', 'Iout unit'],
        [
          C.mains,
          C.watts,
          C.volts,
          (row) => (row.amps < 1 ? (row.amps * 1000).toFixed(1) : row.amps.toFixed(4)),
          (row) => (row.amps < 1 ? 'mA' : 'A'),
        ],
      ),
    ),
    0,
  ],
  ['strokes', utf8(file(NAMES, FIVE, { sign: '|' })), 0],
  ['strokes and decimal commas', utf8(file(NAMES, FIVE, { sign: '|', comma: true })), 0],
  [
    'means between their extremes',
    utf8(
      file(
        ['Vin min [V]', 'Vin avg [V]', 'Pin max [W]', 'Pin avg [W]', 'Vout mean [V]', 'Iout max [A]', 'Iout avg [A]'],
        [
          dot(({ mains }) => mains - 3, 1),
          C.mains,
          dot(({ watts }) => watts * 1.2, 2),
          C.watts,
          C.volts,
          dot(({ amps }) => amps * 1.1, 3),
          C.amps,
        ],
      ),
    ),
    0,
  ],
  [
    'what was set beside what was read',
    utf8(
      file(
        ['Vin [V]', 'Pin [W]', 'Vset [V]', 'Iset [A]', 'Vout [V]', 'Iout [A]'],
        [C.mains, C.watts, () => '21', dot(({ amps }) => amps + 0.2, 2), C.volts, C.amps],
      ),
    ),
    0,
  ],
  ['an index first', utf8(file(['No', ...NAMES], [C.index, ...FIVE])), 0],
  ['clock time first', utf8(file(['Time', ...NAMES], [C.clock, ...FIVE])), 0],
  ['ISO time first', utf8(file(['Timestamp', ...NAMES], [C.iso, ...FIVE])), 0],
  ['epoch first', utf8(file(['t', ...NAMES], [C.epoch, ...FIVE])), 0],
  ['index only, no time', utf8(file(['#', ...NAMES], [C.index, ...FIVE], { sign: ';' })), 0],
  ['a comment last', utf8(file([...NAMES, 'Comment'], [...FIVE, () => 'ok'])), 0],
  ['an empty last column', utf8(file([...NAMES, ''], [...FIVE, () => ''])), 0],
  [
    'quoted names',
    utf8(
      file(
        NAMES.map((name) => `"${name}"`),
        FIVE,
      ),
    ),
    0,
  ],
  [
    'channels by number, found by what they hold',
    utf8(file(['Ch1 (V)', 'Ch2 (W)', 'Ch3 (V)', 'Ch4 (A)', 'Ch5 (W)'], [C.mains, C.watts, C.volts, C.amps, C.out])),
    0,
  ],
  [
    'channels without units, found by their product',
    utf8(file(['Ch1', 'Ch2', 'Ch3', 'Ch4', 'Ch5'], [C.mains, C.watts, C.volts, C.amps, C.out])),
    0,
  ],
  [
    'voltage, current, power and the wall',
    utf8(
      file(
        ['Time', 'Voltage (V)', 'Current (A)', 'Power (W)', 'Mains (V)', 'Wall (W)'],
        [C.clock, C.volts, C.amps, C.out, C.mains, C.watts],
      ),
    ),
    0,
  ],
  ['an efficiency of its own', utf8(file([...NAMES, 'Eff [%]'], [...FIVE, () => '92.0'])), 0],
  ['a frequency too', utf8(file([...NAMES, 'Freq [Hz]'], [...FIVE, () => '50.0'])), 0],
  [
    'spaces around everything',
    utf8(
      file(
        NAMES.map((name) => ` ${name} `),
        FIVE.map(
          (cell): Cell =>
            (row, index) =>
              ` ${cell(row, index)} `,
        ),
      ),
    ),
    0,
  ],
  [
    'no mains volts: the supply is chosen',
    utf8(file(['Pin [W]', 'Vout [V]', 'Iout [A]'], [C.watts, C.volts, C.amps])),
    1,
  ],
  [
    'a watt column nobody can tell: the input is chosen',
    utf8(
      file(
        ['Vin [V]', 'A', 'B', 'Vout [V]', 'Iout [A]'],
        [C.mains, C.watts, dot(({ watts }) => watts * 1.02, 3), C.volts, C.amps],
      ),
    ),
    1,
  ],
];

/** What the measurement is, whoever wrote it. */
const TRUTH = [1, 0.75, 0.5, 0.25].map((load) => {
  const own = ROWS.filter(({ amps }) => Math.abs(amps / 2.25 - load) < 0.01);
  return own.reduce((sum, { watts }) => sum + watts, 0) / own.length;
});

function understood(bytes: Uint8Array): {
  readonly choices: number;
  readonly watts: readonly number[];
  readonly bad: number;
} {
  const text = decodeText(bytes);
  const found = sniffFile(text, ['C1']);
  if ('reason' in found) throw new Error(found.reason);
  const problems = planProblems(found, context);
  // One choice each: the supply of the file, or the column of the input.
  const supply = problems.some((one) => one.includes('at which mains'));
  const input = problems.some((one) => one.includes('input watts'));
  const plan = input
    ? {
        ...found,
        columns: found.columns.map((column, at) =>
          at === 1 ? { ...column, role: 'input-watts' as const, unit: 'W' } : column,
        ),
      }
    : found;
  const read = readMeterFile(text, plan, { ...context, wholeFileMains: supply ? MAINS : null });
  const watts = read.points
    .filter(({ mains }) => mains === MAINS)
    .sort((a, b) => b.load - a.load)
    .map(({ values }) => values.find(({ role }) => role === 'input-watts')?.mean ?? Number.NaN);
  return { choices: problems.length, watts, bad: read.badCount };
}

describe('a corpus of files', () => {
  it.each(FILES)('%s', (_name, bytes, choices) => {
    const found = understood(bytes);
    expect(found.choices).toBe(choices);
    expect(found.bad).toBe(0);
    expect(found.watts).toHaveLength(4);
    for (const [at, watts] of found.watts.entries()) expect(watts / (TRUTH[at] ?? Number.NaN)).toBeCloseTo(1, 3);
  });
});

describe('what is no number', () => {
  it.each(['OL', 'OVLD', '+9.9E37', '----', 'overload'])('%s is out of range, and said so', (cell) => {
    const text = `${file(NAMES, FIVE)}230.1,${cell},0.6,20.03,2.25\n`;
    const plan = sniffFile(text, ['C1']);
    if ('reason' in plan) throw new Error(plan.reason);
    const { badLines } = readMeterFile(text, plan, context);
    expect(badLines).toMatchObject([{ reason: expect.stringContaining('out of the meter’s range') }]);
  });

  it('leaves a column open that two could be', () => {
    const found = sniffFile('A,B,Vout [V],Iout [A]\n50,51,20,2.25\n25,26,20,1.12\n', ['C1']);
    expect('columns' in found && found.columns.map(({ role }) => role)).toEqual([
      'ignore',
      'ignore',
      'output-volts',
      'output-amps',
    ]);
  });
});
