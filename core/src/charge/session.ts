// A whole charge from its log: what was delivered, its stages, when which level was reached, its end and what came after.
import type { Trace } from '../trace/index.ts';
import { type Course, courseOf } from './course.ts';
import { type LevelCurve, type LevelSource, levelAt, levelPoints, reachedAt, since } from './level.ts';
import { type ChargeRoles, type ChargeSeries, chargeRoles, isAmbient, seriesOf } from './series.ts';
import { slipsOf } from './slips.ts';
import { type Stage, stagesOf } from './stages.ts';

/** Levels a time is told for, and minutes a level is told at. */
export const TOLD_LEVELS = [50, 80, 100] as const;
export const TOLD_MINUTES = [15, 30, 60] as const;

export interface ChargeSession {
  /** Wh into the device, from the start to the end or the last sample; null without power. Gaps are left out. */
  readonly energy: number | null;
  /** s from the start to the end or the last sample */
  readonly duration: number;
  /** When power began to flow, s from the first sample. */
  readonly start: number;
  /** Wh at the wall over the same time, and what of it was lost on the way; left out where the wall was not logged. */
  readonly wall?: { readonly energy: number; readonly loss: number } | null | undefined;
  /** s of the duration nothing was logged in; left out where there are none. */
  readonly unread?: number | undefined;
  /** Mean W over what was logged of the duration; null without power. */
  readonly meanWatts: number | null;
  readonly stages: readonly Stage[];
  /** Where levels come from; null where none can be told. */
  readonly level: LevelSource | null;
  /** 0…1 at the start; null where not known. */
  readonly startLevel: number | null;
  /** s from the start to 50, 80 and 100 %; null where not reached or not known. */
  readonly times: Readonly<Record<`${(typeof TOLD_LEVELS)[number]}`, number | null>>;
  /** Level 15, 30 and 60 min after the start, 0…1. */
  readonly levels: Readonly<Record<`${(typeof TOLD_MINUTES)[number]}`, number | null>>;
  /** When it was over, s from the first sample, and who says so; null where it went on to the last sample. */
  readonly end: { readonly at: number; readonly by: 'device' | 'mark' | 'tail' } | null;
  /** Mean W after the end; null where nothing was logged after it. */
  readonly afterFull: number | null;
  /** What that comes to if left plugged in, kWh a year. */
  readonly afterFullYear: number | null;
  /** Warmest moment of each column of temperature but the ambient. */
  readonly warmest: readonly { readonly name: string; readonly celsius: number; readonly at: number }[];
  /** °C of the warmest column but the ambient when power began to flow; left out in charges taken in before it was kept. */
  readonly startCelsius?: number | null | undefined;
  readonly curve: LevelCurve | null;
  /** Power against level; left out where either is not known, or in charges taken in before it was kept. */
  readonly course?: Course | null | undefined;
  readonly findings: readonly string[];
}

export interface ChargeContext {
  /** 0…1 at the start, where no log says it. */
  readonly startLevel?: number | null;
  /** The user's mark: s from the first sample at which it was full. */
  readonly end?: number | null;
}

/** Power that counts as charging: this part of the highest, and not less than this, W. */
const CHARGING = 0.04;
const LEAST_WATTS = 0.25;
/** So long power must be steady and low for a flat tail, s. */
const FLAT_SECONDS = 300;
/** Low: below this part of the highest. Steady: within this part of the highest. */
const FLAT_BLOCK = 60;
const FLAT_LOW = 0.1;
const FLAT_STEADY = 0.015;
const FULL = 0.995;
/** So full by its own log, a device that takes no more is full: the last digit of a level may lag. */
const AS_GOOD_AS_FULL = 0.98;
const HOURS_A_YEAR = 8760;

const round = (seconds: number): string => `${Number((seconds / 60).toPrecision(3))} min`;

function highestOf(watts: Float64Array): number {
  const sorted = Float64Array.from(watts).sort();
  return sorted[Math.floor(0.97 * (sorted.length - 1))] ?? 0;
}

/** Warmest column but the ambient at a moment, °C. */
function celsiusAt({ times, temperatures }: ChargeRoles, seconds: number): number | null {
  const at = times.findIndex((time) => time >= seconds);
  const told = temperatures.filter((one) => !isAmbient(one)).flatMap(({ values }) => values[at] ?? []);
  const known = told.filter(Number.isFinite);
  return known.length > 0 ? Math.max(...known) : null;
}

/** What went in at the wall from one value of the series to another, Wh, with the loss. */
function wallOf(
  roles: ChargeRoles,
  series: ChargeSeries | null,
  energy: number | null,
  { from, to }: { readonly from: number; readonly to: number },
): ChargeSession['wall'] {
  const own = roles.wall && seriesOf({ ...roles, watts: roles.wall, volts: null });
  if (!own || !series || energy === null) return null;
  const at = (index: number) => own.delivered[Math.min(own.delivered.length - 1, index)] as number;
  const inWatts = at(to) - at(from);
  // Less in than out is no wall of this charger.
  return inWatts >= energy ? { energy: inWatts, loss: inWatts - energy } : null;
}

