// Where the voltage changes, and where power swings to and fro.
import { medianOf, type Range } from './parts.ts';
import type { ChargeSeries } from './series.ts';

/** Volts that differ by more, before and after, are another level; so long each way is looked at, s. */
const OTHER_VOLTS = 0.06;
const VOLTS_WINDOW = 60;
/** Swings: this part of the highest power up and down, so often, none slower than this. */
export const SWING = 0.08;
const LEAST_SWINGS = 6;
/** Or this many times the noise, where that is more. */
export const SWING_NOISES = 6;
const SLOWEST_SWING = 600;
const OTHER_PACE = 3;
const SHORT_SIDE = 0.15;

/** Where the level of voltage changes for good: indexes a stage ends at, whatever the power does. */
export function voltageChanges({ volts, step }: Pick<ChargeSeries, 'volts' | 'step'>, { from, to }: Range): number[] {
  if (!volts) return [];
  const window = Math.max(2, Math.round(VOLTS_WINDOW / step));
  const changes: number[] = [];
  const apart = (at: number) => {
    const before = medianOf(volts, Math.max(from, at - window), at);
    const after = medianOf(volts, at, Math.min(to, at + window));
    return Math.abs(after - before) / Math.max(Math.abs(before), Math.abs(after), 0.1);
  };
  for (let at = from + 2; at < to - 2; at += 1) {
    // Only an edge is a change; an adjustable level that glides is none.
    const edge =
      Math.abs((volts[at] as number) - (volts[at - 2] as number)) / Math.max(0.1, Math.abs(volts[at] as number));
    if (edge < OTHER_VOLTS || apart(at) < OTHER_VOLTS) continue;
    let best = at;
    for (let near = at; near < Math.min(to, at + 3); near += 1) {
      const jump = (index: number) => Math.abs((volts[index] as number) - (volts[index - 1] as number));
      if (jump(near) > jump(best)) best = near;
    }
    changes.push(best);
    at = best + window;
  }
  return changes;
}

/** Whether both sides of a swing take their time: a screen that lights up now and then is no hunting. */
function isEven(moves: readonly number[]): boolean {
  const sides = [0, 0];
  for (let at = 1; at < moves.length; at += 1)
    sides[at % 2] = (sides[at % 2] as number) + (moves[at] as number) - (moves[at - 1] as number);
  const [a = 0, b = 0] = sides;
  return Math.min(a, b) > SHORT_SIDE * (a + b);
}

/** Stretches in which power swings to and fro: from the first move to the last. */
export function huntingOf({ watts, step }: Pick<ChargeSeries, 'watts' | 'step'>, range: Range, top: number): Range[] {
  const moves: number[] = [];
  let low = watts[range.from] as number;
  let high = low;
  let direction = 0;
  for (let at = range.from; at < range.to; at += 1) {
    const value = watts[at] as number;
    high = Math.max(high, value);
    low = Math.min(low, value);
    if (direction >= 0 && high - value > SWING * top) {
      moves.push(at);
      [direction, low, high] = [-1, value, value];
    } else if (direction <= 0 && value - low > SWING * top) {
      moves.push(at);
      [direction, low, high] = [1, value, value];
    }
  }
  const found: Range[] = [];
  let begin = 0;
  for (let at = 1; at <= moves.length; at += 1) {
    const gap = (index: number) => (moves[index] as number) - (moves[index - 1] as number);
    // Swings keep their pace: one that comes much later is another matter.
    const pace = at - begin >= 2 ? ((moves[at - 1] as number) - (moves[begin] as number)) / (at - 1 - begin) : null;
    const far = at === moves.length || gap(at) * step > SLOWEST_SWING || (pace !== null && gap(at) > OTHER_PACE * pace);
    if (!far) continue;
    if (at - begin >= LEAST_SWINGS && isEven(moves.slice(begin, at)))
      found.push({ from: moves[begin] as number, to: moves[at - 1] as number });
    begin = at;
  }
  return found;
}
