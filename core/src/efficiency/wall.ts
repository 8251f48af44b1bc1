// From watts at the socket to watts at the ports, by the sample's own efficiency, or by an assumed one that is named.

import { type Interval, intervalOf } from '../decision/index.ts';
import { type Bound, wallInterval } from '../evidence/index.ts';
import { type Mains, mainsMatches } from '../reading/index.ts';
import { expandedUncertainty, isStated, type Measured } from '../uncertainty/index.ts';
import type { SeriesResult } from './index.ts';

/** What a charger of unknown efficiency is assumed to pass on, unless the person narrows it. */
export const ASSUMED_EFFICIENCY: Interval = { low: 0.8, high: 0.97 };

/**
 * Bounds of the efficiency at an input power: over every curve measured, the points next below and next above that
 * power, each with its uncertainty. Outside the curve nothing is claimed, and a curve of unknown accuracy tells nothing.
 * @param mains supply of the reading; null takes every supply measured
 * @returns null where no curve reaches the power
 */
export function efficiencyAround(
  series: readonly SeriesResult[],
  mains: Mains | null,
  inputWatts: number,
): Interval | null {
  const bounds = series.flatMap(({ byMains }) =>
    byMains
      .filter((one) => mains === null || mainsMatches(one.mains, mains))
      .flatMap(({ loads }) => {
        const curve = loads
          .filter(({ load, efficiency }) => load > 0 && isStated(efficiency))
          .sort((a, b) => a.input.value - b.input.value);
        // Within 2 % of an end still counts as on the curve: that is how exactly a load is set.
        const below = curve.findLast(({ input }) => input.value <= inputWatts * 1.02);
        const above = curve.find(({ input }) => input.value >= inputWatts * 0.98);
        if (!below || !above) return [];
        return [below, above].map(({ efficiency }) => {
          const expanded = expandedUncertainty(efficiency);
          return { low: efficiency.value - expanded, high: Math.min(1, efficiency.value + expanded) };
        });
      }),
  );
  if (bounds.length === 0) return null;
  return {
    low: Math.max(0, Math.min(...bounds.map(({ low }) => low))),
    high: Math.max(...bounds.map(({ high }) => high)),
  };
}

/**
 * What a reading at the socket says about the output, W: an interval by the sample's own efficiency where a curve
 * reaches that power, else by the assumed one.
 */
export function outputFromWall(
  input: Measured,
  series: readonly SeriesResult[],
  mains: Mains | null,
  assumed: Interval = ASSUMED_EFFICIENCY,
): Bound {
  const own = efficiencyAround(series, mains, input.value);
  const { unstated } = input;
  if (!isStated(input)) {
    const none = { low: 0, high: Number.POSITIVE_INFINITY };
    return { ...none, most: none.high, assumed: own ? null : assumed, unstated };
  }
  const { low, high } = wallInterval(input, own ?? assumed);
  return { low: Math.max(0, low), high, most: intervalOf(input).high, assumed: own ? null : assumed, unstated };
}
