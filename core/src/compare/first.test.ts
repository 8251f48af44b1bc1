import { describe, expect, it } from 'vitest';
import { type Compared, chanceBetter, firstOf, reignsOf, weightedRanking, yearsOf } from './index.ts';

const of = (id: string, value: number, u: number | null = 0.1, part: Partial<Compared> = {}): Compared => ({
  id,
  value,
  u,
  common: 0,
  meters: '',
  below: false,
  at: null,
  ...part,
});

describe('who is first', () => {
  // Two million draws in numpy: 0.8604, 0.1327, 0.0069.
  const three = [of('a', 92, 0.1), of('b', 91.8, 0.15), of('c', 91, 0.4)];
  it('is called only where the lead is more than the uncertainty', () => {
    const { leader, chances, called, level } = firstOf(three, 'more', 200_000);
    expect([leader, called]).toEqual(['a', false]);
    expect(chances.get('a')).toBeCloseTo(0.8604, 2);
    expect(chances.get('b')).toBeCloseTo(0.1327, 2);
    expect(level).toEqual(['b']);
    expect([...chances.values()].reduce((a, b) => a + b)).toBeCloseTo(1, 9);
  });
  it('what one meter read shares its error, and a lead is told sooner', () => {
    const shared = [
      of('a', 92, 0.1, { common: 0.09, meters: 'm' }),
      of('b', 91.8, 0.15, { common: 0.14, meters: 'm' }),
    ];
    const { chances, called } = firstOf(shared, 'more', 200_000);
    expect(chances.get('a')).toBeCloseTo(0.9904, 2);
    expect(called).toBe(true);
    const [a, b] = shared as [Compared, Compared];
    expect(chanceBetter(a, b, 'more')).toBeCloseTo(0.99038, 5);
    expect(chanceBetter({ ...a, meters: 'n' }, b, 'more')).toBeCloseTo(0.86637, 5);
  });
  it('turns round where less is better, and equals share the place', () => {
    expect(firstOf([of('a', 2, 0), of('b', 1, 0)], 'less')).toMatchObject({ leader: 'b', called: true, level: [] });
    const { chances, called, level } = firstOf([of('a', 1, 0), of('b', 1, 0)], 'less', 100);
    expect([chances.get('a'), chances.get('b'), called, level]).toEqual([0.5, 0.5, false, ['b']]);
  });
  it('one whose uncertainty nobody stated can be neither first nor beaten', () => {
    const { leader, called, unknown } = firstOf([of('a', 95, 0.1), of('b', 90, null)], 'more');
    expect([leader, called, unknown]).toEqual(['a', false, ['b']]);
    expect(firstOf([of('b', 90, null)], 'more').leader).toBeNull();
  });
  it('below what the meter reads is anywhere down to nought', () => {
    const { chances } = firstOf([of('a', 0.02, 0.005, { below: true }), of('b', 0.01, 0)], 'less', 100_000);
    expect(chances.get('a')).toBeCloseTo(0.5, 2);
  });
  it('has no answer without values or a direction', () => {
    expect(firstOf([], 'more')).toMatchObject({ leader: null, called: false });
    expect(firstOf(three, null).leader).toBeNull();
    expect(firstOf([of('a', Number.NaN)], 'more').leader).toBeNull();
  });
});

describe('a ranking by weights', () => {
  const criteria = (a: number, b: number) => [
    {
      measure: 'x',
      title: 'X',
      better: 'more',
      weight: a,
      values: [of('p', 10, 0), of('q', 6, 0), of('r', 0, 0)],
    } as const,
    {
      measure: 'y',
      title: 'Y',
      better: 'less',
      weight: b,
      values: [of('p', 10, 0), of('q', 4, 0), of('r', 0, 0)],
    } as const,
  ];
  it('weighs between the worst and the best of the set', () => {
    const { ranked, called } = weightedRanking(criteria(1, 1), 200);
    // 0.5·(1, 0.6, 0) + 0.5·(0, 0.6, 1)
    expect(ranked.map(({ id, merit }) => [id, Number(merit.toFixed(6))])).toEqual([
      ['q', 0.6],
      ['p', 0.5],
      ['r', 0.5],
    ]);
    expect(called).toBe(true);
    expect(ranked.every((one) => one.notBeaten)).toBe(true);
    // Even weights in numpy: 0.400, 0.200, 0.400.
    const any = new Map(ranked.map(({ id, anyWeights }) => [id, anyWeights]));
    expect(any.get('q')).toBeCloseTo(0.2, 1);
    expect(any.get('p')).toBeCloseTo(0.4, 1);
  });
  it('says which weight tips it, by hand: X at 60 % makes p as good as q', () => {
    const { tips } = weightedRanking(criteria(1, 1), 50);
    expect(tips[0]?.to).toBeCloseTo(0.6, 9);
    expect(tips[0]?.from).toBe(0.5);
    expect(tips.map(({ becomes }) => becomes)).toContain('p');
  });
  it('leaves out who lacks a value, and says what', () => {
    const [x, y] = criteria(1, 1);
    const lacking = [x, { ...(y as NonNullable<typeof y>), values: [of('p', 10), of('q', 4, null)] }];
    const { without, ranked } = weightedRanking(lacking as never, 50);
    expect(ranked.map(({ id }) => id)).toEqual(['p']);
    expect(without).toEqual([
      { id: 'q', lacks: ['uncertainty of Y'] },
      { id: 'r', lacks: ['Y'] },
    ]);
  });
  it('without weights ranks nobody', () => {
    expect(weightedRanking([]).ranked).toEqual([]);
    expect(weightedRanking(criteria(0, Number.NaN)).ranked).toEqual([]);
  });
  it('is shaken by uncertainty', () => {
    const near = [
      { measure: 'x', title: 'X', better: 'more', weight: 1, values: [of('p', 10, 1), of('q', 9.9, 1), of('r', 0, 1)] },
    ] as const;
    const { ranked, called } = weightedRanking(near, 20_000);
    expect(called).toBe(false);
    // Φ(0.1/√2) = 0.5282
    expect(ranked[0]?.first).toBeCloseTo(0.528, 1);
  });
});

describe('former winners', () => {
  const dated = (id: string, at: string, value: number, u: number | null = 0.1) =>
    of(id, value, u, { at: `${at}T10:00:00.000Z` });
  it('are ousted only by a lead beyond the uncertainty', () => {
    const reigns = reignsOf(
      [
        dated('c', '2025-05-01', 92),
        dated('a', '2024-01-01', 90),
        dated('b', '2024-06-01', 90.1),
        dated('d', '2026-01-01', 99, null),
      ],
      'more',
    );
    expect(reigns).toEqual([
      { id: 'a', value: 90, from: '2024-01-01', until: '2025-05-01', certainty: null },
      { id: 'c', value: 92, from: '2025-05-01', until: null, certainty: 1 },
    ]);
    expect(reignsOf([of('a', 1)], 'more')).toEqual([]);
  });
  it('the field drifts with the years', () => {
    const all = [dated('a', '2024-01-01', 88), dated('b', '2024-02-01', 90), dated('c', '2025-01-01', 92)];
    expect(yearsOf(all, 'more')).toEqual([
      { year: 2024, count: 2, median: 89, best: 90 },
      { year: 2025, count: 1, median: 92, best: 92 },
    ]);
    expect(yearsOf(all, 'less')[0]?.best).toBe(88);
  });
});
