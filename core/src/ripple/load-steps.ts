// What an output does as its load is stepped: how far it dips or rises, and how long until it is back.
import { type Level, levelsOf } from '../changes/index.ts';
import type { Values } from '../trace/index.ts';

export interface LoadStep {
  /** s from the first sample */
  readonly at: number;
  /** Current before and after, A. */
  readonly from: number;
  readonly to: number;
  /** How far the output went beyond where it settled, V: below it as load comes on, above it as it goes. */
  readonly excursion: number;
  /** s until it stays within the band about where it settled; null where it never did in the record. */
  readonly recovery: number | null;
  /** The band, V either way. */
  readonly band: number;
}

/** A step is at least this part of the larger current. */
const LEAST_PART = 0.2;
/** Samples of the current that are averaged to find steps; more of a long record tell nothing new. */
const BLOCKS = 4000;
const LEAST_BLOCKS = 8;
/** Band that counts as back: this part of the level, or of the excursion where the level is coupled away. */
const BAND_OF_LEVEL = 0.005;
const BAND_OF_EXCURSION = 0.1;
const MOST_STEPS = 16;

const mean = (values: Values, from: number, to: number): number => {
  let sum = 0;
  let count = 0;
  for (let at = Math.max(0, from); at < Math.min(values.length, to); at += 1) {
    const value = values[at] as number;
    if (Number.isNaN(value)) continue;
    sum += value;
    count += 1;
  }
  return count > 0 ? sum / count : Number.NaN;
};

/** Where exactly the current passes the middle between two levels, from one sample to another. */
function crossing(amps: Values, from: number, to: number, middle: number, rising: boolean): number | null {
  for (let at = Math.max(1, from); at < Math.min(amps.length, to); at += 1) {
    const value = amps[at] as number;
    if (rising ? value >= middle : value <= middle) return at;
  }
  return null;
}

/** Part of a step by which the current has left the level before it. */
const LEFT = 0.1;
/** Part of the longest level below which one on the way from a lower to a higher, or back, is the load on its way. */
const ON_ITS_WAY = 0.2;

/** Levels that last: what a load goes through that takes its time from one to the next is none. */
function lasting(levels: readonly Level[]): readonly Level[] {
  const longest = Math.max(...levels.map(({ from, to }) => to - from));
  return levels.filter(({ from, to, mean: own }, index) => {
    const [before, after] = [levels[index - 1], levels[index + 1]];
    if (!before || !after || to - from >= ON_ITS_WAY * longest) return true;
    return Math.sign(own - before.mean) !== Math.sign(after.mean - own);
  });
}

/**
 * Steps of the load in a record of an output's volts and amps taken together.
 * @param interval s between samples
 * @returns in order; none where the current never steps
 */
export function loadSteps(volts: Values, amps: Values, interval: number): readonly LoadStep[] {
  const count = Math.min(volts.length, amps.length);
  const block = Math.max(1, Math.floor(count / BLOCKS));
  const blocks = Math.floor(count / block);
  if (blocks < 2 * LEAST_BLOCKS || !(interval > 0)) return [];
  const means = Float64Array.from({ length: blocks }, (_, at) => mean(amps, at * block, (at + 1) * block));
  if (means.some((value) => Number.isNaN(value))) return [];
  const levels = lasting(levelsOf(means, { leastPart: LEAST_PART, leastLength: LEAST_BLOCKS })).map(
    ({ from, to }): Level => {
      // Its ends may hold some of the way to it and from it.
      const edge = Math.floor((to - from) / 6);
      return { from, to, mean: mean(means, from + edge, to - edge) };
    },
  );
  const steps = levels.slice(1, 1 + MOST_STEPS).flatMap((level, index) => {
    const before = levels[index];
    if (!before) return [];
    const rising = level.mean > before.mean;
    const middle = (level.mean + before.mean) / 2;
    const at = crossing(amps, (before.to - 2) * block, (level.from + 2) * block, middle, rising) ?? level.from * block;
    // Where it left the level before.
    let begun = Math.min(blocks - 1, Math.floor(at / block));
    const left = (one: number) =>
      Math.abs((means[one] as number) - before.mean) > LEFT * Math.abs(level.mean - before.mean);
    while (begun > before.from && left(begun)) begun -= 1;
    return [{ level, before, rising, at, begun: Math.min(at, (begun + 1) * block) }];
  });
  return steps.map(({ level, before, rising, at, begun }, index): LoadStep => {
    const end = steps[index + 1]?.begun ?? level.to * block;
    // Where it settled: the last third until the next step.
    const settled = mean(volts, at + Math.floor(((end - at) * 2) / 3), end);
    let furthest = 0;
    for (let sample = begun; sample < end; sample += 1) {
      const away = rising ? settled - (volts[sample] as number) : (volts[sample] as number) - settled;
      if (away > furthest) furthest = away;
    }
    const band = Math.max(BAND_OF_LEVEL * Math.abs(settled), BAND_OF_EXCURSION * furthest);
    let last = at - 1;
    for (let sample = at; sample < end; sample += 1)
      if (Math.abs((volts[sample] as number) - settled) > band) last = sample;
    const recovery = last >= end - 1 ? null : (last + 1 - at) * interval;
    return { at: at * interval, from: before.mean, to: level.mean, excursion: furthest, recovery, band };
  });
}
