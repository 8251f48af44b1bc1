// Offers in words, and back from words.
import { formatPlain, parseDecimal } from '../quantity/index.ts';
import type { SourceObject } from './source.ts';

const volts = (value: number) => formatPlain(value, 'voltage');
const amps = (value: number) => formatPlain(value, 'current');
const watts = (value: number) => formatPlain(value, 'power');
const range = (low: number, high: number) => `${formatPlain(low, 'voltage').replace(' V', '')}–${volts(high)}`;

/** What kind of supply, in the words used everywhere. */
export const SUPPLY_WORDS: Readonly<Record<SourceObject['kind'], string>> = {
  fixed: 'fixed',
  variable: 'variable',
  battery: 'battery',
  pps: 'PPS',
  'epr-avs': 'EPR AVS',
  'spr-avs': 'SPR AVS',
  unknown: 'unknown type',
  empty: 'place holder',
};

/** An offer as one line: `20 V 3.25 A`, `PPS 3.3–21 V 3.25 A`, `EPR AVS 15–28 V 140 W`. */
export function describeOffer(object: SourceObject): string {
  switch (object.kind) {
    case 'fixed':
      return `${volts(object.volts)} ${amps(object.amps)}`;
    case 'variable':
      return `variable ${range(object.minVolts, object.maxVolts)} ${amps(object.amps)}`;
    case 'battery':
      return `battery ${range(object.minVolts, object.maxVolts)} ${watts(object.watts)}`;
    case 'pps':
      return `PPS ${range(object.minVolts, object.maxVolts)} ${amps(object.amps)}`;
    case 'epr-avs':
      return `EPR AVS ${range(object.minVolts, object.maxVolts)} ${watts(object.watts)}`;
    case 'spr-avs':
      return object.ampsAbove > 0
        ? `SPR AVS ${amps(object.amps)} to 15 V, ${amps(object.ampsAbove)} to 20 V`
        : `SPR AVS ${amps(object.amps)} to 15 V`;
    default:
      return SUPPLY_WORDS[object.kind];
  }
}

export type ParsedOffer =
  | { readonly ok: true; readonly object: SourceObject }
  | { readonly ok: false; readonly reason: string };

const NUMBER = '(\\d+(?:[.,]\\d+)?)';
const SPAN = new RegExp(
  `${NUMBER}\\s*(?:(m?)V\\s*)?(?:–|—|-|~|(?:up\\s+)?to|bis|through|…|\\.\\.)\\s*${NUMBER}\\s*(m?)V`,
  'i',
);
/** Two levels of which only the last has its unit: `5 and 9 V`. */
const LISTED = new RegExp(`${NUMBER}\\s*(?:and|und|or|oder|&|\\+)\\s*${NUMBER}\\s*m?V`, 'i');
const all = (text: string, unit: string): number[] =>
  [...text.matchAll(new RegExp(`${NUMBER}\\s*(m?)${unit}(?![a-z])`, 'gi'))].map(
    ([, digits = '', milli]) => parseDecimal(digits) * (milli ? 1e-3 : 1),
  );

/** What kind a line says it is, before its numbers or behind them; null for a plain level. */
function kindIn(line: string, hasPower: boolean, high: number): string | null {
  const said = /\b(spr\s*avs|epr\s*avs|avs|pps|programmable|variable|battery|apdo)\d*\b/i.exec(
    line.replace(/\bapdo\s+(?=\w*\s*(?:avs|pps))/i, ''),
  )?.[1];
  const kind = said?.toLowerCase().replace(/\s+/g, ' ') ?? null;
  // Augmented ones by their currents are programmable, those by their power adjustable; within 20 V both are by currents.
  if (kind === 'programmable') return 'pps';
  if (kind === 'apdo') return hasPower ? 'epr avs' : 'pps';
  return kind === 'avs' && !hasPower && high > 0 && high <= SPR_VOLTS ? 'spr avs' : kind;
}

/** Where the lower part of SPR AVS ends, V. */
const SPR_LOWER = 15;
/** No level of the standard range is above it, V. */
const SPR_VOLTS = 20;

const no = (reason: string): ParsedOffer => ({ ok: false, reason });

/** Read one offer as people write it. @returns the object, or why it was not understood */
export function parseOffer(text: string): ParsedOffer {
  const line = text.trim();
  if (line === '') return no('Nothing typed.');
  const span = SPAN.exec(line);
  // A unit that stands once is that of both ends.
  const [, from = '', own, to = '', milli = ''] = span ?? [];
  const volts = (digits: string, prefix: string) => parseDecimal(digits) * (prefix === '' ? 1 : 1e-3);
  const [low, high] = span ? [volts(from, own ?? milli), volts(to, milli)] : [0, 0];
  const currents = all(line, 'A');
  const powers = all(line, 'W');
  const kind = kindIn(line, powers.length > 0, high);
  if (kind === 'spr avs') {
    // One current with a range to 20 V is that of both parts.
    const [first, second = high > SPR_LOWER ? (currents[0] ?? 0) : 0] = currents;
    if (first === undefined)
      return no('SPR AVS has a current to 15 V, and one to 20 V if it goes there: SPR AVS 3 A / 2.25 A.');
    return { ok: true, object: { kind: 'spr-avs', amps: first, ampsAbove: second, peak: 0, reserved: 0 } };
  }
  if (kind && !span) return no(`Give the range too, such as ${kind} 5–11 V.`);
  if (kind && low >= high) return no(`The range runs from the lower voltage to the higher one.`);
  if (kind === 'epr avs' || kind === 'avs' || kind === 'battery') {
    const [power] = powers;
    if (power === undefined) return no(`This kind is offered by its power, such as ${kind} 15–28 V 140 W.`);
    const ends = { minVolts: low, maxVolts: high, watts: power };
    return {
      ok: true,
      object: kind === 'battery' ? { kind, ...ends } : { kind: 'epr-avs', ...ends, peak: 0, reserved: 0 },
    };
  }
  const [current, another] = currents;
  const levels = all(line, 'V');
  // The first of several would be a guess.
  if (another !== undefined || (!span && (levels.length > 1 || LISTED.test(line))))
    return no('That is more than one offer: give each a line of its own.');
  if (current === undefined) return no('The amps are missing: type it like 9 V 3 A.');
  if (kind === 'pps')
    return {
      ok: true,
      object: { kind, minVolts: low, maxVolts: high, amps: current, powerLimited: /limited/i.test(line), reserved: 0 },
    };
  if (kind === 'variable') return { ok: true, object: { kind, minVolts: low, maxVolts: high, amps: current } };
  if (span) return no('A range is PPS, AVS, variable or battery: say which.');
  const [level] = levels;
  if (level === undefined) return no('The volts are missing: type it like 9 V 3 A.');
  return { ok: true, object: { kind: 'fixed', volts: level, amps: current, peak: 0, flags: [], reserved: 0 } };
}
