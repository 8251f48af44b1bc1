// Idle power over time: the mean by energy, and the bursts that make instant readings useless.
import type { IdleFigures } from './types.ts';

/** Least time that smooths bursts, s. */
const LEAST_SECONDS = 600;
/** A burst stands out by this many times the scatter of the floor, and by half of the floor at least. */
const SCATTERS = 6;
/** Parts of the sorted samples that give floor and scatter: bursts are short, so the lower half is floor. */
const LOW_HALF = 0.5;
/** Samples sorted at most; sorting all of a long record would hold everything else up. */
const MOST_SORTED = 20_000;

function median(sorted: Float64Array): number {
  const { length } = sorted;
  return length === 0 ? 0 : ((sorted[Math.floor((length - 1) / 2)] ?? 0) + (sorted[Math.floor(length / 2)] ?? 0)) / 2;
}

/** Samples evenly picked, enough for a median however long the record is. */
function picked(watts: Float64Array): Float64Array {
  const stride = Math.max(1, Math.floor(watts.length / MOST_SORTED));
  const some = new Float64Array(Math.floor(watts.length / stride));
  for (let index = 0; index < some.length; index += 1) some[index] = watts[index * stride] ?? 0;
  return some;
}

/** Stretches above a threshold; those cut off by an end of the capture are marked. */
function stretches(values: Float64Array, threshold: number): { from: number; to: number; whole: boolean }[] {
  const found: { from: number; to: number; whole: boolean }[] = [];
  let from = -1;
  for (let index = 0; index <= values.length; index += 1) {
    const above = index < values.length && (values[index] ?? 0) > threshold;
    if (above && from < 0) from = index;
    if (!above && from >= 0) {
      found.push({ from, to: index, whole: from > 0 && index < values.length });
      from = -1;
    }
  }
  return found;
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Idle from a record of power: mean, floor, and bursts.
 * The mean is energy over time, so it holds whatever the bursts do; floor and bursts tell why an instant reading differs.
 * @param interval s between samples
 */
export function idleFigures(watts: Float64Array, interval: number): IdleFigures {
  const seconds = watts.length * interval;
  let sum = 0;
  let lowest = Number.POSITIVE_INFINITY;
  // Plain loops here: a record may have a million samples.
  for (let index = 0; index < watts.length; index += 1) {
    const value = watts[index] as number;
    sum += value;
    if (value < lowest) lowest = value;
  }
  const energy = sum * interval;
  const sorted = picked(watts).sort();
  const low = sorted.subarray(0, Math.max(1, Math.floor(sorted.length * LOW_HALF)));
  const base = median(low);
  const scatter = median(Float64Array.from(low, (value) => Math.abs(value - base)).sort()) * 1.4826;
  const threshold = base + Math.max(SCATTERS * scatter, 0.5 * Math.abs(base), 1e-3);
  const bursts = stretches(watts, threshold);
  let inBursts = 0;
  let burstSamples = 0;
  for (const { from, to } of bursts)
    for (let index = from; index < to; index += 1) {
      inBursts += (watts[index] ?? 0) * interval;
      burstSamples += 1;
    }
  const floorSamples = watts.length - burstSamples;
  const floor = floorSamples > 0 ? (energy - inBursts) / (floorSamples * interval) : base;
  const whole = bursts.filter((one) => one.whole);
  const starts = bursts.filter(({ from }) => from > 0).map(({ from }) => from);
  const [firstStart] = starts;
  const lastStart = starts.at(-1);
  const period =
    firstStart !== undefined && lastStart !== undefined && starts.length > 1
      ? ((lastStart - firstStart) * interval) / (starts.length - 1)
      : null;
  const findings = [
    ...(seconds < LEAST_SECONDS
      ? [`Recorded for ${Math.round(seconds)} s; ten minutes or more smooth the bursts.`]
      : []),
    ...(period !== null && period < 3 * interval
      ? ['Bursts come faster than it was sampled: their number is not to be relied on, the mean is.']
      : []),
    ...(lowest < 0 ? ['Power went negative: check how the meter is wired.'] : []),
  ];
  return {
    kind: 'idle',
    watts: seconds > 0 ? energy / seconds : 0,
    seconds,
    floor,
    burst: burstSamples > 0 ? inBursts / (burstSamples * interval) : null,
    bursts: bursts.length,
    period,
    length: whole.length > 0 ? mean(whole.map(({ from, to }) => (to - from) * interval)) : null,
    burstShare: energy > 0 ? inBursts / energy : 0,
    findings,
  };
}
