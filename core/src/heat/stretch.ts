// Which stretch of a log tells where its sensors are going: loaded, at one power; or, with output not recorded, warming.
import { fullPower, type HeatEvent, type OutputLog, stretches } from './events.ts';

export const LEAST_READINGS = 4;

/** Part of the full power above which output is drawn: below is what a load that is off still reads. */
const DRAWN = 0.05;

/** Whether output is drawn at a sample. */
function isDrawn({ watts }: OutputLog): (at: number) => boolean {
  const full = fullPower(watts);
  return (at) => (watts[at] as number) > DRAWN * full;
}

/** From the first sample that is drawn to behind the last. */
function drawnPart(end: number, on: (at: number) => boolean): { readonly start: number; readonly stop: number } {
  let start = 0;
  while (start < end && !on(start)) start += 1;
  let stop = end;
  while (stop > start && !on(stop - 1)) stop -= 1;
  return { start, stop };
}

/** When output was drawn, s; null where it never was. */
export function drawnSpan(
  times: Float64Array,
  output: OutputLog,
): { readonly from: number; readonly to: number } | null {
  const { start, stop } = drawnPart(times.length, isDrawn(output));
  return stop > start ? { from: times[start] as number, to: times[stop - 1] as number } : null;
}

/** A temperature that falls behind its highest by more than this part of its span, and this much, K, is let go. */
const FALLEN = { part: 0.1, kelvin: 2 } as const;
/** So far above its lowest it has begun to warm. */
const BEGUN = { part: 0.03, kelvin: 0.5 } as const;
/** What stands still before it warms counts where it lasts longer than this part of the warming. */
const STILL = 0.05;
/** Fewer readings are taken as they are. */
const LEAST_TO_CUT = 12;

const middleOf = (a: number, b: number, c: number): number => Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));

/** Values without single ones that stand out: each the middle of three. */
const calmed = (values: ArrayLike<number>): Float64Array =>
  Float64Array.from(values, (value, at) => {
    const before = values[at - 1] ?? value;
    const after = values[at + 1] ?? value;
    return middleOf(before, value, after);
  });

/**
 * Where nobody recorded the output: from where a temperature begins to warm to its highest, if it falls after that. A log
 * that begins before its load, or goes on after it, warms along no curve as a whole.
 * @param values without gaps
 */
export function warmingPart(times: Float64Array, values: ArrayLike<number>): { from: number; to: number } {
  const end = times.length;
  const whole = { from: 0, to: end };
  if (end < LEAST_TO_CUT) return whole;
  const calm = calmed(values);
  const least = (from: number, to: number) =>
    calm.subarray(from, to).reduce((low, one) => Math.min(low, one), Number.POSITIVE_INFINITY);
  let peak = 0;
  for (let at = 0; at < end; at += 1) if ((calm[at] as number) > (calm[peak] as number)) peak = at;
  const highest = calm[peak] as number;
  const span = highest - least(0, end);
  const falls = highest - least(peak, end) > Math.max(FALLEN.kelvin, FALLEN.part * span);
  const to = falls ? peak + 1 : end;
  const limit = least(0, peak + 1) + Math.max(BEGUN.kelvin, BEGUN.part * span);
  let from = 0;
  for (let at = 0; at <= peak; at += 1) if ((calm[at] as number) <= limit) from = at;
  const time = (at: number): number => times[at] as number;
  if (time(from) - time(0) <= STILL * (time(to - 1) - time(from))) from = 0;
  return to - from < LEAST_TO_CUT ? whole : { from, to };
}

/** The stretch under load that tells most: the longest one in which power stays what it was. */
export function stretchOf(
  times: Float64Array,
  output: OutputLog,
  events: readonly HeatEvent[],
): { from: number; to: number } {
  const end = times.length;
  const on = isDrawn(output);
  const { start, stop } = drawnPart(end, on);
  if (start >= end - LEAST_READINGS) return { from: 0, to: end };
  const indexOf = (seconds: number) => {
    let at = 0;
    while (at < end && (times[at] as number) < seconds) at += 1;
    return at;
  };
  const cuts = [
    start,
    ...events.flatMap(({ at, recovered }) => [indexOf(at), ...(recovered === null ? [] : [indexOf(recovered)])]),
    // A load that is switched off for a while, and on again.
    ...stretches(end, (at) => !on(at)).flatMap(({ from, to }) => (to - from >= LEAST_READINGS ? [from, to] : [])),
    stop,
  ]
    .filter((at) => at >= start && at <= stop)
    .sort((a, b) => a - b);
  let best = { from: start, to: stop };
  let longest = -1;
  for (let at = 1; at < cuts.length; at += 1) {
    const from = cuts[at - 1] as number;
    const to = cuts[at] as number;
    if (to - from < LEAST_READINGS || !on(Math.floor((from + to) / 2))) continue;
    const length = (times[to - 1] as number) - (times[from] as number);
    if (length > longest) {
      longest = length;
      best = { from, to };
    }
  }
  return best;
}
