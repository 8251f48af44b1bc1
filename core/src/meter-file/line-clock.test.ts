// Times of lines as programs write them, against moments worked out by hand.
import { describe, expect, it } from 'vitest';
import { LOAD_POINTS } from '../efficiency/index.ts';
import { REGULATORY_PAIR } from '../reading/index.ts';
import { type Column, LineClock, momentOf, readMeterFile, sniffFile } from './index.ts';

const column = (role: Column['role'], unit = ''): Column => ({ name: role, role, unit, port: null });
const TIME = [column('time', 's')];
const END = '2026-03-02T10:00:00.000Z';

/** Moments of the lines of one file. */
function moments(rows: readonly (readonly string[])[], columns = TIME, offset = 0): (string | null)[] {
  const clock = new LineClock(columns);
  const seconds = rows.map((row) => clock.at(row));
  const last = seconds.filter(Number.isFinite).at(-1) ?? Number.NaN;
  return seconds.map((at) =>
    Number.isNaN(at) || clock.base === null ? null : momentOf(at, clock.base, last, END, offset),
  );
}

describe('the clock of a meter file', () => {
  it.each([
    ['ISO with a zone', ['2026-03-02T09:15:30Z', '2026-03-02T10:15:30+01:00'], 0, '2026-03-02T09:15:30.000Z'],
    ['ISO without: the wall clock', ['2026-03-02 09:15:30', '2026-03-02 09:15:30'], 60, '2026-03-02T08:15:30.000Z'],
    ['day first with points', ['02.03.2026 09:15:30', '02.03.2026 09:15:30'], 0, '2026-03-02T09:15:30.000Z'],
    ['month first, as the digits say', ['3/14/2025 09:15:30', '3/14/2025 09:15:30'], 0, '2025-03-14T09:15:30.000Z'],
    ['twelve hours', ['3/14/2025 2:05:00 PM', '3/14/2025 2:05:00 PM'], 0, '2025-03-14T14:05:00.000Z'],
    ['seconds since 1970', ['1772442930', '1772442930'], 99, '2026-03-02T09:15:30.000Z'],
    ['milliseconds since 1970', ['1772442930000', '1772442930000'], 99, '2026-03-02T09:15:30.000Z'],
  ])('%s', (_name, cells, offset, moment) => {
    expect(
      moments(
        cells.map((cell) => [cell]),
        TIME,
        offset,
      ),
    ).toEqual([moment, moment]);
  });

  it.each([
    ['seconds from the start', TIME, [['0'], ['90'], ['600']]],
    ['minutes from the start', [column('time', 'min')], [['0'], ['1.5'], ['10']]],
    ['a clock without its day', TIME, [['23:55:00'], ['23:56:30'], ['00:05:00']]],
    ['a clock never set', TIME, [['2000-01-01 00:00:00'], ['2000-01-01 00:01:30'], ['2000-01-01 00:10:00']]],
    ['day and month in doubt', TIME, [['2/3/2026 09:00:00'], ['2/3/2026 09:01:30'], ['2/3/2026 09:10:00']]],
    ['cells with their unit', TIME, [['0 s'], ['90 s'], ['600 s']]],
  ])('%s ends when the file was written', (_name, columns, rows) => {
    expect(moments(rows, columns)).toEqual([
      '2026-03-02T09:50:00.000Z',
      '2026-03-02T09:51:30.000Z',
      '2026-03-02T10:00:00.000Z',
    ]);
  });

  it('joins a date and a time of their own columns', () => {
    const columns = [column('date'), column('time', 's')];
    expect(
      moments(
        [
          ['02.03.2026', '09:15:30'],
          ['2026-03-02', '21:15'],
        ],
        columns,
      ),
    ).toEqual(['2026-03-02T09:15:30.000Z', '2026-03-02T21:15:00.000Z']);
  });

  it('leaves open what is no time', () => {
    expect(moments([['n/a'], ['']])).toEqual([null, null]);
    expect(moments([['09:00'], ['pause'], ['09:10']])).toEqual([
      '2026-03-02T09:50:00.000Z',
      null,
      '2026-03-02T10:00:00.000Z',
    ]);
  });
});

describe('a point of a file', () => {
  const read = (text: string) => {
    const plan = sniffFile(text, ['C1']);
    if ('reason' in plan) throw new Error(plan.reason);
    return readMeterFile(text, plan, {
      outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
      mains: REGULATORY_PAIR,
      wholeFileMains: null,
      loads: LOAD_POINTS,
    });
  };

  it('was taken when its lines say', () => {
    const { points, clock } = read(
      [
        'Date;Time;Vin [V];Pin [W];Vout [V];Iout [A]',
        '02.03.2026;09:00:00;230;49,1;20,03;2,25',
        '02.03.2026;09:05:00;230;49,1;20,03;2,25',
        '02.03.2026;09:06:00;230;24,9;20,05;1,125',
      ].join('\n'),
    );
    expect(clock?.base).toBe('local');
    const nine = Date.UTC(2026, 2, 2, 9) / 1000;
    expect(points.map(({ load, taken }) => [load, taken])).toEqual([
      [1, { from: nine, to: nine + 300 }],
      [0.5, { from: nine + 360, to: nine + 360 }],
    ]);
  });

  it('of a file without times says nothing of them', () => {
    const { points, clock } = read('Vin [V],Pin [W],Vout [V],Iout [A]\n230,49.1,20.03,2.25\n');
    expect(clock).toBeNull();
    expect(points[0]?.taken).toBeNull();
  });

  it('takes the column with the date where two hold a time', () => {
    const { clock } = read(
      'Elapsed,Timestamp,Vin [V],Pin [W],Vout [V],Iout [A]\n1,2026-03-02T09:00:00Z,230,49.1,20.03,2.25\n',
    );
    expect(clock).toEqual({ base: 'utc', last: Date.UTC(2026, 2, 2, 9) / 1000 });
  });
});
