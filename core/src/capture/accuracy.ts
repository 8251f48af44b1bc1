// What probe and scope make of a capture's figures: their uncertainty, or that it is not stated.
import { type AccuracySpec, expandedUncertainty, measured, propagate, specUncertainty } from '../uncertainty/index.ts';
import type { InrushFigures, WaveformFigures } from './types.ts';

/** Accuracy of probe and scope together; left out where nobody stated it. */
export interface ScopeSpecs {
  readonly volts?: AccuracySpec | undefined;
  readonly amps?: AccuracySpec | undefined;
}

/** Relative standard uncertainty of a reading by a spec. */
const relative = (spec: AccuracySpec, value: number): number =>
  value === 0 ? 0 : specUncertainty(spec, value) / Math.abs(value);

/** U of a product or quotient from relative parts; nothing of one scope's error is taken to cancel. */
const expandedOf = (value: number, parts: readonly number[]): number =>
  expandedUncertainty(
    propagate(
      value,
      parts.map((part) => ({ weight: Math.abs(value), of: measured(1, part) })),
    ),
  );

/**
 * Expanded uncertainty of the figures of a waveform, SI: those of power, power factor, crest and distortion from volts
 * and amps by relative squares (JCGM 100:2008, 5.1.6).
 * @returns null where the accuracy of either is not stated
 */
export function waveformAccuracy(
  { volts, amps, watts, powerFactor, currentCrest, currentDistortion, harmonics }: WaveformFigures,
  specs: ScopeSpecs,
): WaveformFigures['expanded'] {
  if (!specs.volts || !specs.amps) return null;
  const v = relative(specs.volts, volts);
  const i = relative(specs.amps, amps);
  const [fundamental = 0] = harmonics;
  return {
    volts: expandedOf(volts, [v]),
    amps: expandedOf(amps, [i]),
    watts: expandedOf(watts, [v, i]),
    powerFactor: expandedOf(powerFactor, [v, i]),
    currentCrest: expandedOf(currentCrest, [i, relative(specs.amps, currentCrest * amps)]),
    currentDistortion: expandedOf(currentDistortion, [
      relative(specs.amps, fundamental),
      relative(specs.amps, currentDistortion * fundamental),
    ]),
  };
}

/** The same of an inrush: its peak, and ∫i²dt, which goes with the square. */
export function inrushAccuracy(
  { peak, squareSeconds }: Pick<InrushFigures, 'peak' | 'squareSeconds'>,
  { amps }: ScopeSpecs,
): InrushFigures['expanded'] {
  if (!amps) return null;
  const i = relative(amps, peak);
  return { peak: expandedOf(peak, [i]), squareSeconds: expandedOf(squareSeconds, [2 * i]) };
}
