// Whole charges, against sessions worked out by hand: the device draws by its level, so times follow from integrals.
import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import { readTrace } from '../trace/index.ts';
import { type ChargeContext, type ChargeSession, chargeOf } from './index.ts';

type Row = readonly (number | string)[];

function session(heads: readonly string[], rows: readonly Row[], context: ChargeContext = {}): ChargeSession {
  const reading = readTrace([heads.join(','), ...rows.map((row) => row.join(','))].join('\n'));
  if (!reading.ok) throw new Error(reading.reason);
  const found = chargeOf(reading.trace, context);
  if ('reason' in found) throw new Error(found.reason);
  return found;
}
/** Rows of a power against time, at a step. */
const rowsOf = (length: number, step: number, watts: (t: number) => number): Row[] =>
  Array.from({ length: Math.floor(length / step) + 1 }, (_, at) => [at * step, watts(at * step).toFixed(4)]);
/** A ripple that repeats no digit, smaller than anything that counts. */
const dither = (t: number): number => 0.002 * Math.sin(12.9898 * t + 1) * Math.sin(78.233 * t);
const kinds = ({ stages }: ChargeSession) => stages.map(({ kind }) => kind);
const ends = ({ stages }: ChargeSession) => stages.map(({ to }) => to);

describe('60 Wh from 20 % at 60 W, falling evenly from 60 % to 6 W at 100 %', () => {
  // 0.4 · 60 Wh at 60 W: 24 min. Then dL/dt = P/E with P = 60 − 135 (L − 0.6): P decays with τ = 60 · 0.4 / 54 h, and
  // reaches 6 W after τ · ln 10 = 61.4 min.
  const TAU = (3600 * 60 * 0.4) / 54;
  const END = 1440 + TAU * Math.log(10);
  const watts = (t: number) => (t < 1440 ? 60 : t < END ? 60 * Math.exp(-(t - 1440) / TAU) : 0.4) * (1 + dither(t));
  const found = session(['t [s]', 'P [W]'], rowsOf(END + 1200, 1, watts), { startLevel: 0.2 });

  it('takes 85.4 min, in two stages', () => {
    expect(found.duration / 60).toBeCloseTo(85.4, 1);
    expect(found.energy).toBeCloseTo(48, 1);
    expect(kinds(found)).toEqual(['constant', 'tail']);
    expect(Math.abs((ends(found)[0] ?? 0) - 1440)).toBeLessThan(20);
    expect(found.meanWatts).toBeCloseTo((48 * 3600) / END, 1);
  });

  it('is at 50 % after 18 min, at 80 % when half of the fall is done', () => {
    expect(found.level).toBe('energy');
    expect(found.times[50]).toBeCloseTo(1080, -1);
    // From 0.6 to 0.8 the power falls from 60 to 33 W.
    expect(found.times[80]).toBeCloseTo(1440 + TAU * Math.log(60 / 33), -1);
    expect(found.times[100]).toBeCloseTo(END, -1);
    expect(found.levels[15]).toBeCloseTo(0.2 + 15 / 60, 2);
    expect(found.levels[30]).toBeCloseTo(1 - (60 * Math.exp(-360 / TAU) - 6) / 135, 2);
  });

  it('ends by its flat tail; what comes after is a result of its own', () => {
    expect(found.end?.by).toBe('tail');
    expect(found.afterFull).toBeCloseTo(0.4, 2);
    expect(found.afterFullYear).toBeCloseTo(3.5, 1);
    expect(found.findings).toEqual([]);
  });

  it('cut off before its end says nothing of levels', () => {
    const half = session(['t [s]', 'P [W]'], rowsOf(3000, 1, watts), { startLevel: 0.2 });
    expect(half).toMatchObject({ level: null, end: null, afterFull: null, times: { 50: null, 80: null, 100: null } });
    expect(half.findings).toEqual(['The end was not reached: no level can be told from what was delivered.']);
  });

  it('with a mark of one’s own ends there', () =>
    expect(session(['t [s]', 'P [W]'], rowsOf(END, 1, watts), { startLevel: 0.2, end: 4000 }).end).toEqual({
      at: 4000,
      by: 'mark',
    }));
});

