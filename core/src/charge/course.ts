// The course of a charge by level: what the device took at each, and how long each took. What is known of a device comes from it.
import { type LevelCurve, reachedAt } from './level.ts';
import type { ChargeSeries } from './series.ts';

/** Power against level: stretches between levels in order. */
export interface Course {
  /** 0…1, rising; one more than there are stretches. */
  readonly levels: readonly number[];
  /** Mean W in each stretch. */
  readonly watts: readonly number[];
  /** s each stretch took. */
  readonly seconds: readonly number[];
}

/** A stretch of levels is at least this wide. */
const STRETCH = 0.02;

/** Level at the beginning of a curve was there at its first point; any other is there once it is reached. */
export const levelSince = (curve: LevelCurve, level: number): number | null =>
  Math.abs((curve.levels[0] as number) - level) < 1e-9 ? (curve.times[0] as number) : reachedAt(curve, level);

/**
 * The course of a charge, from its power and its levels. A stretch that a gap reaches into is left out of nothing: its power is
 * not known, so the course ends before the first gap or begins after it, whichever is longer.
 * @returns null where fewer than five stretches are known
 */
export function courseOf(series: ChargeSeries, curve: LevelCurve): Course | null {
  const { step, delivered, gaps } = series;
  const edges: { level: number; at: number }[] = [];
  for (const level of curve.levels) {
    const last = edges.at(-1);
    if (last && level - last.level < STRETCH - 1e-9) continue;
    const at = levelSince(curve, level);
    if (at !== null && (!last || at > last.at)) edges.push({ level, at });
  }
  const end = curve.levels.at(-1) as number;
  const ended = levelSince(curve, end);
  const last = edges.at(-1);
  if (ended !== null && last && end > last.level + 1e-9 && ended > last.at) edges.push({ level: end, at: ended });
  const wattHours = (at: number): number => {
    const place = Math.min(delivered.length - 1, Math.max(0, at / step));
    const low = Math.floor(place);
    const before = delivered[low] as number;
    return before + ((delivered[Math.min(low + 1, delivered.length - 1)] as number) - before) * (place - low);
  };
  const stretches = edges.slice(1).map(({ level, at }, index) => {
    const from = edges[index] as { level: number; at: number };
    const seconds = at - from.at;
    const broken = gaps.some((gap) => gap.from < at && gap.to > from.at);
    return {
      from: from.level,
      to: level,
      seconds,
      watts: broken ? Number.NaN : ((wattHours(at) - wattHours(from.at)) * 3600) / seconds,
    };
  });
  let [best, begin] = [[] as typeof stretches, 0];
  for (let at = 0; at <= stretches.length; at += 1) {
    if (at < stretches.length && (stretches[at] as { watts: number }).watts > 0) continue;
    if (at - begin > best.length) best = stretches.slice(begin, at);
    begin = at + 1;
  }
  if (best.length < 5) return null;
  return {
    levels: [(best[0] as { from: number }).from, ...best.map(({ to }) => to)],
    watts: best.map(({ watts }) => watts),
    seconds: best.map(({ seconds }) => seconds),
  };
}
