// Wire by its resistance: which gauge it behaves like, and what of a cable is contact.
import { leastSquares } from '../least-squares/index.ts';

/** Ω/m of copper wire at 20 °C by gauge, AWG. ASTM B258-18 with IEC 60228 resistivity. */
export const OHMS_PER_METRE: readonly (readonly [gauge: number, ohms: number])[] = [
  [20, 0.0333],
  [22, 0.053],
  [24, 0.0842],
  [26, 0.1339],
  [28, 0.2129],
  [30, 0.3386],
];

/**
 * The gauge a conductor behaves like, between the whole ones by the logarithm of its resistance; the steps of the gauge go on
 * beyond the table.
 * @param ohmsPerMetre of one conductor, without contacts, at 20 °C
 * @returns null for what is no resistance
 * @example gaugeOf(0.0842) // 24
 */
export function gaugeOf(ohmsPerMetre: number): number | null {
  if (!(ohmsPerMetre > 0) || !Number.isFinite(ohmsPerMetre)) return null;
  const logs = OHMS_PER_METRE.map(([gauge, ohms]) => [gauge, Math.log(ohms)] as const);
  const at = Math.log(ohmsPerMetre);
  const above = logs.findIndex(([, log]) => log >= at);
  const index = above === -1 ? logs.length - 1 : Math.max(1, above);
  const [lowGauge, low] = logs[index - 1] as readonly [number, number];
  const [highGauge, high] = logs[index] as readonly [number, number];
  return lowGauge + ((at - low) / (high - low)) * (highGauge - lowGauge);
}

/** One length of a wire. */
export interface OfLength {
  /** m */
  readonly length: number;
  /** Ω of the loop at 20 °C. */
  readonly ohms: number;
}

export interface Shared {
  /** Ω of all contacts together. */
  readonly contact: number;
  /** Ω/m of the loop: both conductors. */
  readonly perMetre: number;
  /** Standard uncertainty of the contacts, Ω; null of two lengths, which lie on any line. */
  readonly uContact: number | null;
}

/**
 * What is contact and what is wire, by cables of one wire and several lengths: the line's start and its slope.
 * @returns null with fewer than two lengths, or where the line has no sense (a contact or a wire below nought)
 * @example contactShare([{ length: 1, ohms: 0.1 }, { length: 2, ohms: 0.18 }]) // contact 0.02, perMetre 0.08
 */
export function contactShare(cables: readonly OfLength[]): Shared | null {
  const fit = leastSquares(
    cables.map(({ length }) => [1, length]),
    cables.map(({ ohms }) => ohms),
  );
  if (!fit) return null;
  const [contact = 0, perMetre = 0] = fit.coefficients;
  const uContact = fit.degrees > 0 ? Math.sqrt(((fit.inverse[0]?.[0] ?? 0) * fit.rest) / fit.degrees) : null;
  if (!(perMetre > 0) || contact < -2 * (uContact ?? 0)) return null;
  return { contact: Math.max(0, contact), perMetre, uContact };
}
