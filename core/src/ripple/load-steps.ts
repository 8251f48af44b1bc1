// What an output does as its load is stepped: how far it dips or rises, and how long until it is back.
import { levelsOf } from '../changes/index.ts';
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

/** Where exactly the current passes the middle between two levels, near a block's border. */
function crossing(amps: Values, near: number, block: number, middle: number, rising: boolean): number {
  for (let at = Math.max(1, near - 2 * block); at < Math.min(amps.length, near + 2 * block); at += 1) {
    const value = amps[at] as number;
    if (rising ? value >= middle : value <= middle) return at;
  }
  return near;
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
  const levels = levelsOf(means, { leastPart: LEAST_PART, leastLength: LEAST_BLOCKS });
  return levels.slice(1, 1 + MOST_STEPS).flatMap((level, index): LoadStep[] => {
    const before = levels[index];
    if (!before) return [];
    const rising = level.mean > before.mean;
    const at = crossing(amps, level.from * block, block, (level.mean + before.mean) / 2, rising);
    const end = level.to * block;
    // Where it settled: the last third until the next step.
    const settled = mean(volts, at + Math.floor(((end - at) * 2) / 3), end);
    let furthest = 0;
    for (let sample = at; sample < end; sample += 1) {
      const away = rising ? settled - (volts[sample] as number) : (volts[sample] as number) - settled;
      if (away > furthest) furthest = away;
    }
    const band = Math.max(BAND_OF_LEVEL * Math.abs(settled), BAND_OF_EXCURSION * furthest);
    let last = at - 1;
    for (let sample = at; sample < end; sample += 1)
      if (Math.abs((volts[sample] as number) - settled) > band) last = sample;
    const recovery = last >= end - 1 ? null : (last + 1 - at) * interval;
    return [{ at: at * interval, from: before.mean, to: level.mean, excursion: furthest, recovery, band }];
  });
}
