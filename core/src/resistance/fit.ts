// Resistance from drops at several currents: how much, how well known, how it moves with temperature, current and plugging.
import { leastSquares } from '../least-squares/index.ts';
import {
  type AccuracySpec,
  type Measured,
  measured,
  NO_SPEC,
  specAt,
  specUncertainty,
  type Unstated,
} from '../uncertainty/index.ts';
import { findingsOf } from './findings.ts';
import { distinct, lineOf, mean, SAME_CURRENT } from './line.ts';
import type { DropAccuracy, DropReading, Resistance } from './types.ts';

/** Rise of the resistance of copper for each kelvin, at 20 °C. IEC 60228:2004, annex A. */
export const COPPER_PER_KELVIN = 0.00393;

/** How well a temperature noted beside a cable is taken to be known, K: ±1 K, rectangular. */
const U_KELVIN = 1 / Math.sqrt(3);

export const copperFactor = (celsius: number): number => 1 + COPPER_PER_KELVIN * (celsius - 20);

/** Standard uncertainty of the gain of a meter at a reading, as a fraction. */
const gainOf = (spec: AccuracySpec, value: number): number => {
  const { readingPercent, coverage } = specAt(spec, value);
  return readingPercent / 100 / (coverage === 'not stated' ? Math.sqrt(3) : 2);
};

const unstatedIn = ({ amps, near, far, meters }: DropAccuracy): readonly Unstated[] => [
  ...(amps === null ? [{ meter: meters?.amps ?? null, quantity: 'current' }] : []),
  ...(near === null ? [{ meter: meters?.near ?? null, quantity: 'voltage' }] : []),
  ...(far === null ? [{ meter: meters?.far ?? null, quantity: 'voltage' }] : []),
];

/** What the gains of the meters bring to a slope, Ω. Their offsets are taken up by the line. */
function gains(readings: readonly DropReading[], slope: number, { amps, near, far }: DropAccuracy): number {
  const most = readings.reduce((a, b) => (Math.abs(b.amps) > Math.abs(a.amps) ? b : a));
  const byAmps = slope * gainOf(amps ?? NO_SPEC, most.amps);
  if (near === undefined || most.near == null) return Math.hypot(byAmps, slope * gainOf(far ?? NO_SPEC, most.drop));
  const pairs = readings.filter((one) => one.near != null);
  const source = leastSquares(
    pairs.map((one) => [1, one.amps]),
    pairs.map((one) => one.near as number),
  );
  // The near end sags with the source: both meters' gains count over what they really moved by.
  const sag = source ? -(source.coefficients[1] as number) : 0;
  return Math.hypot(
    byAmps,
    sag * gainOf(near ?? NO_SPEC, most.near),
    (sag + slope) * gainOf(far ?? NO_SPEC, most.near - most.drop),
  );
}

/** Variance of one drop by the whole of both specs, V². */
function wholeSpec({ drop, near }: DropReading, accuracy: DropAccuracy): number {
  const { far } = accuracy;
  if (accuracy.near === undefined || near == null) return specUncertainty(far ?? NO_SPEC, drop) ** 2;
  return specUncertainty(accuracy.near ?? NO_SPEC, near) ** 2 + specUncertainty(far ?? NO_SPEC, near - drop) ** 2;
}

/** Two readings at two currents: each may be off by its whole spec. */
function twoPoints(readings: readonly DropReading[], accuracy: DropAccuracy): Measured | null {
  const [a, b] = readings as [DropReading, DropReading];
  const step = b.amps - a.amps;
  const slope = (b.drop - a.drop) / step;
  const amps = [a, b].map((one) => (slope * specUncertainty(accuracy.amps ?? NO_SPEC, one.amps)) ** 2);
  const drops = [a, b].map((one) => wholeSpec(one, accuracy));
  const u = Math.sqrt([...amps, ...drops].reduce((sum, one) => sum + one, 0)) / Math.abs(step);
  return Number.isFinite(slope) ? measured(slope, u, 0, Number.POSITIVE_INFINITY, unstatedIn(accuracy)) : null;
}

/** One current: R = drop/I, and the whole of every spec counts. */
function onePoint(readings: readonly DropReading[], accuracy: DropAccuracy): Measured {
  const amps = mean(readings.map((one) => one.amps));
  const ratios = readings.map((one) => one.drop / one.amps);
  const ohms = mean(ratios);
  const n = ratios.length;
  const scatter = n > 1 ? Math.sqrt(ratios.reduce((sum, one) => sum + (one - ohms) ** 2, 0) / (n - 1) / n) : 0;
  const first = readings[0] as DropReading;
  const u = Math.hypot(
    Math.sqrt(wholeSpec(first, accuracy)) / amps,
    (ohms * specUncertainty(accuracy.amps ?? NO_SPEC, amps)) / amps,
  );
  return measured(ohms, u, scatter, Math.max(1, n - 1), unstatedIn(accuracy));
}

