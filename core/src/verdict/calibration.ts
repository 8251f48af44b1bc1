// The calibration of the meters behind what decides a claim, said with the claim.
import type { ClaimResult } from '../claim/index.ts';
import type { ClaimState } from '../evidence/index.ts';
import { calibrationOverdue, isCalibrationStated, pointsById } from '../reading/index.ts';
import type { Dossier } from './types.ts';

/** States that a reading has brought a claim into. */
const DECIDED: readonly ClaimState[] = ['short', 'borderline', 'at least', 'proven'];

/** Tell each meter that read the points and runs behind a claim, and when. */
function eachUse(
  { points, runs, rigs }: Dossier,
  ids: readonly string[],
  tell: (instrumentId: string, takenAt: string) => void,
): void {
  const known = pointsById(points);
  for (const id of ids) {
    const point = known.get(id);
    for (const { instrumentId, takenAt } of point?.readings ?? []) if (instrumentId) tell(instrumentId, takenAt);
    const run = point ? undefined : runs.find((one) => one.id === id);
    const rig = run && rigs.find((one) => one.id === run.rigId);
    if (run && rig)
      for (const instrumentId of Object.values(rig.meters)) if (instrumentId) tell(instrumentId, run.takenAt);
  }
}

const named = (names: ReadonlySet<string>): string => [...names].sort().join(', ');

/**
 * Claims with a note where a meter behind the deciding evidence has no stated calibration, or was overdue on the day.
 * What was decided stays as it is: how far such a meter may be off, nobody said.
 */
export function withCalibration(dossier: Dossier, claims: readonly ClaimResult[]): readonly ClaimResult[] {
  const meters = new Map(dossier.instruments.map((one) => [one.id, { one, stated: isCalibrationStated(one) }]));
  return claims.map((claim) => {
    const [deciding] = claim.tests;
    if (!deciding || !DECIDED.includes(claim.state)) return claim;
    const unstated = new Set<string>();
    const overdue = new Set<string>();
    eachUse(dossier, deciding.evidence.pointIds, (instrumentId, takenAt) => {
      const meter = meters.get(instrumentId);
      if (!meter) return;
      if (!meter.stated) unstated.add(meter.one.name);
      else if (calibrationOverdue(meter.one, takenAt)) overdue.add(meter.one.name);
    });
    const notes = [
      ...(overdue.size > 0 ? [`Overdue for calibration on the day it was read: ${named(overdue)}.`] : []),
      ...(unstated.size > 0 ? [`Calibration not stated: ${named(unstated)}.`] : []),
    ];
    return notes.length > 0 ? { ...claim, notes: [...claim.notes, ...notes] } : claim;
  });
}
