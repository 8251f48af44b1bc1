// A ranking by weights, for those who want one: with what is not beaten by anything, and how easily it would turn.
import type { Better } from '../measure/index.ts';
import { seededNormal, seededRandom } from '../random/index.ts';
import { asLess, notBeaten } from './edge.ts';
import type { Compared } from './values.ts';

/** One thing that counts: its values under one condition, and how much it weighs. */
export interface Criterion {
  readonly measure: string;
  readonly title: string;
  readonly better: Better;
  /** 0 or more; only the proportions count. */
  readonly weight: number;
  readonly values: readonly Compared[];
}

export interface Ranked {
  readonly id: string;
  /** Weighted mean of where it lies between the worst (0) and the best (1) of the set in each. */
  readonly merit: number;
  /** Probability that it is first, by draws from the uncertainties, at these weights. */
  readonly first: number;
  /** Share of all possible weights at which it is first, as read. */
  readonly anyWeights: number;
  /** Nothing is at least as good in all that count and better in one. */
  readonly notBeaten: boolean;
}

/** What would make another first. */
export interface Tip {
  readonly measure: string;
  readonly title: string;
  /** Its part of all weights now, and where another becomes first, 0…1. */
  readonly from: number;
  readonly to: number;
  readonly becomes: string;
}

export interface WeightedRanking {
  /** The best first. */
  readonly ranked: readonly Ranked[];
  /** The first is first in 95 % or more of the draws. */
  readonly called: boolean;
  /** The least change of one weight that makes another first; for each that has one, the smallest change first. */
  readonly tips: readonly Tip[];
  /** Samples that lack a value of something that counts, or its uncertainty, and what. */
  readonly without: readonly { readonly id: string; readonly lacks: readonly string[] }[];
}

const TURNS = 4000;
const CALLED = 0.95;

const NOBODY: WeightedRanking = { ranked: [], called: false, tips: [], without: [] };

/** Where each value lies between worst and best of the set as read, by criterion then sample. */
interface Scale {
  readonly low: number;
  readonly span: number;
}

/** 0 at the worst, 1 at the best; all alike count as half. */
const meritOf = (turned: number, { low, span }: Scale): number => (span > 0 ? 1 - (turned - low) / span : 0.5);

function bestOf(weights: readonly number[], merits: readonly Float64Array[], count: number): number {
  let best = 0;
  let most = Number.NEGATIVE_INFINITY;
  for (let at = 0; at < count; at += 1) {
    let sum = 0;
    for (let row = 0; row < weights.length; row += 1) sum += (weights[row] ?? 0) * (merits[row]?.[at] ?? 0);
    if (sum > most) {
      most = sum;
      best = at;
    }
  }
  return best;
}

/** Weights evenly over all there can be: gaps between sorted even numbers (L. Devroye, 1986, V.2). */
function evenWeights(count: number, random: () => number): readonly number[] {
  const logs = Array.from({ length: count }, () => -Math.log(1 - random()));
  const sum = logs.reduce((a, b) => a + b, 0);
  return logs.map((one) => one / sum);
}

/** One thing that counts, over the samples that have everything. */
interface Row {
  readonly better: Better;
  readonly values: readonly Compared[];
}

/**
 * How often each is first when all values are drawn from their uncertainties. Merit is linear, so what is drawn for each value alone
 * adds up to one draw a sample; what the same meters share is drawn once for all they read of one measure.
 */
function firstsOf(
  rows: readonly Row[],
  weights: readonly number[],
  scales: readonly Scale[],
  merit: readonly number[],
  draws: number,
): Float64Array {
  const count = merit.length;
  const alone = new Float64Array(count);
  const shared: { readonly of: Float64Array; readonly groups: Int32Array; readonly errors: Float64Array }[] = [];
  const below: { readonly at: number; readonly by: number }[] = [];
  rows.forEach(({ better, values }, row) => {
    const span = scales[row]?.span ?? 0;
    if (!(span > 0)) return;
    // Merit falls by so much for each unit of the value.
    const slope = ((better === 'more' ? 1 : -1) * (weights[row] ?? 0)) / span;
    const names = [...new Set(values.map(({ meters }) => meters).filter((meters) => meters !== ''))];
    const of = new Float64Array(count);
    values.forEach((one, at) => {
      const u = one.u ?? 0;
      if (one.below) {
        below.push({ at, by: slope * one.value });
        return;
      }
      const common = one.meters === '' ? 0 : Math.min(one.common, u);
      of[at] = slope * common;
      alone[at] = (alone[at] ?? 0) + slope * slope * Math.max(0, u * u - common * common);
    });
    shared.push({
      of,
      groups: Int32Array.from(values, ({ meters }) => names.indexOf(meters)),
      errors: new Float64Array(names.length),
    });
  });
  const spread = alone.map(Math.sqrt);
  const random = seededRandom(20_260_303);
  const normal = seededNormal(random);
  const firsts = new Float64Array(count);
  const sums = new Float64Array(count);
  for (let round = 0; round < draws; round += 1) {
    for (let at = 0; at < count; at += 1) {
      const own = spread[at] ?? 0;
      sums[at] = (merit[at] ?? 0) + (own > 0 ? own * normal() : 0);
    }
    for (const { of, groups, errors } of shared) {
      if (errors.length === 0) continue;
      for (let at = 0; at < errors.length; at += 1) errors[at] = normal();
      for (let at = 0; at < count; at += 1)
        sums[at] = (sums[at] ?? 0) + (of[at] ?? 0) * (errors[groups[at] ?? -1] ?? 0);
    }
    // Anywhere from nought to the bound: as read it counts at the bound.
    for (const { at, by } of below) sums[at] = (sums[at] ?? 0) + by * (random() - 1);
    let best = 0;
    for (let at = 1; at < count; at += 1) if ((sums[at] ?? 0) > (sums[best] ?? 0)) best = at;
    firsts[best] = (firsts[best] ?? 0) + 1;
  }
  return firsts;
}

