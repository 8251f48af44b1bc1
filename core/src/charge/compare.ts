// Charges of one device held against each other, over the range of levels all of them went through.
import { formatPlain } from '../quantity/index.ts';
import { alike, differenceOf, type Repeated, repeated, repeatsNeeded } from '../repeats/index.ts';
import type { DeviceRun } from '../run/index.ts';
import { levelSince } from './course.ts';
import { type LevelCurve, reachedAt } from './level.ts';
import type { ChargeSession } from './session.ts';
import { percentOf, tenthMinutes, wholeMinutes } from './words.ts';

/** One charge among those compared. */
export interface Side {
  readonly captureId: string;
  readonly device: string;
  readonly place: string;
  readonly session: Pick<ChargeSession, 'curve' | 'start' | 'startCelsius'>;
  readonly workload?: DeviceRun['workload'] | null | undefined;
}

export interface Compared {
  /** The charges of either side. */
  readonly captureIds: readonly [readonly string[], readonly string[]];
  /** Levels all went through, 0…1. */
  readonly from: number;
  readonly to: number;
  /** s they took for them, the mean of a side. */
  readonly seconds: readonly [number, number];
  /** A difference beyond chance; never of one charge each. */
  readonly called: boolean;
  readonly sentence: string;
}

/** A range narrower than this tells nothing of a charge. */
const LEAST_RANGE = 0.1;
/** A device that begins this much warmer is in another state, K. */
const WARMER = 8;
/** A difference worth knowing of, as a part of the time. */
const WORTH = 0.05;

/** s from one level to another. */
export function timeFor(curve: LevelCurve, from: number, to: number): number | null {
  const begin = levelSince(curve, from);
  const end = reachedAt(curve, to);
  return begin === null || end === null ? null : end - begin;
}

interface Common {
  readonly from: number;
  readonly to: number;
  /** s each charge took. */
  readonly seconds: readonly number[];
}

/** The range of levels all charges went through, with the time of each; null where there is none worth the name. */
export function commonRange(charges: readonly Pick<Side, 'session'>[]): Common | null {
  const curves = charges.flatMap(({ session: { curve } }) => curve ?? []);
  if (curves.length === 0 || curves.length < charges.length) return null;
  const from = Math.max(...curves.map(({ levels }) => levels[0] as number));
  const to = Math.min(...curves.map(({ levels }) => levels.at(-1) as number));
  if (to - from < LEAST_RANGE) return null;
  const seconds = curves.map((curve) => timeFor(curve, from, to));
  return seconds.every((one) => one !== null && one > 0) ? { from, to, seconds: seconds as number[] } : null;
}

/** What differed about the device itself, so that its charges say nothing of chargers; null for nothing known. */
export function unlike(all: readonly Side[]): string | null {
  const workloads = [...new Set(all.flatMap(({ workload }) => workload ?? []))];
  if (workloads.length > 1) return `The device was not in the same state: ${workloads.join(' in one, ')} in the other.`;
  const begun = all.flatMap(({ session }) => session.startCelsius ?? []);
  const [cold, warm] = [Math.min(...begun), Math.max(...begun)];
  return warm - cold > WARMER
    ? `The device began at ${formatPlain(cold + 273.15, 'temperature')} in one and at ${formatPlain(warm + 273.15, 'temperature')} in the other.`
    : null;
}

/** Repeats of one charge in a sentence: mean, interval and spread; null of one alone. */
export function repeatsSay(charges: readonly Side[]): string | null {
  const [first] = charges;
  const common = commonRange(charges);
  const all = common && repeated(common.seconds);
  if (!first || !common || !all?.interval || all.spread === null) return null;
  const [low, high] = all.interval;
  const state = unlike(charges);
  if (alike(all, all.mean))
    return `${first.device} on ${first.place}, ${charges.length} charges from ${percentOf(common.from)} to ${percentOf(common.to)}: ${tenthMinutes(all.mean)} each, to the digit: read too coarsely to tell how they scatter.${state ? ` ${state}` : ''}`;
  return `${first.device} on ${first.place}, ${charges.length} charges from ${percentOf(common.from)} to ${percentOf(common.to)}: ${tenthMinutes(all.mean)} on average, ${tenthMinutes(low)} to ${tenthMinutes(high)} (95 %), spread ${tenthMinutes(all.spread)}.${state ? ` ${state}` : ''}`;
}

