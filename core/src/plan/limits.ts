// What must never be passed while a load is on: per bench, per sample, and never beyond what an instrument can take.
import { formatPlain, formatValue, type QuantityId } from '../quantity/index.ts';
import type { Output } from '../reading/index.ts';

/** Limits at which every load goes off. SI; null for none of one's own. */
export interface Limits {
  /** Hottest spot, K */
  readonly hottest: number | null;
  /** V at any port */
  readonly volts: number | null;
  /** A at any port */
  readonly amps: number | null;
  /** W out of one port */
  readonly watts: number | null;
}

export const NO_LIMITS: Limits = { hottest: null, volts: null, amps: null, watts: null };

/** What an instrument can take at most; null where its maker states nothing. */
export interface Ratings {
  readonly volts: number | null;
  readonly amps: number | null;
  readonly watts: number | null;
}

const RATED = [
  ['volts', 'voltage'],
  ['amps', 'current'],
  ['watts', 'power'],
] as const satisfies readonly (readonly [keyof Ratings, QuantityId])[];

/** Why limits cannot be set so: one lies above what an instrument can take. Null when they can. */
export function limitsRefusal(
  limits: Limits,
  instruments: readonly { readonly name: string; readonly ratings?: Ratings | null | undefined }[],
): string | null {
  for (const { name, ratings } of instruments)
    for (const [key, quantity] of RATED) {
      const limit = limits[key];
      const rating = ratings?.[key] ?? null;
      if (limit !== null && rating !== null && limit > rating)
        return `${formatPlain(limit, quantity)} is above what "${name}" can take: ${formatPlain(rating, quantity)}. A limit stays at or below it.`;
    }
  return null;
}

const lower = (a: number | null, b: number | null): number | null => (a === null ? b : b === null ? a : Math.min(a, b));

/** The limits that hold: the sample's own where it has them, else the bench's, and never above a rating. */
export function limitsInForce(
  bench: Limits,
  sample: Limits | null,
  ratings: readonly (Ratings | null | undefined)[],
): Limits {
  const own = (key: keyof Limits) => sample?.[key] ?? bench[key];
  const rated = (key: keyof Ratings) =>
    ratings.reduce<number | null>((least, one) => lower(least, one?.[key] ?? null), own(key));
  return { hottest: own('hottest'), volts: rated('volts'), amps: rated('amps'), watts: rated('watts') };
}

/** True values of one moment, as the meters tell them. */
export interface Moment {
  readonly ports: readonly { readonly port: string; readonly volts: number | null; readonly amps: number | null }[];
  /** K; null when nothing is measured. */
  readonly hottest: number | null;
}

/** A level may stand this much above what was asked before it counts as the wrong level. */
const WRONG_LEVEL = 0.12;

/**
 * Which limit a moment passes, in a sentence; null when none. A port that stands well above the level it was asked for
 * is one too: what hangs on it was not made for that.
 */
export function limitPassed(limits: Limits, outputs: readonly Output[], moment: Moment): string | null {
  if (limits.hottest !== null && moment.hottest !== null && moment.hottest > limits.hottest)
    return `Hottest spot ${formatValue(moment.hottest, 'temperature', 1)}: above the limit of ${formatValue(limits.hottest, 'temperature', 1)}.`;
  for (const { port, volts, amps } of moment.ports) {
    const checks = [
      [volts, limits.volts, 'voltage'],
      [amps, limits.amps, 'current'],
      [volts !== null && amps !== null ? volts * amps : null, limits.watts, 'power'],
    ] as const;
    for (const [value, limit, quantity] of checks)
      if (value !== null && limit !== null && value > limit)
        return `${port} ${formatValue(value, quantity, 2)}: above the limit of ${formatPlain(limit, quantity)}.`;
    const asked = outputs.find((one) => one.port === port);
    if (asked && volts !== null && volts > asked.volts * (1 + WRONG_LEVEL))
      return `${port} stands at ${formatValue(volts, 'voltage', 2)}; ${formatPlain(asked.volts, 'voltage')} was asked for.`;
  }
  return null;
}
