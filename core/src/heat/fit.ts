// A warming body with one or two time constants: its steady value with the interval of the profile likelihood.
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { onGrid, type Points, refined, type Solved } from './curve.ts';

export interface WarmFit {
  /** Temperature it approaches, °C (or whatever the values are in). */
  readonly steady: number;
  /** 95 % interval; an end that the readings do not bound is null. */
  readonly interval: readonly [low: number | null, high: number | null];
  /** s, the longest first; empty where it does not move. */
  readonly timeConstants: readonly number[];
  /** Still to come per time constant at t = 0, in the same order. */
  readonly parts: readonly number[];
  /** Standard deviation of one reading about the curve. */
  readonly scatter: number;
}

/** More points than this are averaged in blocks: the curve is smooth. */
const MOST_POINTS = 240;
const CONFIDENCE = 0.95;
/** An interval that reaches further than so many times the whole rise is not bounded. */
const UNBOUNDED = 20;
/** Two time constants closer than this are one. */
const APART = 1.5;

function inBlocks(times: ArrayLike<number>, values: ArrayLike<number>): Points {
  const size = Math.max(1, Math.ceil(times.length / MOST_POINTS));
  const count = Math.floor(times.length / size);
  const t = new Float64Array(count);
  const y = new Float64Array(count);
  for (let block = 0; block < count; block += 1) {
    let sumT = 0;
    let sumY = 0;
    for (let at = block * size; at < (block + 1) * size; at += 1) {
      sumT += times[at] as number;
      sumY += values[at] as number;
    }
    t[block] = sumT / size;
    y[block] = sumY / size;
  }
  return { t, y };
}

/** The best curve with so many time constants. */
function search(points: Points, constants: 1 | 2): Solved | null {
  const start = onGrid(points, constants);
  return start && refined(points, start, null);
}

/** Corrected criterion of Akaike for least squares. C. M. Hurvich, C.-L. Tsai, Biometrika 76 (1989) */
function aicc(squares: number, count: number, parameters: number): number {
  const k = parameters + 1;
  return count > k + 1
    ? count * Math.log(squares / count) + 2 * k + (2 * k * (k + 1)) / (count - k - 1)
    : Number.POSITIVE_INFINITY;
}

/** How much less residuals tell where each is like the one before. */
function alike(points: Points, { taus, steady, parts }: Solved): number {
  let products = 0;
  let squares = 0;
  let before = 0;
  for (let at = 0; at < points.t.length; at += 1) {
    const curve = taus.reduce(
      (sum, tau, which) => sum - (parts[which] as number) * Math.exp(-(points.t[at] as number) / tau),
      steady,
    );
    const residual = (points.y[at] as number) - curve;
    if (at > 0) products += residual * before;
    squares += residual * residual;
    before = residual;
  }
  const correlation = squares > 0 ? products / squares : 0;
  // Within what chance gives, it is none.
  if (correlation < 2 / Math.sqrt(points.t.length)) return 1;
  const held = Math.min(0.9, correlation);
  return (1 + held) / (1 - held);
}

/** An end of the profile interval: the steady value whose best curve is just as much worse as chance allows. */
function boundary(points: Points, best: Solved, allowed: number, direction: 1 | -1, scale: number): number | null {
  let inside = 0;
  let outside = scale / 50;
  let near: Solved = best;
  const worse = (away: number): boolean => {
    const found = refined(points, near, best.steady + direction * away);
    near = found;
    return found.squares > allowed;
  };
  while (!worse(outside)) {
    inside = outside;
    outside *= 2;
    if (outside > UNBOUNDED * scale) return null;
  }
  for (let turn = 0; turn < 12; turn += 1) {
    const middle = (inside + outside) / 2;
    if (worse(middle)) outside = middle;
    else inside = middle;
  }
  return best.steady + direction * ((inside + outside) / 2);
}

/**
 * Fit the warming (or cooling) of a body to a steady value.
 * @param times s, rising
 * @param values the same number, none of them NaN
 * @param resolution step of the thermometer; scatter is never taken as less than it gives
 * @returns null for fewer than four readings, which decide nothing
 * @example warmFit([0, 300, 1200, 2400, 3600], [24.6, 34.16, 51.49, 60.87, 64.14])?.steady // 65.9
 */
