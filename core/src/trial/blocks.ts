// What a trial of blocks says: differences of pairs, whether their assumptions hold, and one sentence.
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import { leastSquares } from '../least-squares/index.ts';
import { alike, differenceOf, holm, type Repeated, repeated, repeatsNeeded, signsAlone } from '../repeats/index.ts';
import { type BlockTrial, standingRuns, type TrialRun } from './types.ts';
import { comparisonSays, type Namer, numberOf, valueWords } from './words.ts';

/** Two arms held against each other, pair by pair. */
export interface Comparison {
  readonly from: number;
  readonly to: number;
  /** Each pair: the second less the first, SI, by block. */
  readonly pairs: readonly { readonly block: number; readonly first: number; readonly second: number }[];
  readonly difference: Repeated;
  /** They differ by the same to the digit: read too coarsely to tell how they scatter. */
  readonly alike: boolean;
  /** Mean of the first arm in those pairs, SI: the base of a percentage. */
  readonly base: number;
  /** Probability of as much by chance alone; adjusted where there are several comparisons. Null of one pair. */
  readonly p: number | null;
  /** The difference is more than chance makes. */
  readonly called: boolean;
  readonly sentence: string;
}

export interface BlockResult {
  readonly arms: readonly (Repeated | null)[];
  readonly comparisons: readonly Comparison[];
  /** What to know of it, a sentence each: drift, order, one pair apart, too few. */
  readonly findings: readonly string[];
  /** Blocks in which every arm was run, of how many. */
  readonly complete: number;
  readonly planned: number;
  /** All runs are done. */
  readonly finished: boolean;
}

const CHANCE = 0.05;

/**
 * Two-sided probability of a mean this far from nought. Pairs that differ by the same to the digit were read too coarsely for
 * their spread to say anything: only their signs count.
 * @param size of what was measured
 */
function chanceOf(difference: Repeated, size: number): number | null {
  const { mean, spread, count } = difference;
  if (spread === null) return null;
  if (alike(difference, size)) return Math.abs(mean) <= spread ? 1 : signsAlone(count);
  return 2 * tCdf(-Math.abs(mean / (spread / Math.sqrt(count))), count - 1);
}

const MOST_FLIPPED = 14;

/** Probability of as much by turning the signs of the differences: without any assumption. R. A. Fisher, 1935. */
export function signChance(differences: readonly number[]): number | null {
  const n = differences.length;
  if (n < 5 || n > MOST_FLIPPED) return null;
  const own = Math.abs(differences.reduce((sum, one) => sum + one, 0)) * (1 - 1e-12);
  let as = 0;
  const all = 2 ** n;
  for (let mask = 0; mask < all; mask += 1) {
    let sum = 0;
    for (let at = 0; at < n; at += 1)
      sum += (mask >> at) & 1 ? -(differences[at] as number) : (differences[at] as number);
    if (Math.abs(sum) >= own) as += 1;
  }
  return as / all;
}

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (sorted.length - 1) / 2;
  return ((sorted[Math.floor(at)] as number) + (sorted[Math.ceil(at)] as number)) / 2;
};

/** A pair this many robust standard deviations from the others stands apart. */
const APART = 5;

function pairApart({ pairs }: Comparison, name: Namer): string[] {
  const differences = pairs.map(({ first, second }) => second - first);
  if (differences.length < 5) return [];
  const middle = median(differences);
  const usual = 1.483 * median(differences.map((one) => Math.abs(one - middle)));
  const worst = pairs.find((_, at) => Math.abs((differences[at] as number) - middle) > APART * usual);
  return usual > 0 && worst
    ? [
        `Pair ${worst.block + 1} stands apart: ${name.value(worst.second - worst.first)}, the others about ${name.value(middle)}. Look what was other there before it is believed.`,
      ]
    : [];
}

/** Whether values moved over the trial, whatever the arm. */
function driftOf(runs: readonly TrialRun[], arms: readonly (Repeated | null)[], name: Namer): string[] {
  if (runs.length < 6) return [];
  const fit = leastSquares(
    runs.map((_, at) => [1, at]),
    runs.map(({ cell, value }) => value - (arms[cell[0] as number]?.mean ?? value)),
  );
  if (!fit || fit.degrees < 2) return [];
  const slope = fit.coefficients[1] as number;
  const u = Math.sqrt(((fit.inverse[1]?.[1] ?? 0) * fit.rest) / fit.degrees);
  const p = u > 0 ? 2 * tCdf(-Math.abs(slope / u), fit.degrees) : 1;
  return p < 0.01
    ? [
        `It drifted: ${name.value(slope * (runs.length - 1))} from the first run to the last, whichever it was. Pairs take that out; single runs of it are not to be compared.`,
      ]
    : [];
}

