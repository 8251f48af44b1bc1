import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type ByRule,
  type Compared,
  chanceBetter,
  componentsOf,
  EVERYTHING,
  edgeOf,
  firstOf,
  kitSum,
  membersOf,
  notBeaten,
  populationOf,
  reignsOf,
  rivalsOf,
  ruleWords,
  type SetFacts,
  sharedConditions,
  standingOf,
  stepBetween,
  toleranceFactor,
  weightedRanking,
  yearsOf,
} from './index.ts';

const facts = (id: string, part: Partial<SetFacts> = {}): SetFacts => ({
  id,
  modelId: `m-${id}`,
  title: `Sample ${id}`,
  kind: 'wall',
  watts: 65,
  ports: 2,
  since: '2025-06-01',
  methods: [],
  labels: [],
  archived: false,
  measured: 3,
  ...part,
});
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

describe('a set', () => {
  const rule = (part: Partial<ByRule>): ByRule => ({ ...EVERYTHING, ...part });
  const reason = (part: Partial<ByRule>, one: SetFacts) => membersOf(rule(part), [one]).out[0]?.reason ?? 'in';
  it.each([
    [{ kinds: ['wall'] }, { kind: 'desktop' }, 'desktop, and the set takes wall'],
    [{ watts: { from: 60, to: 70 } }, { watts: 45 }, '45 W, and the set takes 60 to 70 W'],
    [{ watts: { from: 60, to: null } }, { watts: null }, 'its nameplate is not known, and the set takes 60 W or more'],
    [{ ports: { from: 3, to: null } }, {}, '2 ports, and the set takes 3 ports or more'],
    [{ since: '2026-01-01' }, {}, 'of 2025-06-01, and the set begins on 2026-01-01'],
    [{ method: 'M' }, {}, 'not tested by the method of the set'],
    [{ label: 'huts' }, { labels: ['vans'] }, 'not labelled huts'],
    [{}, { archived: true }, 'archived'],
    [{ watts: { from: 60, to: 70 }, label: 'huts' }, { labels: ['huts'] }, 'in'],
  ])('%j leaves out %j: %s', (asked, one, said) => expect(reason(asked, facts('a', one))).toBe(said));
  it('has one unit a model, that of which most is known, and says which', () => {
    const units = [facts('a', { modelId: 'm' }), facts('b', { modelId: 'm', measured: 9 }), facts('c')];
    const { members, out } = membersOf(EVERYTHING, units);
    expect(members.map(({ id }) => id)).toEqual(['b', 'c']);
    expect(out).toEqual([
      { id: 'a', title: 'Sample a', reason: 'another unit of its model stands in the set: Sample b' },
    ]);
    expect(membersOf({ ...EVERYTHING, oneUnit: false }, units).members).toHaveLength(3);
  });
  it('is picked by hand too', () => {
    const picked = { kind: 'picked', picks: [{ id: 'b', reason: 'lent for a week' }] } as const;
    expect(membersOf(picked, [facts('a'), facts('b')]).members.map(({ id }) => id)).toEqual(['b']);
    expect(ruleWords(picked)).toBe('1 picked by hand');
    expect(ruleWords(rule({ kinds: ['wall'], watts: { from: 40, to: 70 } }))).toBe(
      'wall · 40 to 70 W · one unit a model',
    );
  });
  it('parts all there are into in and out, each once', () => {
    const any = fc.array(
      fc.record({
        id: fc.uuid(),
        watts: fc.option(fc.integer({ min: 5, max: 240 })),
        model: fc.integer({ min: 0, max: 4 }),
      }),
    );
    fc.assert(
      fc.property(any, fc.boolean(), (list, oneUnit) => {
        const all = list.map(({ id, watts, model }) => facts(id, { watts, modelId: String(model) }));
        const { members, out } = membersOf(rule({ oneUnit, watts: { from: 30, to: 100 } }), all);
        expect([...members, ...out].map(({ id }) => id).sort()).toEqual(all.map(({ id }) => id).sort());
      }),
    );
  });
  it('offers the condition most share first', () => {
    const seen = [
      { id: 'a', condition: '230 V' },
      { id: 'b', condition: '230 V' },
      { id: 'b', condition: '230 V' },
      { id: 'a', condition: '115 V' },
      { id: 'c', condition: '12 V' },
    ];
    expect(sharedConditions(seen)).toEqual([
      { condition: '230 V', count: 2 },
      { condition: '115 V', count: 1 },
      { condition: '12 V', count: 1 },
    ]);
  });
});

