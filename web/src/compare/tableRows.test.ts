import type { SetMember } from '@lastmark/contract/types';
import type { Compared } from '@lastmark/core/compare';
import { describe, expect, it } from 'vitest';
import { viewsShown } from './ColumnsMenu.tsx';
import { isHeld, rangeOf } from './Held.tsx';
import { grouped, inOrder, insideAll } from './tableRows.ts';
import type { MeasureView } from './views.ts';

const member = (id: string, maker = 'Tarnhook'): SetMember => ({
  id,
  modelId: id,
  tag: id,
  maker,
  model: id,
  serial: '1',
  kind: 'wall',
  watts: 45,
  ports: 1,
  since: '2026-03-01',
  group: '',
  labels: [],
});
const view = (id: string, of: Readonly<Record<string, number>>, factor = 1000): MeasureView => {
  const values = Object.entries(of).map(
    ([own, value]): Compared => ({ id: own, value, u: 0, common: 0, meters: '', below: false, at: null }),
  );
  const byId = new Map(values.map((one) => [one.id, one]));
  return {
    id,
    title: id,
    unit: 'mW',
    factor,
    better: 'less',
    condition: '',
    key: id,
    count: values.length,
    values,
    byId,
    shared: [],
  };
};
const idle = view('idle', { a: 0.04, b: 0.06 });
const members = [member('b'), member('c', 'Pellwick'), member('a')];

describe('rows of the table of a set', () => {
  it('stand in the order of a column, those without a value last, whichever way', () => {
    const ids = (desc: boolean, id = 'idle') => inOrder(members, { id, desc }, [idle]).map((one) => one.id);
    expect([ids(false), ids(true)]).toEqual([
      ['a', 'b', 'c'],
      ['b', 'a', 'c'],
    ]);
    expect(ids(false, 'sample')).toEqual(['c', 'a', 'b']);
    expect(inOrder(members, undefined, [idle])).toBe(members);
  });
  it('are held to a range in the unit shown; what is no number holds nothing', () => {
    const inside = (from: string, to: string, id = 'idle') =>
      insideAll(members, [{ id, range: [from, to] }], [idle]).map((one) => one.id);
    expect(inside('', '50')).toEqual(['a']);
    expect(inside('40,0', '')).toEqual(['b', 'a']);
    expect(inside('much', '')).toEqual(['b', 'c', 'a']);
    expect(inside('1', '2', 'mass'), 'a column that is not there').toEqual(['b', 'c', 'a']);
    const mass = view('mass', { a: 1, c: 2 }, 1);
    const both = [
      { id: 'idle', range: ['40', ''] as const },
      { id: 'mass', range: ['', '1.5'] as const },
    ];
    expect(insideAll(members, both, [idle, mass]).map((one) => one.id)).toEqual(['a']);
  });
  it('come in groups with their number', () => {
    expect(grouped(members, 'maker').map(({ head, member: one }) => head ?? one?.id)).toEqual([
      'Tarnhook: 2',
      'b',
      'a',
      'Pellwick: 1',
      'c',
    ]);
    expect(grouped(members, 'no groups')).toHaveLength(3);
  });
  it('put some columns away, and keep one beside the names', () => {
    const mass = view('mass', {});
    const ids = (hidden: string[], pinned: string | null) =>
      viewsShown([idle, mass], { hidden, pinned }).map(({ id }) => id);
    expect(ids([], 'mass')).toEqual(['mass', 'idle']);
    expect(ids(['idle'], 'mass')).toEqual(['mass']);
    expect(ids(['mass'], 'mass')).toEqual(['idle']);
  });
});

describe('a measure held to a range', () => {
  it('spans from the least to the greatest, ends inside', () => {
    const range = rangeOf(idle);
    expect(range).toEqual([0.04, 0.06]);
    const held = (from: number, to: number, value: number) => isHeld(range ?? [0, 0], { id: 'idle', from, to }, value);
    expect([held(0, 1, 0.04), held(0, 1, 0.06), held(0.5, 1, 0.05), held(0.51, 1, 0.05)]).toEqual([
      true,
      true,
      true,
      false,
    ]);
    expect(rangeOf(view('none', {}))).toBeNull();
  });
});
