// A soak from its log: which column is what, where its sensors are going, and what happened to the output meanwhile.
import { type Channel, lengthOf, rangeOf, type Trace, timeAt } from '../trace/index.ts';
import { type HeatEvent, heatEvents } from './events.ts';
import { type WarmFit, warmAt, warmFit } from './fit.ts';
import { closed, finite, rolesOf } from './roles.ts';
import { drawnSpan, LEAST_READINGS, stretchOf, warmingPart } from './stretch.ts';

export interface SensorFigures {
  readonly name: string;
  /** °C it approaches under this load; null where the readings do not tell. */
  readonly steady: number | null;
  /** 95 %; an end that the readings do not bound is null. */
  readonly steadyInterval: readonly [number | null, number | null];
  /** s, the longest first */
  readonly timeConstants: readonly number[];
  /** Less than 1 K is still to come; null where that is not known. */
  readonly settled: boolean | null;
  /** K still to come by the curve. */
  readonly remaining: number | null;
  /** °C by the curve at the end of the stretch it was fitted to. */
  readonly atEnd: number;
  readonly highest: number;
  /** The curve itself, and the time it starts at, s. */
  readonly fit: WarmFit | null;
  readonly from: number;
  /** How long the stretch it was fitted to lasted, s. */
  readonly lasted: number;
}

export interface SoakFigures {
  /** Mean over the stretch that was fitted, °C; null where it was not recorded. */
  readonly ambient: number | null;
  readonly sensors: readonly SensorFigures[];
  readonly events: readonly (HeatEvent & { readonly temperature: number | null })[];
  /** Mean output over the stretch that was fitted, W; null where it was not recorded. */
  readonly watts: number | null;
  /** When output was drawn, s from the first sample; null where it was not recorded, left out by older records. */
  readonly drawn?: { readonly from: number; readonly to: number } | null;
  readonly findings: readonly string[];
}

export interface SoakContext {
  /** °C, where no column says it. */
  readonly ambient?: number | null;
}

/** Remaining rise below which a soak has settled, K. */
const SETTLED = 1;
/** An ambient that moves by more is taken off reading by reading, K. */
const MOVING = 0.3;
/** Part of the record an ambient is smoothed over. */
const SMOOTHED = 0.06;
/** An ambient without its noise: the mean over some minutes either way, fewer towards its ends, so that it never lags. */
function smoothed(values: Float64Array): Float64Array {
  const most = Math.max(1, Math.floor((values.length * SMOOTHED) / 2));
  const sums = new Float64Array(values.length + 1);
  for (let at = 0; at < values.length; at += 1) sums[at + 1] = (sums[at] as number) + (values[at] as number);
  return values.map((_, at) => {
    const half = Math.min(most, at, values.length - 1 - at);
    return ((sums[at + half + 1] as number) - (sums[at - half] as number)) / (2 * half + 1);
  });
}

/** Where an ambient is at its end, and how well that is known (one standard deviation): a line through its last minutes. */
function endOf(values: ArrayLike<number>): { readonly value: number; readonly error: number } {
  const count = Math.min(values.length, Math.max(5, Math.floor(values.length * SMOOTHED)));
  const own = Array.from({ length: count }, (_, at) => values[values.length - count + at] as number);
  const middle = (count - 1) / 2;
  const mean = own.reduce((sum, value) => sum + value, 0) / count;
  const squares = own.reduce((sum, _, at) => sum + (at - middle) ** 2, 0);
  const slope = squares > 0 ? own.reduce((sum, value, at) => sum + (at - middle) * (value - mean), 0) / squares : 0;
  const rest = own.reduce((sum, value, at) => sum + (value - mean - slope * (at - middle)) ** 2, 0);
  const sigma = Math.sqrt(rest / Math.max(1, count - 2));
  return {
    value: mean + slope * middle,
    error: squares > 0 ? sigma * Math.sqrt(1 / count + middle ** 2 / squares) : sigma,
  };
}

