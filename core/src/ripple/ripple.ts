// Ripple of an output from a record of its voltage.

import { type Line, linesOf, peakToPeakOf } from '../spectrum/index.ts';
import { clipped, clippedSays } from '../trace/clipping.ts';
import { assumedSays, type Channel, chosenOf, severalSay, type Trace, type Values } from '../trace/index.ts';
import { type LoadStep, loadSteps } from './load-steps.ts';
import { namedLines, type RippleLine } from './names.ts';
import { type Spread, spreadOf } from './spread.ts';

export interface RippleContext {
  /** Mains frequency, Hz; 0 for a DC supply; null or left out where it is not known. */
  readonly mains?: number | null;
  /** Analogue bandwidth of probe and scope, Hz; left out where it is not known. */
  readonly bandwidth?: number | null;
  /** The samples are extremes of longer stretches. */
  readonly envelope?: boolean;
  /** Current of the output, A, sampled together with it. */
  readonly amps?: Values | null;
}

/** Ripple of one record. V and Hz throughout. */
export interface RippleFigures {
  readonly samples: number;
  readonly sampleRate: number;
  /** Highest less lowest sample. */
  readonly peakToPeak: number;
  /** The same of the middle 99.99 % of the samples: what one stray sample does not decide. */
  readonly peakToPeak9999: number | null;
  /** About the mean; null where the record does not hold the signal itself. */
  readonly rms: number | null;
  readonly mean: number;
  /** How far the mean moved over the record by a straight line; it is no ripple. */
  readonly drift: number;
  /** Strongest first. */
  readonly lines: readonly RippleLine[];
  /** Where the load was stepped and its current recorded beside. */
  readonly steps?: readonly LoadStep[] | undefined;
  readonly findings: readonly string[];
}

/** Periods of the lowest line expected that a record should hold. */
const LEAST_PERIODS = 5;
/** Samples a second for each Hz of bandwidth. */
const LEAST_RATE = 2.5;
const LEAST_CODES = 20;
/** Drift that is told of, as a part of the peak to peak. */
const TOLD_DRIFT = 0.1;
/** Parts of a record whose means show a drift, and how many times its own error one must be. */
const PARTS = 64;
const SURE = 4;
/** A line within this part of the highest frequency there can be may come from above it. */
const NEAR_TOP = 0.9;

/** A frequency as people say it: 100 Hz, 132 kHz. */
export function hertzWords(hertz: number): string {
  // Rounded first: 999.999 kHz are 1 MHz.
  const rounded = Number(hertz.toPrecision(4));
  const [factor, unit] = rounded >= 1e6 ? [1e-6, 'MHz'] : rounded >= 1e3 ? [1e-3, 'kHz'] : [1, 'Hz'];
  return `${Number((rounded * factor).toPrecision(4))} ${unit}`;
}

/** A short time as people say it: 40 ms, 12 µs. */
export function secondsWords(seconds: number): string {
  const [factor, unit] = seconds < 1e-3 ? [1e6, 'µs'] : seconds < 1 ? [1e3, 'ms'] : [1, 's'];
  return `${Number((seconds * factor).toPrecision(3))} ${unit}`;
}

const milli = (volts: number): string => `${Number((volts * 1000).toPrecision(3))} mV`;

/**
 * Straight line through the means of equal parts, those in the middle weighed most, so that waves of the mains do not
 * tilt it: slope over the whole record. 0 where it is not told from none.
 */
function driftOf(values: Values): number {
  const part = Math.floor(values.length / PARTS);
  if (part < 1) return 0;
  const parts = Array.from({ length: PARTS }, (_, index) => {
    let sum = 0;
    for (let at = index * part; at < (index + 1) * part; at += 1) sum += values[at] as number;
    return { x: (index + 0.5) / PARTS - 0.5, y: sum / part, weight: Math.sin((Math.PI * (index + 0.5)) / PARTS) ** 2 };
  });
  const total = parts.reduce((sum, { weight }) => sum + weight, 0);
  const mean = parts.reduce((sum, { y, weight }) => sum + weight * y, 0) / total;
  const bend = parts.reduce((sum, { x, weight }) => sum + weight * x * x, 0);
  const slope = parts.reduce((sum, { x, y, weight }) => sum + weight * x * (y - mean), 0) / bend;
  const squares = parts.reduce((sum, { x, y, weight }) => sum + (weight * x * (y - mean - slope * x)) ** 2, 0);
  return Math.abs(slope) > SURE * (Math.sqrt(squares) / bend) ? slope : 0;
}

