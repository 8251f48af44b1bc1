// Everything in line between port and load, and what it may carry.
import { formatPlain } from '../quantity/index.ts';

/** What can sit in the line. */
export const ELEMENT_KINDS = ['cable', 'extension', 'adapter', 'data blocker', 'inline meter'] as const;
/** Where a rating comes from; it is said with every refusal. */
export const RATING_BASES = ['marker', 'certified', 'own rule', 'not stated'] as const;
export type RatingBasis = (typeof RATING_BASES)[number];

/** One thing in the line, in order from the port. */
export interface LineElement {
  readonly kind: (typeof ELEMENT_KINDS)[number];
  readonly name: string;
  /** Rated current, A; null where nothing states it. */
  readonly amps: number | null;
  /** Rated voltage, V; null where nothing states it. */
  readonly volts: number | null;
  readonly basis: RatingBasis;
  /** The sample of the shelf it is; left out or null for one that is none. */
  readonly sampleId?: string | null | undefined;
  /** Its resistance there and back at 20 °C as it was measured, Ω, with its expanded uncertainty, and the day; null while it was not. */
  readonly calibrated?: { readonly ohms: number; readonly expanded: number; readonly on: string } | null | undefined;
}

/** What a cable without a marker or a stated rating may carry: 3 A at 20 V. USB Type-C R2.3, 4.5. */
export const UNSTATED_AMPS = 3;
export const UNSTATED_VOLTS = 20;

const BASIS_WORDS: Readonly<Record<RatingBasis, string>> = {
  marker: 'by its marker',
  certified: 'by its certified rating',
  'own rule': 'by your own rule',
  'not stated': 'no marker and no rating stated: at most 3 A, 60 W',
};

const ampsOf = (element: LineElement): number => element.amps ?? UNSTATED_AMPS;
const voltsOf = (element: LineElement): number => element.volts ?? UNSTATED_VOLTS;

/**
 * Why a step may not be run over this line, in a sentence that names the element, its rating and where that comes
 * from; null when it may.
 * @param volts level, V. PPS runs up to 21 V on a 20 V line.
 * @param amps current, A
 */
export function lineRefusal(elements: readonly LineElement[], volts: number, amps: number): string | null {
  for (const element of elements) {
    const most = ampsOf(element);
    const highest = voltsOf(element);
    const basis = BASIS_WORDS[element.basis];
    if (amps > most * 1.005 + 1e-9)
      return `${formatPlain(amps, 'current')} is more than the ${element.kind} "${element.name}" carries: ${formatPlain(most, 'current')}, ${basis}.`;
    if (volts > highest * 1.055)
      return `${formatPlain(volts, 'voltage')} is more than the ${element.kind} "${element.name}" is made for: ${formatPlain(highest, 'voltage')}, ${basis}.`;
  }
  return null;
}

/** Elements whose drop the meter at the port does not see: they sit before it. */
export function beforeMeter(elements: readonly LineElement[]): readonly LineElement[] {
  const at = elements.findIndex(({ kind }) => kind === 'inline meter');
  return at > 0 ? elements.slice(0, at) : [];
}
