// What is known of a device from charges it went through, and how long it would take on another charger.
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import type { Course } from './course.ts';

/** A device by level, from one charge or several. */
export interface DeviceProfile {
  /** Edges of its cells, 0…1, even. */
  readonly levels: readonly number[];
  /** W it takes in each cell where nothing holds it back, as far as was seen. */
  readonly watts: readonly number[];
  /** J one whole charge would take at the rate of each cell: power × time ÷ its part of the level. */
  readonly joules: readonly number[];
  /** Charges behind it. */
  readonly charges: number;
  /** Standard deviation of ln(time) from one charge to the next, with its degrees of freedom. */
  readonly spread: number;
  readonly degrees: number;
  /** Highest W it was seen to take for a while. */
  readonly top: number;
}

const CELL = 0.02;
/** Finer than any level is told; levels are kept in single precision. */
export const HAIR = 5e-4;
const CELLS = Math.round(1 / CELL);
/** From one charge to the next a device differs by about so much, as long as nothing of its own is known; and how sure that is. */
const USUAL_SPREAD = 0.031;
const USUAL_DEGREES = 5;

/** A course that took this part of the most at a level was not held back there. */
const FREE = 0.92;

/** What it takes where nothing holds it back: the mean of the charges that took about the most. */
function freely(watts: readonly number[]): number {
  const most = Math.max(...watts);
  const free = watts.filter((one) => one >= FREE * most);
  return free.reduce((sum, one) => sum + one, 0) / free.length;
}

/** Mean of a course over a cell; null where it does not cover it. */
function inCell(
  { levels, watts, seconds }: Course,
  low: number,
  high: number,
): { watts: number; joules: number } | null {
  if ((levels[0] as number) > low + CELL / 2 || (levels.at(-1) as number) < high - CELL / 2) return null;
  let [part, time, energy] = [0, 0, 0];
  for (let at = 0; at < watts.length; at += 1) {
    const [from, to] = [levels[at] as number, levels[at + 1] as number];
    const shared = Math.min(high, to) - Math.max(low, from);
    if (shared <= 0) continue;
    const share = ((seconds[at] as number) * shared) / (to - from);
    part += shared;
    time += share;
    energy += share * (watts[at] as number);
  }
  return part > 0 && time > 0 ? { watts: energy / time, joules: energy / part } : null;
}

/** Time from one level to another as a course went, s; null where it does not cover them. */
export function tookFor({ levels, seconds }: Course, from: number, to: number): number | null {
  if ((levels[0] as number) > from + HAIR || (levels.at(-1) as number) < to - HAIR) return null;
  return seconds.reduce((sum, one, at) => {
    const [low, high] = [levels[at] as number, levels[at + 1] as number];
    return sum + (one * Math.max(0, Math.min(to, high) - Math.max(from, low))) / (high - low);
  }, 0);
}

/** What it takes for a while: the power that a tenth of the course's time is above. */
function topOf({ watts, seconds }: Course): number {
  const sorted = watts.map((one, at) => [one, seconds[at] as number] as const).sort((a, b) => b[0] - a[0]);
  const whole = seconds.reduce((a, b) => a + b, 0);
  let passed = 0;
  for (const [one, time] of sorted) {
    passed += time;
    if (passed >= whole / 10) return one;
  }
  return sorted.at(-1)?.[0] ?? 0;
}

/** Time through a profile, s, where a charger gives no more than so many W, and the part of it in which that holds it back. */
function through(
  { levels, watts, joules }: DeviceProfile,
  from: number,
  to: number,
  most: number,
): { seconds: number; held: number } {
  let [seconds, held] = [0, 0];
  for (let at = 0; at < watts.length; at += 1) {
    const shared = Math.min(to, levels[at + 1] as number) - Math.max(from, levels[at] as number);
    if (shared <= 0) continue;
    const takes = Math.min(watts[at] as number, most);
    const time = ((joules[at] as number) * shared) / takes;
    seconds += time;
    if ((watts[at] as number) > most) held += time;
  }
  return { seconds, held: seconds > 0 ? held / seconds : 0 };
}

/**
 * Profile of a device. At each level it takes what it took there when nothing held it back; what a level costs is the mean of all charges.
 * How much it differs from charge to charge comes from its own charges, drawn towards what devices usually do.
 * @param courses charges of one device; a charger that gave less than the device would take shows as a lower power
 * @returns null without a course, or where no level was gone through without a hole
 */
