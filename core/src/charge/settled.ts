// A device reading is a run: peak, plateau and mean of what it took are different numbers, each named.
import type { Trace } from '../trace/index.ts';
import { meanOf } from './parts.ts';
import { chargeRoles, seriesOf } from './series.ts';
import { slipsOf } from './slips.ts';

export interface Settled {
  /** Highest W, of a few seconds. */
  readonly peak: number;
  /** Mean W of the longest stretch within ±3 %, after it settled; null where there is none. */
  readonly plateau: {
    readonly watts: number;
    readonly volts: number | null;
    readonly from: number;
    readonly seconds: number;
  } | null;
  /** Mean and standard deviation after it settled, W. */
  readonly mean: number;
  readonly spread: number;
  /** s it was given to settle, and s that were logged in all. */
  readonly settled: number;
  readonly seconds: number;
  readonly findings: readonly string[];
}

const SETTLE = 180;
/** Half the width of a plateau, and its least length: shorter is a flicker. */
const WITHIN = 0.03;
const LEAST = 60;
const BLOCK = 5;
/** A mean that still moves so much in the last third of what was logged has not settled. */
const RAMPS = 0.05;

/** Longest stretch whose highest and lowest lie within ±3 % of their middle: first and last of it. */
function longestFlat(values: Float64Array, from: number): readonly [number, number] {
  let best: readonly [number, number] = [from, from];
  let begin = from;
  for (let end = from; end < values.length; end += 1) {
    for (;;) {
      let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
      for (let at = begin; at <= end; at += 1) {
        low = Math.min(low, values[at] as number);
        high = Math.max(high, values[at] as number);
      }
      if (high - low <= 2 * WITHIN * ((high + low) / 2) || begin === end) break;
      begin += 1;
    }
    if (end - begin > best[1] - best[0]) best = [begin, end];
  }
  return best;
}

const round = (seconds: number): string => `${Number((seconds / 60).toPrecision(2))} min`;

/**
 * Peak, plateau and mean of what a device took, from the log of an inline meter.
 * @returns or why there is no reading in it
 * @example settledOf(trace).plateau?.watts // 44.2
 */
export function settledOf(trace: Trace): Settled | { readonly reason: string } {
  const roles = chargeRoles(trace);
  const [doubt] = roles.doubts;
  if (doubt !== undefined) return { reason: doubt };
  const series = seriesOf(roles);
  if (!roles.watts) return { reason: 'No power in it. Name columns with their unit, such as W, or V and A.' };
  if (!series) return { reason: 'Too short: log a few minutes.' };
  const size = Math.max(1, Math.round(BLOCK / series.step));
  const step = size * series.step;
  const count = Math.floor(series.watts.length / size);
  if (count < 3) return { reason: 'Too short: log a few minutes.' };
  const blocks = Float64Array.from({ length: count }, (_, at) =>
    meanOf(series.watts, { from: at * size, to: (at + 1) * size }),
  );
  const seconds = series.watts.length * series.step;
  const settle = Math.min(SETTLE, seconds / 2);
  const from = Math.min(count - 2, Math.ceil(settle / step));
  const rest = blocks.slice(from);
  const mean = rest.reduce((sum, one) => sum + one, 0) / rest.length;
  const spread = Math.sqrt(rest.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, rest.length - 1));
  const [first, last] = longestFlat(blocks, from);
  const length = (last - first + 1) * step;
  const range = { from: first * size, to: (last + 1) * size };
  const third = Math.max(1, Math.floor(rest.length / 3));
  const early = meanOf(rest, { from: rest.length - 2 * third, to: rest.length - third });
  const late = meanOf(rest, { from: rest.length - third, to: rest.length });
  const drawn = mean > 0.25;
  return {
    peak: Math.max(...blocks),
    plateau:
      length >= LEAST && drawn
        ? {
            watts: meanOf(series.watts, range),
            volts: series.volts ? meanOf(series.volts, range) : null,
            from: first * step,
            seconds: length,
          }
        : null,
    mean,
    spread,
    settled: settle,
    seconds,
    findings: [
      ...slipsOf(roles, series),
      ...(seconds < SETTLE ? [`Logged for ${round(seconds)}: ${round(SETTLE)} are the least to settle.`] : []),
      ...(drawn && Math.abs(late - early) > RAMPS * Math.max(late, early)
        ? [`It was still ${late > early ? 'rising' : 'falling'} at the end: not settled.`]
        : []),
      ...(length < LEAST && drawn ? ['It never stayed within 3 % for a minute: there is no plateau.'] : []),
      ...(drawn ? [] : ['It drew next to nothing: asleep, full, or not started.']),
    ],
  };
}
