// The nameplate class of a loading, derived from what the sample offers.
import { formatPlain } from '../quantity/index.ts';
import type { Output } from '../reading/index.ts';
import type { NameplateClass } from './types.ts';

export interface DerivedClass {
  /** Which formulas apply. */
  readonly nameplateClass: NameplateClass;
  /** Whether the voltage of the loaded port is agreed with what is plugged in. */
  readonly adaptive: boolean;
  /** Where the loaded level stands among those of an adaptive port; null for other supplies. */
  readonly level: 'lowest' | 'highest' | 'between' | null;
  /** What the port gives at that level by its nameplate, A; null when nothing says. */
  readonly nameplateAmps: number | null;
  /** How it was derived, in a sentence. */
  readonly why: string;
}

const LOW_BELOW_VOLTS = 6;
const LOW_FROM_AMPS = 0.55;
const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.01;

/**
 * The class of a loading. Several voltages at once are multiple-voltage; under 6 V with 0.55 A or more is low-voltage;
 * the rest basic. A port that offers several levels is adaptive: judged at its lowest and highest, each by its own class.
 * Source: 10 CFR 430 subpart B, appendix Z, 2; Commission Regulation (EU) 2019/1782, article 2. The user may override it.
 * @param levels fixed levels each port offers alone, with their currents
 */
export function deriveClass(
  outputs: readonly Output[],
  levels: readonly Pick<Output, 'port' | 'volts' | 'amps'>[],
): DerivedClass {
  const volts = [...new Set(outputs.map((output) => output.volts))];
  const none = { adaptive: false, level: null, nameplateAmps: null } as const;
  if (volts.length > 1) {
    const each = outputs.map((output) => `${output.port} ${formatPlain(output.volts, 'voltage')}`);
    return { ...none, nameplateClass: 'multiple-voltage', why: `${each.join(' and ')} at once: several voltages.` };
  }
  const [first] = outputs;
  if (!first) return { ...none, nameplateClass: 'basic', why: 'Nothing is loaded.' };
  const amps = outputs.reduce((total, output) => total + output.amps, 0);
  const low = first.volts < LOW_BELOW_VOLTS && amps >= LOW_FROM_AMPS;
  const nameplateClass = low ? 'low-voltage' : 'basic';
  const size = low
    ? `under ${LOW_BELOW_VOLTS} V with ${LOW_FROM_AMPS} A or more`
    : `${formatPlain(first.volts, 'voltage')}, ${formatPlain(amps, 'current')}`;
  const offered = levels.filter(({ port }) => port === first.port).sort((a, b) => a.volts - b.volts);
  const distinct = [...new Set(offered.map((level) => level.volts))];
  if (outputs.length > 1 || distinct.length < 2)
    return { ...none, nameplateClass, why: `One voltage at a time, ${size}: ${nameplateClass}.` };
  const at = distinct.findIndex((level) => near(level, first.volts));
  const level = at === 0 ? 'lowest' : at === distinct.length - 1 ? 'highest' : 'between';
  const span = `${formatPlain(distinct[0] ?? 0, 'voltage')} to ${formatPlain(distinct.at(-1) ?? 0, 'voltage')}`;
  return {
    nameplateClass,
    adaptive: true,
    level,
    nameplateAmps: offered.find((one) => near(one.volts, first.volts))?.amps ?? null,
    why: `${first.port} agrees on ${span}: adaptive. At ${formatPlain(first.volts, 'voltage')} it is ${nameplateClass}, ${size}.`,
  };
}
