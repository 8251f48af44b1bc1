import { describe, expect, it } from 'vitest';
import { beforeMeter, type LineElement, lineRefusal } from './index.ts';

const cable = (part: Partial<LineElement> = {}): LineElement => ({
  kind: 'cable',
  name: 'bench',
  amps: 5,
  volts: 48,
  basis: 'marker',
  ...part,
});

describe('a step over a line', () => {
  it('is refused beyond the rating, naming the element and where its rating comes from', () => {
    expect(lineRefusal([cable()], 36, 5)).toBeNull();
    expect(lineRefusal([cable({ amps: 3 })], 20, 3.25)).toBe(
      '3.25 A is more than the cable "bench" carries: 3 A, by its marker.',
    );
    expect(lineRefusal([cable(), cable({ kind: 'adapter', name: 'angle', volts: 20, basis: 'own rule' })], 28, 5)).toBe(
      '28 V is more than the adapter "angle" is made for: 20 V, by your own rule.',
    );
  });

  it('over a cable nobody rates ends at 3 A and 20 V', () => {
    const unrated = cable({ amps: null, volts: null, basis: 'not stated' });
    expect(lineRefusal([unrated], 20, 3)).toBeNull();
    expect(lineRefusal([unrated], 20, 3.25)).toContain('at most 3 A, 60 W');
    expect(lineRefusal([unrated], 28, 1)).toContain('20 V');
  });

  it('lets PPS run to 21 V on a 20 V line', () => {
    expect(lineRefusal([cable({ volts: 20 })], 21, 3)).toBeNull();
  });

  it('over nothing at all is never refused', () => expect(lineRefusal([], 48, 5)).toBeNull());
});

it('what sits before the meter is hidden from it', () => {
  const meter = cable({ kind: 'inline meter', name: 'm' });
  expect(beforeMeter([cable(), meter]).map(({ name }) => name)).toEqual(['bench']);
  expect(beforeMeter([meter, cable()])).toEqual([]);
  expect(beforeMeter([cable()])).toEqual([]);
});
