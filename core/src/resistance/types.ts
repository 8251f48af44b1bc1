// Readings of a drop, what read them, and what follows.
import type { AccuracySpec, Measured } from '../uncertainty/index.ts';

/** One reading of a drop along a line. */
export interface DropReading {
  /** A */
  readonly amps: number;
  /** V between both ends. */
  readonly drop: number;
  /** V at the near end, where two meters were read; left out or null for a drop read as one. */
  readonly near?: number | null | undefined;
  /** °C of the cable; null where nobody noted it. */
  readonly celsius: number | null;
  /** Which time it was plugged in; left out where it was only once. */
  readonly plugging?: string | undefined;
}

/** What is known of the meters; null for an accuracy nobody stated. */
export interface DropAccuracy {
  readonly amps: AccuracySpec | null;
  /** The meter at the near end; left out where one meter read the drop itself. */
  readonly near?: AccuracySpec | null | undefined;
  /** The meter at the far end, or the one that read the drop. */
  readonly far: AccuracySpec | null;
  /** Ids of the three, for what is missing. */
  readonly meters?: { readonly amps: string | null; readonly near: string | null; readonly far: string | null };
}

export const DROP_FINDINGS = [
  'less than nothing',
  'not a number',
  'one current',
  'two currents',
  'plugged once',
  'warms up',
  'falls with current',
  'one off',
  'pluggings differ',
  'temperature missing',
  'no scatter',
] as const;

export interface DropFinding {
  readonly kind: (typeof DROP_FINDINGS)[number];
  readonly sentence: string;
}

export interface Resistance {
  /** Ω at the temperature it was read at, for a current that does not warm it. */
  readonly ohms: Measured;
  /** Mean temperature of the readings, °C; null where it is not known of all of them. */
  readonly celsius: number | null;
  /** Ω at 20 °C, all of it taken as copper; null without a temperature. */
  readonly at20: Measured | null;
  /** What it rises by with current, Ω/A²; null where the currents do not tell. */
  readonly curvature: Measured | null;
  /** V between both ends without current, as the line has it. */
  readonly offset: number;
  /** How many times it was plugged in. */
  readonly pluggings: number;
  /** Standard deviation from one plugging to the next, Ω; null of one alone. */
  readonly spread: number | null;
  /** What each reading is off the line by, V, in their order. */
  readonly residuals: readonly number[];
  readonly findings: readonly DropFinding[];
}