const usable = ({ amps, drop, celsius }: DropReading): boolean =>
  Number.isFinite(amps) && Number.isFinite(drop) && (celsius === null || (celsius > -100 && celsius < 300));

/**
 * Resistance of what lies between two voltage taps, by least squares over the currents.
 * - Three readings or more at two currents or more: the slope; what the voltmeters differ by without current does not matter,
 *   the scatter tells how far readings are off, gains count as the specs have them. From three currents on the part that grows
 *   with the cube of the current is fitted too, always: leaving it out where it is small but there would give too narrow an interval.
 * - Two readings: the whole of both specs. One current: R = drop/I and the whole of all specs.
 * - Several pluggings: the mean of their slopes, and their scatter counts.
 * @param resolution smallest step of the drops, V; 0 where not known
 * @returns null without a usable reading at a current above nought
 * @example resistanceOf([{ amps: 3, drop: 0.732, celsius: 31 }], { amps: null, far: null })?.at20?.value // 0.2339
 */
export function resistanceOf(all: readonly DropReading[], accuracy: DropAccuracy, resolution = 0): Resistance | null {
  const readings = all.filter(usable);
  const most = Math.max(0, ...readings.map(({ amps }) => Math.abs(amps)));
  if (!(most > 0)) return null;
  const groups = [...new Set(readings.map(({ plugging = '' }) => plugging))];
  const temperatures = readings.flatMap(({ celsius }) => (celsius === null ? [] : [celsius]));
  const celsius = temperatures.length === readings.length ? mean(temperatures) : null;
  const moving = celsius !== null && Math.max(...temperatures) - Math.min(...temperatures) > 0.5;
  const factor = celsius === null ? 1 : copperFactor(celsius);
  // Where each reading has a temperature of its own the slope is what it would be at their mean.
  const currents = readings.map((one) =>
    moving ? (one.amps * copperFactor(one.celsius as number)) / factor : one.amps,
  );
  // The last digit of one drop, whichever says more of it: what the meters state, or how it was written.
  const digit = Math.max(Math.hypot(accuracy.near?.resolution ?? 0, accuracy.far?.resolution ?? 0), resolution);
  const floor = digit ** 2 / 12;
  const count = distinct(readings.map(({ amps }) => amps));
  const line = count > 1 && readings.length > 2 ? lineOf(currents, readings, groups, floor) : null;
  const loaded = readings.filter(({ amps }) => Math.abs(amps) > SAME_CURRENT * most);
  const ohms = line
    ? measured(
        line.slope,
        Math.hypot(
          gains(readings, line.slope, accuracy),
          line.lever * Math.hypot(Math.sqrt(floor), (line.slope * (accuracy.amps?.resolution ?? 0)) / Math.sqrt(12)),
        ),
        line.u,
        line.degrees,
        unstatedIn(accuracy),
      )
    : count > 1 && readings.length === 2
      ? twoPoints(readings, accuracy)
      : onePoint(loaded, accuracy);
  if (!ohms) return null;
  const ofCopper = celsius === null ? null : ohms.value / factor;
  const byTemperature = ofCopper === null ? 0 : (ofCopper * COPPER_PER_KELVIN * U_KELVIN) / factor;
  const bad = all.length - readings.length;
  return {
    ohms,
    celsius,
    at20:
      ofCopper === null
        ? null
        : measured(
            ofCopper,
            Math.hypot(ohms.uInstrument / factor, byTemperature),
            ohms.uRepeat / factor,
            ohms.degrees,
            ohms.unstated,
          ),
    curvature: line?.curvature ?? null,
    offset: line?.offset ?? 0,
    pluggings: groups.length,
    spread: line?.spread ?? null,
    residuals: line?.residuals ?? readings.map(({ drop, amps }) => drop - amps * ohms.value),
    findings: [
      ...findingsOf(line, readings, groups.length, count, ohms),
      ...(celsius === null
        ? [
            {
              kind: 'temperature missing' as const,
              sentence: 'Without its temperature it cannot be said for 20 °C: copper changes by 0.4 % a kelvin.',
            },
          ]
        : []),
      ...(bad > 0
        ? [
            {
              kind: 'not a number' as const,
              sentence: `${bad} reading${bad === 1 ? ' is' : 's are'} no number and left out.`,
            },
          ]
        : []),
    ],
  };
}
