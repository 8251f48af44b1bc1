// Generations of data links, and what a copied file proves of them.

/** A generation: what it signals at, and the most a file can be copied at over it. */
export interface Generation {
  readonly name: string;
  /** bit/s on the wire. */
  readonly bits: number;
  /** bit/s of payload at most, its coding taken off: 8 of 10, or 128 of 132. */
  readonly payload: number;
}

/** USB 3.2, 3.2.1 and table 5-1 for codings; USB 2.0, 5.8.4: 13 packets of 512 bytes a microframe. USB4 2.0, 4.2. */
export const GENERATIONS: readonly Generation[] = [
  { name: '480 Mbit/s', bits: 480e6, payload: 425.984e6 },
  { name: '5 Gbit/s', bits: 5e9, payload: 4e9 },
  { name: '10 Gbit/s', bits: 10e9, payload: (10e9 * 128) / 132 },
  { name: '20 Gbit/s', bits: 20e9, payload: (20e9 * 128) / 132 },
  { name: '40 Gbit/s', bits: 40e9, payload: (40e9 * 128) / 132 },
  { name: '80 Gbit/s', bits: 80e9, payload: 80e9 },
];

/** The generation of a rate that is printed; null for one that is none. */
export const generationOf = (bits: number): Generation | null =>
  GENERATIONS.find((one) => Math.abs(one.bits - bits) <= 0.02 * one.bits) ?? null;

/**
 * The slowest link that could have carried a rate: so much is proven, and no more. A copy is never quicker than its link, and
 * often slower by what the drives do.
 * @param rate bit/s of payload
 * @returns null where no link carries it
 * @example linkNeeded(7.2e9)?.name // '10 Gbit/s'
 */
export const linkNeeded = (rate: number): Generation | null =>
  rate > 0 ? (GENERATIONS.find(({ payload }) => rate <= payload) ?? null) : null;

/** Most a cable may carry by the speed code of its marker, both lanes together, bit/s. USB PD R3.2, 6.4.4.3.1.6. */
export const MARKER_BITS: readonly number[] = [480e6, 10e9, 20e9, 40e9, 80e9];

const MEGA = 1e6;
/** `38.4 MB/s` */
export const rateWords = (bits: number): string => `${Number((bits / 8 / MEGA).toPrecision(3))} MB/s`;
/** `480 Mbit/s`, `10 Gbit/s` */
export const bitsWords = (bits: number): string =>
  bits >= 1e9 ? `${Number((bits / 1e9).toPrecision(3))} Gbit/s` : `${Number((bits / MEGA).toPrecision(3))} Mbit/s`;
