// The line through drops at several currents.
import { type Fitted, leastSquares } from '../least-squares/index.ts';
import { type Measured, measured } from '../uncertainty/index.ts';
import type { DropReading } from './types.ts';

/** Currents closer than this part of the highest count as one. */
export const SAME_CURRENT = 0.02;

export const distinct = (currents: readonly number[]): number => {
  const apart = SAME_CURRENT * Math.max(...currents.map(Math.abs));
  const sorted = [...currents].sort((a, b) => a - b);
  let last = Number.NEGATIVE_INFINITY;
  let count = 0;
  for (const one of sorted)
    if (one - last > apart) {
      count += 1;
      last = one;
    }
  return count;
};

export const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length;

/** What a line through the readings says, before the meters' own errors. */
export interface Line {
  readonly slope: number;
  readonly offset: number;
  /** Standard uncertainty of the slope by scatter, with its degrees of freedom. */
  readonly u: number;
  readonly degrees: number;
  readonly curvature: Measured | null;
  readonly spread: number | null;
  readonly residuals: readonly number[];
  /** How far an error that all readings at one current share moves the slope, root of the squares over the currents, 1/A. */
  readonly lever: number;
  /** The reading that stands apart from all others, and by how much, V. */
  readonly off: { readonly at: number; readonly off: number } | null;
}

/** u and degrees of two parts together. JCGM 100:2008, G.4.1 */
function together(a: number, aDegrees: number, b: number, bDegrees: number): { u: number; degrees: number } {
  const whole = a + b;
  if (whole === 0) return { u: 0, degrees: Number.POSITIVE_INFINITY };
  const below = (a > 0 ? a ** 2 / aDegrees : 0) + (b > 0 ? b ** 2 / bDegrees : 0);
  return { u: Math.sqrt(whole), degrees: Math.max(1, whole ** 2 / below) };
}

/** Beyond this part of what would make it run away, warming is no small thing any more, and only its first term is fitted. */
const RUNS_AWAY = 0.8;
const TURNS = 12;

interface Shape {
  readonly rows: readonly (readonly number[])[];
  readonly fit: Fitted;
}

/**
 * Fit drops of several pluggings: an offset, a slope each, and warming. What warms by θ·I²·R, with R of copper, has
 * R/(1 − q·I²) with q = c/R: its first term is c·I², and the others follow from it. By Gauss and Newton from the first term on.
 */
function shapeOf(
  currents: readonly number[],
  drops: readonly number[],
  own: readonly (readonly number[])[],
  warms: boolean,
): Shape | null {
  const plain = currents.map((x, at) => [1, ...(own[at] as readonly number[]), ...(warms ? [x ** 3] : [])]);
  const first = leastSquares(plain, drops);
  if (!first || !warms) return first && { rows: plain, fit: first };
  const slopes = (own[0] as readonly number[]).length;
  const most = Math.max(...currents.map(Math.abs));
  let parameters = first.coefficients;
  for (let turn = 0; turn < TURNS; turn += 1) {
    const mine = parameters.slice(1, 1 + slopes);
    const ohms = mean(mine);
    const c = parameters[1 + slopes] as number;
    const q = c / ohms;
    if (!(Math.abs(q) * most ** 2 < RUNS_AWAY)) break;
    const rows = currents.map((x, at) => {
      const below = (1 - q * x ** 2) ** 2;
      const byMean = (-(q ** 2) * x ** 5) / below / slopes;
      return [1, ...(own[at] as readonly number[]).map((one) => one + byMean), x ** 3 / below];
    });
    const left = currents.map((x, at) => {
      const line = (own[at] as readonly number[]).reduce((sum, one, group) => sum + one * (mine[group] as number), 0);
      return (drops[at] as number) - (parameters[0] as number) - line - (c * x ** 3) / (1 - q * x ** 2);
    });
    const step = leastSquares(rows, left);
    if (!step) break;
    parameters = parameters.map((one, at) => one + (step.coefficients[at] as number));
    const small = step.coefficients.every(
      (one, at) => Math.abs(one) <= 1e-9 * Math.abs(parameters[at] as number) + 1e-12,
    );
    if (small) return { rows, fit: { ...step, coefficients: parameters } };
  }
  return { rows: plain, fit: first };
}

/**
 * Slope of drop over current, with an offset the meters may have and a part by which it warms. Each plugging has a slope of
 * its own.
 * @param currents times the copper factor where each reading has its own temperature
 * @param floor variance that rounding alone brings to a drop, V²: of one reading that stands apart
 */