describe('stages', () => {
  it('end where the voltage changes, though power stays', () => {
    const rows = rowsOf(3600, 2, (t) => 18 * (1 + dither(t))).map(([t, p]) => [t, Number(t) < 1200 ? 5 : 9, p] as Row);
    const found = session(['t [s]', 'U [V]', 'P [W]'], rows);
    expect(found.stages.map(({ from, volts, kind }) => [from, Math.round(volts ?? 0), kind])).toEqual([
      [0, 5, 'constant'],
      [1200, 9, 'constant'],
    ]);
  });

  it('of an adjustable level that glides are not cut by it', () => {
    const rows = rowsOf(3600, 2, (t) => 18 * (1 + dither(t))).map(
      ([t, p]) => [t, (8 + Number(t) / 1200).toFixed(3), p] as Row,
    );
    expect(kinds(session(['t [s]', 'U [V]', 'P [W]'], rows))).toEqual(['constant']);
  });

  it('down in steps are one, after the constant they come from', () => {
    const found = session(
      ['t [s]', 'P [W]'],
      rowsOf(6000, 2, (t) => (t < 1800 ? 60 : 60 * 0.85 ** (1 + Math.floor((t - 1800) / 900))) * (1 + dither(t))),
    );
    expect(kinds(found)).toEqual(['constant', 'stepping down']);
    expect(Math.abs((ends(found)[0] ?? 0) - 1800)).toBeLessThan(20);
  });

  it.each([
    [1, 0.02],
    [1, 0.05],
    [5, 0.03],
    [10, 0.05],
  ])('every %d s with noise of %d of the power are none of hunting', (every, part) => {
    const noise = seededNormal(seededRandom(3));
    const course = (t: number) => (t < 1800 ? 30 : t < 3000 ? 18 : t < 5400 ? 18 * Math.exp(-(t - 3000) / 900) : 0.2);
    const rows = rowsOf(6600, every, (t) => course(t) * (1 + part * noise()));
    expect(kinds(session(['t [s]', 'P [W]'], rows))).toEqual(['constant', 'constant', 'tail']);
  });

  it.each([
    ['square', 10, 0.02],
    ['square', 60, 0.05],
    ['sine', 30, 0.02],
    ['sine', 180, 0.05],
  ] as const)('of %s swings of a tenth every %d s in noise of %d are hunting all the same', (shape, period, part) => {
    const noise = seededNormal(seededRandom(5));
    const swing = (t: number) => {
      const turn = Math.sin((2 * Math.PI * (t + 0.5)) / period);
      return t < 900 || t >= 1800 ? 0 : shape === 'sine' ? turn : Math.sign(turn);
    };
    const rows = rowsOf(3600, 1, (t) => (30 + 3 * swing(t)) * (1 + part * noise()));
    const found = session(['t [s]', 'P [W]'], rows);
    expect(kinds(found)).toEqual(['constant', 'hunting', 'constant']);
    expect(Math.abs((found.stages[1]?.from ?? 0) - 900)).toBeLessThan(120);
    expect(Math.abs((found.stages[1]?.to ?? 0) - 1800)).toBeLessThan(120);
  });

  it('of swings are hunting; a screen that lights up now and then is none', () => {
    const swings = (t: number) => (t > 1000 && t < 2500 && Math.floor((t - 1000) / 30) % 2 === 0 ? 30 : 40);
    const found = session(
      ['t [s]', 'P [W]'],
      rowsOf(4000, 1, (t) => swings(t) * (1 + dither(t))),
    );
    expect(kinds(found)).toEqual(['constant', 'hunting', 'constant']);
    expect(Math.abs((found.stages[1]?.from ?? 0) - 1000)).toBeLessThan(60);
    expect(Math.abs((found.stages[1]?.to ?? 0) - 2500)).toBeLessThan(60);
    const screen = (t: number) => (t % 420 < 20 ? 36 : 30);
    expect(
      kinds(
        session(
          ['t [s]', 'P [W]'],
          rowsOf(6000, 1, (t) => screen(t) * (1 + dither(t))),
        ),
      ),
    ).toEqual(['constant']);
  });

  it('fall by a straight line as well as by a decay', () => {
    const found = session(
      ['t [s]', 'P [W]'],
      rowsOf(7000, 2, (t) => (t < 2400 ? 45 : t < 5400 ? 45 - ((t - 2400) / 3000) * 40 : 0.3) + dither(t)),
    );
    expect(kinds(found)).toEqual(['constant', 'tail']);
    expect(Math.abs((ends(found)[0] ?? 0) - 2400)).toBeLessThan(20);
    expect(found.end).toMatchObject({ by: 'tail', at: expect.closeTo(5400, -1) });
  });
});

