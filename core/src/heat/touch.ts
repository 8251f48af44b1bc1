// What a surface may reach where it is touched, and what a thermal camera set to an emissivity of 1 really saw.

/** What one touches. */
export const SURFACES = ['plastic', 'glass', 'metal'] as const;
export type Surface = (typeof SURFACES)[number];

/** A set of limits, as data with its source; to be confirmed against the current text. */
export interface TouchLimits {
  readonly id: string;
  readonly title: string;
  readonly source: string;
  /** °C by surface: touched for 1 to 10 s, as a body gripped to unplug it; and not touched in use. */
  readonly gripped: Readonly<Record<Surface, number>>;
  readonly untouched: Readonly<Record<Surface, number>>;
}

/** IEC 62368-1:2018, table 38, TS1; at 25 °C, where the product's own rated ambient is not above. */
export const TOUCH_TS1: TouchLimits = {
  id: 'iec-62368-1-ts1',
  title: 'Touch temperature TS1',
  source: 'IEC 62368-1:2018 (edition 3), table 38; confirm against the current text',
  gripped: { plastic: 77, glass: 71, metal: 60 },
  untouched: { plastic: 94, glass: 85, metal: 70 },
};

const ZERO = 273.15;

/**
 * True temperature of a spot a camera set to ε = 1 shows as `shown`: T = ((Tm⁴ − (1 − ε)·Trefl⁴)/ε)^¼ in kelvin.
 * @param shown °C
 * @param emissivity above 0, at most 1
 * @param reflected what is mirrored in it, °C
 * @returns °C; null where no temperature would show so, or the surface mirrors too much to be trusted
 * @example spotCelsius(45, 0.9, 23) // 47.18
 */
export function spotCelsius(shown: number, emissivity: number, reflected: number): number | null {
  if (!(emissivity >= LEAST_EMISSIVITY && emissivity <= 1)) return null;
  const power = ((shown + ZERO) ** 4 - (1 - emissivity) * (reflected + ZERO) ** 4) / emissivity;
  return power > 0 ? power ** 0.25 - ZERO : null;
}

/** Bare metal mirrors its surroundings: below this a picture of it says nothing. */
export const LEAST_EMISSIVITY = 0.5;
