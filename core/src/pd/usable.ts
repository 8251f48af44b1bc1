// What may be drawn from an offer at a voltage: the curves of the level map.
import { requireFinite } from '../uncertainty/index.ts';
import type { SourceObject } from './source.ts';

/** Highest current any connector carries, A. USB Type-C R2.3. */
export const MOST_AMPS = 5;
/** The SPR adjustable range, V. */
export const SPR_AVS_RANGE = { low: 9, middle: 15, high: 20 } as const;

/** Voltages an offer covers; null for one that offers nothing. */
export function voltsOf(object: SourceObject): { readonly low: number; readonly high: number } | null {
  switch (object.kind) {
    case 'fixed':
      return { low: object.volts, high: object.volts };
    case 'variable':
    case 'battery':
    case 'pps':
    case 'epr-avs':
      return { low: object.minVolts, high: object.maxVolts };
    case 'spr-avs':
      return { low: SPR_AVS_RANGE.low, high: object.ampsAbove > 0 ? SPR_AVS_RANGE.high : SPR_AVS_RANGE.middle };
    default:
      return null;
  }
}

/**
 * Current that may be drawn at a voltage, A; 0 outside the range. EPR AVS: min(5 A, PDP/V); a power-limited PPS:
 * min(I_max, PDP/V). USB PD R3.2, 6.4.1.2.4 and 6.4.1.2.5.
 * @param sourceWatts the source's own power, for power-limited PPS; null when unknown
 */
export function usableAmps(object: SourceObject, volts: number, sourceWatts: number | null = null): number {
  requireFinite('volts', volts);
  const range = voltsOf(object);
  if (!range || volts < range.low - 1e-9 || volts > range.high + 1e-9) return 0;
  switch (object.kind) {
    case 'pps':
      return object.powerLimited && sourceWatts !== null ? Math.min(object.amps, sourceWatts / volts) : object.amps;
    case 'epr-avs':
      return Math.min(MOST_AMPS, object.watts / volts);
    case 'battery':
      return Math.min(MOST_AMPS, object.watts / volts);
    case 'spr-avs':
      return volts <= SPR_AVS_RANGE.middle + 1e-9 ? object.amps : object.ampsAbove;
    case 'fixed':
    case 'variable':
      return object.amps;
    default:
      return 0;
  }
}

/** Most power an offer gives, W. */
export function mostWatts(object: SourceObject, sourceWatts: number | null = null): number {
  const range = voltsOf(object);
  if (!range) return 0;
  const middle = object.kind === 'spr-avs' ? SPR_AVS_RANGE.middle : range.high;
  return Math.max(...[range.high, middle].map((volts) => volts * usableAmps(object, volts, sourceWatts)));
}

/** Power of a source by its fixed levels alone, W: what its power rating means. */
export const fixedWatts = (objects: readonly SourceObject[]): number =>
  Math.max(0, ...objects.map((object) => (object.kind === 'fixed' ? object.volts * object.amps : 0)));

/** The power a list advertises, W: of EPR lists what their AVS states, else its largest fixed level. */
export function advertisedWatts(objects: readonly SourceObject[]): number {
  const epr = objects.flatMap((object) => (object.kind === 'epr-avs' ? [object.watts] : []));
  return epr.length > 0 ? Math.max(...epr) : fixedWatts(objects);
}

/** The edge of an offer in the plane of volts and amps, left to right. Fixed levels are one point. */
export function edgeOf(
  object: SourceObject,
  sourceWatts: number | null = null,
  pieces = 40,
): readonly { readonly volts: number; readonly amps: number }[] {
  const range = voltsOf(object);
  if (!range) return [];
  const at = (volts: number) => ({ volts, amps: usableAmps(object, volts, sourceWatts) });
  if (range.low === range.high) return [at(range.low)];
  const step = (range.high - range.low) / pieces;
  const even = Array.from({ length: pieces + 1 }, (_, index) => at(range.low + index * step));
  if (object.kind !== 'spr-avs' || object.ampsAbove === 0) return even;
  // The current steps down at 15 V.
  const { middle } = SPR_AVS_RANGE;
  return [
    ...even.filter(({ volts }) => volts < middle),
    at(middle),
    { volts: middle, amps: object.ampsAbove },
    ...even.filter(({ volts }) => volts > middle),
  ];
}
