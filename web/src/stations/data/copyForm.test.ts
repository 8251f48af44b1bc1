import { describe, expect, it } from 'vitest';
import { linkOf, linkValue } from './copyForm.ts';

describe('links as chosen', () => {
  it('links go both ways', () => {
    expect(linkOf(linkValue(10e9))).toBe(10e9);
    expect([linkValue(null), linkOf(''), linkValue(3)]).toEqual(['', null, '']);
  });
});
