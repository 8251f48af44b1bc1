import { describe, expect, it } from 'vitest';
import { momentText } from '../parts/moment.ts';
import { seenWords } from './queries.ts';

describe('who sees a collection', () => {
  const embargo = '2999-03-01T09:00:00.000Z';
  it('is told by its embargo while that lasts, else by who is named', () => {
    expect(seenWords({ closed: true, embargo, people: ['a'] })).toBe(`under embargo until ${momentText(embargo)}`);
    expect(seenWords({ closed: false, embargo: '2020-03-01T09:00:00.000Z', people: ['a', 'b'] })).toBe(
      'the lab and 2 named',
    );
    expect(seenWords({ closed: false, embargo: null, people: [] })).toBe('the lab');
  });
});
