// The loadings a complete efficiency result needs: each port at its ends, and all together.

import { formatPlain } from '../quantity/index.ts';
import { type Mains, type Output, type Setup, sameOutputs, setAmps } from '../reading/index.ts';
import { sharedLoadFactor } from './series.ts';

export interface WantedLoading {
  readonly outputs: readonly Output[];
  /** Why it is wanted, in a few words. */
  readonly why: string;
  /** Where it is wanted; null for every mains. */
  readonly mains: Mains | null;
  /** The loading there is for it; null while there is none. */
  readonly setupId: string | null;
}

/** A current a text fixes for the lowest level of an adaptive supply. */
export interface LowRule {
  readonly title: string;
  /** Where the text is measured at; null or left out for every mains. */
  readonly mains?: Mains | null;
  readonly volts: number;
  readonly amps: number;
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.01;

function endsOf(
  port: string,
  levels: readonly Output[],
  lowRules: readonly LowRule[],
): Omit<WantedLoading, 'setupId'>[] {
  const own = levels.filter((one) => one.port === port).sort((a, b) => a.volts - b.volts || b.amps - a.amps);
  const [lowest] = own;
  const highest = own.reduce<Output | undefined>(
    (best, one) => (best && best.volts >= one.volts ? best : one),
    undefined,
  );
  if (!lowest || !highest) return [];
  if (near(lowest.volts, highest.volts)) return [{ outputs: [lowest], why: 'its only level', mains: null }];
  const rules = lowRules.filter(({ volts, amps }) => near(volts, lowest.volts) && !near(amps, lowest.amps));
  return [
    { outputs: [highest], why: 'highest level', mains: null },
    { outputs: [lowest], why: 'lowest level', mains: null },
    ...rules.map(({ title, amps, mains = null }) => ({
      mains,
      outputs: [{ ...lowest, amps: Math.min(amps, lowest.amps) }],
      why: `lowest level, ${formatPlain(amps, 'current')} as ${title} asks`,
    })),
  ];
}

/** All ports at their highest levels, every current scaled so that the nameplate is not passed. */
function together(
  ports: readonly string[],
  levels: readonly Output[],
  watts: number,
): Omit<WantedLoading, 'setupId'>[] {
  const highest = ports.flatMap((port) => {
    const own = levels.filter((one) => one.port === port);
    const best = own.reduce<Output | undefined>((a, b) => (a && a.volts >= b.volts ? a : b), undefined);
    return best ? [best] : [];
  });
  if (highest.length < 2) return [];
  const factor = sharedLoadFactor(highest, watts);
  const outputs = highest.map((one) => ({ ...one, amps: setAmps(one.amps * factor) })).filter(({ amps }) => amps > 0);
  return [{ outputs, mains: null, why: factor < 1 ? `together, currents × ${factor.toFixed(3)}` : 'together' }];
}

/**
 * What has to be measured before the result is complete: PD supplies at their lowest and highest level, each port and
 * the loaded combination. Source: 10 CFR 430 subpart B, appendix Z, 4 to 6.
 * @param levels fixed levels each port offers alone
 * @param combination how all ports are loaded by the maker's own allocation; null scales the highest levels
 * @param watts nameplate output power, W; 0 when not known
 */
export function wantedLoadings(
  ports: readonly string[],
  levels: readonly Output[],
  combination: readonly Output[] | null,
  watts: number,
  lowRules: readonly LowRule[],
  setups: readonly Setup[],
): readonly WantedLoading[] {
  const all = combination
    ? [{ outputs: combination, why: 'together, as promised', mains: null }]
    : together(ports, levels, watts);
  return [...ports.flatMap((port) => endsOf(port, levels, lowRules)), ...all].map((wanted) => ({
    ...wanted,
    setupId:
      setups.find((setup) => setup.purpose === 'efficiency' && sameOutputs(setup.outputs, wanted.outputs))?.id ?? null,
  }));
}
