import type { ComparisonBody, SetAnswer } from '@lastmark/contract/types';
import { EVERYTHING } from '@lastmark/core/compare';
import { formulaOf, formulaValue } from '@lastmark/core/formula';
import { describe, expect, it } from 'vitest';
import { axisTitle, emptyMeasures, type OwnFormula, plainWords, viewsOf, wantedOf, words } from './views.ts';

const member = (id: string): SetAnswer['members'][number] => ({
  id,
  modelId: `m-${id}`,
  tag: id,
  maker: 'Tarnhook',
  model: id,
  serial: '',
  kind: 'wall',
  watts: 45,
  ports: 1,
  since: '2026-03-01',
  group: '',
  labels: [],
});
const column = (measure: string, condition: string, value: number[], of = [0, 1]): SetAnswer['columns'][number] => ({
  measure,
  condition,
  of,
  value,
  u: value.map(() => 0.001),
  common: value.map(() => 0),
  meters: value.map(() => 0),
  below: value.map(() => false),
  at: value.map(() => '2026-03-02T09:00:00.000Z'),
});
const set: SetAnswer = {
  members: [member('a'), member('b')],
  out: [],
  outCount: 0,
  conditions: [{ measure: 'idle', shared: [{ condition: '230 V 50 Hz', count: 2 }] }],
  columns: [
    column('idle', '230 V 50 Hz', [0.042, 0.061]),
    column('watts', '', [45], [1]),
    column('price-per-watt', 'EUR, paid', [0.5], [0]),
  ],
  meters: ['wattmeter'],
  fates: [],
  pending: false,
};
const own = (formula: string): OwnFormula => {
  const told = formulaOf(formula);
  if ('refusal' in told) throw new Error(told.refusal);
  return {
    own: { id: 'own-x', title: 'Idle per watt', formula, better: 'less' },
    formula: told,
    value: (of) => formulaValue(told, of),
  };
};
const body = (measures: readonly string[], formulas: readonly OwnFormula[] = []): ComparisonBody => ({
  title: 'T',
  note: '',
  rule: EVERYTHING,
  measures: measures.map((measure) => ({ measure, condition: null })),
  own: formulas.map((one) => one.own),
  weights: [],
});

describe('views of a set', () => {
  it('have the values of their members, in the order of the comparison', () => {
    const [watts, idle] = viewsOf(body(['watts', 'idle']), set, []);
    expect([watts?.count, watts?.byId.get('b')?.value, watts?.byId.has('a')]).toEqual([1, 45, false]);
    expect(idle?.values.map(({ id, value, meters }) => [id, value, meters])).toEqual([
      ['a', 0.042, 'wattmeter'],
      ['b', 0.061, 'wattmeter'],
    ]);
    expect(idle && axisTitle(idle)).toBe('Idle, mW · 230 V 50 Hz');
  });
  it('say money with its currency', () => {
    const [price] = viewsOf(body(['price-per-watt']), set, []);
    expect(price && [axisTitle(price), words(price, { value: 0.5, u: 0, below: false })]).toEqual([
      'Price per watt, EUR/W · EUR, paid',
      'EUR 0.5/W',
    ]);
    expect(price && plainWords(price, 0.25)).toBe('EUR 0.25/W');
  });
  it('of one’s own are worked out for whoever has all they stand on, which is fetched for them', () => {
    const formula = own('idle / watts');
    const asked = body(['idle', 'own-x'], [formula]);
    expect(wantedOf(asked, [formula]).map(({ measure }) => measure)).toEqual(['idle', 'watts']);
    const [, view] = viewsOf(asked, set, [formula]);
    expect(view?.values).toMatchObject([{ id: 'b', at: '2026-03-02T09:00:00.000Z' }]);
    expect(view?.values[0]?.value).toBeCloseTo(0.061 / 45, 12);
    expect(view?.condition).toBe('230 V 50 Hz');
    // Another formula under the same name is another question.
    const [, other] = viewsOf(body(['idle', 'own-x'], [own('idle * watts')]), set, [own('idle * watts')]);
    expect(other?.key).not.toBe(view?.key);
  });
  it('name what nobody has', () => {
    const asked = body(['idle', 'ripple']);
    expect(emptyMeasures(asked, viewsOf(asked, set, []))).toEqual(['Ripple']);
  });
});
