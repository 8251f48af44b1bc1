// Former winners: who was first when, what ousted each, and how the field moved with the years.
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import type { Better } from '../measure/index.ts';
import { asLess } from './edge.ts';
import type { Compared } from './values.ts';
import { CALLED } from './winner.ts';

/** Somebody first for a while. */
export interface Reign {
  readonly id: string;
  readonly value: number;
  /** ISO day it became first, and on which it was ousted; null while it still is. */
  readonly from: string;
  readonly until: string | null;
  /** Probability that it is better than the one it ousted; null for the first of all. */
  readonly certainty: number | null;
}

/**
 * Probability that one value is better than another, both normal; what the same meters share cancels in proportion.
 * @returns null while an uncertainty is not known; 0.5 for equals without one
 */
export function chanceBetter(one: Compared, other: Compared, better: Better): number | null {
  if (better === null || one.u === null || other.u === null) return null;
  const shared =
    one.meters !== '' && one.meters === other.meters
      ? Math.min(one.common, one.u) * Math.min(other.common, other.u)
      : 0;
  const spread = Math.sqrt(Math.max(0, one.u ** 2 + other.u ** 2 - 2 * shared));
  const lead = asLess(other.value, better) - asLess(one.value, better);
  if (spread === 0) return lead > 0 ? 1 : lead < 0 ? 0 : 0.5;
  return normalCdf(lead / spread, 0, 1);
}

/**
 * Who was first when, in the order the values were taken. A new one becomes first only where its lead is more than the uncertainty
 * (95 %); values without a date or an uncertainty oust nobody.
 */
export function reignsOf(values: readonly Compared[], better: Better): readonly Reign[] {
  const dated = values
    .filter((one): one is Compared & { at: string } => one.at !== null && Number.isFinite(one.value) && one.u !== null)
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1));
  const reigns: Reign[] = [];
  let now: (Compared & { at: string }) | null = null;
  for (const one of dated) {
    const certainty = now === null ? null : chanceBetter(one, now, better);
    if (better === null || (now !== null && !(certainty !== null && certainty >= CALLED))) continue;
    const day = one.at.slice(0, 10);
    const before = reigns.pop();
    if (before) reigns.push({ ...before, until: day });
    reigns.push({ id: one.id, value: one.value, from: day, until: null, certainty });
    now = one;
  }
  return reigns;
}

export interface YearOf {
  readonly year: number;
  readonly count: number;
  readonly median: number;
  readonly best: number;
}

/** The field year by year: how many, their median, the best of that year. */
export function yearsOf(values: readonly Compared[], better: Better): readonly YearOf[] {
  const years = new Map<number, number[]>();
  for (const { at, value } of values)
    if (at !== null && Number.isFinite(value)) {
      const year = Number(at.slice(0, 4));
      years.set(year, [...(years.get(year) ?? []), value]);
    }
  return [...years]
    .sort(([a], [b]) => a - b)
    .map(([year, all]) => {
      const sorted = [...all].sort((a, b) => a - b);
      const middle = sorted.length >> 1;
      const median =
        sorted.length % 2 === 1 ? (sorted[middle] ?? 0) : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
      return { year, count: all.length, median, best: (better === 'more' ? sorted.at(-1) : sorted[0]) ?? 0 };
    });
}
