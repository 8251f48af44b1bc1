// Readings typed in the wrong place, moved to where they belong: entered there, struck out here, in one go.
import type { PointInput } from '@lastmark/contract/types';
import { type Attached, currentReadings, type Mains, type Point } from '@lastmark/core/reading';

/** Where readings belong. */
export interface MoveTarget {
  /** The loading; null for idle. */
  readonly setupId: string | null;
  readonly mains: Mains;
  readonly load: number;
  readonly attached: Attached;
}

/**
 * What is sent to move a point's standing readings. Both points go in one request, so that nothing is half moved.
 * @param newId makes an id
 */
export function moved(point: Point, to: MoveTarget, newId: () => string): PointInput[] {
  const standing = currentReadings(point.readings);
  if (standing.length === 0) return [];
  const places = { rigId: point.rigId, takenAt: point.takenAt };
  return [
    {
      id: newId(),
      ...to,
      ...places,
      readings: standing.map(({ quantity, place, port, typed }) => ({
        id: newId(),
        quantity,
        place,
        port,
        typed,
        supersedes: null,
        // It was asked about when it was typed.
        really: true,
      })) as PointInput['readings'],
    },
    {
      id: point.id,
      setupId: point.setupId,
      mains: point.mains,
      load: point.load,
      attached: point.attached,
      ...places,
      readings: standing.map(({ id, quantity, place, port }) => ({
        id: newId(),
        quantity,
        place,
        port,
        typed: '',
        supersedes: id,
      })) as PointInput['readings'],
    },
  ];
}
