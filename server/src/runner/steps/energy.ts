// What a counter of energy tells, before anything is made of it.

/** A meter that reads less than this below nought only makes noise, W. */
const NOISE_WATTS = 1e-3;

/**
 * Why counted energy is no reading; null where it is one.
 * @param joules as counted
 * @param seconds it was counted for
 * @example energyProblem(-60, 600) // 'The meter at the mains reads −0.100 W: …'
 */
export function energyProblem(joules: number, seconds: number): string | null {
  if (!Number.isFinite(joules)) return 'The meter at the mains told no energy: is it over its range?';
  if (!Number.isFinite(seconds) || seconds <= 0) return 'The meter at the mains does not say for how long it counted.';
  const watts = joules / seconds;
  return watts < -NOISE_WATTS
    ? `The meter at the mains reads −${(-watts).toFixed(3)} W: are its leads the right way round?`
    : null;
}
