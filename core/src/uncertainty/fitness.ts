// Whether a power meter is fine enough for what it is to decide, said before anything is measured.
import { formatPlain } from '../quantity/index.ts';
import { type AccuracySpec, specUncertainty } from './spec.ts';

/** From this power on the procedures ask for a part of the reading, below it for a fixed uncertainty, W. */
const FROM_WATTS = 0.5;
const PART = 0.02;
const FIXED_WATTS = 0.01;

/** Expanded uncertainty the procedures allow at a power, W: 2 % from 0.5 W on, 0.01 W below. The stricter of the usual wordings (IEC 62301 ed. 1, 10 CFR 430 B app. Z). */
export const allowedUncertainty = (watts: number): number => (watts >= FROM_WATTS ? PART * watts : FIXED_WATTS);

/**
 * Why a meter is too coarse for a power that decides, in a sentence; null when it is fine enough.
 * @param spec undefined for a meter nobody has stated
 * @param watts the limit or promise it is to be held against, W
 */
export function tooCoarse(name: string, spec: AccuracySpec | undefined, watts: number): string | null {
  if (!(watts > 0) || !Number.isFinite(watts)) return null;
  if (!spec) return `The accuracy of "${name}" for power is not stated, so nothing can be decided with it.`;
  const expanded = 2 * specUncertainty(spec, watts);
  const allowed = allowedUncertainty(watts);
  if (expanded <= allowed * (1 + 1e-9)) return null;
  return `"${name}" reads ${formatPlain(watts, 'power')} to ± ${formatPlain(Number(expanded.toPrecision(2)), 'power')}; the procedures ask for ± ${formatPlain(allowed, 'power')}. What it says of ${formatPlain(watts, 'power')} stays indicative.`;
}
