// Several comparisons at once: each is called only as far as all of them together keep their error.

/**
 * Probabilities adjusted for being several, in the order given: compared with 5 % each, all together are wrong 5 times in 100
 * at most. S. Holm, Scand. J. Statist. 6 (1979) 65.
 * @param probabilities of each comparison under "no difference", 0…1; NaN counts as 1
 * @example holm([0.01, 0.04, 0.03]) // [0.03, 0.06, 0.06]
 */
export function holm(probabilities: readonly number[]): readonly number[] {
  const order = probabilities
    .map((one, index) => ({ p: one >= 0 && one <= 1 ? one : 1, index }))
    .sort((a, b) => a.p - b.p);
  const adjusted = new Array<number>(order.length).fill(1);
  let most = 0;
  order.forEach(({ p, index }, rank) => {
    most = Math.max(most, Math.min(1, p * (order.length - rank)));
    adjusted[index] = most;
  });
  return adjusted;
}