/** First value that charges, and goes on to. */
function startOf({ watts, step }: ChargeSeries, least: number): number {
  const sure = Math.max(1, Math.round(10 / step));
  for (let at = 0; at < watts.length; at += 1) {
    let good = 0;
    for (let next = at; next < Math.min(watts.length, at + sure); next += 1)
      if ((watts[next] as number) > least) good += 1;
    if (good * 2 > sure && (watts[at] as number) > least) return at;
  }
  return -1;
}

/**
 * Where power has become steady and low and stays so to the last value, for five minutes or more: the beginning of that.
 * Told by medians of a minute, so that noise is no course.
 * @returns index; -1 where it never does
 */
function flatTail({ watts, step }: ChargeSeries, start: number, top: number): number {
  const block = Math.max(1, Math.round(FLAT_BLOCK / step));
  const medians: number[] = [];
  for (let end = watts.length; end - block >= start; end -= block) {
    const part = watts.slice(end - block, end).sort();
    medians.push(part[Math.floor(part.length / 2)] as number);
  }
  // From the last block backwards, as long as it is low and within one band.
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  let blocks = 0;
  for (const value of medians) {
    low = Math.min(low, value);
    high = Math.max(high, value);
    if (value > FLAT_LOW * top || high - low > FLAT_STEADY * top) break;
    blocks += 1;
  }
  if (blocks * block * step < FLAT_SECONDS - step) return -1;
  // Its first value lies somewhere in the first block, or in the one before.
  const limit =
    high > FLAT_LOW * top ? FLAT_LOW * top : Math.max(medians[blocks - 1] as number, low) + FLAT_STEADY * top;
  let at = watts.length - blocks * block;
  while (at < watts.length - 1 && (watts[at] as number) > limit) at += 1;
  while (at - 1 > start && (watts[at - 1] as number) <= limit) at -= 1;
  return at;
}

/** Part of what was delivered that may have been delivered while nothing was logged: with more no level is told from it. */
const MOST_UNSEEN = 0.01;

/** The most that may have been delivered while nothing was logged, from one value of a series to another, Wh. */
function unseenOf({ watts, step, gaps }: ChargeSeries, from: number, to: number): number {
  return gaps.reduce((sum, gap) => {
    const seconds = Math.min(gap.to, to * step) - Math.max(gap.from, from * step);
    const most = Math.max(watts[Math.floor(gap.from / step)] ?? 0, watts[Math.ceil(gap.to / step)] ?? 0);
    return seconds > 0 ? sum + (most * seconds) / 3600 : sum;
  }, 0);
}

const TOO_LITTLE_SEEN = 'Too much may have been delivered while nothing was logged: no level can be told from it.';

function curveOf(
  roles: ChargeRoles,
  series: ChargeSeries | null,
  start: number,
  end: number | null,
  startLevel: number | null,
): LevelCurve | typeof TOO_LITTLE_SEEN | null {
  const own = roles.level && levelPoints(roles.times, roles.level, roles.watts ? 'log' : 'typed');
  if (own) return own;
  // What was delivered tells the level only where the whole of it was seen.
  if (!series || end === null || startLevel === null) return null;
  const from = Math.round(start / series.step);
  const to = Math.min(series.delivered.length - 1, Math.round(end / series.step));
  const begin = series.delivered[from] as number;
  const whole = (series.delivered[to] as number) - begin;
  if (!(whole > 0)) return null;
  if (unseenOf(series, from, to) > MOST_UNSEEN * whole) return TOO_LITTLE_SEEN;
  const times: number[] = [];
  const levels: number[] = [];
  for (let at = from; at <= to; at += 1) {
    times.push(at * series.step);
    levels.push(startLevel + ((1 - startLevel) * ((series.delivered[at] as number) - begin)) / whole);
  }
  return { source: 'energy', times, levels };
}

/**
 * A session from its log.
 * @param trace volts and amps, or watts, of what the device takes; its level and temperatures where there are
 * @returns the session, or why there is none
 * @example chargeOf(trace, { startLevel: 0.2 })
 */
