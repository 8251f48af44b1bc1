// What a capture shows against what was said of it: the supply it was taken at.
import { formatPlain } from '../quantity/index.ts';
import { type Mains, mainsLabel } from '../reading/index.ts';
import type { CaptureFigures } from './types.ts';

/** How far a supply may stand from its name and still be it. */
const NEAR = 0.12;

const near = (value: number, wanted: number): boolean => Math.abs(value - wanted) <= NEAR * wanted;

/** Why a capture cannot be of the supply it is said to be, in a sentence; null when it can. */
export function captureContradiction(mains: Mains, figures: CaptureFigures): string | null {
  if (figures.kind !== 'waveform' || mains.kind !== 'ac') return null;
  const { volts, hertz } = figures;
  if (near(volts, mains.volts) && near(hertz, mains.hertz)) return null;
  return `It shows ${formatPlain(volts, 'voltage')} at ${hertz.toFixed(1)} Hz, not ${mainsLabel(mains)}. Choose the supply it was taken at, or check the probe's scale.`;
}
