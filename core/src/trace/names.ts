// Names of columns as programs write them, taken apart into a name and a unit: `vin [mV]`, `time_s`, `T_front_C`, `power (W)`.
import { headerParts, LASTS } from '../table/index.ts';
import type { ChannelQuantity } from './types.ts';

/** Units as they trail a name after an underscore, in any case. */
const TRAILING: Readonly<Record<string, string>> = {
  s: 's',
  sec: 's',
  secs: 's',
  seconds: 's',
  ms: 'ms',
  us: 'µs',
  µs: 'µs',
  ns: 'ns',
  min: 'min',
  mins: 'min',
  minutes: 'min',
  h: 'h',
  hr: 'h',
  hours: 'h',
  v: 'V',
  mv: 'mV',
  uv: 'µV',
  volt: 'V',
  volts: 'V',
  a: 'A',
  ma: 'mA',
  ua: 'µA',
  amp: 'A',
  amps: 'A',
  w: 'W',
  mw: 'mW',
  kw: 'kW',
  watt: 'W',
  watts: 'W',
  wh: 'Wh',
  mwh: 'mWh',
  c: '°C',
  degc: '°C',
  celsius: '°C',
  f: '°F',
  degf: '°F',
  k: 'K',
  kelvin: 'K',
  pct: '%',
  percent: '%',
};
/** Units written out or otherwise than they are looked up. */
const WRITTEN: Readonly<Record<string, string>> = {
  s: 's',
  ms: 'ms',
  us: 'µs',
  ns: 'ns',
  second: 's',
  seconds: 's',
  sec: 's',
  secs: 's',
  msec: 'ms',
  millisecond: 'ms',
  milliseconds: 'ms',
  usec: 'µs',
  µsec: 'µs',
  microsecond: 'µs',
  microseconds: 'µs',
  nsec: 'ns',
  nanosecond: 'ns',
  nanoseconds: 'ns',
  minute: 'min',
  minutes: 'min',
  hour: 'h',
  hours: 'h',
  millivolt: 'mV',
  millivolts: 'mV',
  microvolt: 'µV',
  microvolts: 'µV',
  milliamp: 'mA',
  milliamps: 'mA',
  milliampere: 'mA',
  milliwatt: 'mW',
  milliwatts: 'mW',
  volt: 'V',
  volts: 'V',
  amp: 'A',
  amps: 'A',
  ampere: 'A',
  amperes: 'A',
  watt: 'W',
  watts: 'W',
  'deg c': '°C',
  degc: '°C',
  c: '°C',
  f: '°F',
  celsius: '°C',
  kelvin: 'K',
  'w.h': 'Wh',
};
const BARE_UNIT = /^(?:[mk]?W|[mµu]?V|[mµu]?A|m?Wh|°C|%)$/;
/** What is lettered: "sensor A" is no current. */
const LETTERED = /(?:sensor|port|channel|probe|point|side|zone|group|unit)[ _-][a-z]$/i;

const LONG_UNIT = /^(?:°[CF]|deg[CF]|[mµuk]V|[mµu]A|[mk]W|m?Wh|ms|us|µs|%)$/;
const LETTER_UNIT: Readonly<Record<string, ChannelQuantity>> = {
  V: 'voltage',
  A: 'current',
  W: 'power',
  C: 'temperature',
};

/** Whether what stands behind a name after a blank is its unit: `front °F`, `Vbus V`; the C of `Output C` is a letter. */
const isUnitBehind = (name: string, text: string): boolean =>
  LONG_UNIT.test(text) || (text in LETTER_UNIT && quantityByName(name) === LETTER_UNIT[text]);

/** A header cell as name and unit; the unit is empty where none is written. */
export function nameAndUnit(cell: string): { readonly name: string; readonly unit: string } {
  const whole = cell.trim();
  if (LETTERED.test(whole)) return { name: whole, unit: '' };
  const { name, unit } = headerParts(whole);
  if (unit !== '') return { name, unit: WRITTEN[unit.toLowerCase()] ?? unit };
  const apart = /^(.+?)\s+(\S+)$/.exec(whole);
  if (apart && isUnitBehind(apart[1] ?? '', apart[2] ?? '')) return { name: apart[1] ?? '', unit: apart[2] ?? '' };
  const [, base = '', last = ''] = /^(.+?)_+([a-zµ]+)$/i.exec(whole) ?? [];
  const trailing = TRAILING[last.toLowerCase()];
  if (trailing === 'min' && !LASTS.test(base)) return { name: whole, unit: '' };
  // `deg_C`, where the underscore stands in the unit itself.
  if (trailing) return { name: base.replace(/_?deg$/i, ''), unit: trailing };
  // A column called by nothing but its unit, short or written out.
  if (whole.length > 2 && whole.toLowerCase() in WRITTEN) return { name: whole, unit: unitWritten(whole) };
  return { name: whole, unit: BARE_UNIT.test(whole) ? whole : '' };
}

export const unitWritten = (unit: string): string => WRITTEN[unit.toLowerCase()] ?? unit;

/** A name as words: underscores, dots and hyphens are blanks. */
export const words = (name: string): string => name.replace(/[_.-]+/g, ' ').trim();

const MOST_TOLD = 4;

/** What is said of columns without a unit, each with the one it was taken in; nothing of none. */
export const assumedSays = (columns: readonly (readonly [name: string, unit: string])[]): string[] =>
  columns.length === 0
    ? []
    : [
        `No unit is stated: ${columns
          .slice(0, MOST_TOLD)
          .map(([name, unit]) => `"${name}" in ${unit}`)
          .join(', ')} is assumed.`,
      ];

export const TIME_NAME =
  /^(?:(?:t|ts|x)$|(?:x axis|time|epoch|unix|times?tamp|seconds?|secs?|minutes?|mins?|hours?|elapsed|zeit|datum|date|datetime|clock|uptime|duration|when)(?:\b|$))/i;
export const INDEX_NAME = /^(?:#|n|no|nr|index|idx|sample|samples|sequence|seq|point|count|record|row|line|counter)$/i;
export const AMBIENT_NAME = /ambient|\bamb\b|^t ?amb|room|\bair\b|chamber|environment|surrounding|umgebung|raum/i;

const BY_NAME: readonly (readonly [ChannelQuantity, RegExp])[] = [
  [
    'temperature',
    /temp|celsius|thermo|surface|hot ?spot|\bcase\b|^t ?\d+$|^t [a-z]|^t(?:case|amb|front|back|side|surf|hot|max|skin)/i,
  ],
  ['temperature', AMBIENT_NAME],
  ['level', /battery ?level|^level|\bsoc\b|state of charge|charge ?level|percent/i],
  ['energy', /energy|watt ?hours?|^wh$|^e$/i],
  ['power', /power|watt|^p\d*$|^p ?(?:in|out|bus|dc|ac|load|port)$/i],
  ['current', /curr|\bamps?\b|^i\d*$|^i ?(?:in|out|bus|dc|ac|load|port)$/i],
  ['voltage', /volt|^[vu]\d*$|^[vu] ?(?:in|out|bus|dc|ac|load|port)$|ripple/i],
];

/** What a column without a unit holds, by its name; null where that does not say it. */
export const quantityByName = (name: string): ChannelQuantity | null =>
  BY_NAME.find(([, pattern]) => pattern.test(words(name)))?.[0] ?? null;
