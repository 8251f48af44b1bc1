// When an input counts as settled.

/** When a load point counts as settled: input power drifts less than `fraction` over `over` s; else it is averaged. */
export interface SettleRule {
  /** Drift allowed, as a fraction of the highest value seen. */
  readonly fraction: number;
  /** s */
  readonly over: number;
  /** Averaged over this long when it does not settle, s. */
  readonly average: number;
  /** When it goes on before it is averaged: until then at most, s. */
  readonly longest?: number | undefined;
}

/** Source: 10 CFR 430 subpart B appendix Z, 3(a)(1)(iii); EN 50563:2011, 5.3: 1 % over 5 min, else 30 min averaged. */
export const ONE_PERCENT_RULE: SettleRule = { fraction: 0.01, over: 300, average: 1800 };
