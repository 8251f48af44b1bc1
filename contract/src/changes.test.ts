import { describe, expect, it } from 'vitest';
import { changesBetween } from './changes.ts';

describe('what changed', () => {
  it('is told by field, in the units of its users', () => {
    expect(changesBetween({ model: { mass: 0.082 } }, { model: { mass: 0.085 } })).toEqual([
      { field: 'Mass', was: '82 g', is: '85 g' },
    ]);
    expect(changesBetween({ withdrawn: false }, { withdrawn: true })).toEqual([
      { field: 'Whether it is taken back', was: 'no', is: 'yes' },
    ]);
  });

  it('of a list is told by its place', () => {
    const ports = (label: string) => ({ model: { ports: [{ label: 'C1' }, { label }] } });
    expect(changesBetween(ports('A1'), ports('A2'))).toEqual([{ field: 'Label of port 2', was: 'A1', is: 'A2' }]);
    expect(changesBetween(ports('A1'), { model: { ports: [{ label: 'C1' }] } })).toEqual([
      { field: 'Label of port 2', was: 'A1', is: null },
    ]);
  });

  it('is nothing where nothing did, also where null stands for nothing', () => {
    expect(changesBetween({ a: 1, b: null }, { b: undefined, a: 1 })).toEqual([]);
    expect(changesBetween(null, null)).toEqual([]);
    expect(changesBetween('x', 'x')).toEqual([]);
  });

  it('of something new is everything but its ids', () => {
    expect(changesBetween(null, { id: '01JZZZZZZZZZZZZZZZZZZZZZZZ', name: 'Meter 4', notes: '' })).toEqual([
      { field: 'Name', was: null, is: 'Meter 4' },
    ]);
  });

  it('of what an id names is told without the id', () => {
    const [change] = changesBetween({ rigId: '01JZZZZZZZZZZZZZZZZZZZZZZZ' }, { rigId: '01JZZZZZZZZZZZZZZZZZZZZZZY' });
    expect(change).toEqual({ field: 'Rig', was: 'one', is: 'another one' });
    const [other] = changesBetween({ methodId: '01JZZZZZZZZZZZZZZZZZZZZZZZ' }, { methodId: 'desk' });
    expect(other).toMatchObject({ was: 'one', is: 'another one' });
    expect(changesBetween({ rigId: null }, { rigId: '01JZZZZZZZZZZZZZZZZZZZZZZZ' })).toMatchObject([
      { was: null, is: 'one' },
    ]);
  });

  it('of a list that ids name is told by how many there are', () => {
    const [a, b, c] = ['X', 'Y', 'Z'].map((end) => `01JZZZZZZZZZZZZZZZZZZZZZZ${end}`);
    const change = (was: unknown, is: unknown) => changesBetween(was, is).map((one) => [one.field, one.was, one.is]);
    const field = 'People it is for';
    expect(change(null, { mentions: [a] })).toEqual([[field, null, 'one']]);
    expect(change(null, { mentions: [] })).toEqual([]);
    expect(change({ mentions: [a] }, { mentions: [a, b, c] })).toEqual([[field, 'one', '3']]);
    expect(change({ mentions: [a, b] }, { mentions: [] })).toEqual([[field, '2', null]]);
    expect(change({ mentions: [a] }, { mentions: [b] })).toEqual([[field, 'one', 'another one']]);
    expect(change({ mentions: [a, b] }, { mentions: [a, c] })).toEqual([[field, '2', '2 others']]);
    // Of words that are no ids each is told.
    expect(change({ labels: ['loan'] }, { labels: [] })).toEqual([['Labels', 'loan', null]]);
  });

  it('of long texts and lists is told short', () => {
    const [text] = changesBetween({ notes: '' }, { notes: 'x'.repeat(500) });
    expect(text?.is).toHaveLength(120);
    const [list] = changesBetween(null, { currents: Array.from({ length: 30 }, (_, at) => at / 2) });
    expect(list?.is).toMatch(/^0 A, 0\.5 A, .* …$/);
  });
});
