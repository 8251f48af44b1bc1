// Harmonics of the mains current against the limits for equipment of class A. IEC 61000-3-2:2018 + A1:2020, 6 and 7.
import { type DecisionRule, decide } from '../decision/index.ts';
import type { ClaimState } from '../evidence/index.ts';
import { worstOf } from '../evidence/index.ts';
import { type Mains, mainsLabel } from '../reading/index.ts';
import { measured, type Unstated } from '../uncertainty/index.ts';

/** The limits as data. */
export const CLASS_A = {
  id: 'iec-61000-3-2-a',
  title: 'Harmonics, class A',
  source: 'IEC 61000-3-2:2018 + A1:2020, table 1, for rated input above 75 W; confirm against the current text',
  /** W of rated input up to which there are no limits, clause 7. */
  from: 75,
  /** V of the supply from which on there are limits, clause 1. */
  leastVolts: 218,
  /** Currents below the greater of these are left out, 6.3.3: a part of the input current, and A. */
  least: { part: 0.006, amps: 0.005 },
} as const;

const ODD: Readonly<Record<number, number>> = { 3: 2.3, 5: 1.14, 7: 0.77, 9: 0.4, 11: 0.33, 13: 0.21 };
const EVEN: Readonly<Record<number, number>> = { 2: 1.08, 4: 0.43, 6: 0.3 };
const LAST = 40;

/**
 * Most current of a harmonic, A; null for the fundamental and for orders without a limit.
 * @example classALimit(3) // 2.3
 * @example classALimit(15) // 0.15
 * @example classALimit(40) // 0.046
 */
export function classALimit(order: number): number | null {
  if (!Number.isInteger(order) || order < 2 || order > LAST) return null;
  if (order % 2 === 1) return ODD[order] ?? (0.15 * 15) / order;
  return EVEN[order] ?? (0.23 * 8) / order;
}

export interface HarmonicLine {
  readonly order: number;
  /** A */
  readonly amps: number;
  readonly most: number;
  readonly state: ClaimState;
}

export interface HarmonicResult {
  readonly captureId: string;
  readonly takenAt: string;
  readonly conditions: string;
  /** Orders that count, in order. */
  readonly lines: readonly HarmonicLine[];
  /** The one nearest to its limit, or furthest over it; null where none counts. */
  readonly nearest: HarmonicLine | null;
  readonly state: ClaimState;
}

/** A capture of the mains as far as harmonics go. */
export interface HarmonicFigures {
  readonly amps: number;
  readonly harmonics: readonly number[];
  readonly expanded?: { readonly amps: number } | null | undefined;
}

/**
 * Harmonics of one capture held against class A. The uncertainty of each is that of the current, in proportion.
 * @returns null where the text has no limits for the supply
 */
export function harmonicsOf(
  figures: HarmonicFigures,
  of: { readonly id: string; readonly takenAt: string; readonly mains: Mains; readonly load: number },
  rule: DecisionRule,
): HarmonicResult | null {
  if (of.mains.kind !== 'ac' || of.mains.volts < CLASS_A.leastVolts || !(figures.amps > 0)) return null;
  const { expanded } = figures;
  const part = expanded ? expanded.amps / figures.amps : null;
  const unstated: readonly Unstated[] = part === null ? [{ meter: null, quantity: 'current' }] : [];
  const least = Math.max(CLASS_A.least.part * figures.amps, CLASS_A.least.amps);
  const lines = figures.harmonics.flatMap((amps, index): HarmonicLine[] => {
    const order = index + 1;
    const most = classALimit(order);
    if (most === null || !(amps >= least)) return [];
    const value = measured(amps, ((part ?? 0) * amps) / 2, 0, Number.POSITIVE_INFINITY, unstated);
    return [{ order, amps, most, state: decide(value, { kind: 'at-most', high: most }, rule).outcome }];
  });
  const nearest = lines.reduce<HarmonicLine | null>(
    (most, one) => (most === null || one.amps / one.most > most.amps / most.most ? one : most),
    null,
  );
  return {
    captureId: of.id,
    takenAt: of.takenAt,
    conditions: `${Math.round(of.load * 100)} % load, ${mainsLabel(of.mains)}`,
    lines,
    nearest,
    // Below what counts all of them are small: nothing is left that could be over.
    state: worstOf(lines.map(({ state }) => state)) ?? 'proven',
  };
}

/** The capture nearest to its limits, or furthest over them; null where there is none. */
export function nearestToLimits(all: readonly HarmonicResult[]): HarmonicResult | null {
  const part = ({ nearest }: HarmonicResult) => (nearest ? nearest.amps / nearest.most : 0);
  return all.reduce<HarmonicResult | null>((a, b) => (a && part(a) >= part(b) ? a : b), null);
}

/**
 * Whether the limits hold for it: its rated input is above 75 W for certain, below it for certain, or cannot be told.
 * @param nameplate output, W; null where not known
 * @param drawn the most it was read to draw, W; null where nobody read
 */
export function limitsHold(nameplate: number | null, drawn: number | null): boolean | null {
  if ((nameplate ?? 0) > CLASS_A.from || (drawn ?? 0) > CLASS_A.from) return true;
  if (nameplate === null) return null;
  // No charger loses more than three tenths at its rated load.
  return nameplate / 0.7 <= CLASS_A.from ? false : null;
}