/** How many repeats would be needed, from the spread there is. */
function needed(a: Repeated, b: Repeated): string {
  const spread = Math.sqrt(((a.spread ?? 0) ** 2 + (b.spread ?? 0) ** 2) / 2);
  const worth = WORTH * Math.min(a.mean, b.mean);
  const count = spread > 0 ? repeatsNeeded(worth, spread, 'groups') : null;
  const have = Math.min(a.count, b.count);
  if (count === null) return '';
  return count > have
    ? ` To call ${tenthMinutes(worth)} (${Math.round(WORTH * 100)} %), charge ${count} times on each.`
    : ` ${tenthMinutes(worth)} (${Math.round(WORTH * 100)} %) would have been seen.`;
}

/**
 * Compare charges of one device in two places over the levels all of them went through. Time is told as time, with what it
 * is a part of. A difference is called only beyond chance (Welch, 95 %); one charge each says nothing of chance.
 * @returns null where they have no range of levels in common, or a level is not known
 */
export function compareCharges(first: readonly Side[], second: readonly Side[]): Compared | null {
  const [a, b] = [first[0], second[0]];
  const common = commonRange([...first, ...second]);
  if (!a || !b || !common) return null;
  const { from, to } = common;
  const [one, other] = [common.seconds.slice(0, first.length), common.seconds.slice(first.length)];
  const [mine, theirs] = [repeated(one), repeated(other)];
  const difference = differenceOf(one, other);
  if (!mine || !theirs || !difference) return null;
  const state = unlike([...first, ...second]);
  const called = difference.called && state === null;
  const made = (sentence: string): Compared => ({
    captureIds: [first.map(({ captureId }) => captureId), second.map(({ captureId }) => captureId)],
    from,
    to,
    seconds: [mine.mean, theirs.mean],
    called,
    sentence: `${a.device}, ${percentOf(from)} to ${percentOf(to)}: ${sentence}`,
  });
  const [quick, slow] = mine.mean <= theirs.mean ? [a, b] : [b, a];
  const [less, more] = [Math.min(mine.mean, theirs.mean), Math.max(mine.mean, theirs.mean)];
  const part = Math.round((1 - less / more) * 100);
  const faster = `on ${quick.place} it takes ${part} % less time than on ${slow.place}, ${wholeMinutes(less)} instead of ${wholeMinutes(more)}`;
  const same = `the same time on ${a.place} and on ${b.place}, ${wholeMinutes(less)}`;
  if (state)
    return made(
      `${wholeMinutes(mine.mean)} on ${a.place}, ${wholeMinutes(theirs.mean)} on ${b.place}. Not comparable. ${state}`,
    );
  if (!difference.interval) {
    const several = Math.min(first.length, second.length) > 1;
    if (several)
      return made(
        `${part === 0 ? same : faster}, to the digit in each of ${first.length} and ${second.length} charges: read too coarsely to tell how they scatter${called ? ', yet hardly chance' : ', so this may be chance'}.`,
      );
    const chance =
      Math.max(first.length, second.length) === 1
        ? ' One charge each: repeat to know whether that is more than chance.'
        : ' One side has a single charge: repeat it to know whether that is more than chance.';
    return made(part === 0 ? `${same}.` : `${faster}.${chance}`);
  }
  const counts = `means of ${first.length} and ${second.length} charges`;
  const [low, high] = difference.interval.map(Math.abs).sort((x, y) => x - y) as [number, number];
  if (called)
    return made(`${faster}, ${counts}; the difference is ${tenthMinutes(low)} to ${tenthMinutes(high)} (95 %).`);
  const span = difference.interval.map((value) =>
    value < 0 ? `${tenthMinutes(-value)} less on ${b.place}` : `${tenthMinutes(value)} more on ${b.place}`,
  );
  return made(
    `${tenthMinutes(mine.mean)} on ${a.place} and ${tenthMinutes(theirs.mean)} on ${b.place}, ${counts}: no difference can be called. It lies between ${span[0]} and ${span[1]} (95 %).${needed(mine, theirs)}`,
  );
}
