// Idle power over time: the mean by energy, and the bursts that make instant readings useless.
import type { IdleFigures } from './types.ts';

/** Least time that smooths bursts, s. */
const LEAST_SECONDS = 600;
/** A burst stands out by this part of the floor at least. */
const LEAST_RISE = 0.15;
/** Noise may reach this part of the floor after smoothing, and smoothing may take this many samples. */
const CALM = 0.3;
const MOST_SMOOTHED = 16;
/** Part of the samples that differ from the one before where a last digit flickers. */
const FLICKERS = 0.1;
/** Part of the floor a last digit may be; what steps further is no digit. */
const MOST_DIGIT = 0.5;
/** Samples sorted at most; sorting all of a long record would hold everything else up. */
const MOST_SORTED = 20_000;

function median(sorted: Float64Array): number {
  const { length } = sorted;
  return length === 0 ? 0 : ((sorted[Math.floor((length - 1) / 2)] ?? 0) + (sorted[Math.floor(length / 2)] ?? 0)) / 2;
}

/** Samples evenly picked, enough for a median however long the record is; gaps are no samples. */
function picked(values: Float64Array): Float64Array {
  const stride = Math.max(1, Math.floor(values.length / MOST_SORTED));
  const some: number[] = [];
  for (let index = 0; index < values.length; index += stride) {
    const value = values[index] as number;
    if (!Number.isNaN(value)) some.push(value);
  }
  return Float64Array.from(some).sort();
}

/** Means over windows of some samples, one beside each sample. */
function smoothed(values: Float64Array, width: number): Float64Array {
  if (width <= 1) return values;
  const half = Math.floor(width / 2);
  const sums = new Float64Array(values.length + 1);
  for (let index = 0; index < values.length; index += 1) sums[index + 1] = (sums[index] ?? 0) + (values[index] ?? 0);
  return values.map((_, index) => {
    const from = Math.max(0, index - half);
    const to = Math.min(values.length, from + width);
    return ((sums[to] ?? 0) - (sums[from] ?? 0)) / (to - from);
  });
}

/**
 * Scatter from sample to sample, which bursts hardly touch: the median step between neighbours over that of a normal
 * distribution. And the smallest step where the last digit flickers: it is the meter's.
 */
function scatterOf(values: Float64Array): { readonly sigma: number; readonly step: number } {
  const steps = new Float64Array(Math.max(0, values.length - 1));
  let least = Number.POSITIVE_INFINITY;
  let changes = 0;
  for (let index = 0; index < steps.length; index += 1) {
    const step = Math.abs((values[index + 1] ?? 0) - (values[index] ?? 0));
    steps[index] = step;
    if (step > 0) changes += 1;
    if (step > 0 && step < least) least = step;
  }
  return { sigma: (median(picked(steps)) * 1.4826) / Math.SQRT2, step: changes > FLICKERS * steps.length ? least : 0 };
}

interface Floor {
  /** Samples, smoothed as far as the noise asks for. */
  readonly values: Float64Array;
  /** W a burst rises above, and below which it is over again. */
  readonly enter: number;
  readonly leave: number;
  readonly base: number;
}

/**
 * What is floor and what is burst. The rise that counts follows the noise: so many times its scatter that a record of
 * this length has none by chance.
 */
function floorOf(watts: Float64Array): Floor {
  const sorted = picked(watts);
  const half = median(sorted.subarray(0, Math.max(1, Math.floor(sorted.length / 2))));
  const { sigma, step } = scatterOf(watts);
  const times = Math.max(5, Math.sqrt(2 * Math.log(Math.max(2, watts.length))) + 1);
  const wanted = half > 0 ? ((times * sigma) / (CALM * half)) ** 2 : 1;
  const width = Math.min(MOST_SMOOTHED, Math.max(1, Math.ceil(wanted)));
  const values = smoothed(watts, width);
  const noise = sigma / Math.sqrt(width);
  let base = half;
  let rise = 0;
  // The lower half of a noisy floor lies too low: the floor is what stays below the threshold, and so on.
  for (let round = 0; round < 4; round += 1) {
    rise = riseOver(base, times * noise, step);
    const calm = picked(values).filter((value) => value <= base + rise);
    base = median(calm);
  }
  rise = riseOver(base, times * noise, step);
  return { values, base, enter: base + rise, leave: base + rise / 2 };
}

/** How far above the floor counts, W: beyond noise, beyond a flickering last digit, and by a part of the floor. */
function riseOver(base: number, noise: number, step: number): number {
  const digit = step <= MOST_DIGIT * Math.abs(base) ? 1.5 * step : 0;
  return Math.max(noise, LEAST_RISE * Math.abs(base), digit, 1e-4);
}

interface Burst {
  readonly from: number;
  readonly to: number;
  /** Whether both its ends are in the record. */
  readonly whole: boolean;
}

/** Stretches that rise above and have not fallen back; a gap ends one. */
function burstsIn({ values, enter, leave }: Floor): Burst[] {
  const found: Burst[] = [];
  let from = -1;
  for (let index = 0; index <= values.length; index += 1) {
    const value = index < values.length ? (values[index] as number) : Number.NaN;
    if (from < 0 && value > enter) {
      // The rise began where it left the floor.
      from = index;
      while (from > 0 && (values[from - 1] as number) > leave) from -= 1;
    } else if (from >= 0 && !(value > leave)) {
      found.push({ from, to: index, whole: from > 0 && index < values.length && !Number.isNaN(value) });
      from = -1;
    }
  }
  return found;
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Idle from a record of power: mean, floor, and bursts.
 * The mean is energy over time, so it holds whatever the bursts do; floor and bursts tell why an instant reading differs.
 * @param watts NaN where nobody read it: left out of time and energy
 * @param interval s between samples
 */
export function idleFigures(watts: Float64Array, interval: number): IdleFigures {
  let sum = 0;
  let count = 0;
  let lowest = Number.POSITIVE_INFINITY;
  // Plain loops here: a record may have a million samples.
  for (let index = 0; index < watts.length; index += 1) {
    const value = watts[index] as number;
    if (Number.isNaN(value)) continue;
    sum += value;
    count += 1;
    if (value < lowest) lowest = value;
  }
  const seconds = count * interval;
  const energy = sum * interval;
  const floor = floorOf(watts);
  const bursts = burstsIn(floor);
  let inBursts = 0;
  let burstSamples = 0;
  for (const { from, to } of bursts)
    for (let index = from; index < to; index += 1) {
      inBursts += (watts[index] ?? 0) * interval;
      burstSamples += 1;
    }
  const floorSamples = count - burstSamples;
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
    floor: floorSamples > 0 ? (energy - inBursts) / (floorSamples * interval) : floor.base,
    burst: burstSamples > 0 ? inBursts / (burstSamples * interval) : null,
    bursts: bursts.length,
    period,
    length: whole.length > 0 ? mean(whole.map(({ from, to }) => (to - from) * interval)) : null,
    burstShare: energy > 0 ? inBursts / energy : 0,
    findings,
  };
}
