// Units of one model as a population: spread between them beside the uncertainty within, and what they say of the next.

import gammaln from '@stdlib/math-base-special-gammaln';
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import { holm } from '../repeats/index.ts';

export interface Components {
  /** Standard deviation between units, and within one. */
  readonly between: number;
  readonly within: number;
  readonly units: number;
  readonly mean: number;
}

/**
 * Spread between units and within them from repeats of each: one-way random effects by the analysis of variance, groups of any
 * size (S. R. Searle, G. Casella, C. E. McCulloch, Variance Components, 3.6). Below nought is nought.
 * @param groups values of each unit; units without any are left out
 * @returns null without two units, or where no unit was read twice
 * @example componentsOf([[91.7, 91.8], [92.1, 92.2], [91.2, 91.1]]) // between 0.501, within 0.071
 */
export function componentsOf(groups: readonly (readonly number[])[]): Components | null {
  const filled = groups.map((group) => group.filter(Number.isFinite)).filter((group) => group.length > 0);
  const count = filled.reduce((sum, group) => sum + group.length, 0);
  const units = filled.length;
  if (units < 2 || count === units) return null;
  const mean = filled.flat().reduce((a, b) => a + b, 0) / count;
  const means = filled.map((group) => group.reduce((a, b) => a + b, 0) / group.length);
  const within =
    filled.reduce((sum, group, at) => sum + group.reduce((own, one) => own + (one - (means[at] ?? 0)) ** 2, 0), 0) /
    (count - units);
  const between =
    filled.reduce((sum, group, at) => sum + group.length * ((means[at] ?? 0) - mean) ** 2, 0) / (units - 1);
  const size = (count - filled.reduce((sum, group) => sum + group.length ** 2, 0) / count) / (units - 1);
  return { between: Math.sqrt(Math.max(0, (between - within) / size)), within: Math.sqrt(within), units, mean };
}

const STEPS = 4000;

/** Probability that a non-central t is at most some value, by integrating over the spread that is found. */
function nonCentralT(value: number, degrees: number, shift: number): number {
  const most = 1 + 12 / Math.sqrt(degrees);
  const constant = Math.log(2) + (degrees / 2) * Math.log(degrees / 2) - gammaln(degrees / 2);
  let sum = 0;
  for (let at = 0; at < STEPS; at += 1) {
    const ratio = ((at + 0.5) * most) / STEPS;
    const density = Math.exp(constant + (degrees - 1) * Math.log(ratio) - (degrees * ratio * ratio) / 2);
    sum += (density * normalCdf(value * ratio - shift, 0, 1) * most) / STEPS;
  }
  return sum;
}

/**
 * Factor of a one-sided tolerance bound: mean ± k·s holds a part of all units with some confidence. G. J. Hahn, W. Q. Meeker,
 * Statistical Intervals (1991), 4.6.3: quantile of the non-central t over √n.
 * @param count units read @param part of all units, 0…1 @param confidence 0…1
 * @returns null for fewer than two units, or parts that are none
 * @example toleranceFactor(5) // 3.407
 */
export function toleranceFactor(count: number, part = 0.9, confidence = 0.95): number | null {
  if (!(Number.isInteger(count) && count >= 2) || !(part > 0 && part < 1) || !(confidence > 0 && confidence < 1))
    return null;
  const shift = normalQuantile(part, 0, 1) * Math.sqrt(count);
  let [low, high] = [0, 10];
  while (nonCentralT(high, count - 1, shift) < confidence && high < 1e6) high *= 2;
  for (let turn = 0; turn < 60; turn += 1) {
    const middle = (low + high) / 2;
    if (nonCentralT(middle, count - 1, shift) < confidence) low = middle;
    else high = middle;
  }
  return (low + high) / 2 / Math.sqrt(count);
}

/** One unit's value. */
export interface UnitValue {
  readonly id: string;
  readonly value: number;
  /** Standard uncertainty; null while not known. */
  readonly u: number | null;
  /** Factory or date code, whatever groups units; empty for none. */
  readonly group: string;
}

export interface Population {
  readonly count: number;
  readonly mean: number;
  /** Standard deviation of what was read; null of one unit. */
  readonly spread: number | null;
  /** What the uncertainty of a reading alone makes of it; null while one is not known. */
  readonly within: number | null;
  /** What is left between units; null while either is not known. */
  readonly between: number | null;
  /** Bound that 90 % of all units are on the good side of, with 95 % confidence; null of one unit. */
  readonly bound: number | null;
  readonly factor: number | null;
  /** Units that are not like the others: one bad unit rather than a bad model. */
  readonly odd: readonly { readonly id: string; readonly probability: number }[];
  /** Groups, where there are at least two of two units or more, with their means. */
  readonly groups: readonly { readonly group: string; readonly count: number; readonly mean: number }[];
}

const ODD = 0.05;

/** How unlike each unit is the others: t of one against the rest (R. A. Fisher's externally studentised deviation), by Holm. */
function oddOf(units: readonly UnitValue[]): Population['odd'] {
  const count = units.length;
  if (count < 4) return [];
  const chances = units.map(({ value, u }, at) => {
    const rest = units.filter((_one, other) => other !== at).map((one) => one.value);
    const mean = rest.reduce((a, b) => a + b, 0) / rest.length;
    const spread = Math.sqrt(rest.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (rest.length - 1));
    // Never finer than the reading itself.
    const scale = Math.max(spread, u ?? 0) * Math.sqrt(1 + 1 / rest.length);
    if (scale === 0) return value === mean ? 1 : 0;
    return 2 * (1 - tCdf(Math.abs(value - mean) / scale, rest.length - 1));
  });
  return holm(chances).flatMap((probability, at) => {
    const unit = units[at];
    return unit && probability < ODD ? [{ id: unit.id, probability }] : [];
  });
}

/**
 * Units of a model by one measure. Two or three units say next to nothing of the next: the factor shows it.
 * @param better which side the bound is on: below the mean where more is better, else above it
 * @returns null without any
 */
export function populationOf(all: readonly UnitValue[], better: 'more' | 'less' | null): Population | null {
  const units = all.filter(({ value }) => Number.isFinite(value));
  const count = units.length;
  if (count === 0) return null;
  const mean = units.reduce((sum, { value }) => sum + value, 0) / count;
  const scattered =
    count < 2 ? null : Math.sqrt(units.reduce((sum, { value }) => sum + (value - mean) ** 2, 0) / (count - 1));
  // What a sum of equal numbers leaves over is no spread.
  const spread = scattered !== null && scattered <= Math.abs(mean) * 1e-12 ? 0 : scattered;
  const known = units.every(({ u }) => u !== null);
  const within = known ? Math.sqrt(units.reduce((sum, { u }) => sum + (u ?? 0) ** 2, 0) / count) : null;
  const factor = toleranceFactor(count);
  const groups = new Map<string, number[]>();
  for (const { group, value } of units) if (group !== '') groups.set(group, [...(groups.get(group) ?? []), value]);
  const told = [...groups].filter(([, values]) => values.length >= 2);
  return {
    count,
    mean,
    spread,
    within,
    between: spread !== null && within !== null ? Math.sqrt(Math.max(0, spread ** 2 - within ** 2)) : null,
    factor,
    bound: factor === null || spread === null ? null : mean + (better === 'more' ? -1 : 1) * factor * spread,
    odd: oddOf(units),
    groups:
      told.length < 2
        ? []
        : told.map(([group, values]) => ({
            group,
            count: values.length,
            mean: values.reduce((a, b) => a + b, 0) / values.length,
          })),
  };
}
