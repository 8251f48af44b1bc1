// Which readings stand: a correction supersedes, nothing is overwritten.
import { memoOf } from '../memo/index.ts';
import type { QuantityId } from '../quantity/index.ts';
import { type Measured, measured } from '../uncertainty/index.ts';
import type { Place, Point, Reading } from './types.ts';

/** The readings that stand: not superseded by another, and not struck out. Order is kept. */
export const currentReadings: (readings: readonly Reading[]) => readonly Reading[] = memoOf(
  (readings: readonly Reading[]) => {
    const superseded = new Set(readings.map((reading) => reading.supersedes));
    return readings.filter((reading) => !superseded.has(reading.id) && reading.value !== null);
  },
);

/** The standing reading of a quantity at a place (and port), if the point has one; the last taken wins. */
export function readingAt(
  point: Pick<Point, 'readings'>,
  quantity: QuantityId,
  place: Place,
  port: string | null = null,
): Reading | undefined {
  return currentReadings(point.readings).findLast(
    (reading) => reading.quantity === quantity && reading.place === place && reading.port === port,
  );
}

/** Ids of the instruments behind a point's standing readings, each once. */
export const metersOf = ({ readings }: Pick<Point, 'readings'>): readonly string[] => [
  ...new Set(currentReadings(readings).flatMap(({ instrumentId }) => instrumentId ?? [])),
];

/**
 * A reading as a value with uncertainty. The mean of n samples carries s/√n as its repeat part (JCGM 100:2008, 4.2.3).
 * @throws RangeError for a struck-out reading
 */
export function asMeasured({ value, u, count, spread, instrumentId, quantity }: Reading): Measured {
  if (value === null) throw new RangeError('This reading is struck out.');
  const repeat = count > 1 ? spread / Math.sqrt(count) : 0;
  const degrees = count > 1 ? count - 1 : Number.POSITIVE_INFINITY;
  return u === null
    ? measured(value, 0, repeat, degrees, [{ meter: instrumentId, quantity }])
    : measured(value, u, repeat, degrees);
}
