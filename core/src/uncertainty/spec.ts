// An instrument's accuracy specification and the standard uncertainty it gives a reading.

/** How the maker states the accuracy limit. Nothing stated is taken as a rectangular distribution (JCGM 100, 4.3.7). */
export type Coverage = 'not stated' | 'k = 2 or 95 %';

/** ±(readingPercent % of reading + rangePercent % of range + offset), all for one quantity and range. */
export interface AccuracySpec {
  readonly readingPercent: number;
  readonly rangePercent: number;
  /** Full scale of the range, SI. Only needed with rangePercent. */
  readonly range: number;
  /** Fixed part in SI: an offset, or digits × resolution. */
  readonly offset: number;
  /** Smallest step of the display, SI; 0 when unknown. A rounding of ±½ step is added. */
  readonly resolution: number;
  /** Smallest value the instrument can state at all, SI; below it a result reads "below". 0 when there is none. */
  readonly floor: number;
  readonly coverage: Coverage;
  /** Finer ranges with a spec of their own; their `range` is the full scale. What exceeds them all takes the outer spec. */
  readonly finer?: readonly RangeSpec[] | undefined;
}

/** The spec of one range. */
export type RangeSpec = Omit<AccuracySpec, 'finer'>;

/** The spec that holds for a value: that of the smallest range it fits into, as a meter on automatic ranges chooses. */
export function specAt(spec: AccuracySpec, value: number): RangeSpec {
  const fitting = (spec.finer ?? []).filter(({ range }) => Math.abs(value) <= range);
  return fitting.reduce<RangeSpec>((best, one) => (best === spec || one.range < best.range ? one : best), spec);
}

/**
 * The most a spec says anything about, SI: the full scale of its largest range; null where none is stated.
 * @example topOf({ ...NO_SPEC, range: 20, finer: [{ ...NO_SPEC, range: 2 }] }) // 20
 */
export const topOf = ({ range, finer = [] }: AccuracySpec): number | null =>
  range > 0 ? Math.max(range, ...finer.map((one) => one.range)) : null;

/** A spec with everything zero, to spread over. */
export const NO_SPEC: AccuracySpec = {
  readingPercent: 0,
  rangePercent: 0,
  range: 0,
  offset: 0,
  resolution: 0,
  floor: 0,
  coverage: 'not stated',
};

/** The ± limit of a spec at a reading, SI. */
export function specLimit(whole: AccuracySpec, value: number): number {
  requireFinite('value', value);
  const spec = specAt(whole, value);
  return (Math.abs(value) * spec.readingPercent + spec.range * spec.rangePercent) / 100 + spec.offset;
}

/**
 * Standard uncertainty of one reading from the instrument's specification, SI.
 * A limit with no stated coverage is rectangular, limit/√3; a limit stated at k = 2 or 95 % is halved. Display
 * rounding adds resolution/√12. Source: JCGM 100:2008, 4.3.4, 4.3.7 and F.2.2.1.
 * @throws RangeError for a value that is not finite or a spec with a negative part
 */
export function specUncertainty(whole: AccuracySpec, value: number): number {
  requireFinite('value', value);
  const spec = specAt(whole, value);
  for (const part of [spec.readingPercent, spec.rangePercent, spec.range, spec.offset, spec.resolution]) {
    if (!(part >= 0) || !Number.isFinite(part))
      throw new RangeError('An accuracy spec has no negative or infinite part.');
  }
  const limit = specLimit(spec, value);
  const standard = spec.coverage === 'not stated' ? limit / Math.sqrt(3) : limit / 2;
  return Math.hypot(standard, spec.resolution / Math.sqrt(12));
}

/** Guard shared by the calculations: a NaN or infinity is a mistake upstream, never a result. */
export function requireFinite(name: string, value: number): void {
  if (!Number.isFinite(value)) throw new RangeError(`${name} is not a finite number.`);
}
