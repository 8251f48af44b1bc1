// The calibration of the meters behind what decides a claim, said with the claim.
import type { ClaimResult } from '../claim/index.ts';
import type { ClaimState } from '../evidence/index.ts';
import { memoOf } from '../memo/index.ts';
import { calibrationOverdue, isCalibrationStated, type Point } from '../reading/index.ts';
import type { Dossier } from './types.ts';

/** States that a reading has brought a claim into. */
const DECIDED: readonly ClaimState[] = ['short', 'borderline', 'at least', 'proven'];

const pointsById = memoOf((points: readonly Point[]) => new Map(points.map((one) => [one.id, one])));

interface Use {
  readonly instrumentId: string;
  readonly takenAt: string;
}

/** What read the points and runs behind a claim, and when. */
function usesOf({ points, runs, rigs }: Dossier, ids: readonly string[]): readonly Use[] {
  const known = pointsById(points);
  return ids.flatMap((id): readonly Use[] => {
    const point = known.get(id);
    if (point)
      return point.readings.flatMap(({ instrumentId, takenAt }) => (instrumentId ? [{ instrumentId, takenAt }] : []));
    const run = runs.find((one) => one.id === id);
    const rig = rigs.find((one) => one.id === run?.rigId);
    if (!run || !rig) return [];
    return Object.values(rig.meters).flatMap((instrumentId) =>
      instrumentId ? [{ instrumentId, takenAt: run.takenAt }] : [],
    );
  });
}

const named = (names: ReadonlySet<string>): string => [...names].sort().join(', ');

/**
 * Claims with a note where a meter behind the deciding evidence has no stated calibration, or was overdue on the day.
 * What was decided stays as it is: how far such a meter may be off, nobody said.
 */
export function withCalibration(dossier: Dossier, claims: readonly ClaimResult[]): readonly ClaimResult[] {
  const meters = new Map(dossier.instruments.map((one) => [one.id, one]));
  return claims.map((claim) => {
    const [deciding] = claim.tests;
    if (!deciding || !DECIDED.includes(claim.state)) return claim;
    const unstated = new Set<string>();
    const overdue = new Set<string>();
    for (const { instrumentId, takenAt } of usesOf(dossier, deciding.evidence.pointIds)) {
      const meter = meters.get(instrumentId);
      if (!meter) continue;
      if (!isCalibrationStated(meter)) unstated.add(meter.name);
      else if (calibrationOverdue(meter, takenAt)) overdue.add(meter.name);
    }
    const notes = [
      ...(overdue.size > 0 ? [`Overdue for calibration on the day it was read: ${named(overdue)}.`] : []),
      ...(unstated.size > 0 ? [`Calibration not stated: ${named(unstated)}.`] : []),
    ];
    return notes.length > 0 ? { ...claim, notes: [...claim.notes, ...notes] } : claim;
  });
}