export function profileOf(courses: readonly Course[]): DeviceProfile | null {
  const cells = Array.from({ length: CELLS }, (_, at) => {
    const found = courses.flatMap((course) => inCell(course, at * CELL, (at + 1) * CELL) ?? []);
    return found.length === 0
      ? null
      : {
          watts: freely(found.map(({ watts }) => watts)),
          joules: found.reduce((sum, { joules }) => sum + joules, 0) / found.length,
        };
  });
  let [best, begin] = [[0, 0], 0];
  for (let at = 0; at <= CELLS; at += 1) {
    if (cells[at]) continue;
    if (at - begin > (best[1] as number) - (best[0] as number)) best = [begin, at];
    begin = at + 1;
  }
  const [from, to] = best as [number, number];
  if (to - from < 5) return null;
  const own = cells.slice(from, to) as { watts: number; joules: number }[];
  const bare: DeviceProfile = {
    levels: Array.from({ length: own.length + 1 }, (_, at) => (from + at) * CELL),
    watts: own.map(({ watts }) => watts),
    joules: own.map(({ joules }) => joules),
    charges: courses.length,
    spread: USUAL_SPREAD,
    degrees: USUAL_DEGREES,
    top: Math.max(...courses.map(topOf)),
  };
  // Each charge against what the profile says of its own charger: how far off it was is how much charges differ.
  const away = courses.flatMap((course) => {
    const [low, high] = [
      Math.max(bare.levels[0] as number, course.levels[0] as number),
      Math.min(bare.levels.at(-1) as number, course.levels.at(-1) as number),
    ];
    const took = high - low >= 0.2 ? tookFor(course, low, high) : null;
    return took === null ? [] : [Math.log(took / through(bare, low, high, topOf(course)).seconds)];
  });
  const mean = away.reduce((a, b) => a + b, 0) / Math.max(1, away.length);
  const squares = away.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  const degrees = USUAL_DEGREES + Math.max(0, away.length - 1);
  return { ...bare, spread: Math.sqrt((USUAL_DEGREES * USUAL_SPREAD ** 2 + squares) / degrees), degrees };
}

export interface Predicted {
  readonly from: number;
  readonly to: number;
  /** s */
  readonly seconds: number;
  /** s, 90 % of charges lie between; `low` is null where the device may take more than it was ever seen to. */
  readonly low: number | null;
  readonly high: number;
  /** Part of the time in which the charger holds it back, 0…1. */
  readonly held: number;
}

/** What a port really gives beside what it says, as a part of it: standard deviation. */
const LIMIT_SPREAD = 0.02;
const CONFIDENCE = 0.9;
/** A charger that gives this much more than the device ever took may be quicker than was ever seen. */
const BEYOND = 1.03;

/**
 * How long a device would take where a port gives so much.
 * @param watts W the port gives it @param ceiling most W the device takes, where that is on record
 * @returns the time with its 90 % interval, or why there is none
 * @example predictCharge(profile, { from: 0.2, to: 0.8, watts: 30, ceiling: 45 })
 */
export function predictCharge(
  profile: DeviceProfile,
  { from, to, watts, ceiling = null }: { from: number; to: number; watts: number; ceiling?: number | null },
): Predicted | { readonly reason: string } {
  if (!(watts > 0) || !Number.isFinite(watts)) return { reason: 'Nothing says what this port gives.' };
  if (!(to > from)) return { reason: 'The level to reach lies above the one to begin with.' };
  if (from < (profile.levels[0] as number) - HAIR || to > (profile.levels.at(-1) as number) + HAIR)
    return {
      reason: `Its charges went from ${Math.round((profile.levels[0] as number) * 100)} to ${Math.round((profile.levels.at(-1) as number) * 100)} % only.`,
    };
  const { seconds, held } = through(profile, from, to, watts);
  // What it took may have been all its charger gave: with more it may be quicker, and nobody knows by how much.
  const open = watts > profile.top * BEYOND && !(ceiling !== null && profile.top >= ceiling * 0.93);
  const sigma = Math.hypot(profile.spread * Math.sqrt(1 + 1 / profile.charges), held * LIMIT_SPREAD);
  const reach = Math.exp(tQuantile(0.5 + CONFIDENCE / 2, profile.degrees) * sigma);
  return { from, to, seconds, low: open ? null : seconds / reach, high: seconds * reach, held };
}
