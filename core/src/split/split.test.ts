import { describe, expect, it } from 'vitest';
import type { Claim } from '../promise/index.ts';
import { seededRandom } from '../random/index.ts';
import { measured } from '../uncertainty/index.ts';
import {
  allSets,
  dropIn,
  inferRule,
  meterMoves,
  pairsOf,
  parseTableRow,
  predictSplit,
  promisedRows,
  type SplitReading,
  setKey,
  setsLeft,
  steadyPorts,
  sweepSets,
  tableFindings,
  type VoltSample,
} from './index.ts';

const reading = (watts: Record<string, number>, part: Partial<SplitReading> = {}): SplitReading => ({
  occupied: Object.keys(watts),
  light: [],
  watts: Object.fromEntries(Object.entries(watts).map(([port, value]) => [port, measured(value, 0.05)])),
  rest: null,
  total: null,
  mainsWatts: null,
  atLeast: false,
  sourceIds: [],
  ...part,
});

describe('the sets worth measuring', () => {
  it('are all of them up to five ports, each once, one plug apart', () => {
    const sets = sweepSets(['C1', 'C2', 'A1']).sets;
    expect(sets).toHaveLength(7);
    expect(new Set(sets.map(setKey)).size).toBe(7);
    for (const [index, set] of sets.entries()) {
      const before = index > 0 ? (sets[index - 1] ?? []) : [];
      const changed = [
        ...set.filter((port) => !before.includes(port)),
        ...before.filter((port) => !set.includes(port)),
      ];
      expect(changed).toHaveLength(1);
    }
  });
  it('are a chosen part of six, with the reason', () => {
    const six = sweepSets(['C1', 'C2', 'C3', 'C4', 'A1', 'A2']);
    expect(six.sets).toHaveLength(6 + 15 + 6 + 1);
    expect(six.says).toContain('Pairs show who shares with whom');
    expect(setsLeft(six, [['C1'], ['C1', 'C2']])).toHaveLength(26);
  });
  it('with one meter keep it in a port through all sets that hold it', () => {
    const moves = meterMoves(['C1', 'C2'], allSets(['C1', 'C2']));
    expect(moves.map(({ meterAt, occupied }) => `${meterAt}: ${setKey(occupied)}`)).toEqual([
      'C1: C1',
      'C1: C1+C2',
      'C2: C1+C2',
      'C2: C2',
    ]);
    expect(moves.map(({ moves: moved }) => moved)).toEqual([true, false, true, false]);
    expect(moves[1]?.plug).toEqual(['C2']);
  });
});

describe('a promised table', () => {
  const ports = ['C1', 'C2', 'A1'];
  it.each([
    ['C1+C2: 60 W + 45 W', [{ C1: 60, C2: 45 }]],
    ['c1 + a1: 65+12', [{ C1: 65, A1: 12 }]],
    ['any two C ports: 45 W + 45 W', [{ C1: 45, C2: 45 }]],
  ])('takes %s', (text, rows) => expect(parseTableRow(text, ports)).toEqual({ rows }));
  it('expands a shorthand to every pair', () => {
    expect(parseTableRow('any 2 C: 45+30', ['C1', 'C2', 'C3'])).toEqual({
      rows: [
        { C1: 45, C2: 30 },
        { C2: 45, C3: 30 },
        { C1: 45, C3: 30 },
      ],
    });
  });
  it.each([
    ['C1+C9: 60+45', 'Name ports of this sample'],
    ['C1+C2: 60', 'Give each port its watts'],
    ['C1+C2', 'Give each port its watts'],
    ['any two X ports: 5+5', 'no 2 ports whose label begins with X'],
    ['any two C ports: 45', 'Give 2 powers'],
    ['', 'Name ports of this sample'],
  ])('refuses "%s" with what to do', (text, reason) => {
    expect((parseTableRow(text, ports) as { reason: string }).reason).toContain(reason);
  });
  it('points out a sum above the total, a port above what it gives alone, and sets nobody promises', () => {
    const claims = [
      {
        id: 'a',
        promise: {
          kind: 'combination',
          shares: [
            { port: 'C1', watts: 65 },
            { port: 'C2', watts: 45 },
          ],
        },
      },
      { id: 'b', promise: { kind: 'total', watts: 100 } },
      { id: 'c', promise: { kind: 'port-line', port: 'C2', volts: 20, amps: 1.5 } },
    ] as unknown as Pick<Claim, 'id' | 'promise'>[];
    const found = tableFindings(
      ports.map((label) => ({ label, offers: [] })),
      claims,
    ).map(({ set, says }) => `${set} ${says}`);
    expect(found).toContain('C1+C2 adds up to 110 W; 100 W is promised in total.');
    expect(found).toContain('C1+C2 C2 45 W is above what C2 gives alone: 30 W.');
    expect(found).toContain('C1+A1 is not promised: nothing is said about this set.');
    expect(promisedRows(ports, claims)[0]).toMatchObject({ occupied: ['C1', 'C2'], total: 110 });
  });
});

