// Chargers that share in ways our own bench does not, and what may be said of sets nobody read.
import { describe, expect, it } from 'vitest';
import { measured } from '../uncertainty/index.ts';
import { inferRule, predictSplit, readSet, readSplitList, type SplitReading } from './index.ts';

type Watts = Record<string, number>;
const reading = (watts: Watts, part: Partial<SplitReading> = {}): SplitReading => ({
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

describe('ports that fall back to 5 V beside each other', () => {
  const rule = inferRule(
    ['A1', 'A2'],
    [
      reading({ A1: 18 }, { volts: { A1: 9 } }),
      reading({ A2: 18 }, { volts: { A2: 9 } }),
      reading({ A1: 12, A2: 12 }, { volts: { A1: 5.1, A2: 5.1 } }),
    ],
  );
  it('do not share a budget: their level changed', () => {
    expect(rule.budgets.map(({ sharing }) => sharing.kind)).toEqual(['level']);
    expect(rule.sentences).toEqual([
      'A1 and A2 fall back to 5 V beside each other: their level changes, no budget is divided. Alone A1 18 W, A2 18 W.',
    ]);
    expect(predictSplit(rule, ['A1', 'A2'])).toEqual({ A1: 12, A2: 12 });
  });
  it('share one where the level sinks and stays above 5 V', () => {
    const shared = inferRule(
      ['C1', 'C2'],
      [
        reading({ C1: 65 }, { volts: { C1: 20 } }),
        reading({ C2: 65 }, { volts: { C2: 20 } }),
        reading({ C1: 32, C2: 32 }, { volts: { C1: 15, C2: 15 } }),
      ],
    );
    expect(shared.sentences[0]).toContain('share');
  });
});

describe('a budget', () => {
  it('is never said to be less than what one of its ports gives alone', () => {
    const rule = inferRule(['C1', 'C2'], [reading({ C1: 100 }), reading({ C2: 65 }), reading({ C1: 45, C2: 30 })]);
    expect(rule.budgets[0]?.sharing.kind).toBe('table');
    expect(rule.sentences[0]).toContain('share up to 100 W');
    for (const [, watts] of (rule.sentences[0] ?? '').matchAll(/share (?:up to )?(\d+) W/g))
      expect(Number(watts)).toBeGreaterThanOrEqual(100);
  });
});

describe('what was not read', () => {
  it('is open: a port alone with two others singly is not alone with both', () => {
    const ports = ['C1', 'C2', 'A1'];
    const rule = inferRule(ports, [
      reading({ C1: 45 }),
      reading({ C2: 30 }),
      reading({ A1: 12 }),
      reading({ C1: 45, C2: 30 }),
      reading({ C1: 45, A1: 12 }),
      reading({ C2: 30, A1: 12 }),
    ]);
    expect(rule.sentences.join(' ')).not.toContain('whatever else');
    expect(rule.open).toEqual([expect.objectContaining({ measure: ports })]);
    const all = inferRule(ports, [
      ...['C1', 'C2', 'A1'].map((port) => reading({ [port]: 12 })),
      reading({ C1: 12, C2: 12, A1: 12 }),
    ]);
    expect(all.sentences.join(' ')).toContain('whatever else');
  });
  it('stays open also where a rule would fill it in', () => {
    const rule = inferRule(
      ['C1', 'C2', 'C3'],
      [
        reading({ C1: 60 }),
        reading({ C2: 60 }),
        reading({ C3: 60 }),
        reading({ C1: 30, C2: 30 }),
        reading({ C2: 30, C3: 30 }),
        reading({ C1: 30, C3: 30 }),
      ],
    );
    expect(rule.budgets[0]?.sharing.kind).toBe('even');
    expect(predictSplit(rule, ['C1', 'C2', 'C3'])).toEqual({ C1: 20, C2: 20, C3: 20 });
    expect(readSet(rule, ['C1', 'C2', 'C3'])).toBe(false);
    expect(readSet(rule, ['C1', 'C2'])).toBe(true);
    expect(rule.open.map(({ measure }) => measure.join())).toContain('C1,C2,C3');
  });
  it('by meters of unknown accuracy is not read', () => {
    const unknown = measured(45, 0, 0, Number.POSITIVE_INFINITY, [{ meter: null, quantity: 'voltage' }]);
    const rule = inferRule(['C1', 'C2'], [{ ...reading({ C1: 45 }), watts: { C1: unknown } }]);
    expect(rule.budgets).toEqual([]);
  });
});

describe('a port that draws little', () => {
  const hard = [reading({ C1: 65 }), reading({ C2: 65 }), reading({ C1: 32.5, C2: 32.5 })];
  it('may keep power back, and then it is said how much', () => {
    const rule = inferRule(['C1', 'C2'], [...hard, reading({ C1: 45, C2: 2 }, { light: ['C2'] })]);
    expect(rule.reserves).toEqual([{ from: 'C1', by: ['C2'], watts: expect.closeTo(18, 6) }]);
    expect(rule.demand).toBe('follows demand');
    expect(rule.sentences).toContain('C2 keeps 18 W back from C1 while drawing little.');
  });
  it('may keep nothing', () => {
    const rule = inferRule(['C1', 'C2'], [...hard, reading({ C1: 63, C2: 2 }, { light: ['C2'] })]);
    expect(rule.reserves).toEqual([]);
  });
});

describe('the order of plugging', () => {
  it('is said to matter where readings of one set differ by it', () => {
    const rule = inferRule(
      ['C1', 'C2'],
      [
        reading({ C1: 65 }),
        reading({ C2: 65 }),
        reading({ C1: 45, C2: 20 }, { order: ['C1', 'C2'] }),
        reading({ C1: 20, C2: 45 }, { order: ['C2', 'C1'] }),
      ],
    );
    expect(rule.sentences.join(' ')).toContain(
      'The order of plugging matters in C1+C2: C1 gave 45 W plugged in as C1, then C2, 20 W plugged in as C2, then C1.',
    );
  });
});

describe('labels with signs', () => {
  const ports = ['C+', 'C', 'A + 1'];
  it('stay themselves in rules', () => {
    const rule = inferRule(ports, [
      reading({ 'C+': 65 }),
      reading({ C: 65 }),
      reading({ 'C+': 45, C: 20 }),
      reading({ 'A + 1': 12 }),
    ]);
    expect(predictSplit(rule, ['C+', 'C'])).toEqual({ 'C+': 45, C: 20 });
    expect(rule.budgets.map((one) => one.ports)).toEqual([['C+', 'C'], ['A + 1']]);
  });
  it('and in lists', () => {
    const list = readSplitList('order,mains_W,C+_V,C+_A,C_V,C_A\nC++C,70,20,2,9,2\nA + 1+C,5,,,,\n', ports);
    expect(list.bad).toEqual([]);
    expect(list.splits.map(({ order }) => order)).toEqual([
      ['C+', 'C'],
      ['A + 1', 'C'],
    ]);
  });
});
