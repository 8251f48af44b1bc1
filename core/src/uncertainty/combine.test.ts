// One thing by several meters, against vectors worked out with numpy.
import { describe, expect, it } from 'vitest';
import { combinedSays, combineMeters, combineRepeats, type Measured, measured, readBy } from './index.ts';

const by = (meter: string, of: Measured) => ({ of, meters: [meter] });
const unstated = readBy(undefined, 60, { meter: 'plug', quantity: 'power' });

describe('several meters of one thing', () => {
  it('count by 1/u²; what scatters more than stated is known less well', () => {
    // numpy: w = 1/u², Σwx/Σw, and 1/√Σw · √(χ²/2).
    const { result, disagree } = combineMeters([
      by('a', measured(49.1, 0.05)),
      by('b', measured(50.3, 0.1)),
      by('c', measured(49.3, 0.2)),
    ]);
    expect(result.value).toBeCloseTo(49.33809523809524, 10);
    expect(result.uInstrument).toBeCloseTo(0.3312862310652576, 10);
    expect(disagree?.map(({ value }) => value)).toEqual([49.1, 50.3]);
  });

  it('that agree give less uncertainty than the best alone', () => {
    const { result, disagree, aside } = combineMeters([by('a', measured(10, 0.1)), by('b', measured(10.1, 0.1))]);
    expect(result.value).toBeCloseTo(10.05, 12);
    expect(result.uInstrument).toBeCloseTo(0.1 / Math.SQRT2, 12);
    expect([disagree, aside]).toEqual([null, 0]);
  });

  it('that share a meter share its error', () => {
    const { result } = combineMeters([
      { of: measured(5, 0.03), meters: ['wall', 'a'] },
      { of: measured(5.1, 0.06), meters: ['wall', 'b'] },
    ]);
    expect(result.value).toBeCloseTo(5.02, 12);
    // Fully common: 0.8 · 0.03 + 0.2 · 0.06, and χ² = 2.22 of one degree of freedom.
    expect(result.uInstrument).toBeCloseTo(0.036 * Math.sqrt(2.2222222222222), 9);
  });

  it('and repeats by each: the repeats of a kit first', () => {
    const own = [measured(10, 0.1), measured(10.2, 0.1)];
    const { result } = combineMeters([...own.map((of) => by('a', of)), by('b', measured(10.1, 10))]);
    expect(result.value).toBeCloseTo(10.1, 3);
    expect(combineMeters(own.map((of) => by('a', of))).result).toEqual(combineRepeats(own));
  });

  it('of unstated accuracy do not count beside one that states it, and count alone', () => {
    const both = combineMeters([by('a', measured(10, 0.1)), by('plug', unstated)]);
    expect(both).toMatchObject({ result: { value: 10, unstated: [] }, aside: 1 });
    expect(combinedSays(both, 'power')).toEqual(['A reading of unstated accuracy not counted beside the stated.']);
    expect(combineMeters([by('plug', unstated), by('socket', unstated)])).toMatchObject({
      result: { value: 60, unstated: [{ meter: 'plug' }] },
      aside: 0,
      disagree: null,
    });
  });

  it('without any uncertainty are a plain mean, and differ as they differ', () => {
    const { result, disagree } = combineMeters([by('a', measured(10, 0)), by('b', measured(12, 0))]);
    expect(result.value).toBe(11);
    expect(disagree).not.toBeNull();
  });

  it('say how far apart they are', () =>
    expect(combinedSays(combineMeters([by('a', measured(49, 0.05)), by('b', measured(50, 0.05))]), 'power')).toEqual([
      'Meters disagree by more than they state: 49.00 ± 0.10 W and 50.00 ± 0.10 W. Check them against each other.',
    ]));

  it('of none there is nothing', () => expect(() => combineMeters([])).toThrow(RangeError));
});
