import { describe, expect, it } from 'vitest';
import { type Formula, formulaName, formulaOf, formulaValue } from './index.ts';

const whole = (text: string): Formula => {
  const told = formulaOf(text);
  if ('refusal' in told) throw new Error(told.refusal);
  return told;
};
const refusal = (text: string): string => {
  const told = formulaOf(text);
  return 'refusal' in told ? told.refusal : 'taken';
};

describe('a formula', () => {
  it('names measures as they are written in one word', () => {
    expect(formulaName('price-per-watt')).toBe('pricePerWatt');
    expect(whole('watts / pricePerWatt').measures).toEqual(['watts', 'price-per-watt']);
  });
  it('has a value and a unit', () => {
    const told = whole('fullLoadLoss / (watts + fullLoadLoss)');
    expect([told.unit, told.value([5, 45])]).toEqual(['', 0.1]);
    expect(whole('idle * 8760').value([0.1, 0])).toBeCloseTo(876);
    expect(whole('touchRise / fullLoadLoss').unit).toContain('K');
    expect(whole('2 × mass − mass').value([3])).toBe(3);
  });
  it.each([
    ['', 'A formula is missing'],
    ['mass +', 'cannot be read'],
    ['mass + idle', 'units do not fit'],
    ['sqrt(mass) + mass', 'units do not fit'],
    ['weight / 2', '“weight” is no measure'],
    ['3 + 4', 'names a measure'],
    ['import("x")', '“import” is nothing'],
    ['mass; mass', 'nothing else'],
    ['f(x) = mass', 'nothing else'],
    ['mass = 3', 'nothing else'],
    ['[mass, mass]', 'nothing else'],
    ['"mass"', 'Only numbers'],
    ['mass.constructor', 'nothing else'],
    ['mass.constructor("return 1")', 'nothing'],
    ['createUnit("x") * mass', '“createUnit” is nothing'],
    [`mass${' + mass'.repeat(60)}`, 'at most 200 signs'],
  ])('%s is refused: %s', (text, said) => expect(refusal(text)).toContain(said));
  it('what has no value has none, and never something that looks like one', () => {
    expect(whole('mass / watts').value([1, 0])).toBeNaN();
    expect(whole('sqrt(mass)').value([-1])).toBeNaN();
    expect(
      formulaValue(whole('mass / watts'), [
        { value: 1, u: 0 },
        { value: 0, u: 0 },
      ]),
    ).toBeNull();
  });
  it('carries uncertainty by its slopes', () => {
    // By hand: u/value = √(0.01² + 0.02²) of a quotient.
    const told = formulaValue(whole('mass / watts'), [
      { value: 2, u: 0.02 },
      { value: 4, u: 0.08 },
    ]);
    expect(told?.value).toBe(0.5);
    expect(told?.u).toBeCloseTo(0.5 * Math.hypot(0.01, 0.02), 8);
    expect(formulaValue(whole('mass'), [{ value: 2, u: null }])).toEqual({ value: 2, u: null });
    expect(formulaValue(whole('mass'), [{ value: 0, u: 0.1 }])?.u).toBeCloseTo(0.1, 9);
  });
});
