// Small statistics of measurements.

export const sorted = (values) => [...values].sort((a, b) => a - b);
export const quantile = (values, share) =>
  sorted(values)[Math.min(values.length - 1, Math.ceil(share * values.length) - 1)];
export const median = (values) => quantile(values, 0.5);
export const spread = (values, digits = 0) =>
  `${Math.min(...values).toFixed(digits)}–${Math.max(...values).toFixed(digits)}`;

/** Milliseconds something takes. */
export async function timed(work) {
  const start = performance.now();
  await work();
  return performance.now() - start;
}