/** Step of the thermometer: the smallest difference between readings, where they repeat. */
function resolutionOf(values: ArrayLike<number>): number {
  const codes = [...new Set(finite(values))].sort((a, b) => a - b);
  if (codes.length < 3 || codes.length > values.length * 0.7) return 0;
  return rangeOf(codes.slice(1).map((one, at) => one - (codes[at] as number))).low;
}

/** Values of the sensor that moved most, without gaps. */
function mostMoved(sensors: readonly Channel[]): Float64Array {
  const moved = (values: Float64Array) => {
    const { low, high } = rangeOf(values);
    return high - low;
  };
  return sensors.map(({ values }) => closed(values)).reduce((most, one) => (moved(one) > moved(most) ? one : most));
}

/** Readings this far off a curve, K and as part of what they span, all on one side for long, do not follow it. */
const STRAYING = { kelvin: 1, part: 0.03, alike: 0.5 } as const;
const LEAST_TO_STRAY = 12;

/** Whether readings go another way than the best curve: not by chance, and by more than a room that breathes. */
function strays(fit: WarmFit, t: readonly number[], y: readonly number[]): boolean {
  if (y.length < LEAST_TO_STRAY) return false;
  const away = y.map((value, at) => value - warmAt(fit, t[at] as number));
  const rms = (values: readonly number[]) => Math.sqrt(values.reduce((sum, one) => sum + one * one, 0) / values.length);
  const off = rms(away);
  const steps = rms(away.slice(1).map((one, at) => one - (away[at] as number)));
  const { low, high } = rangeOf(y);
  return off > STRAYING.kelvin && off > STRAYING.part * (high - low) && steps < STRAYING.alike * off;
}

function sensorOf(
  channel: Channel,
  times: Float64Array,
  span: { from: number; to: number },
  ambient: Float64Array | null,
  end: { readonly value: number; readonly error: number } | null,
): SensorFigures | null {
  const t: number[] = [];
  const y: number[] = [];
  const begin = times[span.from] as number;
  for (let at = span.from; at < span.to; at += 1) {
    const value = channel.values[at] as number;
    if (!Number.isFinite(value)) continue;
    t.push((times[at] as number) - begin);
    y.push(value - (ambient ? (ambient[at] as number) : 0));
  }
  const all = finite(channel.values);
  if (all.length === 0 || y.length === 0) return null;
  const { high: highest } = rangeOf(all);
  const base = end?.value ?? 0;
  const last = (y.at(-1) as number) + base;
  const best = warmFit(t, y, resolutionOf(channel.values));
  const fit = best && !strays(best, t, y) ? best : null;
  if (!fit)
    return {
      name: channel.name,
      steady: null,
      steadyInterval: [null, null],
      timeConstants: [],
      settled: null,
      remaining: null,
      atEnd: last,
      highest,
      fit: null,
      from: begin,
      lasted: t.at(-1) as number,
    };
  const [low, high] = fit.interval;
  const atEnd = warmAt(fit, t.at(-1) as number);
  const remaining = fit.steady - atEnd;
  // The ambient it stands on is not known exactly either.
  const also = 1.96 * (end?.error ?? 0);
  const outwards = (value: number | null) =>
    value === null ? null : base + fit.steady + Math.sign(value - fit.steady) * Math.hypot(value - fit.steady, also);
  const bounded = low !== null && high !== null;
  return {
    name: channel.name,
    steady: bounded ? fit.steady + base : null,
    steadyInterval: [outwards(low), outwards(high)],
    timeConstants: fit.timeConstants,
    settled: bounded ? Math.abs(remaining) < SETTLED : null,
    remaining: bounded ? remaining : null,
    atEnd: atEnd + base,
    highest,
    fit,
    from: begin,
    lasted: t.at(-1) as number,
  };
}

