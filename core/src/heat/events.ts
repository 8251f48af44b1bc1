// What happened to the output while it was loaded for long: it gave less, fell to a lower level, went off, or kept going off.
import { levelsOf } from '../changes/index.ts';

export const HEAT_EVENTS = ['throttle', 'renegotiation', 'cutoff', 'pulsing'] as const;
export type HeatEventKind = (typeof HEAT_EVENTS)[number];

export const EVENT_WORDS: Readonly<Record<HeatEventKind, string>> = {
  throttle: 'gives less',
  renegotiation: 'falls to a lower level',
  cutoff: 'cuts out',
  pulsing: 'cuts out again and again',
};

export interface HeatEvent {
  readonly kind: HeatEventKind;
  /** s from the first sample */
  readonly at: number;
  /** Power before and after, W. */
  readonly from: number;
  readonly to: number;
  /** Volts before and after, where they were recorded. */
  readonly volts: { readonly from: number; readonly to: number } | null;
  /** When output was as before again, s; null where it never was. */
  readonly recovered: number | null;
}

/** What a log says of the output. Times in s; values without gaps. */
export interface OutputLog {
  readonly times: ArrayLike<number>;
  /** W */
  readonly watts: ArrayLike<number>;
  /** V; null where not recorded. */
  readonly volts: ArrayLike<number> | null;
}

/** Least lasting loss of power that counts: 3 %. */
const LEAST_LOSS = 0.03;
/** Below this part of its power output is gone. */
const GONE = 0.04;
/** A level is another one where the volts differ by more. */
const OTHER_LEVEL = 0.08;
/** So long output is gone, or less, before it counts, s. */
const LASTING = 20;
/** Losses closer than this are one that takes its time, s. */
const ONE_LOSS = 150;
/** Cut-outs closer than this to each other belong together, s. */
const IN_A_ROW = 900;
const LEAST_IN_A_ROW = 2;

interface Stretch {
  readonly from: number;
  readonly to: number;
}

const NEARLY_HIGHEST = 0.99;
const FULL_PART = 0.2;

/** Power that is drawn when it is drawn, W: the middle of what is not far below nearly the highest, however long nothing was drawn. */
export function fullPower(watts: ArrayLike<number>): number {
  const drawn = percentile(watts, NEARLY_HIGHEST) * FULL_PART;
  return percentile(
    Array.from(watts).filter((one) => one > drawn),
    0.5,
  );
}

const percentile = (values: ArrayLike<number>, part: number): number => {
  const sorted = Float64Array.from(values).sort();
  return sorted[Math.floor(part * (sorted.length - 1))] ?? 0;
};

const meanOf = (values: ArrayLike<number>, from: number, to: number): number => {
  let sum = 0;
  for (let at = from; at < to; at += 1) sum += values[at] as number;
  return to > from ? sum / (to - from) : 0;
};

/** Stretches in which something holds. */
export function stretches(count: number, holds: (at: number) => boolean): Stretch[] {
  const found: Stretch[] = [];
  let from = -1;
  for (let at = 0; at <= count; at += 1) {
    const now = at < count && holds(at);
    if (now && from < 0) from = at;
    if (!now && from >= 0) {
      found.push({ from, to: at });
      from = -1;
    }
  }
  return found;
}

const LEAST_VALUES = 2;

