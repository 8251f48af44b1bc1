import { describe, expect, it } from 'vitest';
import { componentsOf, kitAdvice, kitSum, populationOf, toleranceFactor } from './index.ts';

it('equal prices have no spread, whatever their sum leaves over', () => {
  const same = Array.from({ length: 6 }, (_one, at) => ({ id: String(at), value: 27.9, u: 0, group: '' }));
  expect(populationOf(same, 'less')).toMatchObject({ spread: 0, between: 0 });
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
  it('replaces what there is only where it is lighter and draws less', () => {
    const sum = (mass: number | null, idle: number | null) => kitSum([piece({ mass, idle })]);
    expect(kitAdvice(sum(0.3, 0.2), sum(0.2, 0.1))).toBe('replace');
    expect(kitAdvice(sum(0.2, 0.1), sum(0.3, 0.2))).toBe('keep');
    expect(kitAdvice(sum(0.2, 0.1), sum(0.2, 0.1))).toBe('keep');
    expect(kitAdvice(sum(0.3, 0.1), sum(0.2, 0.2))).toBe('either');
    expect(kitAdvice(sum(null, 0.1), sum(0.2, 0.2))).toBe('unknown');
  });
});
