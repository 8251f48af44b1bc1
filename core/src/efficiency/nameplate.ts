// The output power a sample is made for.
import type { Claim } from '../promise/index.ts';
import type { SeriesResult } from './series.ts';

/** Nameplate output power: the promised total, else the largest loading, W. Null when neither is known. */
export function nameplateOf(
  { claims }: { readonly claims: readonly Claim[] },
  series: readonly SeriesResult[],
): number | null {
  const totals = claims.flatMap(({ promise }) => (promise.kind === 'total' ? [promise.watts] : []));
  const lines = claims.flatMap(({ promise }) => (promise.kind === 'port-line' ? [promise.volts * promise.amps] : []));
  const together = claims.flatMap(({ promise }) =>
    promise.kind === 'combination' ? [promise.shares.reduce((sum, { watts }) => sum + watts, 0)] : [],
  );
  const printed = [...lines, ...together];
  for (const known of [totals, printed, series.map((one) => one.nameplateWatts)]) {
    if (known.length > 0) return Math.max(...known);
  }
  return null;
}
