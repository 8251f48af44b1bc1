// A charge session's log made ready: watts, volts, level and temperatures against time, evenly spaced, with its gaps known.
import { AMBIENT_NAME, type Channel, isAtWall, outputColumns, type Trace, timeAt, words } from '../trace/index.ts';

/** A stretch nothing was logged in, s from the first sample. */
export interface Gap {
  readonly from: number;
  readonly to: number;
}

/** Evenly spaced means; gaps are closed by a straight line, so that everything after it finds numbers. */
export interface ChargeSeries {
  /** s between two values. */
  readonly step: number;
  /** W into the device. */
  readonly watts: Float64Array;
  /** V; null where not logged. */
  readonly volts: Float64Array | null;
  readonly gaps: readonly Gap[];
  /** Wh delivered up to each value, gaps left out. */
  readonly delivered: Float64Array;
}

export interface ChargeRoles {
  readonly times: Float64Array;
  /** Raw W of each sample; null where neither power nor volts and amps are there. */
  readonly watts: Float64Array | null;
  readonly volts: Channel | null;
  readonly amps: Channel | null;
  /** State of charge as the device says it, 0…1. */
  readonly level: Float64Array | null;
  /** Raw W at the wall; null where not logged. */
  readonly wall: Float64Array | null;
  readonly temperatures: readonly Channel[];
  /** Power flowed the other way for most of it. */
  readonly reversed: boolean;
  /** Which of several columns that may be meant are used, in a sentence each. */
  readonly several: readonly string[];
  /** Which cannot be in the unit that was assumed, a question each. */
  readonly doubts: readonly string[];
}

/** Values the session is cut into at most: finer than anything a stage end is told to. */
const MOST_VALUES = 4000;
/** Finer than this is never needed, s. */
const FINEST = 1;
/** A pause longer than so many times the usual interval, and than this, is a gap, s. */
const GAP_TIMES = 8;
const LEAST_GAP = 30;
const LEVEL_NAME = /\b(?:level|soc|battery|charge|percent|pct)\b/i;

const median = (values: number[]): number => {
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length / 2)] ?? 0;
};

/** No level is above 100 %. */
function isFraction(values: ArrayLike<number>): boolean {
  for (let at = 0; at < values.length; at += 1) if ((values[at] as number) > 100.1) return false;
  return true;
}

/** Levels as fractions: written in per cent where any is above 1. */
function fractions(values: ArrayLike<number>): Float64Array {
  let most = 0;
  for (let at = 0; at < values.length; at += 1) if ((values[at] as number) > most) most = values[at] as number;
  const factor = most > 1.000_001 ? 0.01 : 1;
  return Float64Array.from(values, (value) => (value >= 0 && value * factor <= 1.001 ? value * factor : Number.NaN));
}

/** Per cent of something else than the charge of a battery. */
const NO_LEVEL =
  /humid|\brh\b|feuchte|duty|pwm|\bload\b|cpu|effic|\beta\b|η|thd|distort|bright|factor|\bpf\b|signal|\bfan\b|error|ripple/i;

/** Levels of the device: called so, or in per cent of nothing else. */
function levelsOf(channels: readonly Channel[]): Channel | null {
  const perCent = channels.filter(({ name, quantity }) => quantity === 'level' && !NO_LEVEL.test(words(name)));
  const called = ({ name }: Channel) => LEVEL_NAME.test(words(name));
  const bare = channels.filter((one) => one.quantity === null && one.unit === '' && called(one));
  return perCent.find(called) ?? perCent[0] ?? bare.find(({ values }) => isFraction(values)) ?? null;
}

/** What each column of a log is. */
export function chargeRoles(trace: Trace): ChargeRoles {
  const { channels } = trace;
  const { volts, amps, power, several, doubts } = outputColumns(channels);
  const levels = levelsOf(channels);
  const product =
    volts && amps ? Float64Array.from(volts.values, (one, at) => one * (amps.values[at] as number)) : null;
  const raw = power ? Float64Array.from(power.values) : product;
  let [plus, minus] = [0, 0];
  for (const one of raw ?? []) {
    if (one > 0) plus += one;
    else if (one < 0) minus -= one;
  }
  const reversed = minus > 4 * plus;
  const wall = channels.find((one) => one.quantity === 'power' && isAtWall(one) && one !== power);
  const begin = trace.samples > 0 ? timeAt(trace, 0) : 0;
  return {
    times: Float64Array.from({ length: trace.samples }, (_, at) => timeAt(trace, at) - begin),
    watts: raw && reversed ? raw.map((one) => -one) : raw,
    volts,
    amps,
    level: levels && fractions(levels.values),
    wall: wall ? Float64Array.from(wall.values) : null,
    temperatures: channels.filter(({ quantity }) => quantity === 'temperature'),
    reversed,
    several,
    doubts,
  };
}

