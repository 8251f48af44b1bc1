// Idle power over time: the mean by energy, and the bursts that make instant readings useless.
import { meansOver } from '../series/index.ts';
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

/** Samples, smoothed or not, W a burst of them rises above, and below which it is over again. */
interface Scale {
  readonly values: Float64Array;
  readonly enter: number;
  readonly leave: number;
}

interface Floor {
  /** What bursts are looked for in: smoothed as far as the noise asks for, and as it was read, where short ones stand out. */
  readonly scales: readonly Scale[];
  /** Samples smoothed over. */
  readonly width: number;
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
  const values = meansOver(watts, width);
  const noise = sigma / Math.sqrt(width);
  let base = half;
  let rise = 0;
  // The lower half of a noisy floor lies too low: the floor is what stays below the threshold, and so on.
  for (let round = 0; round < 4; round += 1) {
    rise = riseOver(base, times * noise, step);
    const calm = picked(values).filter((value) => value <= base + rise);
    base = median(calm);
  }
  const scale = (of: Float64Array, scatter: number): Scale => {
    const above = riseOver(base, times * scatter, step);
    return { values: of, enter: base + above, leave: base + above / 2 };
  };
  return { scales: [scale(values, noise), ...(width > 1 ? [scale(watts, sigma)] : [])], width, base };
}

/** How far above the floor counts, W: beyond noise, beyond a flickering last digit, and by a part of the floor. */
function riseOver(base: number, noise: number, step: number): number {
  const digit = step <= MOST_DIGIT * Math.abs(base) ? 1.5 * step : 0;
  return Math.max(noise, LEAST_RISE * Math.abs(base), digit, 1e-4);
}

interface Burst {
  readonly from: number;
  readonly to: number;
  /** Whether its beginning is in the record, and whether both its ends are. */
  readonly begun: boolean;
  readonly whole: boolean;
}

/** Stretches that rise above and have not fallen back; a gap ends one. */
function burstsIn({ values, enter, leave }: Scale): Burst[] {
  const found: Burst[] = [];
  let from = -1;
  for (let index = 0; index <= values.length; index += 1) {
    const value = index < values.length ? (values[index] as number) : Number.NaN;
    if (from < 0 && value > enter) {
      // The rise began where it left the floor.
      from = index;
      while (from > 0 && (values[from - 1] as number) > leave) from -= 1;
    } else if (from >= 0 && !(value > leave)) {
      const begun = from > 0 && !Number.isNaN(values[from - 1]);
      found.push({ from, to: index, begun, whole: begun && !Number.isNaN(value) });
      from = -1;
    }
  }
  return found;
}

/** Bursts of all scales, in order; what overlaps is one. */
function joined(found: readonly Burst[]): Burst[] {
  const all: Burst[] = [];
  for (const burst of [...found].sort((one, other) => one.from - other.from)) {
    const last = all.at(-1);
    if (!last || burst.from >= last.to) {
      all.push(burst);
      continue;
    }
    const end = burst.to > last.to ? burst : last;
    all[all.length - 1] = { ...last, to: end.to, whole: last.begun && end.whole };
  }
  return all;
}

/** Rounds that part a burst from floor that smoothing counted to it: two levels stand apart after these. */
const PARTINGS = 5;

/** A burst without what smoothing added to its ends: what lies nearer to the floor than to the burst, as it was read. */
function trimmed(watts: Float64Array, { base, width }: Floor, burst: Burst): Burst {
  if (width <= 1) return burst;
  const read = watts.subarray(burst.from, burst.to);
  let middle = base;
  for (let round = 0; round < PARTINGS; round += 1) {
    let sum = 0;
    let count = 0;
    for (const value of read) {
      if (value < middle) continue;
      sum += value;
      count += 1;
    }
    if (count > 0) middle = (base + sum / count) / 2;
  }
  let { from, to } = burst;
  while (from < to - 1 && from - burst.from < width && (watts[from] as number) < middle) from += 1;
  while (to > from + 1 && burst.to - to < width && (watts[to - 1] as number) < middle) to -= 1;
  return { ...burst, from, to };
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Mean time from one burst to the next, s, where all in between was read; null where that is so nowhere. */
function periodOf(watts: Float64Array, bursts: readonly Burst[], interval: number): number | null {
  let samples = 0;
  let periods = 0;
  let last = -1;
  let unread = -1;
  let at = 0;
  for (const { from, begun } of bursts) {
    for (; at < from; at += 1) if (Number.isNaN(watts[at])) unread = at;
    if (begun && last > unread) {
      samples += from - last;
      periods += 1;
    }
    if (begun) last = from;
  }
  return periods > 0 ? (samples * interval) / periods : null;
}

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
  const bursts = joined(floor.scales.flatMap(burstsIn)).map((burst) => trimmed(watts, floor, burst));
  let inBursts = 0;
  let burstSamples = 0;
  for (const { from, to } of bursts)
    for (let index = from; index < to; index += 1) {
      inBursts += (watts[index] ?? 0) * interval;
      burstSamples += 1;
    }
  const floorSamples = count - burstSamples;
  const whole = bursts.filter((one) => one.whole);
  const period = periodOf(watts, bursts, interval);
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
