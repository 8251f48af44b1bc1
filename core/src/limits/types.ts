// Limit sets are data: formulas by nameplate power, with the text they come from and where they hold.
import type { Mains } from '../reading/index.ts';

/** Nameplate class a limit set distinguishes; the user confirms it. */
export type NameplateClass = 'basic' | 'low-voltage' | 'multiple-voltage';

export type LimitedQuantity = 'average-efficiency' | 'light-load-efficiency' | 'no-load-power';

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
  readonly formulas: readonly LimitFormula[];
}
