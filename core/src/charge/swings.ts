// Where the voltage changes, and where power swings to and fro.
import { noiseOf } from '../changes/index.ts';
import { meansOver } from '../series/index.ts';
import { meanOf, medianOf, type Range } from './parts.ts';
import type { ChargeSeries } from './series.ts';

/** Volts that differ by more, before and after, are another level; so long each way is looked at, s. */
const OTHER_VOLTS = 0.06;
const VOLTS_WINDOW = 60;
/** Swings: this part of the highest power up and down, so often, none slower than this. */
const SWING = 0.08;
const LEAST_SWINGS = 6;
/** Swings that noise hides are looked for in means over so many values, and none over longer than this, s. */
const MEANS = [1, 2, 4, 8, 16] as const;
const LONGEST_MEAN = 30;
/** Noise is told by blocks of so many values, and is what this part of them have less of: swings are no noise. */
const NOISE_BLOCK = 60;
const CALM_PART = 0.3;
/** Blocks with less than this part of the highest power do not tell what part of it is noise. */
const TELLING = 0.3;
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

/** What noise spans by chance in so many values, as a multiple of its standard deviation: from its lowest to its highest. */
const spanned = (count: number): number => 2 * Math.sqrt(2 * Math.log(Math.max(2, count))) + 1;

const calmPart = (values: number[]): number => {
  values.sort((a, b) => a - b);
  return values[Math.floor(CALM_PART * (values.length - 1))] ?? 0;
};

/** Noise at an index, W: what there is of it everywhere, and what goes with the power. */
function noiseIn(watts: Float64Array, { from, to }: Range, top: number): (at: number) => number {
  const count = Math.max(1, Math.round((to - from) / NOISE_BLOCK));
  const blocks = Array.from({ length: count }, (_, block) => {
    const [begin, end] = [block, block + 1].map((one) => from + Math.round((one * (to - from)) / count));
    return {
      noise: noiseOf(watts.subarray(begin, end)),
      level: meanOf(watts, { from: begin as number, to: end as number }),
    };
  });
  const everywhere = calmPart(blocks.map(({ noise }) => noise));
  const part = calmPart(blocks.flatMap(({ noise, level }) => (level > TELLING * top ? [noise / level] : [])));
  return (at) => {
    const block = Math.floor(((at - from) * count) / (to - from));
    return Math.max(everywhere, part * Math.max(...[-1, 0, 1].map((one) => blocks[block + one]?.level ?? 0)));
  };
}

/**
 * Stretches in which power swings to and fro by more than its noise does: quick swings as they are, slower ones in
 * means that the noise is smaller in.
 * @param top highest power, W
 */
export function huntingOf({ watts, step }: Pick<ChargeSeries, 'watts' | 'step'>, range: Range, top: number): Range[] {
  const chance = spanned(range.to - range.from);
  const noiseAt = noiseIn(watts, range, top);
  const found = MEANS.filter((width) => width === 1 || width * step <= LONGEST_MEAN).flatMap((width) => {
    const own = meansOver(watts, width);
    const swings = swingsIn(own, step, range, (at) => Math.max(SWING * top, (chance * noiseAt(at)) / Math.sqrt(width)));
    // A mean tells its last move so much later.
    return swings.map(({ from, to }) => ({ from, to: Math.max(from + 1, to - Math.floor(width / 2)) }));
  });
  const all: Range[] = [];
  for (const one of found.sort((a, b) => a.from - b.from)) {
    const last = all.at(-1);
    if (last && one.from <= last.to) all[all.length - 1] = { from: last.from, to: Math.max(last.to, one.to) };
    else all.push(one);
  }
  return all;
}

/** Swings by the least number of watts that counts there: from the first move to the last. */
function swingsIn(watts: Float64Array, step: number, range: Range, leastAt: (at: number) => number): Range[] {
  const moves: number[] = [];
  let low = watts[range.from] as number;
  let high = low;
  let direction = 0;
  for (let at = range.from; at < range.to; at += 1) {
    const value = watts[at] as number;
    const least = leastAt(at);
    high = Math.max(high, value);
    low = Math.min(low, value);
    if (direction >= 0 && high - value > least) {
      moves.push(at);
      [direction, low, high] = [-1, value, value];
    } else if (direction <= 0 && value - low > least) {
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