/** Whether it matters which of a pair comes first. */
function orderOf({ pairs, from, to }: Comparison, runs: readonly TrialRun[], name: Namer): string[] {
  const at = (block: number, arm: number) => runs.findIndex((one) => one.block === block && one.cell[0] === arm);
  const firstFrom = pairs.filter(({ block }) => at(block, from) < at(block, to));
  const other = pairs.filter((pair) => !firstFrom.includes(pair));
  const found = differenceOf(
    firstFrom.map(({ first, second }) => second - first),
    other.map(({ first, second }) => second - first),
  );
  return found?.called && firstFrom.length > 2 && other.length > 2
    ? [
        `What comes first matters: by ${name.value(found.value)} between both orders. Something is carried over; wait longer between the runs of a pair.`,
      ]
    : [];
}

function assumptions(comparison: Comparison, name: Namer): string[] {
  const signs = signChance(comparison.pairs.map(({ first, second }) => second - first));
  const { p } = comparison;
  if (signs === null || p === null || signs < CHANCE === p < CHANCE) return [];
  return [
    `By signs alone, which assume nothing, chance would make as much ${numberOf(signs * 100)} times in 100; by the spread of the pairs ${numberOf(p * 100)} times. Between ${name.arm(comparison.from)} and ${name.arm(comparison.to)} run some more pairs.`,
  ];
}

/** What would still be needed to tell what matters. */
function enough({ matters }: BlockTrial, comparison: Comparison, name: Namer): string[] {
  const { difference, called } = comparison;
  if (called || comparison.alike || matters === null || difference.interval === null || difference.spread === null)
    return [];
  const most = Math.max(...difference.interval.map(Math.abs));
  if (most <= matters) return [];
  const needed = repeatsNeeded(matters, difference.spread, 'pairs');
  return [
    `A difference of ${name.value(matters)} would matter, and this does not rule it out: as these pairs scatter it takes ${needed === null ? 'more than 200' : needed} of them.`,
  ];
}

/**
 * Analyse a trial of blocks: every two arms by the differences of their pairs, mean ± t·s/√n; several comparisons by Holm.
 * Blocks without one of both count for the others only.
 * @param names of the arms as they may be said: letters while it is blind
 * @example analyseBlocks(trial, runs, ['A', 'B']).comparisons[0]?.difference.mean // 1.1
 */
export function analyseBlocks(trial: BlockTrial, all: readonly TrialRun[], names: readonly string[]): BlockResult {
  const runs = standingRuns(all).filter(({ value }) => Number.isFinite(value));
  const name: Namer = {
    arm: (arm) => names[arm] ?? `arm ${arm + 1}`,
    value: (si) => valueWords(trial.measure.quantity, si),
  };
  const arms = trial.arms.map((_, arm) =>
    repeated(runs.flatMap(({ cell, value }) => (cell[0] === arm ? [value] : []))),
  );
  const valueAt = (block: number, arm: number) =>
    runs.find((one) => one.block === block && one.cell[0] === arm)?.value ?? null;
  const blocks = [...new Set(runs.map(({ block }) => block))].sort((a, b) => a - b);
  const couples = trial.arms.flatMap((_, to) => Array.from({ length: to }, (_unused, from) => ({ from, to })));
  const raw = couples.flatMap(({ from, to }) => {
    const pairs = blocks.flatMap((block) => {
      const [first, second] = [valueAt(block, from), valueAt(block, to)];
      return first === null || second === null ? [] : [{ block, first, second }];
    });
    const difference = repeated(pairs.map(({ first, second }) => second - first));
    const base = repeated(pairs.map(({ first }) => first))?.mean ?? 0;
    const size = Math.max(0, ...pairs.flatMap(({ first, second }) => [Math.abs(first), Math.abs(second)]));
    return difference
      ? [{ from, to, pairs, difference, base, alike: alike(difference, size), own: chanceOf(difference, size) }]
      : [];
  });
  const adjusted = holm(raw.map(({ own }) => own ?? 1));
  const comparisons = raw.map(({ own, ...one }, at): Comparison => {
    const p = own === null ? null : (adjusted[at] as number);
    const known = { ...one, p, called: p !== null && p < CHANCE };
    return { ...known, sentence: comparisonSays(trial, known, name) };
  });
  const complete = blocks.filter((block) => trial.arms.every((_, arm) => valueAt(block, arm) !== null)).length;
  return {
    arms,
    comparisons,
    complete,
    planned: trial.blocks,
    finished: complete >= trial.blocks,
    findings: [
      ...driftOf(runs, arms, name),
      ...comparisons.flatMap((one) => [
        ...orderOf(one, runs, name),
        ...pairApart(one, name),
        ...assumptions(one, name),
        ...enough(trial, one, name),
      ]),
      ...(comparisons.length > 1 ? [`${comparisons.length} comparisons at once: each is called by Holm’s steps.`] : []),
    ],
  };
}
