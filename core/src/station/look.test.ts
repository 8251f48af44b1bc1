import { describe, expect, it } from 'vitest';
import { lookOf } from './look.ts';

describe('the look of a station', () => {
  it('is loud as soon as something fell short, however far it is', () => {
    expect(lookOf({ done: 0, total: 5, worst: 'short' })).toBe('found wanting');
    expect(lookOf({ done: 5, total: 5, worst: 'unreachable' })).toBe('found wanting');
  });
  it('tells untouched, under way and done apart', () => {
    expect(lookOf({ done: 0, total: 5, worst: null })).toBe('untouched');
    expect(lookOf({ done: 2, total: 5, worst: 'proven' })).toBe('under way');
    expect(lookOf({ done: 5, total: 5, worst: 'borderline' })).toBe('done');
  });
  it('has nothing to show where there is nothing to do, or no number', () => {
    expect(lookOf({ done: 0, total: 0, worst: null })).toBe('untouched');
    expect(lookOf({ done: Number.NaN, total: 3, worst: null })).toBe('untouched');
  });
});
