// Whether a load point has settled, and over what it is then averaged.
import type { SettleRule } from '../procedure/index.ts';

/** One look at the input power. */
export interface Look {
  /** Instrument time, s. */
  readonly seconds: number;
  /** W */
  readonly value: number;
  /** Extremes, W, where it stands for a stretch of looks. */
  readonly least?: number;
  readonly most?: number;
}

export interface Settling {
  readonly done: boolean;
  /** Averaged because it did not settle. */
  readonly averaged: boolean;
  /** Largest less smallest over the stretch, as a fraction of the largest; null while nothing was seen. */
  readonly drift: number | null;
  /** From when on the looks count, s. */
  readonly from: number;
  /** How much of the stretch has passed, 0…1. */
  readonly share: number;
}

/**
 * Judge the looks since the point was set: settled when input power drifts less than the rule allows over its stretch;
 * when it will not, it goes on as long as it may, and then the last of it is averaged. No rule settles at once. 10 CFR 430 subpart B appendix Z, 3(a)(1)(iii)
 * @param looks oldest first; what is not finite is left out
 */
export function settling(looks: readonly Look[], rule: SettleRule | null): Settling {
  const seen = looks.filter(({ seconds, value }) => Number.isFinite(seconds) && Number.isFinite(value));
  const [first] = seen;
  const last = seen.at(-1);
  if (!first || !last) return { done: false, averaged: false, drift: null, from: 0, share: 0 };
  if (!rule) return { done: true, averaged: false, drift: null, from: first.seconds, share: 1 };
  const span = last.seconds - first.seconds;
  const from = last.seconds - rule.over;
  const stretch = seen.filter(({ seconds }) => seconds >= from);
  const most = stretch.reduce((top, look) => Math.max(top, look.most ?? look.value), Number.NEGATIVE_INFINITY);
  const least = stretch.reduce((low, look) => Math.min(low, look.least ?? look.value), Number.POSITIVE_INFINITY);
  const drift = most > 0 ? (most - least) / most : null;
  const enough = span >= rule.over - 1e-9 && stretch.length >= 2;
  if (enough && drift !== null && drift <= rule.fraction) return { done: true, averaged: false, drift, from, share: 1 };
  if (span >= Math.max(rule.average, rule.longest ?? 0) - 1e-9)
    return { done: true, averaged: true, drift, from: last.seconds - rule.average, share: 1 };
  return { done: false, averaged: false, drift, from, share: Math.min(1, span / rule.over) };
}
