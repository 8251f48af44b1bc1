import { describe, expect, it } from 'vitest';
import { leastSquares } from './index.ts';

describe('least squares', () => {
  it('finds a line, and how well', () => {
    // numpy: np.linalg.lstsq and np.linalg.inv(X.T @ X).
    const fit = leastSquares(
      [1, 2, 3, 4].map((x) => [1, x]),
      [2.1, 3.9, 6.2, 7.8],
    );
    expect(fit?.coefficients[0]).toBeCloseTo(0.15, 10);
    expect(fit?.coefficients[1]).toBeCloseTo(1.94, 10);
    expect(fit?.inverse[1]?.[1]).toBeCloseTo(0.2, 10);
    expect(fit?.inverse[0]?.[1]).toBeCloseTo(-0.5, 10);
    expect(fit?.rest).toBeCloseTo(0.082, 10);
    expect(fit?.degrees).toBe(2);
  });

  it('does not mind columns of very unlike size', () => {
    const rows = [1, 2, 3, 4, 5].map((x) => [1e-6, x * 1e6, x ** 3 * 1e-3]);
    const fit = leastSquares(
      rows,
      rows.map(([a = 0, b = 0, c = 0]) => 3e6 * a + 2e-6 * b - 5e3 * c),
    );
    [3e6, 2e-6, -5e3].forEach((one, at) => {
      expect((fit?.coefficients[at] ?? 0) / one).toBeCloseTo(1, 6);
    });
  });

  it('says nothing where nothing can be told apart', () => {
    expect(
      leastSquares(
        [1, 1, 1].map((x) => [1, x]),
        [1, 2, 3],
      ),
    ).toBeNull();
    expect(leastSquares([[1, 2]], [3])).toBeNull();
    expect(leastSquares([], [])).toBeNull();
    expect(leastSquares([[1], [Number.NaN]], [1, 2])).toBeNull();
    expect(leastSquares([[1], [2]], [1, Number.POSITIVE_INFINITY])).toBeNull();
  });
});