describe('a rule', () => {
  it('of ports that do not touch each other is that each stands alone', () => {
    const rule = inferRule(['C1', 'A1'], [reading({ C1: 45 }), reading({ A1: 12 }), reading({ C1: 45.1, A1: 12.05 })]);
    expect(rule.sentences).toEqual([
      'C1 stands alone: 45 W whatever else is plugged in.',
      'A1 stands alone: 12 W whatever else is plugged in.',
    ]);
    expect(rule.open).toEqual([]);
  });
  it('that divides evenly is said before a table of numbers', () => {
    const rule = inferRule(['C1', 'C2'], [reading({ C1: 65 }), reading({ C2: 65 }), reading({ C1: 32.5, C2: 32.4 })]);
    expect(rule.budgets[0]?.sharing.kind).toBe('even');
  });
  it('that keeps one port whole is a priority', () => {
    const rule = inferRule(
      ['C1', 'C2', 'C3'],
      [
        reading({ C1: 60 }),
        reading({ C2: 30 }),
        reading({ C3: 30 }),
        reading({ C1: 60, C2: 30 }),
        reading({ C1: 60, C3: 30 }),
        reading({ C2: 30, C3: 30 }),
        reading({ C1: 60, C2: 15, C3: 15 }),
      ],
    );
    expect(rule.budgets.map(({ sharing }) => sharing.kind)).toContain('priority');
    expect(rule.sentences.join()).toContain('C1');
  });
  it('lists what it cannot explain', () => {
    const rule = inferRule(
      ['C1', 'A1'],
      [reading({ C1: 45 }), reading({ A1: 12 }), reading({ C1: 45, A1: 12 }), reading({ C1: 45 }), reading({ C1: 30 })],
    );
    expect(rule.unexplained.map(({ says }) => says).join()).toContain('C1 gave');
  });
  it('tells fixed shares from shares that follow demand, once one port was loaded lightly', () => {
    const hard = [reading({ C1: 60 }), reading({ C2: 60 }), reading({ C1: 40, C2: 40 })];
    const soft = (C1: number) => reading({ C1, C2: 3 }, { light: ['C2'] });
    expect(inferRule(['C1', 'C2'], hard).demand).toBe('not tested');
    expect(inferRule(['C1', 'C2'], [...hard, soft(40.1)]).demand).toBe('fixed');
    expect(inferRule(['C1', 'C2'], [...hard, soft(58)]).demand).toBe('follows demand');
  });
  it('of nothing is nothing, and says so', () => {
    const rule = inferRule(['C1'], []);
    expect(rule.budgets).toEqual([]);
    expect(rule.open).toEqual([{ says: 'C1 was not read at all.', measure: ['C1'] }]);
    expect(predictSplit(rule, ['C1'])).toEqual({ C1: null });
  });
});

