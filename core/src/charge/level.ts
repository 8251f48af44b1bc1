// How full the device was, when: from its own log, from typed points, or from what was delivered.

/** Where the level comes from. */
export type LevelSource = 'log' | 'typed' | 'energy';

/** Level against time: points in order, straight lines between. */
export interface LevelCurve {
  readonly source: LevelSource;
  /** s from the first sample */
  readonly times: readonly number[];
  /** 0…1 */
  readonly levels: readonly number[];
}

/**
 * The points at which a level is first told: a log that repeats 41 % for minutes says when it became 41 %. The last sample
 * is a point too.
 * @param levels 0…1, NaN where it says nothing
 */
export function levelPoints(
  times: ArrayLike<number>,
  levels: ArrayLike<number>,
  source: 'log' | 'typed',
): LevelCurve | null {
  const at: number[] = [];
  const told: number[] = [];
  let last = -1;
  for (let index = 0; index < levels.length; index += 1) {
    const level = levels[index] as number;
    if (Number.isNaN(level)) continue;
    last = index;
    if (told.at(-1) === level) continue;
    at.push(times[index] as number);
    told.push(level);
  }
  if (at.length < 2) return null;
  if (last >= 0 && at.at(-1) !== times[last]) {
    at.push(times[last] as number);
    told.push(levels[last] as number);
  }
  return { source, times: at, levels: told };
}

/** Level at a moment; null before the first and after the last point. */
export function levelAt({ times, levels }: LevelCurve, seconds: number): number | null {
  const next = times.findIndex((one) => one >= seconds);
  if (next < 0 || seconds < (times[0] as number)) return null;
  if (next === 0 || times[next] === seconds) return levels[next] as number;
  const [a, b] = [times[next - 1] as number, times[next] as number];
  const [from, to] = [levels[next - 1] as number, levels[next] as number];
  return from + ((to - from) * (seconds - a)) / (b - a);
}

/** When a level is first reached, s; null where it never is. A level it already had at the first point is not reached. */
export function reachedAt({ times, levels }: LevelCurve, level: number): number | null {
  if ((levels[0] as number) >= level - 1e-9) return null;
  for (let at = 1; at < times.length; at += 1) {
    const [from, to] = [levels[at - 1] as number, levels[at] as number];
    if (to < level - 1e-9) continue;
    const [a, b] = [times[at - 1] as number, times[at] as number];
    return to === from ? b : a + ((b - a) * (Math.min(level, to) - from)) / (to - from);
  }
  return null;
}

/** A curve from a moment on: what was logged before it, while nothing was plugged in, is no part of a charge. */
export function since(curve: LevelCurve, seconds: number): LevelCurve {
  const level = levelAt(curve, seconds);
  if (level === null || seconds <= (curve.times[0] as number)) return curve;
  const after = curve.times.findIndex((one) => one > seconds);
  const rest = after < 0 ? curve.times.length : after;
  return {
    source: curve.source,
    times: [seconds, ...curve.times.slice(rest)],
    // Shown levels are steps: until the next one it is the last that was shown.
    levels: [curve.source === 'log' ? (curve.levels[rest - 1] as number) : level, ...curve.levels.slice(rest)],
  };
}

/** A curve of so many points at most; what it tells of any level moves by less than one of its steps. */
export function thinned(curve: LevelCurve, most: number): LevelCurve {
  const count = curve.times.length;
  if (count <= most) return curve;
  const kept = Array.from({ length: most }, (_, at) => Math.round((at * (count - 1)) / (most - 1)));
  return {
    source: curve.source,
    times: kept.map((at) => curve.times[at] as number),
    levels: kept.map((at) => curve.levels[at] as number),
  };
}
