// Where power-factor correction wakes up: between which two loads.
import type { SeriesResult } from '../efficiency/index.ts';
import type { Mains } from '../reading/index.ts';

/** A step of power factor between neighbouring loads that counts as correction waking up. */
const STEP = 0.15;
/** A power factor from which correction is taken to work. */
const CORRECTED = 0.85;

export interface CorrectionBracket {
  readonly name: string;
  readonly mains: Mains;
  /** Loads it was read at, ascending: fraction, output W, factor. */
  readonly points: readonly { readonly load: number; readonly output: number; readonly factor: number }[];
  /** Sleeping at the lower, awake at the upper; null when no step was seen. */
  readonly between: readonly [lower: number, upper: number] | null;
  readonly betweenWatts: readonly [lower: number, upper: number] | null;
  readonly says: string;
}

const percent = (load: number): string => `${Math.round(load * 100)} %`;

/**
 * The load bracket in which power-factor correction engages, per loading and mains: the largest upward step between
 * neighbouring load points, where it exceeds 0.15.
 */
export function correctionBrackets(series: readonly SeriesResult[]): readonly CorrectionBracket[] {
  return series.flatMap(({ setup, byMains }) =>
    byMains.flatMap(({ mains, loads }): CorrectionBracket[] => {
      const points = loads.flatMap(({ load, output, powerFactor }) =>
        powerFactor === null ? [] : [{ load, output: output.value, factor: powerFactor }],
      );
      if (points.length === 0) return [];
      const steps = points.slice(1).map((upper, index) => ({ lower: points[index] as (typeof points)[number], upper }));
      const largest = steps.reduce<(typeof steps)[number] | null>(
        (best, one) =>
          best && best.upper.factor - best.lower.factor >= one.upper.factor - one.lower.factor ? best : one,
        null,
      );
      const woke = largest && largest.upper.factor - largest.lower.factor >= STEP ? largest : null;
      const all = points.map(({ factor }) => factor);
      const says = woke
        ? `Correction wakes up between ${percent(woke.lower.load)} and ${percent(woke.upper.load)} load (${woke.lower.output.toFixed(0)} and ${woke.upper.output.toFixed(0)} W out).`
        : Math.min(...all) >= CORRECTED
          ? 'Corrected at every load measured.'
          : Math.max(...all) < CORRECTED
            ? 'Not corrected at any load measured.'
            : 'No clear step: measure more loads.';
      return [
        {
          name: setup.name,
          mains,
          points,
          between: woke ? [woke.lower.load, woke.upper.load] : null,
          betweenWatts: woke ? [woke.lower.output, woke.upper.output] : null,
          says,
        },
      ];
    }),
  );
}