describe('a drop seen in samples', () => {
  const trace = (volts: (seconds: number) => number) =>
    Array.from({ length: 60 }, (_, index) => ({ seconds: index / 10, volts: volts(index / 10) }));
  it('is timed from the samples, with the lowest voltage and how it came back', () => {
    const seen = dropIn(
      trace((t) => (t > 2 && t < 3.05 ? 0 : 20)),
      20,
    );
    expect(seen).toMatchObject({ dropped: true, lowest: 0, back: 'same level' });
    expect(seen.seconds).toBeCloseTo(1.0, 1);
    expect(seen.offBy).toBeCloseTo(0.1, 12);
    expect(
      dropIn(
        trace((t) => (t < 2 ? 20 : t < 3 ? 0 : 9)),
        20,
      ),
    ).toMatchObject({ dropped: true, back: 'lower level' });
    expect(
      dropIn(
        trace((t) => (t < 2 ? 20 : 0)),
        20,
      ),
    ).toMatchObject({ dropped: true, back: 'stayed off' });
  });
  it('is off by no more than it says, however unevenly it was looked', () => {
    const chance = seededRandom(7);
    let seenAtAll = 0;
    for (let turn = 0; turn < 300; turn += 1) {
      const gap = 0.3 + 2 * chance();
      const begin = 1 + chance();
      let at = 0;
      const samples: VoltSample[] = [];
      while (at < 6) {
        samples.push({ seconds: at, volts: at >= begin && at < begin + gap ? 0 : 20 });
        at += 0.02 + 0.5 * chance() ** 3;
      }
      const { dropped, seconds, offBy } = dropIn(samples, 20);
      if (!dropped) continue;
      seenAtAll += 1;
      expect(Math.abs((seconds ?? Number.NaN) - gap)).toBeLessThanOrEqual((offBy ?? Number.NaN) + 1e-12);
    }
    expect(seenAtAll).toBeGreaterThan(290);
  });
  it('is the time without output: a lower level before it, or after it, is no part of it', () => {
    const seen = dropIn(
      trace((t) => (t < 1 ? 20 : t < 3 ? 9 : t < 4 ? 0 : t < 5 ? 5 : 20)),
      20,
    );
    expect(seen).toMatchObject({ dropped: true, back: 'same level' });
    expect(seen.seconds).toBeCloseTo(1, 12);
    expect(seen.offBy).toBeCloseTo(0.1, 12);
  });
  it('lasted longer than was looked where it has no end or no beginning', () => {
    const off = (from: number, to: number) =>
      dropIn(
        trace((t) => (t >= from && t < to ? 0 : 20)),
        20,
      );
    expect(off(2, 99)).toMatchObject({ dropped: true, back: 'stayed off' });
    expect(off(2, 99).offBy).toBeUndefined();
    expect(off(0, 3).offBy).toBeUndefined();
    expect(off(2, 3).offBy).toBeCloseTo(0.1, 12);
  });
  it('is none for a level that stays, or only goes down', () => {
    expect(
      dropIn(
        trace(() => 19.8),
        20,
      ),
    ).toMatchObject({ dropped: false, seconds: null, back: 'same level' });
    expect(
      dropIn(
        trace((t) => (t < 2 ? 20 : 15)),
        20,
      ),
    ).toMatchObject({ dropped: false, back: 'lower level' });
    expect(dropIn([], 20)).toMatchObject({ dropped: false, lowest: null });
  });
  it('tells which ports can power something that must stay on', () => {
    const drop = (port: string, cause: string, dropped: boolean) => ({
      port,
      cause,
      how: 'plugged' as const,
      dropped,
      seconds: dropped ? 1.1 : null,
      lowest: null,
      back: 'same level' as const,
    });
    const drops = [drop('C1', 'C2', true), drop('C1', 'C2', false), drop('C2', 'C1', false)];
    expect(pairsOf(['C1', 'C2'], drops)).toEqual([
      { port: 'C1', cause: 'C2', state: 'drops', longest: 1.1, seen: 2 },
      { port: 'C2', cause: 'C1', state: 'safe', longest: null, seen: 1 },
    ]);
    const timed = [
      { ...drop('C1', 'C2', true), offBy: 0.2 },
      { ...drop('C1', 'C2', true), seconds: 0.9, offBy: 0.05 },
    ];
    expect(pairsOf(['C1', 'C2'], timed)[0]).toMatchObject({ longest: 1.1, offBy: 0.2, seen: 2 });
    expect(steadyPorts(['C1', 'C2', 'A1'], drops).map(({ state }) => state)).toEqual([
      'drops',
      'not tested',
      'not tested',
    ]);
    expect(steadyPorts(['C1', 'C2'], drops).map(({ state, by }) => [state, by])).toEqual([
      ['drops', ['C2']],
      ['steady', []],
    ]);
  });
});
