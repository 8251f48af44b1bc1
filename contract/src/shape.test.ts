import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { joined, misfit, shapeOf } from './shape.ts';

describe('the shape of values', () => {
  it('is what they have in common', () => {
    const shape = joined(
      shapeOf({ id: 'a', at: '2026-03-02T09:00:00.000Z', value: 1, ports: [] }),
      shapeOf({ id: 'b', at: '2026-03-02T09:00:01.000Z', value: null, ports: ['C1'], note: 'x' }),
    );
    expect(shape).toEqual({
      type: 'object',
      properties: {
        at: { type: 'string', format: 'date-time' },
        id: { type: 'string' },
        note: { type: 'string' },
        ports: { type: 'array', items: { type: 'string' } },
        value: { type: ['null', 'number'] },
      },
      required: ['at', 'id', 'ports', 'value'],
      additionalProperties: false,
    });
  });

  it('of what is keyed by ids or by what people typed is a map', () => {
    expect(shapeOf({ '01JZZZZZZZZZZZZZZZZZZZZZZZ': 1, 'C1 20 V': 2 })).toEqual({
      type: 'object',
      additionalProperties: { type: 'number' },
    });
  });

  it.each([
    ['another kind', { a: 'x' }, { a: 1 }, 'a is number, not string'],
    ['what is lacking', { a: 1, b: 2 }, { a: 1 }, 'it lacks b'],
    ['what is not described', { a: 1 }, { a: 1, b: 2 }, 'it has b, which is not described'],
    ['an item', { a: [{ b: 1 }] }, { a: [{ b: 1 }, { b: null }] }, 'a[1].b is null, not number'],
    ['a list of which nothing was seen', { a: [] }, { a: [1] }, 'a holds what is not described'],
    ['a moment that is none', ['2026-03-02T09:00:00Z'], ['yesterday'], '[0] is no moment'],
  ])('tells %s', (_name, seen, value, says) => expect(misfit(shapeOf(seen), value)).toBe(says));

  it('is had by all that were joined in it', () =>
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), fc.jsonValue(), (a, b, c) => {
        const shape = [a, b, c].map(shapeOf).reduce(joined);
        for (const one of [a, b, c]) expect(misfit(shape, one)).toBeNull();
      }),
    ));
});