export function chargeOf(trace: Trace, context: ChargeContext = {}): ChargeSession | { readonly reason: string } {
  const roles = chargeRoles(trace);
  const [doubt] = roles.doubts;
  if (doubt !== undefined) return { reason: doubt };
  const { times, level } = roles;
  const series = seriesOf(roles);
  if (!series && !level?.some((one) => !Number.isNaN(one)))
    return {
      reason: [
        'Neither power nor level in it. Name columns with their unit, such as W, V and A, or level [%].',
        ...roles.several,
      ].join(' '),
    };
  const top = series ? highestOf(series.watts) : 0;
  const least = Math.max(LEAST_WATTS, CHARGING * top);
  const from = series ? startOf(series, least) : 0;
  if (from < 0) return { reason: `Power never rose above ${LEAST_WATTS} W: nothing was charged.` };
  const start = series ? from * series.step : (times[0] ?? 0);
  const last = times.at(-1) ?? 0;
  const told = roles.level && levelPoints(times, roles.level, 'log');
  const full = told && (told.levels[0] as number) < FULL ? reachedAt(told, FULL) : null;
  const flat = series ? flatTail(series, from, top) : -1;
  const seenEnd: ChargeSession['end'] =
    context.end != null && context.end > start && context.end <= last
      ? { at: context.end, by: 'mark' }
      : full !== null
        ? { at: told?.times.find((_, at) => (told.levels[at] as number) >= FULL) ?? full, by: 'device' }
        : series && flat >= 0
          ? { at: flat * series.step, by: 'tail' }
          : null;
  // What ended while nothing was logged had ended when logging went on, and nobody knows since when.
  const endless =
    seenEnd && seenEnd.by !== 'mark'
      ? series?.gaps.find((gap) => seenEnd.at > gap.from && seenEnd.at <= gap.to)
      : undefined;
  const end = seenEnd && endless ? { ...seenEnd, at: endless.to } : seenEnd;
  const over = end?.at ?? last;
  const to = series ? Math.min(series.watts.length, Math.round(over / series.step) + (end ? 0 : 1)) : 0;
  const energy = series
    ? (series.delivered[Math.min(to, series.delivered.length - 1)] as number) - (series.delivered[from] as number)
    : null;
  const duration = over - start;
  const unread = (series?.gaps ?? []).reduce(
    (sum, gap) => sum + Math.max(0, Math.min(gap.to, over) - Math.max(gap.from, start)),
    0,
  );
  const stated = context.startLevel ?? null;
  const whole = curveOf(roles, series, start, end?.at ?? null, stated ?? (level ? null : 0));
  const curve = whole && whole !== TOO_LITTLE_SEEN ? since(whole, start) : null;
  const startLevel = curve ? (levelAt(curve, Math.max(start, curve.times[0] as number)) ?? null) : stated;
  // A device may be told to stop before it is full: its own log says where it stands at the end.
  const atEnd = curve?.source === 'log' && end ? (levelAt(curve, end.at) ?? curve.levels.at(-1) ?? null) : null;
  const short = atEnd !== null && atEnd < AS_GOOD_AS_FULL;
  const reached = (percent: number): number | null => {
    if (percent === 100 && endless) return null;
    const at = curve && reachedAt(curve, percent / 100);
    if (at !== null) return at - start;
    // Full is what the end says, whatever the last digit of a level was.
    return percent === 100 && end && !short && curve?.source !== 'typed' ? end.at - start : null;
  };
  const after =
    series && end ? series.watts.subarray(Math.min(series.watts.length, to + Math.ceil(30 / series.step))) : null;
  const afterFull =
    after && after.length * (series?.step ?? 1) >= 60 ? after.reduce((a, b) => a + b, 0) / after.length : null;
  const warmest = roles.temperatures
    .filter((one) => !isAmbient(one))
    .flatMap(({ name, values }) => {
      let best = -1;
      for (let at = 0; at < values.length; at += 1)
        if (Number.isFinite(values[at]) && (best < 0 || (values[at] as number) > (values[best] as number))) best = at;
      return best < 0 ? [] : [{ name, celsius: values[best] as number, at: times[best] as number }];
    });
  const findings = [
    ...roles.several,
    ...slipsOf(roles, series),
    ...(series?.gaps ?? []).map(
      (gap) =>
        `Nothing was logged from ${round(gap.from)} to ${round(gap.to)}: what was delivered then is not counted.`,
    ),
    ...(endless
      ? [
          `It ended between ${round(endless.from)} and ${round(endless.to)}, while nothing was logged: its time is the longest it can have been.`,
        ]
      : []),
    ...(whole === TOO_LITTLE_SEEN ? [whole] : []),
    ...(short ? [`It ended at ${Math.round(atEnd * 100)} % by the device’s log: full was not reached.`] : []),
    ...(end === null ? ['The end was not reached: no level can be told from what was delivered.'] : []),
    ...(curve?.source === 'energy' && stated === null
      ? ['The level at the start is not stated: empty is assumed.']
      : []),
    ...(series && from > 0 && start > 60 ? [`Power began to flow after ${round(start)}: times count from there.`] : []),
  ];
  return {
    energy,
    wall: wallOf(roles, series, energy, { from, to }),
    duration,
    start,
    ...(unread > 0 ? { unread } : {}),
    meanWatts: energy === null || !(duration > unread) ? null : (energy * 3600) / (duration - unread),
    stages: series ? stagesOf(series, { from, to }, end !== null) : [],
    level: curve?.source ?? null,
    startLevel,
    times: { 50: reached(50), 80: reached(80), 100: reached(100) },
    levels: {
      15: curve && levelAt(curve, start + 900),
      30: curve && levelAt(curve, start + 1800),
      60: curve && levelAt(curve, start + 3600),
    },
    end,
    afterFull,
    afterFullYear: afterFull === null ? null : (afterFull * HOURS_A_YEAR) / 1000,
    warmest,
    startCelsius: celsiusAt(roles, start),
    curve,
    course: series && curve && courseOf(series, curve),
    findings,
  };
}