/** Mean over a stretch by time, so that readings may come as they like. */
function meanOver(
  times: Float64Array,
  values: ArrayLike<number>,
  { from, to }: { readonly from: number; readonly to: number },
): number {
  const lasted = (times[to - 1] as number) - (times[from] as number);
  let area = 0;
  for (let at = from + 1; at < to; at += 1)
    area +=
      ((values[at] as number) + (values[at - 1] as number)) * 0.5 * ((times[at] as number) - (times[at - 1] as number));
  return lasted > 0 ? area / lasted : (values[from] as number);
}

const minutes = (seconds: number): string => `${Number((seconds / 60).toPrecision(3))} min`;

/**
 * Figures of a soak.
 * @param trace a log with columns of temperature; ambient, power, volts and amps where they were recorded
 * @returns figures, or why there are none
 */
export function soakOf(trace: Trace, context: SoakContext = {}): SoakFigures | { readonly reason: string } {
  const times = Float64Array.from({ length: trace.samples }, (_, at) => timeAt(trace, at));
  const { sensors, ambient, output, findings: leftOut } = rolesOf(trace, times);
  if (sensors.length === 0) return { reason: 'No column of temperature. Name one with its unit, such as front [°C].' };
  const events = output ? heatEvents(output) : [];
  const span = output ? stretchOf(times, output, events) : warmingPart(times, mostMoved(sensors));
  const air = ambient ? closed(ambient.values) : null;
  const room = air ? smoothed(air) : null;
  const raw = air ? air.subarray(span.from, span.to) : new Float64Array(0);
  const own = room ? room.subarray(span.from, span.to) : null;
  const about = own && rangeOf(own);
  const moved = about ? about.high - about.low : 0;
  const moving = own !== null && moved > MOVING;
  const figures = sensors.flatMap(
    (channel) => sensorOf(channel, times, span, moving ? room : null, moving ? endOf(raw) : null) ?? [],
  );
  if (figures.length === 0) return { reason: 'No temperature in it is a number.' };
  const hottest = (seconds: number): number | null => {
    let at = 0;
    while (at < trace.samples - 1 && (times[at] as number) < seconds) at += 1;
    const values = sensors.map(({ values: all }) => all[at] as number).filter((value) => Number.isFinite(value));
    return values.length > 0 ? Math.max(...values) : null;
  };
  const mean = own ? own.reduce((sum, value) => sum + value, 0) / own.length : (context.ambient ?? null);
  const length = (times[span.to - 1] as number) - (times[span.from] as number);
  const findings = [
    ...leftOut,
    ...(mean === null ? ['Ambient was not recorded: no rise over it can be told.'] : []),
    ...(moving ? [`Ambient moved by ${moved.toFixed(1)} K: it is taken off reading by reading.`] : []),
    ...(output === null ? ['Output was not recorded: throttling and cut-outs cannot be told.'] : []),
    ...(output && !output.volts && events.some(({ kind }) => kind === 'throttle')
      ? ['Volts were not recorded: a fall to a lower level would look like throttling.']
      : []),
    ...figures.flatMap(({ name, settled, remaining, steady, fit }) =>
      steady === null
        ? [
            fit === null && span.to - span.from >= LEAST_READINGS
              ? `${name} follows no curve: where it is going cannot be told. Was the load the same all the time?`
              : `${name}: ${minutes(length)} do not tell where it is going. Go on.`,
          ]
        : settled === false
          ? [`${name} had not settled: ${Math.abs(remaining ?? 0).toFixed(1)} K were still to come.`]
          : [],
    ),
    ...(span.to - span.from < trace.samples * 0.98 || span.from > 0
      ? [
          `Fitted from ${minutes(times[span.from] as number)} to ${minutes(times[span.to - 1] as number)} of ${minutes(lengthOf(trace))}: ${output ? 'the longest stretch at one power' : 'where it warms'}.`,
        ]
      : []),
  ];
  return {
    ambient: mean,
    sensors: figures,
    events: events.map((event) => ({ ...event, temperature: hottest(event.at) })),
    watts: output && span.to > span.from ? meanOver(times, output.watts, span) : null,
    drawn: output ? drawnSpan(times, output) : null,
    findings,
  };
}
