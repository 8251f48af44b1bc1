// Readings whose meter's accuracy was stated only after they were taken.
import { memoOf } from '../memo/index.ts';
import { accept } from './accept.ts';
import type { Instrument, Point, Rig } from './types.ts';

/** A point with what its instruments' specs say where nothing was known when it was taken. */
const statedNow = memoOf(
  (point: Point, rig: Rig, instruments: readonly Instrument[]): Point => ({
    ...point,
    readings: point.readings.map((reading) =>
      reading.u === null
        ? { ...reading, u: accept({ ...reading, step: 0 }, point.readings, rig, instruments).u }
        : reading,
    ),
  }),
);

/** Whether a reading of it has a value of which nobody knew how far off it may be. */
function isOpen({ readings }: Point): boolean {
  // Gone through for every reading of a sample whenever one changes.
  for (const reading of readings) if (reading.u === null && reading.value !== null) return true;
  return false;
}

/**
 * Points with the accuracy their meters have today, for readings that had none when they were taken. What a reading was
 * accepted with stays; only what was unknown becomes known.
 */
export function withAccuracies(
  points: readonly Point[],
  rigs: readonly Rig[],
  instruments: readonly Instrument[],
): readonly Point[] {
  return points.map((point) => {
    if (!isOpen(point)) return point;
    const rig = rigs.find(({ id }) => id === point.rigId);
    return rig ? statedNow(point, rig, instruments) : point;
  });
}
