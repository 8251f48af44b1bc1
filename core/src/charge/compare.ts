// Two charges of one device, over the range of levels both went through.
import { formatPlain } from '../quantity/index.ts';
import { type LevelCurve, reachedAt } from './level.ts';
import type { ChargeSession } from './session.ts';

export interface Compared {
  readonly captureIds: readonly [string, string];
  /** Levels both went through, 0…1. */
  readonly from: number;
  readonly to: number;
  /** s each took for them. */
  readonly seconds: readonly [number, number];
  readonly sentence: string;
}

interface Side {
  readonly captureId: string;
  readonly device: string;
  readonly place: string;
  readonly session: Pick<ChargeSession, 'curve' | 'start'>;
}

/** A range narrower than this tells nothing of a charge. */
const LEAST_RANGE = 0.1;

/** s from one level to another; a level it began with was there at its first point. */
function timeFor(curve: LevelCurve, from: number, to: number): number | null {
  const begin =
    Math.abs((curve.levels[0] as number) - from) < 1e-9 ? (curve.times[0] as number) : reachedAt(curve, from);
  const end = reachedAt(curve, to);
  return begin === null || end === null ? null : end - begin;
}

/**
 * Compare two charges over their common levels. Time is told as time, with what it is a part of; nothing is said of levels
 * only one went through.
 * @returns null where they have no range of levels in common, or a level is not known
 */
export function compareSessions(a: Side, b: Side): Compared | null {
  const [one, other] = [a.session.curve, b.session.curve];
  if (!one || !other) return null;
  const from = Math.max(one.levels[0] as number, other.levels[0] as number);
  const to = Math.min(one.levels.at(-1) as number, other.levels.at(-1) as number);
  if (to - from < LEAST_RANGE) return null;
  const [first, second] = [timeFor(one, from, to), timeFor(other, from, to)];
  if (first === null || second === null || !(first > 0) || !(second > 0)) return null;
  const percent = (level: number) => formatPlain(Math.round(level * 100) / 100, 'efficiency');
  const minutes = (seconds: number) => formatPlain(Math.round(seconds / 60) * 60, 'duration', 'min');
  const [quick, slow] = first <= second ? [a, b] : [b, a];
  const [less, more] = [Math.min(first, second), Math.max(first, second)];
  const part = Math.round((1 - less / more) * 100);
  const range = `${a.device}, ${percent(from)} to ${percent(to)}`;
  const sentence =
    part === 0
      ? `${range}: the same time on ${a.place} and on ${b.place}, ${minutes(less)}.`
      : `${range}: on ${quick.place} it takes ${part} % less time than on ${slow.place}, ${minutes(less)} instead of ${minutes(more)}. One charge each: repeat to know whether that is more than chance.`;
  return { captureIds: [a.captureId, b.captureId], from, to, seconds: [first, second], sentence };
}