describe('the level', () => {
  const flat = (t: number) => 20 * (1 + dither(t));

  it('comes from the device’s log where there is one, and its end is the device’s word', () => {
    const rows = rowsOf(4000, 1, flat).map(([t, p]) => [t, p, Math.min(100, 10 + Math.floor(Number(t) / 40))] as Row);
    const found = session(['t [s]', 'P [W]', 'level [%]'], rows);
    expect(found).toMatchObject({ level: 'log', startLevel: 0.1, end: { at: 3600, by: 'device' } });
    expect(found.times).toEqual({ 50: 1600, 80: 2800, 100: 3600 });
    expect(found.levels[60]).toBe(1);
  });

  it('may be typed points alone, in any spacing; a level it began with is not reached', () => {
    const found = session(
      ['time [min]', 'level [%]'],
      [
        [0, 52],
        [10, 60],
        [30, 80],
        [75, 100],
      ],
    );
    expect(found).toMatchObject({ level: 'typed', energy: null, stages: [], duration: 4500 });
    expect(found.times).toEqual({ 50: null, 80: 1800, 100: 4500 });
    expect(found.levels[15]).toBeCloseTo(0.65, 9);
  });

  it('of three points keeps each where it was written, however uneven', () => {
    const found = session(
      ['time [min]', 'level [%]'],
      [
        [0, 20],
        [30, 60],
        [90, 100],
      ],
    );
    expect(found.times[50]).toBeCloseTo(1350, 6);
    expect(found.times[80]).toBeCloseTo(3600, 6);
    expect(found.times[100]).toBeCloseTo(5400, 6);
  });

  it('from energy without a stated start assumes empty, and says so', () => {
    const found = session(
      ['t [s]', 'P [W]'],
      rowsOf(3000, 1, (t) => (t < 1800 ? 20 : 0.1) + dither(t)),
    );
    expect(found.times[50]).toBeCloseTo(900, -1);
    expect(found.findings).toEqual(['The level at the start is not stated: empty is assumed.']);
  });
});