export function warmFit(times: ArrayLike<number>, values: ArrayLike<number>, resolution = 0): WarmFit | null {
  if (times.length < 4) return null;
  const points = inBlocks(times, values);
  const n = points.t.length;
  const size = times.length / n;
  const floor = (n * resolution ** 2) / 12 / size;
  const one = search(points, 1);
  const two = n >= 8 ? search(points, 2) : null;
  const mean = points.y.reduce((sum, value) => sum + value, 0) / n;
  const flat = points.y.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  const rises = one !== null && moves(flat, one.squares + floor, n);
  const scored: { readonly constants: 0 | 1 | 2; readonly solved: Solved | null; readonly score: number }[] = [
    { constants: 0 as const, solved: null, score: rises ? Number.POSITIVE_INFINITY : aicc(flat + floor, n, 1) },
    ...(one && rises
      ? [{ constants: 1 as const, solved: one, score: Math.min(MOST_SCORE, aicc(one.squares + floor, n, 3)) }]
      : []),
    ...(two && apart(two)
      ? [{ constants: 2 as const, solved: two, score: aicc(two.squares + floor, n, 5) + CLEARLY }]
      : []),
  ].sort((a, b) => a.score - b.score || b.constants - a.constants);
  const [best] = scored;
  if (!best) return null;
  const { constants, solved } = best;
  if (constants === 0 || !solved) {
    const sigma = Math.sqrt((flat + floor) / (n - 1));
    const half = (tQuantile(0.5 + CONFIDENCE / 2, n - 1) * sigma) / Math.sqrt(n);
    return {
      steady: mean,
      interval: [mean - half, mean + half],
      timeConstants: [],
      parts: [],
      scatter: sigma * Math.sqrt(size),
    };
  }
  const ends = scored.flatMap(({ constants: those, solved: other, score }) =>
    // Another curve that explains nearly as much speaks too.
    other && those > 0 && score - best.score < CLOSE && those <= best.constants
      ? [intervalOf(points, other, those, floor)]
      : [],
  );
  const lows = ends.map(([low]) => low);
  const highs = ends.map(([, high]) => high);
  const order = solved.taus.map((_, at) => at).sort((a, b) => (solved.taus[b] as number) - (solved.taus[a] as number));
  return {
    steady: solved.steady,
    interval: [
      lows.includes(null) ? null : Math.min(...(lows as number[])),
      highs.includes(null) ? null : Math.max(...(highs as number[])),
    ],
    timeConstants: order.map((at) => solved.taus[at] as number),
    parts: order.map((at) => solved.parts[at] as number),
    scatter: Math.sqrt((solved.squares + floor) / Math.max(1, n - 1 - 2 * constants)) * Math.sqrt(size),
  };
}

/** So few readings that the criterion is not defined: a curve that explains more than chance stands all the same. */
const MOST_SCORE = 1e9;

/** Whether a curve explains more than chance: by the F-test of its two further parameters. */
function moves(flat: number, squares: number, count: number): boolean {
  if (count < 4) return false;
  return atMost((flat - squares) / 2 / Math.max(squares / (count - 3), 1e-18), count - 3) > CONFIDENCE;
}

/** Distribution of F with two degrees of freedom above: closed. */
const atMost = (f: number, below: number): number => (f > 0 ? 1 - (1 + (2 * f) / below) ** (-below / 2) : 0);

/** A second time constant must explain more by this much of the criterion: less is chance. */
const CLEARLY = 4;

/** A second curve within this of the best one's criterion is kept for the interval. */
const CLOSE = 2;

function apart({ taus, parts }: Solved): boolean {
  const [a = 1, b = 1] = taus;
  return Math.max(a, b) / Math.min(a, b) > APART && parts.every((part) => Number.isFinite(part));
}

/** The number of time constants was chosen by the same readings: the interval is that much wider, so that it holds the truth as often as it says. */
const CHOSEN = 1.03;

function intervalOf(
  points: Points,
  solved: Solved,
  constants: number,
  floor: number,
): readonly [number | null, number | null] {
  const n = points.t.length;
  const freedom = Math.max(1, n - 1 - 2 * constants);
  const t = CHOSEN * tQuantile(0.5 + CONFIDENCE / 2, freedom);
  const squares = Math.max(solved.squares, floor * (freedom / n));
  const allowed = solved.squares + (squares / freedom) * t * t * alike(points, solved);
  const span = Math.max(...points.y) - Math.min(...points.y);
  const scale = Math.max(span, Math.sqrt(squares / freedom), 1e-6);
  return [boundary(points, solved, allowed, -1, scale), boundary(points, solved, allowed, 1, scale)];
}

/** Value of a fitted curve, s after its start. */
export const warmAt = (
  { steady, timeConstants, parts }: Pick<WarmFit, 'steady' | 'timeConstants' | 'parts'>,
  seconds: number,
): number => timeConstants.reduce((sum, tau, at) => sum - (parts[at] as number) * Math.exp(-seconds / tau), steady);

/** s from its start until no more than `left` is still to come, by the curve; null where it never is within a year. */
export function settledAfter(fit: Pick<WarmFit, 'steady' | 'timeConstants' | 'parts'>, left = 1): number | null {
  const away = (seconds: number) => Math.abs(fit.steady - warmAt(fit, seconds));
  if (away(0) < left) return 0;
  let high = 60;
  while (away(high) >= left) {
    high *= 2;
    if (high > 3.2e7) return null;
  }
  let low = 0;
  for (let turn = 0; turn < 60; turn += 1) {
    const middle = (low + high) / 2;
    if (away(middle) >= left) low = middle;
    else high = middle;
  }
  return high;
}