export function lineOf(
  currents: readonly number[],
  readings: readonly DropReading[],
  groups: readonly string[],
  floor: number,
): Line | null {
  const drops = readings.map(({ drop }) => drop);
  const count = groups.length;
  const bends = distinct(readings.map(({ amps }) => amps)) >= 3 && readings.length - count - 2 >= 2;
  const own = readings.map(({ plugging = '' }, at) => {
    const x = currents[at] as number;
    return count > 1 ? groups.map((one) => (one === plugging ? x : 0)) : [x];
  });
  const shape = shapeOf(currents, drops, own, bends);
  if (!shape || shape.fit.degrees < 1)
    return count > 1
      ? lineOf(
          currents,
          readings.map((one) => ({ ...one, plugging: '' })),
          [''],
          floor,
        )
      : null;
  const { rows, fit } = shape;
  const variance = fit.rest / fit.degrees;
  const at = (i: number, j: number) => (fit.inverse[i]?.[j] ?? 0) * variance;
  const slopes = groups.map((_, index) => fit.coefficients[1 + index] as number);
  const last = rows[0] ? rows[0].length - 1 : 0;
  const curvature = bends
    ? measured(fit.coefficients[last] as number, 0, Math.sqrt(at(last, last)), fit.degrees)
    : null;
  const base = {
    offset: fit.coefficients[0] as number,
    curvature,
    residuals: fit.residuals,
    lever: leverOf(rows, fit.inverse, count, readings),
    off: oneOff(rows, drops, fit.residuals, floor),
  };
  if (count === 1)
    return { ...base, slope: slopes[0] as number, u: Math.sqrt(at(1, 1)), degrees: fit.degrees, spread: null };
  const slope = mean(slopes);
  const between = slopes.reduce((sum, one) => sum + (one - slope) ** 2, 0) / (count - 1);
  // What all pluggings share by the offset and the curvature does not show between them.
  let shared = 0;
  for (let i = 0; i < count; i += 1) for (let j = 0; j < count; j += 1) if (i !== j) shared += at(1 + i, 1 + j);
  const common = Math.max(0, shared / (count * (count - 1)));
  return { ...base, slope, ...together(between / count, count - 1, common, fit.degrees), spread: Math.sqrt(between) };
}

/**
 * What a last digit does: where all readings at one current are the same it hides, however often they are taken; as far as they
 * differ the scatter shows it.
 */
function leverOf(
  rows: readonly (readonly number[])[],
  inverse: readonly (readonly number[])[],
  slopes: number,
  readings: readonly DropReading[],
): number {
  const apart = SAME_CURRENT * Math.max(...readings.map(({ amps }) => Math.abs(amps)));
  const levels = new Map<number, { weight: number; seen: Map<number, number>; count: number }>();
  rows.forEach((row, at) => {
    let weight = 0;
    for (let slope = 1; slope <= slopes; slope += 1)
      weight += row.reduce((sum, cell, i) => sum + cell * (inverse[slope]?.[i] ?? 0), 0) / slopes;
    const { amps, drop } = readings[at] as DropReading;
    const key = Math.round(amps / apart / 2);
    const level = levels.get(key) ?? { weight: 0, seen: new Map<number, number>(), count: 0 };
    levels.set(key, level);
    const value = Math.round(drop * 1e7);
    level.weight += weight;
    level.count += 1;
    level.seen.set(value, (level.seen.get(value) ?? 0) + 1);
  });
  return Math.hypot(
    ...[...levels.values()].map(({ weight, seen, count }) => {
      const alike = Math.max(...seen.values());
      return weight * (count > 1 ? (alike - 1) / (count - 1) : 1);
    }),
  );
}

/** A reading this many standard deviations off the line of all others stands apart. */
const ONE_OFF = 8;

/** The reading furthest off the line, where it stands apart from the line of all others: an open for a moment, or a slip of the pen. */
function oneOff(
  rows: readonly (readonly number[])[],
  drops: readonly number[],
  residuals: readonly number[],
  floor: number,
) {
  if (rows.length < 6) return null;
  const at = residuals.reduce(
    (worst, one, index) => (Math.abs(one) > Math.abs(residuals[worst] as number) ? index : worst),
    0,
  );
  const others = <T>(all: readonly T[]) => all.filter((_, index) => index !== at);
  const fit = leastSquares(others(rows), others(drops));
  if (!fit || fit.degrees < 1) return null;
  const row = rows[at] as readonly number[];
  const off = row.reduce(
    (left, cell, column) => left - cell * (fit.coefficients[column] as number),
    drops[at] as number,
  );
  const lever = row.reduce(
    (sum, cell, i) => sum + row.reduce((inner, other, j) => inner + cell * other * (fit.inverse[i]?.[j] ?? 0), 0),
    1,
  );
  const usual = Math.sqrt(Math.max(fit.rest / fit.degrees, floor, 1e-12) * lever);
  return Math.abs(off) > ONE_OFF * usual ? { at, off } : null;
}
