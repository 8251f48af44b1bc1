// What a meter makes of the truth: a gain and an offset of its own for life, a little noise, and its digits.
import { seededNormal } from '@lastmark/core/random';

export interface MeterErrors {
  /** Largest gain error, fraction; the meter's own lies evenly within. */
  readonly gain: number;
  /** Largest offset, SI. */
  readonly offset: number;
  /** Standard deviation of one reading, SI. */
  readonly noise: number;
  /** Smallest step shown, SI. */
  readonly step: number;
}

/** A meter with errors drawn once: the same seed is the same meter. */
export function meterOf({ gain, offset, noise, step }: MeterErrors, random: () => number): (truth: number) => number {
  const ownGain = 1 + (random() * 2 - 1) * gain;
  const ownOffset = (random() * 2 - 1) * offset;
  const normal = seededNormal(random);
  return (truth) => {
    const shown = truth * ownGain + ownOffset + normal() * noise;
    return step > 0 ? Math.round(shown / step) * step : shown;
  };
}