/** The least change of one weight, the others kept in proportion, at which another overtakes the first. */
function tipOf(row: number, weights: readonly number[], merits: readonly Float64Array[], first: number, count: number) {
  const own = weights[row] ?? 0;
  const rest = 1 - own;
  // Merit of the others alone, at proportions that do not change.
  const others = (at: number) =>
    rest > 0
      ? weights.reduce(
          (sum, weight, other) => (other === row ? sum : sum + (weight / rest) * (merits[other]?.[at] ?? 0)),
          0,
        )
      : 0;
  let found: { readonly to: number; readonly at: number } | null = null;
  for (let at = 0; at < count; at += 1) {
    if (at === first) continue;
    // w·(m − m₁) + (1 − w)·(o − o₁) = 0
    const here = (merits[row]?.[at] ?? 0) - (merits[row]?.[first] ?? 0);
    const there = others(at) - others(first);
    if (here === there) continue;
    const to = there / (there - here);
    // Another must be better beyond that point, not before it.
    if (!(to >= 0 && to <= 1) || Math.abs(to - own) < 1e-12) continue;
    if (found === null || Math.abs(to - own) < Math.abs(found.to - own)) found = { to, at };
  }
  return found;
}

/**
 * Samples by weighted merit, with how stable that is. Merit is linear between the worst and the best of the set, so it is of this
 * set alone, and says nothing beyond it.
 * @param criteria what counts; those with weight 0 or no direction are left out
 * @param draws how often values are drawn from their uncertainties
 */
export function weightedRanking(criteria: readonly Criterion[], draws = 10_000): WeightedRanking {
  const counting = criteria.filter(({ weight, better }) => weight > 0 && Number.isFinite(weight) && better !== null);
  const total = counting.reduce((sum, { weight }) => sum + weight, 0);
  if (!(total > 0)) return NOBODY;
  const maps = counting.map(({ values }) => new Map(values.map((one) => [one.id, one])));
  const ids = [...new Set(counting.flatMap(({ values }) => values.map(({ id }) => id)))];
  const without: { id: string; lacks: string[] }[] = [];
  const whole = ids.filter((id) => {
    const lacks = counting.flatMap(({ title }, at) => {
      const own = maps[at]?.get(id);
      if (!own || !Number.isFinite(own.value)) return [title];
      return own.u === null ? [`uncertainty of ${title}`] : [];
    });
    if (lacks.length > 0) without.push({ id, lacks });
    return lacks.length === 0;
  });
  const count = whole.length;
  if (count === 0) return { ...NOBODY, without };
  const weights = counting.map(({ weight }) => weight / total);
  const rows = counting.map(({ better }, at) => ({
    better,
    values: whole.map((id) => maps[at]?.get(id) as Compared),
  }));
  const turned = rows.map(({ better, values }) => Float64Array.from(values, ({ value }) => asLess(value, better)));
  const scales = turned.map((row): Scale => {
    const low = row.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
    const high = row.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
    return { low, span: high - low };
  });
  const merits = turned.map((row, at) => row.map((one) => meritOf(one, scales[at] as Scale)));
  const merit = whole.map((_id, at) =>
    weights.reduce((sum, weight, row) => sum + weight * (merits[row]?.[at] ?? 0), 0),
  );
  const nominal = bestOf(weights, merits, count);

  const firsts = firstsOf(rows, weights, scales, merit, draws);
  const anywhere = new Float64Array(count);
  const random = seededRandom(40_961);
  for (let turn = 0; turn < TURNS; turn += 1) {
    const best = bestOf(evenWeights(weights.length, random), merits, count);
    anywhere[best] = (anywhere[best] ?? 0) + 1;
  }
  const edge = new Set(notBeaten(whole.map((_id, at) => turned.map((row) => row[at] ?? 0))));
  const ranked = whole
    .map(
      (id, at): Ranked => ({
        id,
        merit: merit[at] ?? 0,
        first: (firsts[at] ?? 0) / draws,
        anyWeights: (anywhere[at] ?? 0) / TURNS,
        notBeaten: edge.has(at),
      }),
    )
    .sort((a, b) => b.merit - a.merit || (a.id < b.id ? -1 : 1));
  const tips = counting
    .flatMap(({ measure, title }, row): Tip[] => {
      const found = tipOf(row, weights, merits, nominal, count);
      return found ? [{ measure, title, from: weights[row] ?? 0, to: found.to, becomes: whole[found.at] ?? '' }] : [];
    })
    .sort((a, b) => Math.abs(a.to - a.from) - Math.abs(b.to - b.from));
  return { ranked, called: (ranked[0]?.first ?? 0) >= CALLED, tips, without };
}
