// Results that share a meter: their errors go together in part, so they add up in sums and partly cancel in ratios.
import { type Measured, measured, propagate } from './measured.ts';

/**
 * Correlation taken between two readings of one meter. Of the variance a maker's limit stands for, half is taken as
 * lasting (gain, offset) and therefore common, half as changing from reading to reading (noise, linearity, drift).
 * An assumption, stated on screen; JCGM 100:2008, F.1.2.3 asks for one where no calibration tells.
 */
export const SAME_METER = 0.5;

export interface SharedTerm {
  readonly weight: number;
  readonly of: Measured;
  /** What read it; terms with the same meter are correlated. Null for a meter of its own. */
  readonly meter: string | null;
}

/**
 * Combine contributions, some of which share a meter: u² = ΣΣ r·(weight·u)·(weight·u).
 * JCGM 100:2008, 5.2.2, with r = SAME_METER for one meter, 0 otherwise; repeats stay independent.
 */
export function propagateShared(value: number, terms: readonly SharedTerm[]): Measured {
  const alone = propagate(value, terms);
  let cross = 0;
  for (const [index, a] of terms.entries())
    for (const b of terms.slice(index + 1))
      if (a.meter !== null && a.meter === b.meter)
        cross += 2 * SAME_METER * a.weight * a.of.uInstrument * b.weight * b.of.uInstrument;
  // Rounding alone can bring it below zero where two equal terms cancel.
  const uInstrument = Math.sqrt(Math.max(0, alone.uInstrument ** 2 + cross));
  return measured(value, uInstrument, alone.uRepeat, alone.degrees);
}

/** Difference b − a of two results; those read by the same meters are correlated. */
export const difference = (a: Measured, b: Measured, sameMeters: boolean): Measured =>
  propagateShared(b.value - a.value, [
    { weight: -1, of: a, meter: sameMeters ? 'same' : null },
    { weight: 1, of: b, meter: sameMeters ? 'same' : null },
  ]);