/** Losses within one stretch of output. */
function losses({ times, watts, volts }: OutputLog, { from, to }: Stretch): HeatEvent[] {
  const count = to - from;
  const own = Float64Array.from({ length: count }, (_, at) => watts[from + at] as number);
  const spacing = count > 1 ? ((times[to - 1] as number) - (times[from] as number)) / (count - 1) : 1;
  const leastLength = Math.max(LEAST_VALUES, Math.min(Math.ceil(LASTING / spacing), Math.floor(count / 4)));
  const levels = levelsOf(own, { leastPart: LEAST_LOSS / 4, leastLength });
  const time = (at: number): number => times[from + at] as number;
  const found: HeatEvent[] = [];
  for (let at = 1; at < levels.length; at += 1) {
    const before = levels[at - 1];
    if (!before || (levels[at]?.mean ?? 0) >= before.mean) continue;
    // A loss that goes on is one loss, with where it began and where it ended.
    let last = at;
    while (last + 1 < levels.length) {
      const now = levels[last];
      const next = levels[last + 1];
      if (!now || !next || next.mean >= now.mean || time(now.to - 1) - time(now.from) > ONE_LOSS) break;
      last += 1;
    }
    const first = levels[at];
    const end = levels[last];
    if (!first || !end) break;
    if (end.mean < before.mean * (1 - LEAST_LOSS)) {
      const voltsBefore = volts ? meanOf(volts, from + before.from, from + before.to) : null;
      const voltsAfter = volts ? meanOf(volts, from + end.from, from + end.to) : null;
      const other = voltsBefore !== null && voltsAfter !== null && voltsAfter < voltsBefore * (1 - OTHER_LEVEL);
      const back = levels.slice(last + 1).find(({ mean }) => mean >= before.mean * (1 - LEAST_LOSS));
      found.push({
        kind: other && isLevel(levels, last, volts, from) ? 'renegotiation' : 'throttle',
        at: time(first.from),
        from: before.mean,
        to: end.mean,
        volts: voltsBefore === null || voltsAfter === null ? null : { from: voltsBefore, to: voltsAfter },
        recovered: back ? time(back.from) : null,
      });
    }
    at = last;
  }
  return found;
}

/** Whether the volts after a loss stand still, as those of a level do, and do not sag further. */
function isLevel(
  levels: ReturnType<typeof levelsOf>,
  at: number,
  volts: ArrayLike<number> | null,
  offset: number,
): boolean {
  const level = levels[at];
  if (!volts || !level) return false;
  const third = Math.max(1, Math.floor((level.to - level.from) / 3));
  const begin = meanOf(volts, offset + level.from, offset + level.from + third);
  const end = meanOf(volts, offset + level.to - third, offset + level.to);
  return Math.abs(end - begin) < 0.03 * Math.max(begin, 1e-9);
}

/**
 * Throttling, falls to a lower level, cut-outs and pulsing, in the order they happened. A log that ends with a load that
 * was switched off is not a cut-out: volts tell which it was.
 */
export function heatEvents(log: OutputLog): readonly HeatEvent[] {
  const { times, watts, volts } = log;
  const count = Math.min(times.length, watts.length);
  if (count < 4) return [];
  const full = fullPower(watts);
  if (!(full > 0)) return [];
  const gone = (at: number) => (watts[at] as number) < GONE * full;
  const on = stretches(count, (at) => !gone(at));
  const [first] = on;
  if (!first) return [];
  // A single sample without power between two with it is the logger's.
  const off = stretches(count, gone).filter(
    ({ from, to }) => from > first.from && (to - from >= LEAST_VALUES || to === count),
  );
  const cuts = off.flatMap(({ from, to }): HeatEvent[] => {
    const lasted = (times[Math.min(to, count - 1)] as number) - (times[from] as number);
    if (to === count && lasted < LASTING) return [];
    if (volts && standing(volts, from, to, meanOf(volts, Math.max(first.from, from - 5), from))) return [];
    const before = meanOf(watts, Math.max(first.from, from - 5), from);
    const recovered = to < count ? (times[to] as number) : null;
    return [
      { kind: 'cutoff', at: times[from] as number, from: before, to: meanOf(watts, from, to), volts: null, recovered },
    ];
  });
  const pieces = on.filter(({ from, to }) => to - from >= 2 * LEAST_VALUES);
  return [...inARow(cuts), ...pieces.flatMap((piece) => losses(log, piece))].sort((a, b) => a.at - b.at);
}

/** Whether the level stands although nothing is drawn: the load was switched off. */
const standing = (volts: ArrayLike<number>, from: number, to: number, before: number): boolean =>
  before > 0 && meanOf(volts, from, to) > 0.8 * before;

/** Cut-outs that follow each other, as one. */
function inARow(cuts: readonly HeatEvent[]): HeatEvent[] {
  const groups: HeatEvent[][] = [];
  for (const cut of cuts) {
    const group = groups.at(-1);
    const last = group?.at(-1);
    if (group && last && cut.at - (last.recovered ?? cut.at) <= IN_A_ROW) group.push(cut);
    else groups.push([cut]);
  }
  return groups.flatMap((group) => {
    const [first] = group;
    const last = group.at(-1);
    if (!first || !last || group.length < LEAST_IN_A_ROW) return group;
    return [{ ...first, kind: 'pulsing' as const, recovered: last.recovered }];
  });
}
