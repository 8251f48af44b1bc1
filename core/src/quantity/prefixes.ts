/** SI prefixes as instruments write them before a unit or alone, and what they stand for; u and K are common slips. */
export const PREFIXES: Readonly<Record<string, number>> = {
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};
