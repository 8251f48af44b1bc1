// How long units last when some were taken out before they failed.
import quantile from '@stdlib/stats-base-dists-normal-quantile';

/** One unit: how far it came, and whether it failed there or was taken out alive. */
export interface Fate {
  /** Bends, hours, plugs: anything that counts up from nought. */
  readonly at: number;
  readonly failed: boolean;
}

/** What part is still alive after a failure. */
export interface Survival {
  readonly at: number;
  /** Units under test just before. */
  readonly atRisk: number;
  readonly failed: number;
  /** Part alive after it, 0…1. */
  readonly alive: number;
  /** 95 % interval of that, by the logarithm of minus the logarithm; null where nothing is left to tell. */
  readonly interval: readonly [number, number] | null;
}

const Z = quantile(0.975, 0, 1);

/**
 * Part alive after each failure, units taken out early counted as long as they were under test. One that is taken out at the
 * very count of a failure was still under test. E. L. Kaplan, P. Meier, J. Am. Stat. Assoc. 53 (1958) 457; variance by
 * M. Greenwood (1926), interval by J. D. Kalbfleisch, R. L. Prentice.
 * @param fates what is no number or below nought is left out
 * @returns a line a failure, in order; empty where none failed
 * @example survival([{ at: 4000, failed: true }, { at: 6000, failed: false }])[0]?.alive // 0.5
 */
export function survival(fates: readonly Fate[]): readonly Survival[] {
  const units = fates.filter(({ at }) => Number.isFinite(at) && at >= 0);
  const times = [...new Set(units.filter(({ failed }) => failed).map(({ at }) => at))].sort((a, b) => a - b);
  let alive = 1;
  let greenwood = 0;
  return times.map((at) => {
    const atRisk = units.filter((one) => one.at >= at).length;
    const failed = units.filter((one) => one.failed && one.at === at).length;
    alive *= 1 - failed / atRisk;
    greenwood += failed / (atRisk * (atRisk - failed));
    const log = Math.log(alive);
    const half = alive > 0 && alive < 1 ? (Z * Math.sqrt(greenwood)) / Math.abs(log) : Number.NaN;
    return {
      at,
      atRisk,
      failed,
      alive,
      interval: Number.isFinite(half) ? [alive ** Math.exp(half), alive ** Math.exp(-half)] : null,
    };
  });
}

/** Part alive at a count; 1 before the first failure, null beyond the last unit that was under test, unless that failed. */
export function aliveAt(fates: readonly Fate[], count: number): number | null {
  const last = survival(fates).findLast(({ at }) => at <= count);
  if (last?.alive === 0) return 0;
  return fates.some(({ at }) => at >= count) ? (last?.alive ?? 1) : null;
}

const percent = (part: number): string => `${Math.round(part * 100)} %`;

/**
 * Survival in a sentence that does not hide how few there are.
 * @param unit what is counted: "bends"
 */
export function survivalSays(fates: readonly Fate[], unit: string): string {
  const known = fates.filter(({ at }) => Number.isFinite(at) && at >= 0);
  const n = known.length;
  if (n === 0) return 'No unit yet.';
  const units = n === 1 ? 'one unit' : `${n} units`;
  const steps = survival(known);
  const failed = known.filter((one) => one.failed).length;
  const most = Math.max(...known.map(({ at }) => at));
  const few = n < 5 ? ` ${n === 1 ? 'One unit says' : `${n} units say`} little about the next.` : '';
  const last = steps.at(-1);
  if (!last) return `None of ${units} failed up to ${most} ${unit}.${few}`;
  const between = last.interval ? ` (95 %: ${percent(last.interval[0])} to ${percent(last.interval[1])})` : '';
  return `${failed} of ${units} failed; after ${last.at} ${unit} ${percent(last.alive)} are alive${between}.${few}`;
}
