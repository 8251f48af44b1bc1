// Whether a power is, or will be, known well enough for a procedure.
import { formatPlain, formatUncertainty } from '../quantity/index.ts';
import {
  type AccuracySpec,
  expandedUncertainty,
  isStated,
  type Measured,
  specUncertainty,
} from '../uncertainty/index.ts';
import { procedureOf } from './procedures.ts';
import type { Procedure } from './types.ts';

/** From this power on the procedures ask for a part of the reading, below it for a fixed uncertainty, W. */
const FRACTION_FROM = 0.5;

/** Expanded uncertainty a procedure allows at a power, W. */
export const allowedUncertainty = ({ meterFraction, meterBelow }: Procedure, watts: number): number =>
  watts >= FRACTION_FROM ? meterFraction * watts : meterBelow;

/** What of a power's uncertainty deviates; nothing while it is known well enough. */
export function meterSays(procedure: Procedure, watts: Measured, what: string): string[] {
  if (!isStated(watts)) return [`How well ${what.toLowerCase()} is known is not stated.`];
  const expanded = expandedUncertainty(watts);
  const allowed = allowedUncertainty(procedure, watts.value);
  if (expanded <= allowed * (1 + 1e-9)) return [];
  if (watts.value < FRACTION_FROM)
    return [
      `${what} is known to ± ${formatUncertainty(expanded, 'power', 'mW')}; ${formatPlain(allowed, 'power', 'mW')} is asked.`,
    ];
  const percent = (part: number, digits: number) => `${((part / watts.value) * 100).toFixed(digits)} %`;
  return [`${what} is known to ± ${percent(expanded, 1)}; ${percent(allowed, 0)} is asked.`];
}

/**
 * Why a meter is too coarse for a power that decides, in a sentence, before anything is measured; null when it is fine.
 * @param spec undefined for a meter nobody has stated
 * @param watts the limit or promise it is to be held against, W
 */
export function tooCoarse(
  name: string,
  spec: AccuracySpec | undefined,
  watts: number,
  procedure: Procedure = procedureOf(),
): string | null {
  if (!(watts > 0) || !Number.isFinite(watts)) return null;
  if (!spec) return `The accuracy of "${name}" for power is not stated, so nothing can be decided with it.`;
  const expanded = 2 * specUncertainty(spec, watts);
  const allowed = allowedUncertainty(procedure, watts);
  if (expanded <= allowed * (1 + 1e-9)) return null;
  return `"${name}" reads ${formatPlain(watts, 'power')} to ± ${formatUncertainty(expanded, 'power')}; the procedures ask for ± ${formatPlain(allowed, 'power')}. What it says of ${formatPlain(watts, 'power')} stays indicative.`;
}
