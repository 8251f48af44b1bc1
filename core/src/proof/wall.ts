// From watts at the socket to watts at the ports, by the sample's own efficiency.
import { wallInterval } from '../claim/evidence.ts';
import type { Interval } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import { type Mains, mainsMatches } from '../reading/index.ts';
import { expandedUncertainty, type Measured } from '../uncertainty/index.ts';

/**
 * Bounds of the efficiency at an input power: over every curve measured, the points next below and next above that
 * power, each with its uncertainty. Outside the curve nothing is claimed.
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
        const curve = loads.filter(({ load }) => load > 0).sort((a, b) => a.input.value - b.input.value);
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

/** What a reading at the socket says about the output, W. Without a curve only the upper bound is known. */
export const outputFromWall = (input: Measured, series: readonly SeriesResult[], mains: Mains | null): Interval =>
  wallInterval(input, efficiencyAround(series, mains, input.value));