/** Peak to peak once a straight drift is taken off. */
function withoutDrift(values: Values, drift: number): number {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let at = 0; at < values.length; at += 1) {
    const value = (values[at] as number) - (drift * at) / values.length;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return high - low;
}

/** Samples that go up and down by turns all the time, and not by a wave of just that frequency. */
function alternates(values: Values): boolean {
  const count = Math.min(values.length, 20_000);
  let turns = 0;
  for (let at = 2; at < count; at += 1) {
    const before = (values[at - 1] as number) - (values[at - 2] as number);
    const after = (values[at] as number) - (values[at - 1] as number);
    if (before * after < 0) turns += 1;
  }
  return count > 200 && turns > 0.97 * (count - 2);
}

function findingsOf(
  values: Values,
  rate: number,
  spread: Spread,
  lines: readonly RippleLine[],
  drift: number,
  context: RippleContext,
): string[] {
  const { mains = null, bandwidth = null } = context;
  const lowest = mains === 0 ? null : 2 * (mains ?? 50);
  const length = values.length / rate;
  const periods = lowest === null ? LEAST_PERIODS : length * lowest;
  const missing = values.length - spread.count;
  const swing = spread.high - spread.low;
  const top = lines.find(({ hertz, kind }) => hertz > NEAR_TOP * (rate / 2) && kind !== 'mains');
  // What the other mains would leave, and none of what this one does.
  const twice = mains ? 2 * (mains > 55 ? 50 : 60) : null;
  const other = lines.some(({ kind }) => kind === 'mains')
    ? undefined
    : lines.find(({ hertz }) => twice !== null && Math.abs(hertz - twice) < 0.01 * twice);
  const folded = lines.find((line) => isFolded(line, lines, rate));
  return [
    ...(periods < LEAST_PERIODS - 1e-6
      ? [
          `The record of ${secondsWords(length)} holds ${periods.toFixed(1)} periods of ${lowest} Hz; ${LEAST_PERIODS} or more are needed, or the mains ripple is missed.`,
        ]
      : []),
    ...(other
      ? [
          `The line at ${hertzWords(other.hertz)} is twice a mains of ${Math.round(other.hertz / 2)} Hz, and the supply is said to be ${mains} Hz: is that right?`,
        ]
      : []),
    ...(clipped(values) ? [clippedSays('voltage')] : []),
    ...(bandwidth !== null && rate < LEAST_RATE * bandwidth
      ? [
          `${hertzWords(rate)} of samples is less than ${LEAST_RATE} × the bandwidth of ${hertzWords(bandwidth)}: peak to peak may be understated.`,
        ]
      : []),
    ...(spread.codes < LEAST_CODES && swing > 0
      ? [
          `Only ${spread.codes} steps of the digitiser are used: quantisation decides the figures. Choose a finer range.`,
        ]
      : []),
    ...(swing === 0 ? ['All samples are the same: nothing was recorded.'] : []),
    ...(missing > 0 ? [`${missing} samples are out of range or missing: peak to peak is at least this.`] : []),
    ...(drift !== 0 && Math.abs(drift) > TOLD_DRIFT * swing
      ? [
          `Slow drift of ${milli(Math.abs(drift))} over the record, which is no ripple: without it ${milli(withoutDrift(values, drift))} peak to peak.`,
        ]
      : []),
    ...(folded || top
      ? [
          `Aliasing suspected: the line at ${hertzWords((folded ?? top)?.hertz ?? 0)} may lie above half the sample rate in truth. Sample faster, or limit the bandwidth.`,
        ]
      : []),
  ];
}

/** Lines without those that rounding makes: where nothing but rounding is left over, what is smaller than a step is its. */
function real(lines: readonly Line[], { rms, step }: Spread): readonly Line[] {
  const rest = rms * rms - lines.reduce((sum, { power }) => sum + power, 0);
  return rest < (step / 2) ** 2 ? lines.filter(({ power }) => peakToPeakOf(power) > step) : lines;
}

/** Whether a line lies where a multiple of a switching line would fold to. */
function isFolded(line: RippleLine, lines: readonly RippleLine[], rate: number): boolean {
  if (line.kind === 'mains' || line.kind === 'harmonic') return false;
  return lines.some((first) => {
    if (first.kind !== 'switching' || first.peakToPeak <= line.peakToPeak || first === line) return false;
    for (let times = 2; times <= 7; times += 1) {
      const above = times * first.hertz;
      if (above <= rate / 2) continue;
      const fold = Math.abs(above - Math.round(above / rate) * rate);
      if (Math.abs(fold - line.hertz) < 2e-4 * rate) return true;
    }
    return false;
  });
}

