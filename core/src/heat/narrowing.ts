// By how much a longer soak would still narrow where it leads: from the curve itself, before anyone waits for it.
import { type WarmFit, warmFit } from './fit.ts';

/** Points the curve is looked at. */
const POINTS = 200;

/** Inverse of a symmetric matrix, first diagonal element only; null where it has none. */
function firstOfInverse(matrix: readonly (readonly number[])[]): number | null {
  const n = matrix.length;
  const m = matrix.map((row, at) => [...row, at === 0 ? 1 : 0]);
  for (let i = 0; i < n; i += 1) {
    let pivot = i;
    for (let row = i + 1; row < n; row += 1) if (Math.abs(m[row]?.[i] ?? 0) > Math.abs(m[pivot]?.[i] ?? 0)) pivot = row;
    const top = m[pivot] as number[];
    m[pivot] = m[i] as number[];
    m[i] = top;
    const lead = top[i] as number;
    if (!(Math.abs(lead) > 1e-14)) return null;
    for (let row = 0; row < n; row += 1) {
      if (row === i) continue;
      const own = m[row] as number[];
      const factor = (own[i] as number) / lead;
      for (let at = i; at <= n; at += 1) own[at] = (own[at] as number) - factor * (top[at] as number);
    }
  }
  return (m[0]?.[n] as number) / (m[0]?.[0] as number);
}

/** Relative variance of the steady value after so long, s, with readings as dense as before. */
function variance({ timeConstants, parts }: Pick<WarmFit, 'timeConstants' | 'parts'>, length: number): number | null {
  const size = 1 + 2 * timeConstants.length;
  const normal = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  for (let at = 0; at < POINTS; at += 1) {
    const t = (length * (at + 0.5)) / POINTS;
    const row = [
      1,
      ...timeConstants.flatMap((tau, which) => [
        -Math.exp(-t / tau),
        -(parts[which] as number) * Math.exp(-t / tau) * (t / tau),
      ]),
    ];
    for (let a = 0; a < size; a += 1)
      for (let b = 0; b < size; b += 1)
        (normal[a] as number[])[b] = (normal[a]?.[b] as number) + (row[a] as number) * (row[b] as number);
  }
  const found = firstOfInverse(normal);
  // Twice as long has twice as many readings.
  return found === null || !(found > 0) ? null : found / length;
}

/**
 * Half width of the interval of the steady value if the soak went on, K.
 * @param fit the curve so far @param length how long it lasted, s @param more how much longer, s
 * @returns null where it cannot be told: a curve that does not move, or an interval with an open end
 * @example halfWidthAfter(fit, 14 * 60, 20 * 60) // 1.9
 */
export function halfWidthAfter(
  fit: Pick<WarmFit, 'timeConstants' | 'parts' | 'interval'>,
  length: number,
  more: number,
): number | null {
  const [low, high] = fit.interval;
  if (low === null || high === null || fit.timeConstants.length === 0 || !(length > 0) || !(more >= 0)) return null;
  // The part that is still to come decides; a quick one beside it is known by now.
  const main = fit.parts.reduce(
    (best, part, at) => (Math.abs(part) > Math.abs(fit.parts[best] as number) ? at : best),
    0,
  );
  const slow = { timeConstants: [fit.timeConstants[main] as number], parts: [fit.parts[main] as number] };
  const now = variance(slow, length);
  const then = variance(slow, length + more);
  return now === null || then === null ? null : ((high - low) / 2) * Math.sqrt(Math.min(1, then / now));
}

/** Where a soak that still goes on leads, and whether it may end. */
export interface SoakForecast {
  readonly fit: WarmFit;
  /** Half width of the interval now, K; null while it is open. */
  readonly half: number | null;
  /** The same after twenty minutes more, K. */
  readonly after: number | null;
  /** It is known well enough: going on would tell nothing new. */
  readonly tight: boolean;
}

/** A steady value known better than this needs no longer soak, K. */
export const TIGHT_KELVIN = 0.5;
export const LONGER_SECONDS = 1200;
/** A soak is not judged before so many readings over so long, s. */
const LEAST_READINGS = 20;
const LEAST_SECONDS = 300;

/**
 * @param times s from its start, rising @param celsius of the hottest point
 * @returns null while it is too early to say
 */
export function soakForecast(times: readonly number[], celsius: readonly number[]): SoakForecast | null {
  const length = (times.at(-1) ?? 0) - (times[0] ?? 0);
  if (times.length < LEAST_READINGS || length < LEAST_SECONDS) return null;
  const begin = times[0] as number;
  const fit = warmFit(
    times.map((time) => time - begin),
    celsius,
  );
  if (!fit) return null;
  const [low, high] = fit.interval;
  const half = low === null || high === null ? null : (high - low) / 2;
  return {
    fit,
    half,
    after: halfWidthAfter(fit, length, LONGER_SECONDS),
    tight: half !== null && half <= TIGHT_KELVIN,
  };
}
