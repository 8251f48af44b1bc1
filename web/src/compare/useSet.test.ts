import { describe, expect, it } from 'vitest';
import { NEW_COMPARISON } from './queries.ts';
import { soonestOf, usualPair } from './useSet.ts';

const soonest = (address: string, measures = NEW_COMPARISON.measures) =>
  soonestOf({ ...NEW_COMPARISON, measures }, new URLSearchParams(address))?.map(({ measure }) => measure) ?? null;

describe('a set is asked for first', () => {
  it('with the measures the picture shows', () => {
    expect(soonest('')).toEqual(['mass-per-watt', 'average-efficiency']);
    expect(soonest('view=Picture&x=idle&size=proven-share')).toEqual(['idle', 'average-efficiency', 'proven-share']);
  });
  it('whole where no picture of a few is looked at', () => {
    expect(soonest('view=Table')).toBeNull();
    expect(soonest('y=every')).toBeNull();
    expect(soonest('x=own-1', [...NEW_COMPARISON.measures, { measure: 'own-1', condition: null }])).toBeNull();
    expect(soonest('', NEW_COMPARISON.measures.slice(0, 2)), 'no less than all').toBeNull();
    expect(soonest('', []), 'nothing at all').toBeNull();
  });
  it('and the pair a picture begins with is one of what there is', () => {
    expect(usualPair([])).toEqual([undefined, undefined]);
    expect(usualPair(['a'])).toEqual(['a', 'a']);
    expect(usualPair(['a', 'b'])).toEqual(['a', 'b']);
    expect(usualPair(['a', 'b', 'c', 'd', 'e', 'f'])).toEqual(['a', 'd']);
  });
});