describe('the not-beaten edge', () => {
  it('is what nothing is better than in one without being worse in the other', () => {
    expect(
      edgeOf(
        [
          [1, 3],
          [2, 2],
          [2, 3],
          [3, 1],
          [3, 3],
        ],
        'less',
        'less',
      ),
    ).toEqual([0, 1, 3]);
    expect(
      edgeOf(
        [
          [1, 3],
          [2, 2],
          [3, 3],
        ],
        'more',
        'more',
      ),
    ).toEqual([2]);
    expect(
      edgeOf(
        [
          [1, 1],
          [1, 1],
          [Number.NaN, 0],
          [Number.POSITIVE_INFINITY, 0],
        ],
        'less',
        'less',
      ),
    ).toEqual([0, 1]);
    expect(edgeOf([], 'less', 'more')).toEqual([]);
  });
  it('is the same as comparing each with each', () => {
    const point = fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 }));
    fc.assert(
      fc.property(fc.array(point, { maxLength: 40 }), (points) => {
        expect([...edgeOf(points, 'less', 'less')].sort((a, b) => a - b)).toEqual([...notBeaten(points)]);
      }),
    );
  });
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

describe('where one stands', () => {
  it('has a rank, the mean, and how many it is ahead of', () => {
    const all = [of('a', 1, 0), of('b', 2, 0), of('c', 2, 0), of('d', 4, 0)];
    expect(standingOf('b', all, 'less')).toEqual({ rank: 2, of: 4, mean: 2.25, ahead: 0.5, interval: [0.5, 0.5] });
    expect(standingOf('a', all, 'more')).toMatchObject({ rank: 4, ahead: 0 });
    expect(standingOf('x', all, 'less')).toBeNull();
    expect(standingOf('a', [of('a', 1)], 'less')).toMatchObject({ rank: 1, of: 1, ahead: null, interval: null });
  });
  it('says how sure that is', () => {
    const close = Array.from({ length: 21 }, (_one, at) => of(String(at), at * 0.01, 0.05));
    const told = standingOf('10', close, 'less');
    expect(told?.ahead).toBe(0.5);
    expect(told?.interval?.[0]).toBeLessThan(0.3);
    expect(told?.interval?.[1]).toBeGreaterThan(0.7);
    expect(
      standingOf(
        '10',
        close.map((one) => (one.id === '10' ? { ...one, u: null } : one)),
        'less',
      )?.interval,
    ).toBeNull();
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

describe('units of a model', () => {
  it('spread between units stands beside that within', () => {
    const told = componentsOf([
      [91.7, 91.8],
      [92.1, 92.2],
      [91.2, 91.1],
    ]);
    expect(told?.between).toBeCloseTo(0.501, 3);
    expect(told?.within).toBeCloseTo(0.0707, 4);
    // Unlike sizes, in numpy.
    const unlike = componentsOf([[10.1, 10.2, 10.0], [10.6, 10.5], [9.8]]);
    expect(unlike?.between).toBeCloseTo(0.337773, 6);
    expect(unlike?.within).toBeCloseTo(0.091287, 6);
    expect(componentsOf([[1, 2]])).toBeNull();
    expect(componentsOf([[1], [2]])).toBeNull();
    expect(
      componentsOf([
        [1, 3],
        [2, 2],
      ])?.between,
    ).toBe(0);
  });
  // scipy: nct.ppf(0.95, n-1, norm.ppf(0.9)*sqrt(n))/sqrt(n)
  it.each([
    [2, 20.5815],
    [3, 6.1553],
    [5, 3.4066],
    [10, 2.3546],
  ])('%i of them: a factor of %f', (count, factor) => expect(toleranceFactor(count)).toBeCloseTo(factor, 3));
  it('one unit says nothing of the next', () => {
    expect(toleranceFactor(1)).toBeNull();
    expect(toleranceFactor(2.5)).toBeNull();
    expect(toleranceFactor(5, 1)).toBeNull();
    expect(populationOf([{ id: 'a', value: 1, u: 0.1, group: '' }], 'more')).toMatchObject({
      bound: null,
      spread: null,
    });
    expect(populationOf([], 'more')).toBeNull();
  });
  const unit = (id: string, value: number, group = '', u: number | null = 0.02) => ({ id, value, u, group });
  it('tells one bad unit from a bad model', () => {
    const good = [90, 90.1, 89.9, 90.05, 89.95].map((value, at) => unit(String(at), value));
    const told = populationOf([...good, unit('bad', 85)], 'more');
    expect(told?.odd.map(({ id }) => id)).toEqual(['bad']);
    expect(populationOf(good, 'more')?.odd).toEqual([]);
    // Three units cannot accuse one of them.
    expect(populationOf([unit('a', 90), unit('b', 90), unit('c', 50)], 'more')?.odd).toEqual([]);
  });
  it('takes the reading out of the spread, and sees factories', () => {
    const told = populationOf(
      [unit('a', 10, 'F1'), unit('b', 10.2, 'F1'), unit('c', 11, 'F2'), unit('d', 11.2, 'F2')],
      'less',
    );
    expect(told?.spread).toBeCloseTo(0.588784, 6);
    expect(told?.between).toBeCloseTo(Math.sqrt(0.588784 ** 2 - 0.02 ** 2), 5);
    expect(told?.groups).toEqual([
      { group: 'F1', count: 2, mean: 10.1 },
      { group: 'F2', count: 2, mean: 11.1 },
    ]);
    expect(told?.bound).toBeGreaterThan(11.2);
    expect(populationOf([unit('a', 1, '', null), unit('b', 2)], 'less')).toMatchObject({ within: null, between: null });
  });
});

describe('one against one', () => {
  it('differs by a number with its uncertainty, and which is better', () => {
    const step = stepBetween(of('a', 90, 0.1), of('b', 92, 0.2), 'more');
    expect(step?.expanded).toBeCloseTo(0.4472, 4);
    expect(step).toMatchObject({ value: 2, better: 'second' });
    expect(step?.part).toBeCloseTo(0.02222, 5);
    expect(stepBetween(of('a', 90, 0.1), of('b', 90.2, 0.2), 'more')?.better).toBeNull();
    expect(stepBetween(of('a', 1, null), of('b', 9), 'less')).toMatchObject({ expanded: null, better: null });
    expect(stepBetween(of('a', 1, 0.1, { below: true }), of('b', 9), 'less')).toBeNull();
  });
});

describe('a kit', () => {
  const piece = (part: object) => ({
    id: 'a',
    title: 'Ember',
    mass: 0.1,
    volume: 1e-4,
    price: 20,
    currency: 'EUR',
    idle: 0.05,
    sockets: 1,
    ...part,
  });
  it('adds up, and a cable takes no socket', () => {
    const told = kitSum([
      piece({}),
      piece({ idle: 0.03 }),
      piece({ sockets: 0, idle: null, volume: null, mass: 0.05 }),
    ]);
    expect(told).toMatchObject({ sockets: 2, price: 60, missing: [] });
    expect(told.mass).toBeCloseTo(0.25, 9);
    expect(told.idleYear).toBeCloseTo(0.7008, 4);
  });
  it('what one piece lacks makes its sum unknown, never smaller', () => {
    const told = kitSum([piece({ mass: null }), piece({ currency: 'CHF' })]);
    expect([told.mass, told.price]).toEqual([null, null]);
    expect(told.missing).toEqual(['mass of Ember', 'one currency for all prices']);
  });
});

describe('keep what you have', () => {
  const column = (title: string, better: 'less' | 'more', ...values: readonly Compared[]) => ({
    title,
    better,
    values: new Map(values.map((one) => [one.id, one])),
  });
  it('unless another is better in something and worse in nothing', () => {
    const told = rivalsOf('own', [
      column('idle', 'less', of('own', 50, 1), of('a', 40, 1), of('b', 40, 1), of('c', 30, 1)),
      column('efficiency', 'more', of('own', 90, 0.1), of('a', 90.1, 0.1), of('b', 88, 0.1), of('c', 91, 0.1)),
      column('mass', 'less', of('own', 2, 0), of('a', 2, 0), of('b', 1, 0), of('c', 1, 0)),
    ]);
    expect(told).toEqual([
      { id: 'c', better: ['idle', 'efficiency', 'mass'], level: [] },
      { id: 'a', better: ['idle'], level: ['efficiency', 'mass'] },
    ]);
  });
  it('says nothing of samples with too little in common, and of uncertainty nobody stated', () => {
    const two = [column('idle', 'less', of('own', 50), of('a', 1)), column('mass', 'less', of('own', 2), of('a', 1))];
    expect(rivalsOf('own', two)).toEqual([]);
    const unknown = ['x', 'y', 'z'].map((title) => column(title, 'less', of('own', 50, null), of('a', 1)));
    expect(rivalsOf('own', unknown)).toEqual([]);
    expect(rivalsOf('own', [])).toEqual([]);
  });
});
