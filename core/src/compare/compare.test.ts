import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type ByRule,
  type Compared,
  EVERYTHING,
  edgeOf,
  membersOf,
  notBeaten,
  rivalsOf,
  ruleWords,
  type SetFacts,
  sharedConditions,
  standingOf,
  stepBetween,
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
  it('holds either place of another whose uncertainty nobody knows', () => {
    const all = [of('a', 1, 0), of('b', 2, 0), of('c', 3, null), of('d', 0.5, null), of('e', 0.2, 0)];
    // It beats b, not e; c and d may lie on either side.
    expect(standingOf('a', all, 'less')).toMatchObject({ ahead: 0.5, interval: [0.25, 0.75] });
    expect(standingOf('a', [of('a', 1, 0), of('c', 3, null)], 'less')?.interval).toEqual([0, 1]);
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
