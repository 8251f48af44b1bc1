// What a meter at the mains tells of idle energy, before anything is made of it.
import { specFor } from '@lastmark/core/reading';
import { specLimit, USUAL_OF_CLASS } from '@lastmark/core/uncertainty';
import type { Hands } from '../hands.ts';

/** What no meter is better than at nothing, W. */
const LEAST_OFF = 1e-3;

/** How far the meter at the mains may be off at nothing, W: as stated, else as is usual of its class. */
export function mainsOff({ rig, own }: Pick<Hands, 'rig' | 'own'>): number {
  const usual = USUAL_OF_CLASS[own.find(({ id }) => id === rig.meters.mains)?.class ?? '']?.power;
  const spec = specFor('power', 'mains', rig, own) ?? usual;
  return Math.max(LEAST_OFF, spec ? specLimit(spec, 0) + spec.resolution + spec.floor : 0);
}

/**
 * Why energy at the mains is no reading; null where it is one.
 * @param joules as counted
 * @param seconds it was counted for
 * @param off how far the meter may be off at nothing, W: below nought by no more it reads nothing
 * @example energyProblem(-60, 600, 0.05) // 'The meter at the mains reads −0.100 W: …'
 */
export function energyProblem(joules: number, seconds: number, off: number): string | null {
  if (!Number.isFinite(joules)) return 'The meter at the mains told no energy: is it over its range?';
  if (!Number.isFinite(seconds) || seconds <= 0) return 'The meter at the mains does not say for how long it counted.';
  const watts = joules / seconds;
  return watts < -off
    ? `The meter at the mains reads −${(-watts).toFixed(3)} W: are its leads the right way round?`
    : null;
}
