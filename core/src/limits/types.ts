// Limit sets are data: formulas by nameplate power, with the text they come from and where they hold.
import type { Mains } from '../reading/index.ts';

/** Nameplate class a limit set distinguishes; the user confirms it. */
export const NAMEPLATE_CLASSES = ['basic', 'low-voltage', 'multiple-voltage'] as const;
export type NameplateClass = (typeof NAMEPLATE_CLASSES)[number];

export const LIMITED_QUANTITIES = ['average-efficiency', 'light-load-efficiency', 'no-load-power'] as const;
export type LimitedQuantity = (typeof LIMITED_QUANTITIES)[number];

/** limit = constant + perWatt·P + perLog·ln P for nameplate output power P in W, up to a power. */
export interface Piece {
  /** Upper end of the piece, W; null when it has none. */
  readonly upTo: number | null;
  /** Whether the upper end belongs to this piece. */
  readonly inclusive: boolean;
  readonly constant: number;
  readonly perWatt: number;
  readonly perLog: number;
}

export interface LimitFormula {
  readonly quantity: LimitedQuantity;
  readonly nameplateClass: NameplateClass;
  readonly pieces: readonly Piece[];
}

/** A worked value of the text: what the formula must give, and within what. */
export interface LimitTest {
  readonly quantity: LimitedQuantity;
  readonly nameplateClass: NameplateClass;
  readonly watts: number;
  readonly value: number;
  /** Half a unit of the last digit given. */
  readonly within: number;
}

export interface LimitSet {
  readonly id: string;
  readonly title: string;
  readonly jurisdiction: string;
  /** The text the formulas come from. */
  readonly source: string;
  /** ISO date the formulas were last compared with that text. */
  readonly checked: string;
  readonly validFrom: string;
  readonly validTo: string | null;
  readonly note: string;
  /** The supply a verdict is taken at; at any other it is indicative. */
  readonly mains: Mains;
  /** The procedure its results are taken by. */
  readonly procedureId: string;
  /** Current at 100 % of an adaptive supply at its lowest level, where the text fixes it; null takes the nameplate's. */
  readonly adaptiveLow: { readonly volts: number; readonly amps: number } | null;
  readonly formulas: readonly LimitFormula[];
  /** Worked values the formulas are held against. */
  readonly tests: readonly LimitTest[];
}
