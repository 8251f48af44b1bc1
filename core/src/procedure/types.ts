// A test procedure as data: what a result must have behind it before a limit set's verdict may be spoken.
import type { SettleRule } from './settle-rule.ts';

export interface Procedure {
  readonly id: string;
  readonly title: string;
  /** The text it comes from. */
  readonly source: string;
  /** Least time at full load before the first point at a supply, s. */
  readonly warmUp: number;
  readonly settle: SettleRule;
  /** How far the supply may be off, as fractions. */
  readonly sourceVolts: number;
  readonly sourceHertz: number;
  /** Most distortion of the supply, as a fraction (to the 13th harmonic). */
  readonly sourceDistortion: number;
  /** Crest factor of the supply. */
  readonly sourceCrest: { readonly low: number; readonly high: number };
  /** Most expanded uncertainty of a power from 0.5 W on, as a fraction, and below it, W. At 95 %. */
  readonly meterFraction: number;
  readonly meterBelow: number;
}