export const isAmbient = ({ name }: Pick<Channel, 'name'>): boolean => AMBIENT_NAME.test(words(name));

/** Stretches in which nothing was logged. */
function gapsOf(times: Float64Array): readonly Gap[] {
  const intervals: number[] = [];
  for (let at = 1; at < times.length; at += Math.max(1, Math.floor(times.length / 5000)))
    intervals.push((times[at] as number) - (times[at - 1] as number));
  const most = Math.max(LEAST_GAP, GAP_TIMES * median(intervals));
  const gaps: Gap[] = [];
  for (let at = 1; at < times.length; at += 1)
    if ((times[at] as number) - (times[at - 1] as number) > most)
      gaps.push({ from: times[at - 1] as number, to: times[at] as number });
  return gaps;
}

/** Means over even steps; a step without a number lies on the line between its neighbours. */
function even(times: Float64Array, values: ArrayLike<number>, step: number, count: number): Float64Array {
  const sums = new Float64Array(count);
  const counts = new Float64Array(count);
  for (let at = 0; at < times.length; at += 1) {
    const value = values[at] as number;
    const index = Math.min(count - 1, Math.floor((times[at] as number) / step));
    if (!Number.isFinite(value) || index < 0) continue;
    sums[index] = (sums[index] as number) + value;
    counts[index] = (counts[index] as number) + 1;
  }
  let last = -1;
  for (let at = 0; at < count; at += 1) {
    if (counts[at] === 0) continue;
    sums[at] = (sums[at] as number) / (counts[at] as number);
    const from = last < 0 ? (sums[at] as number) : (sums[last] as number);
    for (let between = last + 1; between < at; between += 1)
      sums[between] = last < 0 ? from : from + (((sums[at] as number) - from) * (between - last)) / (at - last);
    last = at;
  }
  for (let at = last + 1; at < count; at += 1) sums[at] = last < 0 ? 0 : (sums[last] as number);
  return sums;
}

/**
 * The series of a session.
 * @param roles with watts; times ascend and begin at 0
 * @returns null where there is no power, or no time
 */
export function seriesOf({ times, watts, volts }: ChargeRoles): ChargeSeries | null {
  const length = times.at(-1) ?? 0;
  if (!watts || times.length < 4 || !(length > 0)) return null;
  const usual = length / (times.length - 1);
  const step = Math.max(FINEST, usual, length / MOST_VALUES);
  const count = Math.floor(length / step) + 1;
  const gaps = gapsOf(times);
  const power = even(times, watts, step, count);
  const inGap = (seconds: number) => gaps.some(({ from, to }) => seconds > from && seconds < to);
  const delivered = new Float64Array(count);
  for (let at = 1; at < count; at += 1) {
    const middle = (at - 0.5) * step;
    const mean = ((power[at - 1] as number) + (power[at] as number)) / 2;
    delivered[at] = (delivered[at - 1] as number) + (gaps.length > 0 && inGap(middle) ? 0 : (mean * step) / 3600);
  }
  return { step, watts: power, volts: volts && even(times, volts.values, step, count), gaps, delivered };
}

/** A log of volts and amps with their product as a column of its own, formed sample by sample; any other as it is. */
export function withPower(trace: Trace): Trace {
  const { volts, amps, watts } = chargeRoles(trace);
  if (!watts || !volts || !amps || trace.channels.some(({ quantity }) => quantity === 'power')) return trace;
  const values = Float64Array.from(volts.values, (one, at) => one * (amps.values[at] as number));
  return { ...trace, channels: [...trace.channels, { name: 'power', quantity: 'power', unit: 'W', values }] };
}

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Drawn power as what flows into the device, whichever way round the meter was. */
export function intoDevice(points: readonly Spot[]): readonly Spot[] {
  const known = points.filter(({ y }) => Number.isFinite(y));
  return known.reduce((sum, { y }) => sum + y, 0) < 0 ? known.map(({ x, y }) => ({ x, y: -y })) : known;
}