/**
 * Ripple of an evenly sampled record: peak to peak as sampled, rms about the mean, and the lines it is made of, each
 * right wherever it falls in the spectrum.
 * @param values V; NaN for what is missing or out of range
 * @param interval s between samples
 * @returns figures, or why there are none
 * @example rippleOf(samples, 2e-7, { mains: 50 }) // { peakToPeak: 0.02998, rms: 0.007906, lines: [{ hertz: 100, … }], … }
 */
export function rippleOf(
  values: Values,
  interval: number,
  context: RippleContext = {},
): RippleFigures | { readonly reason: string } {
  const rate = 1 / interval;
  if (!(rate > 0) || !Number.isFinite(rate)) return { reason: 'The sample rate is not known.' };
  const spread = spreadOf(values);
  if (!spread || spread.count < 16) return { reason: 'It has fewer than 16 samples.' };
  const whole = spread.count === values.length;
  const envelope = (context.envelope ?? false) || alternates(values);
  const lines =
    envelope || !whole || spread.high === spread.low
      ? []
      : namedLines(real(linesOf(values, rate), spread), context.mains ?? null);
  const drift = envelope || !whole ? 0 : driftOf(values);
  return {
    samples: values.length,
    sampleRate: rate,
    peakToPeak: spread.high - spread.low,
    peakToPeak9999: spread.middle,
    rms: envelope ? null : spread.rms,
    mean: spread.mean,
    drift,
    lines,
    ...(context.amps ? { steps: loadSteps(values, context.amps, interval) } : {}),
    findings: [
      ...(envelope
        ? [
            'These samples are extremes of longer stretches (peak detection or an envelope): no rms and no spectrum can be made of them.',
          ]
        : []),
      ...(whole || envelope ? [] : ['Samples are missing: no spectrum is made.']),
      ...findingsOf(values, rate, spread, lines, drift, context),
    ],
  };
}

/**
 * The channel of a trace that ripple is of: the one named, else the only or first one of volts.
 * @returns its values, or why none can be taken
 */
export function rippleChannel(
  trace: Trace,
  name: string | null = null,
):
  | {
      readonly values: Values;
      readonly amps: Values | null /** What was taken for granted. */;
      readonly remarks: readonly string[];
    }
  | { readonly reason: string } {
  const { channels, times } = trace;
  if (times)
    return {
      reason: 'Its times are not evenly spaced: no spectrum can be made of it. Export it with a fixed sample rate.',
    };
  const names = channels.map((one) => `"${one.name}"`).join(', ');
  const low = channels.find((one) => /\bmin(imum)?\b/i.test(one.name));
  const high = channels.find((one) => /\bmax(imum)?\b/i.test(one.name));
  const called = channels.filter((one) => /ripple/i.test(one.name));
  const chosen = chosenOf(called, 'voltage') ?? chosenOf(channels, 'voltage');
  const found =
    name !== null
      ? channels.find((one) => one.name.toLowerCase() === name.trim().toLowerCase())
      : (chosen?.channel ?? channels.find(({ quantity, unit }) => quantity === null && unit === ''));
  if (name === null && low && high && low !== high)
    return { values: interleaved(low.values, high.values), amps: null, remarks: [] };
  if (!found)
    return {
      reason:
        name === null
          ? `No column of volts. Its columns are ${names}.`
          : `There is no column "${name}". Its columns are ${names}.`,
    };
  if (found.quantity !== null && found.quantity !== 'voltage') return { reason: `"${found.name}" is no voltage.` };
  return {
    values: found.values,
    amps: channels.find(({ quantity }) => quantity === 'current')?.values ?? null,
    remarks: [
      ...(found.quantity === null ? assumedSays([[found.name, 'V']]) : []),
      ...millivolts(found),
      ...(name === null ? severalSay([chosen]) : []),
    ],
  };
}

/** No output ripples by more, V: without a unit these are millivolts. */
const MOST_MOVE = 5;

/** Asks for the unit of a column without one that moves by more volts than any output does. */
function millivolts({ name, unit, values }: Channel): string[] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let at = 0; unit === '' && at < values.length; at += 1) {
    const value = values[at] as number;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return high - low > MOST_MOVE
    ? [
        `“${name}” moves by ${Number((high - low).toPrecision(3))}: is that mV? Write the unit behind its name, as in “${name} [mV]”.`,
      ]
    : [];
}

/** Lowest and highest of each stretch, as an envelope is kept. */
function interleaved(low: Values, high: Values): Float64Array {
  const both = new Float64Array(low.length * 2);
  for (let at = 0; at < low.length; at += 1) {
    both[2 * at] = low[at] as number;
    both[2 * at + 1] = high[at] as number;
  }
  return both;
}
