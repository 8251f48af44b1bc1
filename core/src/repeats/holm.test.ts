import { describe, expect, it } from 'vitest';
import { holm } from './index.ts';

describe('several comparisons', () => {
  it('are each called by Holm’s steps', () => {
    // statsmodels.stats.multitest.multipletests(..., method='holm')
    expect(holm([0.01, 0.04, 0.03, 0.005])).toEqual([0.03, 0.06, 0.06, 0.02]);
  });
  it('never go above one or out of order, and take what is no probability for one', () => {
    expect(holm([0.9, 0.8, Number.NaN])).toEqual([1, 1, 1]);
    expect(holm([])).toEqual([]);
    expect(holm([0.02])).toEqual([0.02]);
  });
});
