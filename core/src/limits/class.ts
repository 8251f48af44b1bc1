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

/** The class of a whole sample: what no-load is judged by. */
export interface SampleClass {
  readonly nameplateClass: NameplateClass;
  readonly why: string;
  /** Whether someone chose it, with a reason. */
  readonly chosen: boolean;
}

/**
 * The one class of a sample, whatever was loaded first. Ports that can give different voltages at once make it
 * multiple-voltage; one port that agrees on several is adaptive and judged by its highest level; else its one level
 * decides. The same sources as {@link deriveClass}; the user's own choice comes first.
 * @param loadings outputs of every loading
 * @param levels fixed levels each port offers
 */
export function deriveSampleClass(
  loadings: readonly (readonly Output[])[],
  levels: readonly Pick<Output, 'port' | 'volts' | 'amps'>[],
  choice: { readonly nameplateClass: NameplateClass; readonly reason: string } | null = null,
): SampleClass {
  if (choice) return { nameplateClass: choice.nameplateClass, why: choice.reason, chosen: true };
  const all = [...levels, ...loadings.flat()];
  const ports = [...new Set(all.map(({ port }) => port))];
  const highestOf = (port: string) =>
    all.filter((one) => one.port === port).reduce((top, one) => (one.volts > top.volts ? one : top));
  const tops = ports.map(highestOf).sort((a, b) => b.volts - a.volts);
  const [top] = tops;
  if (!top) return { nameplateClass: 'basic', why: 'Nothing says yet what it gives: taken as basic.', chosen: false };
  const said = ({ port, volts }: Pick<Output, 'port' | 'volts'>) => `${port} ${formatPlain(volts, 'voltage')}`;
  const other = all.find(({ port, volts }) => port !== top.port && !near(volts, top.volts));
  if (other)
    return {
      nameplateClass: 'multiple-voltage',
      why: `${said(top)} and ${said(other)} are possible at once: several voltages.`,
      chosen: false,
    };
  const adaptive = all.some(({ port, volts }) => port === top.port && !near(volts, top.volts));
  const amps = Math.max(...all.filter(({ volts }) => near(volts, top.volts)).map((one) => one.amps));
  const nameplateClass = top.volts < LOW_BELOW_VOLTS && amps >= LOW_FROM_AMPS ? 'low-voltage' : 'basic';
  return {
    nameplateClass,
    why: adaptive
      ? `${top.port} agrees on several voltages: adaptive, ${nameplateClass} by its highest.`
      : `One voltage, ${formatPlain(top.volts, 'voltage')} ${formatPlain(amps, 'current')}: ${nameplateClass}.`,
    chosen: false,
  };
}
