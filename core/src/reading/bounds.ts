// What a value can be at all, and what is so unlikely that it is asked about: by quantity and place.
import { formatPlain, type QuantityId } from '../quantity/index.ts';
import type { Place } from './types.ts';

interface Bound {
  /** More than this is possible and hardly ever meant, SI. */
  readonly unlikely: number;
  /** More than this cannot be at a bench for chargers, SI. */
  readonly most: number;
}

/** Less than this, and not zero, is below anything a meter shows, SI. */
const LEAST = 1e-9;

const AT_MAINS: Readonly<Partial<Record<QuantityId, Bound>>> = {
  voltage: { unlikely: 300, most: 1000 },
  current: { unlikely: 16, most: 100 },
  power: { unlikely: 1000, most: 25_000 },
  // 28 Wh a day and 280 kWh in all.
  energy: { unlikely: 1e8, most: 1e9 },
  // Eight days and four months.
  duration: { unlikely: 691_200, most: 1e7 },
};

/** The highest level there is has 48 V and 5 A; a bench supply or an old charger may have more. */
const AT_OUTPUT: typeof AT_MAINS = {
  ...AT_MAINS,
  voltage: { unlikely: 55, most: 100 },
  current: { unlikely: 12, most: 60 },
  power: { unlikely: 260, most: 5000 },
};

const boundOf = (quantity: QuantityId, place: Place): Bound | undefined =>
  (place === 'mains' ? AT_MAINS : AT_OUTPUT)[quantity];

const where = (place: Place): string => (place === 'mains' ? 'at the mains' : 'at a port');

/**
 * Why a value cannot be, in a sentence; null when it can.
 * @param value SI
 * @example impossible({ quantity: 'power', place: 'mains', value: 1e155, typed: '1e155' }) // "1e155: at most 25 kW …"
 */
export function impossible({
  quantity,
  place,
  value,
  typed,
}: {
  readonly quantity: QuantityId;
  readonly place: Place;
  readonly value: number | null;
  readonly typed: string;
}): string | null {
  if (value === null) return null;
  const bound = boundOf(quantity, place);
  if (!bound || !Number.isFinite(value)) return null;
  const size = Math.abs(value);
  if (size > bound.most)
    return `${typed} ${where(place)}: at most ${formatPlain(bound.most, quantity)} can be entered. Check the unit.`;
  if (size > 0 && size < LEAST) return `${typed} is smaller than anything a meter shows. Check the unit, or type 0.`;
  return null;
}

/** What to ask about an unlikely value; null for one nobody needs to be asked about. */
export function unlikely(entry: {
  readonly quantity: QuantityId;
  readonly place: Place;
  readonly value: number | null;
  readonly typed: string;
}): string | null {
  const { quantity, place, value } = entry;
  const bound = boundOf(quantity, place);
  if (value === null || !bound || Math.abs(value) <= bound.unlikely || impossible(entry)) return null;
  return `${formatPlain(value, quantity)} ${where(place)} is unlikely: more than ${formatPlain(bound.unlikely, quantity)}. Check the unit.`;
}
