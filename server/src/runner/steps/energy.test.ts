import { describe, expect, it } from 'vitest';
import { energyProblem } from './energy.ts';

describe('energy as counted', () => {
  it.each([
    [60, 600],
    [0, 600],
    // A draw of nothing, and a meter that is not quite at nought.
    [-0.06, 600],
  ])('%d J in %d s is a reading', (joules, seconds) => expect(energyProblem(joules, seconds)).toBeNull());
  it.each([
    [Number.POSITIVE_INFINITY, 600, 'over its range'],
    [Number.NaN, 600, 'told no energy'],
    [60, 0, 'for how long'],
    [60, Number.NaN, 'for how long'],
    [-60, 600, 'reads −0.100 W'],
  ])('%d J in %d s is none', (joules, seconds, why) => expect(energyProblem(joules, seconds)).toContain(why));
});