describe('a log that is not what it seems', () => {
  it('with a gap counts nothing for it', () => {
    const rows = rowsOf(4000, 1, (t) => 60 * (1 + dither(t))).filter(([t]) => Number(t) <= 1800 || Number(t) >= 2700);
    const found = session(['t [s]', 'P [W]'], rows);
    expect(found.energy).toBeCloseTo((60 * 3100) / 3600, 1);
    expect(found.findings[0]).toBe('Nothing was logged from 30 min to 45 min: what was delivered then is not counted.');
    // 15 of 66 min and 40 s.
    expect(found).toMatchObject({ unread: 900, meanWatts: expect.closeTo(60, 1) });
  });

  describe('with a gap in 60 Wh at 30 and 15 W, which end after three hours', () => {
    const watts = (t: number) => (t < 3600 ? 30 : t < 10_800 ? 15 : 0.1) * (1 + dither(t));
    const without = (from: number, to: number) =>
      session(
        ['t [s]', 'P [W]'],
        rowsOf(14_400, 5, watts).filter(([t]) => Number(t) <= from || Number(t) >= to),
        { startLevel: 0 },
      );
    it('too short to matter tells every level', () => {
      const found = without(5000, 5100);
      expect(found.times[50]).toBeCloseTo(3600, -2);
      expect(found).toMatchObject({ level: 'energy', unread: 100 });
    });
    it('that may hide a twentieth of it tells no level', () => {
      const found = without(5000, 5720);
      expect(found).toMatchObject({ level: null, times: { 50: null, 80: null, 100: expect.closeTo(10_800, -2) } });
      expect(found.findings.join()).toContain('no level can be told from it');
    });
    it('in which it ended tells no time to the end, but the longest it can have been', () => {
      const found = without(10_500, 11_400);
      expect(found.end).toEqual({ at: 11_400, by: 'tail' });
      expect(found.times[100]).toBeNull();
      expect(found.findings.join()).toContain('It ended between 175 min and 190 min, while nothing was logged');
    });
    it('behind the end changes nothing', () => {
      const found = without(12_000, 12_900);
      expect(found.unread).toBeUndefined();
      expect(found.times).toMatchObject({ 50: expect.closeTo(3600, -2), 100: expect.closeTo(10_800, -2) });
    });
  });

  it('turned round says that power flows the other way', () =>
    expect(
      session(
        ['t [s]', 'P [W]'],
        rowsOf(1200, 1, (t) => -15 + dither(t)),
      ).findings[0],
    ).toMatch(/the other way/));

  it('with amps and no volts, or a meter that hangs, says so', () => {
    const live = (t: number) => [t, (9 + dither(t)).toFixed(5), (2 + dither(t * 1.7)).toFixed(5)] as Row;
    const rows = Array.from({ length: 2000 }, (_, t) => live(t));
    const heads = ['t [s]', 'U [V]', 'I [A]'];
    expect(session(heads, rows).findings.join()).not.toMatch(/hung|without volts/);
    const hung = rows.map((row, t) => (t > 600 && t < 1400 ? [t, 9.01, 2.02] : row));
    expect(session(heads, hung).findings.join()).toMatch(/Not a digit changed for 13\.\d min from 10 min/);
    const dead = rows.map(([t, u, i], at) => [t as number, at < 3 ? 0 : (u as string), i as string]);
    expect(session(heads, dead).findings[0]).toBe('Amps without volts in 3 samples: check the meter.');
  });

  it('interrupted says when', () =>
    expect(
      session(
        ['t [s]', 'P [W]'],
        rowsOf(3000, 1, (t) => (t > 1200 && t < 1260 ? 0 : 30 + dither(t))),
      ).findings,
    ).toContain('Power was gone for 0.983 min at 20 min, and came back.'));

  it('that begins later counts from its first sample, and from when power flows', () => {
    const rows = rowsOf(3000, 1, (t) => (t < 300 ? 0 : 30) + dither(t)).map(([t, p]) => [Number(t) + 5000, p] as Row);
    const found = session(['t [s]', 'P [W]'], rows);
    expect(found.start).toBeCloseTo(300, -1);
    expect(found.findings.join(' ')).toContain('Power began to flow after 5 min: times count from there.');
  });

  it.each([
    ['nothing that flows', ['t [s]', 'P [W]'], rowsOf(500, 1, () => 0), /never rose above/],
    ['neither power nor level', ['t [s]', 'T [°C]'], rowsOf(500, 1, () => 25), /Neither power nor level/],
    [
      'volts and amps of two places',
      ['t [s]', 'Vout [V]', 'Iin [A]'],
      Array.from({ length: 500 }, (_, t) => [t, 20, 0.2]),
      /different sides of the charger/,
    ],
  ])('with %s is no charge', (_name, heads, rows, says) =>
    expect(() => session(heads as string[], rows as Row[])).toThrow(says as RegExp),
  );
});

