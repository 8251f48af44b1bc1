// What sits in a line between charger and device, as it is taken in.
import type { LineElement } from '../reading/index.ts';

export const ENDS = ['C plug', 'C socket', 'A plug', 'A socket', 'captive', 'other'] as const;
export type End = (typeof ENDS)[number];

export const RELIEFS = ['none', 'short', 'long', 'moulded'] as const;

/** How stiff it is, by something anyone can measure again. */
export type Stiffness =
  /** Held level at one point, its end hangs down by `droop` over a free length; m. */
  | { readonly how: 'droop'; readonly over: number; readonly droop: number }
  /** Pushed together until it resists, the bend has this radius; m. */
  | { readonly how: 'bend radius'; readonly radius: number };

/** Anything that sits in the line: a cable, an extension, an adapter, a data blocker, a meter. */
export interface CableFacts {
  readonly form: LineElement['kind'];
  /** m from plug to plug; null while not measured. */
  readonly length: number | null;
  /** At the charger, at the device. */
  readonly ends: readonly [near: End, far: End];
  readonly braid: boolean;
  readonly strainRelief: (typeof RELIEFS)[number];
  readonly stiffness: Stiffness | null;
  /** How many there are in what a price is for. */
  readonly pack: number;
}

/** Its two ends, by which readings are kept: at the charger, at the device. */
export const CABLE_PLACES = ['near', 'far'] as const;

/** Where something can be read of a sample: its ports, or the ends of what sits in a line. */
export const placesOf = (sample: {
  readonly kind: string;
  readonly ports: readonly { readonly label: string }[];
}): readonly string[] => (sample.kind === 'cable' ? CABLE_PLACES : sample.ports.map(({ label }) => label));

/** `C plug to C plug, 1.5 m, braided`. */
export function cableWords({ form, ends, length, braid }: CableFacts): string {
  const both = `${ends[0]} to ${ends[1]}`;
  const parts = [form === 'cable' ? both : `${form}, ${both}`];
  if (length !== null) parts.push(`${Number(length.toPrecision(3))} m`);
  if (braid) parts.push('braided');
  return parts.join(', ');
}

/**
 * Price of a metre, on what one of a pack costs.
 * @returns null without a length or a price
 * @example pricePerMetre({ amount: 18, pack: 2, length: 1.5 }) // 6
 */
export function pricePerMetre({
  amount,
  pack,
  length,
}: {
  readonly amount: number;
  readonly pack: number;
  readonly length: number | null;
}): number | null {
  if (!(length !== null && length > 0) || !(pack >= 1) || !(amount >= 0)) return null;
  return amount / pack / length;
}

/**
 * Stiffness as a figure that compares: 1 is a rod, 0 hangs straight down; or the radius it bends to.
 * @example stiffnessWords({ how: 'droop', over: 0.2, droop: 0.05 }) // 'droops 50 mm over 200 mm'
 */
export const stiffnessWords = (of: Stiffness): string =>
  of.how === 'droop'
    ? `droops ${Math.round(of.droop * 1000)} mm over ${Math.round(of.over * 1000)} mm`
    : `bends to a radius of ${Math.round(of.radius * 1000)} mm`;
