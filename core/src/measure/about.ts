// What samples are compared by: each measure with its unit, which way is better, and what its values hold under.
import { decimalsFor, fixed, roundUp } from '../quantity/index.ts';

/** Which way a measure is better; null where neither is. */
export type Better = 'less' | 'more' | null;

export interface MeasureAbout {
  readonly id: string;
  readonly title: string;
  /** As it is shown: SI × factor. */
  readonly unit: string;
  readonly factor: number;
  /** The unit in powers of SI base units and money, for formulas: `kg/W`. */
  readonly dimension: string;
  readonly better: Better;
  /** Chargers, or what sits in a line. */
  readonly of: 'chargers' | 'cables' | 'both';
}

const PER_WATT = { better: 'less', of: 'chargers' } as const;

/** Every measure, in the order of the work. */
export const MEASURES = [
  { id: 'watts', title: 'Nameplate', unit: 'W', factor: 1, dimension: 'W', better: null, of: 'chargers' },
  { id: 'ports', title: 'Ports', unit: '', factor: 1, dimension: '', better: null, of: 'chargers' },
  { id: 'mass', title: 'Mass', unit: 'g', factor: 1000, dimension: 'kg', better: 'less', of: 'both' },
  { id: 'volume', title: 'Volume', unit: 'cm³', factor: 1e6, dimension: 'm^3', better: 'less', of: 'chargers' },
  { id: 'mass-per-watt', title: 'Mass per watt', unit: 'g/W', factor: 1000, dimension: 'kg/W', ...PER_WATT },
  { id: 'size-per-watt', title: 'Size per watt', unit: 'cm³/W', factor: 1e6, dimension: 'm^3/W', ...PER_WATT },
  { id: 'price', title: 'Price', unit: '', factor: 1, dimension: 'money', better: 'less', of: 'both' },
  { id: 'price-per-watt', title: 'Price per watt', unit: '/W', factor: 1, dimension: 'money/W', ...PER_WATT },
  { id: 'price-per-port', title: 'Price per port', unit: '/port', factor: 1, dimension: 'money', ...PER_WATT },
  {
    id: 'price-per-metre',
    title: 'Price per metre',
    unit: '/m',
    factor: 1,
    dimension: 'money/m',
    better: 'less',
    of: 'cables',
  },
  { id: 'proven-share', title: 'Promises proven', unit: '%', factor: 100, dimension: '', better: 'more', of: 'both' },
  { id: 'hold', title: 'Full power held', unit: 'min', factor: 1 / 60, dimension: 's', better: 'more', of: 'chargers' },
  { id: 'idle', title: 'Idle', unit: 'mW', factor: 1000, dimension: 'W', ...PER_WATT },
  { id: 'use-loss', title: 'Lost in a year of use', unit: 'kWh', factor: 1 / 3.6e6, dimension: 'W*s', ...PER_WATT },
  {
    id: 'average-efficiency',
    title: 'Average efficiency',
    unit: '%',
    factor: 100,
    dimension: '',
    better: 'more',
    of: 'chargers',
  },
  {
    id: 'light-load-efficiency',
    title: 'Efficiency at 10 % load',
    unit: '%',
    factor: 100,
    dimension: '',
    better: 'more',
    of: 'chargers',
  },
  { id: 'full-load-loss', title: 'Loss at full load', unit: 'W', factor: 1, dimension: 'W', ...PER_WATT },
  {
    id: 'served',
    title: 'Power for my devices',
    unit: '%',
    factor: 100,
    dimension: '',
    better: 'more',
    of: 'chargers',
  },
  { id: 'charge-time', title: 'Charge time', unit: 'min', factor: 1 / 60, dimension: 's', ...PER_WATT },
  { id: 'ripple', title: 'Ripple', unit: 'mV', factor: 1000, dimension: 'V', ...PER_WATT },
  { id: 'touch-rise', title: 'Rise of the hottest point', unit: 'K', factor: 1, dimension: 'K', ...PER_WATT },
  {
    id: 'rise-per-watt',
    title: 'Rise per watt lost',
    unit: 'K/W',
    factor: 1,
    dimension: 'K/W',
    better: null,
    of: 'chargers',
  },
  { id: 'length', title: 'Length', unit: 'm', factor: 1, dimension: 'm', better: null, of: 'cables' },
  {
    id: 'loop-resistance',
    title: 'Resistance there and back',
    unit: 'mΩ',
    factor: 1000,
    dimension: 'ohm',
    better: 'less',
    of: 'cables',
  },
  {
    id: 'resistance-per-metre',
    title: 'Resistance per metre',
    unit: 'mΩ/m',
    factor: 1000,
    dimension: 'ohm/m',
    better: 'less',
    of: 'cables',
  },
  { id: 'bends', title: 'Bends survived', unit: '', factor: 1, dimension: '', better: 'more', of: 'cables' },
] as const satisfies readonly MeasureAbout[];

export type MeasureId = (typeof MEASURES)[number]['id'];
export const MEASURE_IDS = MEASURES.map(({ id }) => id) as readonly MeasureId[];

/** @throws RangeError for an id nobody knows */
export function measureAbout(id: string): MeasureAbout {
  const about = MEASURES.find((one) => one.id === id);
  if (!about) throw new RangeError(`There is no measure ${id}.`);
  return about;
}

/** One value of a measure: what it holds under, how well it is known, and which meters are behind it. SI. */
export interface MeasureValue {
  readonly measure: MeasureId;
  /** Under which condition; empty where there is none. Values under unlike conditions are never compared. */
  readonly condition: string;
  readonly value: number;
  /** Standard uncertainty, SI; null while it is not known; 0 for what is counted or taken from print. */
  readonly u: number | null;
  /** The part of it that is common to everything the same meters read, SI. */
  readonly common: number;
  /** Meters behind it, one name for one set of them; empty for none. */
  readonly meters: string;
  /** When it was taken, UTC ISO 8601; null where nobody noted it. */
  readonly at: string | null;
  /** It is surely not more than this: the meter reads no lower. */
  readonly below: boolean;
}

/** Coverage of what is said with ±: about 95 %. */
const K = 2;

/**
 * A value in the unit of its measure: `91.7 ± 0.4 %`, `below 20 mW`.
 * @param about measure or formula @param u standard uncertainty, SI; null while unknown, 0 for none to tell
 * @example measureWords(measureAbout('idle'), { value: 0.042, u: 0.0009, below: false }) // '42.0 ± 1.8 mW'
 */
export function measureWords(
  { unit, factor }: Pick<MeasureAbout, 'unit' | 'factor'>,
  { value, u, below }: Pick<MeasureValue, 'value' | 'u' | 'below'>,
): string {
  const shown = value * factor;
  const join = (number: string) => (unit === '' || unit.startsWith('/') ? `${number}${unit}` : `${number} ${unit}`);
  if (!Number.isFinite(shown)) return '–';
  const plain = String(Number(shown.toPrecision(4))).replace(/^-/, '\u2212');
  if (below) return join(`below ${plain}`);
  if (u === null) return join(`${plain} ± ?`);
  const expanded = K * u * Math.abs(factor);
  if (!(expanded > 0)) return join(plain);
  const decimals = decimalsFor(expanded);
  return join(`${fixed(shown, decimals)} ± ${fixed(roundUp(expanded, decimals), decimals)}`);
}