describe('what goes in at the wall', () => {
  const rows = (wall: (watts: number) => number) =>
    Array.from({ length: 401 }, (_, at) => {
      const watts = at <= 300 ? 30 : 0.2;
      return `${at * 10},${watts},${wall(watts)}`;
    }).join('\n');
  const charge = (text: string) => {
    const read = readTrace(text);
    if (!read.ok) throw new Error(read.reason);
    const session = chargeOf(read.trace, { startLevel: 0.2 });
    if ('reason' in session) throw new Error(session.reason);
    return session;
  };

  it('is summed over the same time, and the rest of it is lost', () => {
    const session = charge(`time [s],power [W],wall [W]\n${rows((watts) => watts / 0.9 + 0.1)}`);
    // 3005 s at 30 W, and at 33.43 W in.
    expect(session.energy).toBeCloseTo((3005 * 30) / 3600, 1);
    expect(session.wall?.energy).toBeCloseTo((3005 * (30 / 0.9 + 0.1)) / 3600, 1);
    expect(session.wall?.loss).toBeCloseTo((session.wall?.energy ?? 0) - (session.energy ?? 0), 9);
  });

  it('is not told where it is less than what came out, or not logged', () => {
    expect(charge(`time [s],power [W],wall [W]\n${rows((watts) => watts * 0.5)}`).wall).toBeNull();
    expect(charge(`time [s],power [W]\n${rows(() => 0).replaceAll(/,0$/gm, '')}`).wall).toBeNull();
  });
});

describe('a log with more columns than the charge needs', () => {
  // 20 V and 1.5 A for 3000 s from 40 to 90 %, 0.01 A after.
  const rows = (cells: (at: number) => readonly (number | string)[]): Row[] =>
    Array.from({ length: 401 }, (_, at) => [at * 10, ...cells(at)]);
  const level = (at: number) => Math.floor(40 + Math.min(at, 300) / 6);
  const amps = (at: number) => (at <= 300 ? 1.5 : 0.01);

  it.each<readonly [string, string, (at: number) => number]>([
    ['Humidity [%]', 'the air', (at) => 45 + Math.sin(at)],
    ['Duty [%]', 'a converter', () => 100],
    ['Charge [mAh]', 'what was counted', (at) => Math.min(at, 300) * 4],
    ['Charge', 'what was counted, without its unit', (at) => Math.min(at, 300) * 4],
  ])('%s is no level of the device', (head, _, value) => {
    const without = session(
      ['t [s]', head, 'U [V]', 'I [A]'],
      rows((at) => [value(at), 20, amps(at)]),
      { end: 3010 },
    );
    expect([without.level, without.end?.by]).toEqual(['energy', 'mark']);
    const heads = ['t [s]', head, 'U [V]', 'I [A]', 'Battery [%]'];
    const found = session(
      heads,
      rows((at) => [value(at), 20, amps(at), level(at)]),
    );
    expect([found.level, found.startLevel]).toEqual(['log', 0.4]);
    expect(found.times[80]).toBeCloseTo(2400, -2);
  });

  it('is not called full where the device says it stopped before, as one told to spare its battery does', () => {
    const heads = ['t [s]', 'U [V]', 'I [A]', 'Battery [%]'];
    const found = session(
      heads,
      rows((at) => [20, amps(at), level(at)]),
    );
    expect([found.end?.by, found.times[80], found.times[100]]).toEqual(['tail', 2400, null]);
    expect(found.findings).toContain('It ended at 90 % by the device’s log: full was not reached.');
    // A last digit that lags is no such thing.
    const lagging = session(
      heads,
      rows((at) => [20, amps(at), Math.min(99, level(at) + 10)]),
    );
    expect(lagging.times[100]).toBeCloseTo(3000, -2);
  });

  it('is refused where a column without a unit cannot be in the one that was assumed', () => {
    const heads = ['t [s]', 'U [V]', 'I'];
    expect(() =>
      session(
        heads,
        rows((at) => [20, amps(at) * 1000]),
      ),
    ).toThrow('“I” reaches 1500: is that mA?');
    expect(
      session(
        heads,
        rows((at) => [20, amps(at)]),
        { startLevel: 0.4 },
      ).energy,
    ).toBeCloseTo((3005 * 30) / 3600, 1);
  });

  it('sums volts and amps of the port, not what a data line has or what went in', () => {
    const heads = ['t [s]', 'D+ [V]', 'U [V]', 'I [A]', 'Input power [W]'];
    const found = session(
      heads,
      rows((at) => [0.6, 20, amps(at), 20 * amps(at) * 1.1]),
      { startLevel: 0.4 },
    );
    expect(found.energy).toBeCloseTo((3005 * 30) / 3600, 1);
    expect(found.wall?.energy).toBeCloseTo((3005 * 33) / 3600, 1);
  });
});
