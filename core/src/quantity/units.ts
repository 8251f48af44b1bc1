// The quantities Lastmark measures and the units people write them in. Everything inside the program is SI.

/** A quantity a reading can have. */
export type QuantityId =
  | 'voltage'
  | 'current'
  | 'power'
  | 'energy'
  | 'duration'
  | 'power-factor'
  | 'efficiency'
  | 'temperature'
  | 'resistance'
  | 'frequency'
  | 'mass'
  | 'length';

/** 0 °C in kelvin. Source: SI Brochure, 9th ed., 2.3.1. */
export const ZERO_CELSIUS = 273.15;

/** How one unit converts to SI: si = value · factor + offset. */
export interface Unit {
  readonly symbol: string;
  readonly factor: number;
  readonly offset?: number;
  /** Other spellings people and meters use. */
  readonly also?: readonly string[];
}

export interface Quantity {
  readonly id: QuantityId;
  readonly label: string;
  /** Symbol of the SI unit values are stored in. Empty for pure ratios. */
  readonly si: string;
  /** Unit taken when a value is typed without one. */
  readonly usual: string;
  readonly units: readonly Unit[];
}

const unit = (symbol: string, factor: number, also: readonly string[] = [], offset = 0): Unit => ({
  symbol,
  factor,
  offset,
  also,
});

const TABLE: readonly Quantity[] = [
  {
    id: 'voltage',
    label: 'Voltage',
    si: 'V',
    usual: 'V',
    units: [
      unit('V', 1, ['volt', 'volts', 'Vrms', 'Vdc', 'Vac']),
      unit('mV', 1e-3),
      unit('µV', 1e-6, ['uV', 'μV']),
      unit('kV', 1e3),
    ],
  },
  {
    id: 'current',
    label: 'Current',
    si: 'A',
    usual: 'A',
    units: [
      unit('A', 1, ['amp', 'amps', 'ampere', 'amperes', 'Arms', 'Adc']),
      unit('mA', 1e-3),
      unit('µA', 1e-6, ['uA', 'μA']),
    ],
  },
  {
    id: 'power',
    label: 'Power',
    si: 'W',
    usual: 'W',
    units: [unit('W', 1, ['watt', 'watts']), unit('mW', 1e-3), unit('µW', 1e-6, ['uW', 'μW']), unit('kW', 1e3)],
  },
  {
    id: 'energy',
    label: 'Energy',
    si: 'J',
    usual: 'Wh',
    units: [unit('Wh', 3600), unit('mWh', 3.6), unit('kWh', 3.6e6), unit('J', 1), unit('kJ', 1e3)],
  },
  {
    id: 'duration',
    label: 'Duration',
    si: 's',
    usual: 'min',
    units: [
      unit('min', 60, ['minutes', 'minute', 'mins']),
      unit('s', 1, ['sec', 'secs', 'second', 'seconds']),
      unit('ms', 1e-3, ['msec', 'millisecond', 'milliseconds']),
      unit('µs', 1e-6, ['us', 'microseconds']),
      unit('h', 3600, ['hour', 'hours', 'hr', 'hrs']),
    ],
  },
  { id: 'power-factor', label: 'Power factor', si: '', usual: '', units: [unit('', 1), unit('%', 0.01)] },
  { id: 'efficiency', label: 'Efficiency', si: '', usual: '%', units: [unit('%', 0.01), unit('', 1)] },
  {
    id: 'temperature',
    label: 'Temperature',
    si: 'K',
    usual: '°C',
    units: [
      unit('°C', 1, ['C', 'degC', 'deg C', 'celsius', 'ºC', '˚C', '℃'], ZERO_CELSIUS),
      unit('°F', 5 / 9, ['F', 'degF', 'deg F', 'fahrenheit', 'ºF', '˚F', '℉'], ZERO_CELSIUS - (32 * 5) / 9),
      unit('K', 1, ['kelvin']),
    ],
  },
  {
    id: 'resistance',
    label: 'Resistance',
    si: 'Ω',
    usual: 'mΩ',
    units: [
      unit('mΩ', 1e-3, ['mohm', 'mOhm']),
      unit('Ω', 1, ['ohm', 'Ohm', 'Ω']),
      unit('kΩ', 1e3, ['kohm', 'kOhm', 'kΩ']),
      unit('MΩ', 1e6, ['Mohm', 'MOhm', 'MΩ']),
    ],
  },
  { id: 'frequency', label: 'Frequency', si: 'Hz', usual: 'Hz', units: [unit('Hz', 1), unit('kHz', 1e3)] },
  {
    id: 'mass',
    label: 'Mass',
    si: 'kg',
    usual: 'g',
    units: [unit('g', 1e-3), unit('kg', 1), unit('oz', 0.028349523125), unit('lb', 0.45359237, ['lbs'])],
  },
  {
    id: 'length',
    label: 'Length',
    si: 'm',
    usual: 'mm',
    units: [
      unit('mm', 1e-3),
      unit('cm', 1e-2),
      unit('m', 1),
      unit('in', 0.0254, ['"']),
      unit('ft', 0.3048, ['feet', 'foot']),
    ],
  },
];

const BY_ID = new Map(TABLE.map((quantity) => [quantity.id, quantity]));

/** All quantities, in the order shown to people. */
export const QUANTITIES = TABLE;

/** The quantity with this id. Throws RangeError for an id the table does not have. */
export function quantityOf(id: QuantityId): Quantity {
  const found = BY_ID.get(id);
  if (!found) throw new RangeError(`Unknown quantity "${id}".`);
  return found;
}

/**
 * Find a unit of a quantity by what was written. Spelling decides (`mW` is not `MW`); only when nothing matches as
 * written is letter case ignored, and then only where that leaves one candidate.
 */
export function findUnit(id: QuantityId, written: string): Unit | undefined {
  const { units } = quantityOf(id);
  const names = (candidate: Unit) => [candidate.symbol, ...(candidate.also ?? [])];
  const exact = units.find((candidate) => names(candidate).includes(written));
  if (exact || written.startsWith('M')) return exact;
  const lower = written.toLowerCase();
  const loose = units.filter((candidate) => names(candidate).some((name) => name.toLowerCase() === lower));
  return loose.length === 1 ? loose[0] : undefined;
}

/** Convert a value in a unit to SI. */
export const toSi = (value: number, from: Unit): number => value * from.factor + (from.offset ?? 0);

/** Convert an SI value to a unit. */
export const fromSi = (value: number, to: Unit): number => (value - (to.offset ?? 0)) / to.factor;
